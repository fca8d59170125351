import { useQuery } from '@tanstack/react-query';
import type { HoursBody } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { hoursQuery } from '../../../api/production';
import { call, wordsOf } from '../../../lib/api';
import { dayWords, minutesWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { Button } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { Field } from '../../../ui/field';
import { parseHours } from './hours-words';

/** The hours of a step, and those that are typed today. */
export function HoursDialog({ stepId, title, onClose }: { stepId: string; title: string; onClose: () => void }) {
  const { data } = useQuery(hoursQuery(stepId));
  const [text, setText] = useState('');
  const [error, setError] = useState<string>();
  const add = useWrite((body: HoursBody) => call(`/steps/${stepId}/hours`, { method: 'POST', body }), { quiet: true });
  const remove = useWrite((id: string) => call(`/worked/${id}`, { method: 'DELETE' }));
  const send = (event: FormEvent) => {
    event.preventDefault();
    const minutes = parseHours(text);
    if (minutes === null) return setError('Type a time up to twelve hours, such as 1:30, 1.5 or 90 min.');
    setError(undefined);
    add.mutate({ minutes }, { onSuccess: () => setText(''), onError: (problem) => setError(wordsOf(problem)) });
  };
  return (
    <Dialog open onClose={onClose} title={`Hours of “${title}”`} description="What is left of the step goes down by them.">
      <form onSubmit={send} noValidate className="flex flex-wrap items-start gap-2">
        <div className="flex-1 min-w-40">
          <Field label="Worked today" error={error} help="1:30, 1.5 or 90 min">
            {(control) => <input {...control} className="field" value={text} onChange={({ target }) => setText(target.value)} />}
          </Field>
        </div>
        <Button type="submit" look="main" className="mt-6" disabled={add.isPending}>
          Add
        </Button>
      </form>
      {data && data.worked.length > 0 && (
        <ul aria-label="Hours so far" className="border-t border-line mt-2">
          {data.worked.map((worked) => (
            <li key={worked.id} className="flex flex-wrap items-center gap-x-3 py-1 border-b border-line">
              <span className="tabular">{dayWords(worked.on)}</span>
              <span>{worked.personName}</span>
              <span className="ml-auto tabular">{worked.minutes === null ? 'the clock runs' : minutesWords(worked.minutes)}</span>
              {worked.canRemove && (
                <button
                  type="button"
                  className="text-muted underline min-h-6 text-[13px]"
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(worked.id)}
                >
                  Take back
                </button>
              )}
            </li>
          ))}
          <li className="flex py-1 font-medium">
            In all <span className="ml-auto tabular">{minutesWords(data.minutes)}</span>
          </li>
        </ul>
      )}
    </Dialog>
  );
}
