import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { minutesWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';

const MOST_HOURS = 1000;

/** Says how much work is left in a step, in hours; an empty field puts the whole effort back. The prediction goes by it. */
export function RemainingField({ stepId, title, leftMinutes }: { stepId: string; title: string; leftMinutes: number }) {
  const [state, setState] = useState<'shown' | 'typing' | 'back'>('shown');
  const say = useWrite((minutes: number | null) => call(`/steps/${stepId}/remaining`, { method: 'PUT', body: { minutes } }));
  const shown = say.isPending && say.variables !== null ? say.variables : leftMinutes;
  /** Stores what was typed and says whether it could be read; an empty field is an answer too, one with letters is not. */
  const finish = ({ value, validity }: HTMLInputElement): boolean => {
    if (validity.badInput || validity.rangeUnderflow || validity.rangeOverflow) {
      toast.error(`Hours left are a number from 0 to ${MOST_HOURS}. Nothing was changed.`);
      return false;
    }
    const hours = value === '' ? null : Number(value);
    const minutes = hours === null ? null : Math.round(hours * 60);
    if (minutes !== leftMinutes) say.mutate(minutes);
    return true;
  };
  if (state !== 'typing')
    return (
      <button
        type="button"
        className="underline decoration-dotted underline-offset-4 min-h-6 whitespace-nowrap"
        aria-label={`${minutesWords(shown)} left in ${title}. Say how much`}
        // by keyboard, the focus comes back to where it was, once
        autoFocus={state === 'back'}
        onClick={() => setState('typing')}
      >
        {minutesWords(shown)} left
      </button>
    );
  return (
    <label className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <span className="sr-only">{title}: hours left</span>
      <input
        type="number"
        className="field !w-20 !min-h-7 !py-0"
        min={0}
        max={MOST_HOURS}
        step="any"
        autoFocus
        defaultValue={leftMinutes / 60}
        onFocus={(event) => event.target.select()}
        onBlur={(event) => {
          finish(event.target);
          setState((now) => (now === 'typing' ? 'shown' : now));
        }}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== 'Escape') return;
          event.preventDefault(); // else the same key presses the button that comes back
          if (event.key === 'Escape' || finish(event.currentTarget)) setState('back');
        }}
      />
      h left
    </label>
  );
}
