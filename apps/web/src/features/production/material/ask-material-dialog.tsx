import { useQuery } from '@tanstack/react-query';
import { AskMaterialBody, type AskMaterialShape, type StepShape } from '@zesting/contract';
import { toast } from 'sonner';
import { askingQuery } from '../../../api/material';
import { call, wordsOf } from '../../../lib/api';
import { dayWords } from '../../../lib/format';
import { useDaysOff, useSession, useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { DayField } from '../../../ui/day-field';
import { Dialog } from '../../../ui/dialog';
import { FormDialog } from '../../../ui/form-dialog';
import { OptionField } from '../../../ui/option-field';
import { Failed, Loading } from '../../../ui/page';
import { TextField } from '../../../ui/text-field';

interface AskMaterialProps {
  readonly clientId: string;
  readonly step: Pick<StepShape, 'id' | 'title' | 'latestFinishOn'>;
  readonly onClose: () => void;
}

/** Asks a contact for what a step waits for, and in the same mail for what other pieces of the client wait for. */
export function AskMaterialDialog({ clientId, step, onClose }: AskMaterialProps) {
  const ready = useQuery({ ...askingQuery(step.id), staleTime: 0, gcTime: 0 });
  if (ready.data) return <AskForm clientId={clientId} step={step} asking={ready.data} onClose={onClose} />;
  return (
    <Dialog open onClose={onClose} title={`Ask the client for “${step.title}”`}>
      {ready.isError ? <Failed message={wordsOf(ready.error)} onRetry={() => void ready.refetch()} /> : <Loading />}
    </Dialog>
  );
}

function AskForm({ clientId, step, asking, onClose }: AskMaterialProps & { asking: AskMaterialShape }) {
  const { todayOn } = useSession();
  const off = useDaysOff({ clientId });
  const ask = useWrite((body: AskMaterialBody) => call(`/steps/${step.id}/asking`, { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<AskMaterialBody>(
    AskMaterialBody,
    { contactId: asking.contactId ?? '', words: asking.words, dueOn: asking.dueOn, alsoIds: [] },
    {
      send: async (body) => {
        await ask.mutateAsync(body);
        toast(`Asked ${asking.contacts.find(({ id }) => id === body.contactId)?.name ?? ''}`);
        onClose();
      },
      words: { words: { isNotBlank: 'Say what you need.' }, contactId: { isUuid: 'Choose somebody.' } },
    },
  );
  const { body, change, errorOf } = form;
  const isLate = step.latestFinishOn !== null && body.dueOn > step.latestFinishOn;
  const also = (stepId: string, on: boolean) =>
    change({ alsoIds: on ? [...body.alsoIds, stepId] : body.alsoIds.filter((id) => id !== stepId) });
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Ask the client for “${step.title}”`}
      description="They get one mail, and bring files, links and words to their room. Reminders go by their working days."
      action="Ask"
    >
      <OptionField
        label="Who is asked"
        none="Choose"
        value={body.contactId || null}
        options={asking.contacts}
        onChange={(contactId) => change({ contactId: contactId ?? '' })}
        error={errorOf('contactId')}
      />
      <TextField
        label="What we need"
        help="As they read it: what, how many, in which shape."
        rows={4}
        required
        maxLength={2000}
        value={body.words}
        onChange={(words) => change({ words })}
        error={errorOf('words')}
      />
      <DayField
        label="By"
        todayOn={todayOn}
        min={todayOn}
        off={off}
        marks={step.latestFinishOn ? [{ on: step.latestFinishOn, words: 'The latest day that the plan leaves' }] : []}
        value={body.dueOn}
        onChange={(dueOn) => change({ dueOn })}
        error={errorOf('dueOn')}
      />
      {isLate && step.latestFinishOn && (
        <p className="text-rhubarb font-medium mb-3.5">The plan needs it by {dayWords(step.latestFinishOn)}: the piece will be late.</p>
      )}
      {asking.others.length > 0 && (
        <fieldset className="mb-3.5">
          <legend className="font-medium mb-1">In the same mail</legend>
          {asking.others.map((other) => (
            <label key={other.stepId} className="flex items-center gap-2 min-h-8">
              <input
                type="checkbox"
                className="size-4 accent-pine"
                checked={body.alsoIds.includes(other.stepId)}
                onChange={({ target }) => also(other.stepId, target.checked)}
              />
              <span>
                {other.stepTitle}: {other.pieceTitle} <span className="text-muted">by {dayWords(other.dueOn)}</span>
              </span>
            </label>
          ))}
        </fieldset>
      )}
    </FormDialog>
  );
}
