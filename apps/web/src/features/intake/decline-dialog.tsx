import { DeclineRequestBody, type RequestShape } from '@zesting/contract';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** Declines a request; the reason goes to the requester by mail. */
export function DeclineDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const decline = useWrite((body: DeclineRequestBody) => call(`/requests/${request.id}/decline`, { method: 'POST', body }), {
    quiet: true,
  });
  const form = useBodyForm<DeclineRequestBody>(
    DeclineRequestBody,
    { reason: '' },
    {
      send: async ({ reason }) => {
        await decline.mutateAsync({ reason: reason.trim() });
        onClose();
      },
      words: { reason: { isNotBlank: 'Say why: the requester reads it.' } },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Decline “${request.title}”`}
      description={
        request.requesterEmail === null ? 'Nobody hears by mail: there is no address.' : `${request.requesterName} gets this by mail.`
      }
      action="Decline and send"
      look="danger"
      leave="Keep it open"
    >
      <Field label="Reason" error={form.errorOf('reason')} required>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={4}
            value={form.body.reason}
            onChange={(event) => form.change({ reason: event.target.value })}
          />
        )}
      </Field>
    </FormDialog>
  );
}
