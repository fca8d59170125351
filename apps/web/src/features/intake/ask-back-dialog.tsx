import { RequestMessageBody, type RequestShape } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** Asks the requester something; until they answer it is their turn. */
export function AskBackDialog({ request, question, onClose }: { request: RequestShape; question: string; onClose: () => void }) {
  const ask = useWrite((body: RequestMessageBody) => call(`/requests/${request.id}/ask-back`, { method: 'POST', body }), { quiet: true });
  const form = useBodyForm<RequestMessageBody>(
    RequestMessageBody,
    { text: question },
    {
      send: async ({ text }) => {
        await ask.mutateAsync({ text: text.trim() });
        toast(`The question is on its way to ${request.requesterEmail}`);
        onClose();
      },
      words: { text: { isNotBlank: 'Say what you want to know.' } },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Ask back about “${request.title}”`}
      description={`${request.requesterName} gets it by mail, and answers it or writes on their page. Until then it waits for them.`}
      action="Send the question"
    >
      <Field label="Question" required error={form.errorOf('text')}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={5}
            value={form.body.text}
            onChange={(event) => form.change({ text: event.target.value })}
          />
        )}
      </Field>
    </FormDialog>
  );
}
