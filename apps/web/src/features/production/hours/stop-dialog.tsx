import type { StopClockBody } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { call, wordsOf } from '../../../lib/api';
import { useWrite } from '../../../lib/queries';
import { Field } from '../../../ui/field';
import { FormDialog } from '../../../ui/form-dialog';
import { parseHours } from './hours-words';

/** A clock that was forgotten: how long it was is typed. */
export function StopDialog({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<string>();
  const [error, setError] = useState<string>();
  const stop = useWrite((body: StopClockBody) => call('/clock/stop', { method: 'POST', body }), { quiet: true });
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    const minutes = parseHours(text);
    if (minutes === null) return setError('Type a time up to twelve hours, such as 1:30, 1.5 or 90 min.');
    setError(undefined);
    stop.mutate({ minutes }, { onSuccess: onClose, onError: (problem) => setWrong(wordsOf(problem)) });
  };
  return (
    <FormDialog
      form={{ onSubmit, wrong, busy: stop.isPending }}
      onClose={onClose}
      title="How long was it?"
      description="The clock ran for more than twelve hours: it was forgotten."
      action="Put it down"
    >
      <Field label="Worked" error={error} help="1:30, 1.5 or 90 min" required>
        {(control) => <input {...control} className="field" value={text} onChange={({ target }) => setText(target.value)} />}
      </Field>
    </FormDialog>
  );
}
