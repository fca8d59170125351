import { DeclineRequestBody, type RequestShape } from '@zesting/contract';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { FormDialog } from '../../ui/form-dialog';
import { ReasonField } from './reason-field';

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
      <ReasonField label="Reason" form={form} />
    </FormDialog>
  );
}
