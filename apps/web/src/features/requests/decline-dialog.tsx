import type { RequestShape } from '@zesting/contract';
import { useState } from 'react';
import { call, wordsOf } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';

/** Declines a request; the reason goes to the requester by mail. */
export function DeclineDialog({ request, onClose }: { request: RequestShape; onClose: () => void }) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<string>();
  const decline = useWrite((body: { reason: string }) => call(`/requests/${request.id}/decline`, { method: 'POST', body }), {
    quiet: true,
  });
  const send = () => {
    if (reason.trim() === '') setError('Say why: the requester reads it.');
    else decline.mutate({ reason: reason.trim() }, { onSuccess: onClose, onError: (problem) => setError(wordsOf(problem)) });
  };
  return (
    <Dialog open onClose={onClose} title={`Decline “${request.title}”`} description={`${request.requesterName} gets this by mail.`}>
      <Field label="Reason" error={error} required>
        {(control) => (
          <textarea {...control} className="field" rows={4} value={reason} onChange={(event) => setReason(event.target.value)} />
        )}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Keep it open</Button>
        <Button look="danger" onClick={send} disabled={decline.isPending}>
          Decline and send
        </Button>
      </div>
    </Dialog>
  );
}
