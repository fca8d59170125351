import { KeepIdeaBody, type RequestShape } from '@zesting/contract';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** Keeps a request as an idea for later; the requester hears it by mail, with a word if one is written. */
export function IdeaDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const keep = useWrite((body: KeepIdeaBody) => call(`/requests/${request.id}/idea`, { method: 'POST', body }), { quiet: true });
  const reopen = useWrite(() => call(`/requests/${request.id}/reopen`, { method: 'POST' }));
  const form = useBodyForm<KeepIdeaBody>(
    KeepIdeaBody,
    { note: '' },
    {
      send: async ({ note }) => {
        await keep.mutateAsync({ note: note.trim() });
        onClose();
        toast('Kept as an idea', { action: { label: 'Undo', onClick: () => reopen.mutate(undefined) } });
      },
    },
  );
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`Keep “${request.title}” for later`}
      description={
        request.requesterEmail === null
          ? 'It goes on the list of ideas. Nobody hears by mail: there is no address.'
          : `It goes on the list of ideas, and ${request.requesterName} hears that by mail.`
      }
      action="Keep for later"
    >
      <Field label="A word to them" help="May stay empty.">
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={3}
            value={form.body.note}
            onChange={(event) => form.change({ note: event.target.value })}
          />
        )}
      </Field>
    </FormDialog>
  );
}
