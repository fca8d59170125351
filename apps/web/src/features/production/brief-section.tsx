import type { PieceShape } from '@zesting/contract';
import { useState } from 'react';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { Answers } from '../../ui/answers';
import { Button } from '../../ui/button';

/** What the makers need to know: the request's answers and files, and what the manager adds. */
export function BriefSection({ piece }: { piece: PieceShape }) {
  const { brief } = piece;
  return (
    <section aria-labelledby="brief" className="card p-4">
      <h2 id="brief" className="text-lg mb-2">
        Brief
      </h2>
      {brief.requesterName && (
        <p className="text-muted mb-3">
          Asked by {brief.requesterName}, request {brief.requestNumber}
        </p>
      )}
      <Answers fields={brief.fields} answers={brief.answers} files={brief.files} />
      <Notes piece={piece} />
    </section>
  );
}

function Notes({ piece }: { piece: PieceShape }) {
  const [draft, setDraft] = useState<string | null>(null);
  const save = useWrite((notes: string) => call(`/pieces/${piece.id}`, { method: 'PATCH', body: { notes }, version: piece.version }));
  return (
    <div className="mt-4 pt-3 border-t border-line">
      <h3 className="text-muted text-[13px] font-sans font-normal tracking-normal">Notes for the makers</h3>
      {draft === null ? (
        <>
          <p className="whitespace-pre-wrap break-words">{piece.brief.notes || <span className="text-muted">None.</span>}</p>
          {piece.canManage && (
            <Button look="quiet" className="-ml-3 mt-1" onClick={() => setDraft(piece.brief.notes)}>
              Edit notes
            </Button>
          )}
        </>
      ) : (
        <>
          <textarea
            aria-label="Notes for the makers"
            className="field mb-2"
            rows={5}
            value={draft}
            onChange={(event) => setDraft(event.target.value)}
          />
          <div className="flex gap-2">
            <Button look="main" disabled={save.isPending} onClick={() => save.mutate(draft, { onSuccess: () => setDraft(null) })}>
              Save notes
            </Button>
            <Button onClick={() => setDraft(null)}>Leave as it was</Button>
          </div>
        </>
      )}
    </div>
  );
}
