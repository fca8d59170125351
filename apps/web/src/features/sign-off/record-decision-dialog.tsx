import { RecordDecisionBody, type PacketShape } from '@zesting/contract';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';

/** Records on a contact's behalf what was said by telephone: who, how, about which piece. */
export function RecordDecisionDialog({ packet, onClose }: { packet: PacketShape; onClose: () => void }) {
  const waiting = packet.items.filter((item) => item.outcome === null);
  const record = useWrite((sent: RecordDecisionBody) => call(`/packets/${packet.id}/decisions`, { method: 'POST', body: sent }), {
    quiet: true,
  });
  const form = useBodyForm<RecordDecisionBody>(
    RecordDecisionBody,
    {
      contactId: packet.approvers[0]?.id ?? '',
      pieceId: waiting[0]?.pieceId ?? '',
      verdict: 'approve',
      remark: '',
      how: 'By telephone',
    },
    {
      send: async (body) => {
        await record.mutateAsync(body);
        onClose();
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title="Record an answer"
      description="It stands under the contact’s name, with yours beside it."
      action="Record it"
    >
      <Field label="Who answered" error={errorOf('contactId')}>
        {(control) => (
          <select {...control} className="field" value={body.contactId} onChange={(event) => change({ contactId: event.target.value })}>
            {packet.approvers.map((contact) => (
              <option key={contact.id} value={contact.id}>
                {contact.name}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="About" error={errorOf('pieceId')}>
        {(control) => (
          <select {...control} className="field" value={body.pieceId} onChange={(event) => change({ pieceId: event.target.value })}>
            {waiting.map((item) => (
              <option key={item.pieceId} value={item.pieceId}>
                {item.title}
              </option>
            ))}
          </select>
        )}
      </Field>
      <fieldset className="mb-3.5">
        <legend className="font-medium mb-1">The answer</legend>
        {(['approve', 'changes'] as const).map((verdict) => (
          <label key={verdict} className="inline-flex items-center gap-2 min-h-8 mr-5">
            <input
              type="radio"
              name="verdict"
              className="size-4 accent-pine"
              checked={body.verdict === verdict}
              onChange={() => change({ verdict })}
            />
            {verdict === 'approve' ? 'Approved' : 'Changes asked'}
          </label>
        ))}
      </fieldset>
      <Field label="What was said" required={body.verdict === 'changes'} error={errorOf('remark')}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={3}
            value={body.remark}
            onChange={(event) => change({ remark: event.target.value })}
          />
        )}
      </Field>
      <Field label="How it was given" required error={errorOf('how')}>
        {(control) => <input {...control} className="field" value={body.how} onChange={(event) => change({ how: event.target.value })} />}
      </Field>
    </FormDialog>
  );
}
