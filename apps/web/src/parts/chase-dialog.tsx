import { useQuery } from '@tanstack/react-query';
import type { ChaseShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { chaseQuery } from '../api/production';
import { call, wordsOf } from '../lib/api';
import { namesWords } from '../lib/policy-words';
import { useWrite } from '../lib/queries';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { Field } from '../ui/field';
import { Failed, Loading } from '../ui/page';

/** The words of a chase, ready to be sent: one more click, or a word changed first. `path` is the thing chased about. */
export function ChaseDialog({ path, onClose }: { path: string; onClose: () => void }) {
  const ready = useQuery(chaseQuery(path));
  return (
    <Dialog open onClose={onClose} title="Chase" description="Goes out by mail at once, with the link to the place.">
      {ready.isError && <Failed message={wordsOf(ready.error)} onRetry={() => void ready.refetch()} />}
      {ready.isPending && <Loading />}
      {ready.data && <ChaseForm path={path} chase={ready.data} onClose={onClose} />}
    </Dialog>
  );
}

function ChaseForm({ path, chase, onClose }: { path: string; chase: ChaseShape; onClose: () => void }) {
  const [text, setText] = useState(chase.text);
  const names = namesWords(chase.receivers.map((receiver) => receiver.name));
  const send = useWrite((body: { text: string }) => call(`${path}/chase`, { method: 'POST', body }));
  if (chase.receivers.length === 0) return <p>Nobody’s answer is awaited any more.</p>;
  return (
    <>
      <p className="mb-1">
        To <strong>{names}</strong>
      </p>
      <p className="text-muted mb-3">{chase.subject}</p>
      <Field label="What it says">
        {(control) => <textarea {...control} className="field" rows={7} value={text} onChange={(event) => setText(event.target.value)} />}
      </Field>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Not yet</Button>
        <Button
          look="main"
          disabled={send.isPending || text.trim() === ''}
          onClick={() =>
            send.mutate(
              { text: text.trim() },
              {
                onSuccess: () => {
                  toast(`Sent to ${names}`);
                  onClose();
                },
              },
            )
          }
        >
          Send it
        </Button>
      </div>
    </>
  );
}
