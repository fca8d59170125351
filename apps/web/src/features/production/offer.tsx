import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { call, wordsOf } from '../../lib/api';
import { useKept } from '../../lib/kept';
import { useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** A step that was given to somebody who works freelance: they take it on, or say that they cannot and why. */
export function Offer({ stepId, title }: { stepId: string; title: string }) {
  const { opened, open, close } = useOpened();
  const accept = useWrite(() => call(`/steps/${stepId}/accept`, { method: 'POST' }));
  return (
    <span className="flex flex-wrap items-center gap-2 my-1">
      <span className="text-lake font-medium">Do you take it on?</span>
      <Button aria-label={`Take it on: ${title}`} disabled={accept.isPending} onClick={() => accept.mutate(undefined)}>
        Take it on
      </Button>
      <Button look="quiet" aria-label={`I cannot… ${title}`} onClick={() => open(`turn-down-${stepId}`)}>
        I cannot…
      </Button>
      {opened === `turn-down-${stepId}` && <TurnDownDialog stepId={stepId} title={title} onClose={close} />}
    </span>
  );
}

function TurnDownDialog({ stepId, title, onClose }: { stepId: string; title: string; onClose: () => void }) {
  const [kept, setKept] = useKept<string>(`step:${stepId}:turn-down`);
  const [wrong, setWrong] = useState<string>();
  const [error, setError] = useState<string>();
  const turn = useWrite((words: string) => call(`/steps/${stepId}/turn-down`, { method: 'POST', body: { words } }), { quiet: true });
  const words = (kept ?? '').trim();
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    if (words === '') return setError('Say why: it helps to find somebody else.');
    setError(undefined);
    turn.mutate(words, {
      onSuccess: () => {
        setKept(null);
        onClose();
        toast(`${title} goes back`);
      },
      onError: (problem) => setWrong(wordsOf(problem)),
    });
  };
  return (
    <FormDialog
      form={{ onSubmit, wrong, busy: turn.isPending }}
      onClose={onClose}
      title={`Turn down “${title}”`}
      description="It is nobody’s again, and who gave it hears at once."
      action="Turn it down"
      look="danger"
    >
      <Field label="Why" required error={error}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={3}
            maxLength={1000}
            value={kept ?? ''}
            onChange={({ target }) => setKept(target.value || null)}
          />
        )}
      </Field>
    </FormDialog>
  );
}
