import type { PacketShape, RecordDecisionBody } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';

/** Records on a contact's behalf what was said by telephone: who, how, about which piece. */
export function RecordDecisionDialog({ packet, onClose }: { packet: PacketShape; onClose: () => void }) {
  const waiting = packet.items.filter((item) => item.outcome === null);
  const [body, setBody] = useState<RecordDecisionBody>({
    contactId: packet.approvers[0]?.id ?? '',
    pieceId: waiting[0]?.pieceId ?? '',
    verdict: 'approve',
    remark: '',
    how: 'By telephone',
  });
  const [error, setError] = useState<string>();
  const change = (part: Partial<RecordDecisionBody>) => setBody({ ...body, ...part });
  const record = useWrite((sent: RecordDecisionBody) => call(`/packets/${packet.id}/decisions`, { method: 'POST', body: sent }), {
    quiet: true,
  });
  return (
    <Dialog open onClose={onClose} title="Record an answer" description="It stands under the contact’s name, with yours beside it.">
      <Field label="Who answered">
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
      <Field label="About">
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
      <Field label="What was said" required={body.verdict === 'changes'}>
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
      <Field label="How it was given" required error={error}>
        {(control) => <input {...control} className="field" value={body.how} onChange={(event) => change({ how: event.target.value })} />}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button
          look="main"
          disabled={record.isPending}
          onClick={() => record.mutate(body, { onSuccess: onClose, onError: (problem) => setError(wordsOf(problem)) })}
        >
          Record it
        </Button>
      </div>
    </Dialog>
  );
}
