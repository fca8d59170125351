import { useState } from 'react';
import { call } from '../../lib/api';
import { minutesWords } from '../../lib/format';
import { useWrite } from '../../lib/queries';

/** Says how much work is left in a step, in hours; an empty field puts the whole effort back. The prediction goes by it. */
export function RemainingField({ stepId, title, leftMinutes }: { stepId: string; title: string; leftMinutes: number }) {
  const [state, setState] = useState<'shown' | 'typing' | 'back'>('shown');
  const say = useWrite((minutes: number | null) => call(`/steps/${stepId}/remaining`, { method: 'PUT', body: { minutes } }));
  const shown = say.isPending && say.variables !== null ? say.variables : leftMinutes;
  const finish = (text: string) => {
    setState((now) => (now === 'typing' ? 'shown' : now));
    const hours = text.trim() === '' ? null : Number(text);
    if (hours !== null && !(hours >= 0 && hours <= 1000)) return;
    const minutes = hours === null ? null : Math.round(hours * 60);
    if (minutes !== leftMinutes) say.mutate(minutes);
  };
  if (state !== 'typing')
    return (
      <button
        type="button"
        className="underline decoration-dotted underline-offset-4 min-h-6 whitespace-nowrap"
        aria-label={`${minutesWords(shown)} left in ${title}. Say how much`}
        // by keyboard, the focus comes back to where it was
        ref={(button) => void (state === 'back' && button?.focus())}
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
        max={1000}
        step={0.25}
        autoFocus
        defaultValue={leftMinutes / 60}
        onFocus={(event) => event.target.select()}
        onBlur={(event) => finish(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== 'Escape') return;
          event.preventDefault(); // else the same key presses the button that comes back
          if (event.key === 'Enter') finish(event.currentTarget.value);
          setState('back');
        }}
      />
      h left
    </label>
  );
}
