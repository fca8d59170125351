import type { PieceShape } from '@zesting/contract';
import { call } from '../../lib/api';
import { useKept } from '../../lib/kept';
import { useWrite } from '../../lib/queries';
import { AskedAboutSection } from '../../parts/asked-about';
import { Answers, FileList } from '../../ui/answers';
import { Button } from '../../ui/button';
import { LinkedText } from '../../ui/linked-text';
import { Thread } from '../../ui/thread';
import { PieceGuidelines } from '../../parts/piece-guidelines';
import { BriefAdditions } from '../../parts/team-notes';

/** What the makers need to know: the request's answers and files, and what the manager adds. */
export function BriefSection({ piece }: { piece: PieceShape }) {
  const { brief } = piece;
  return (
    <section aria-labelledby="brief" className="card p-4">
      <details open>
        <summary className="mb-2 min-h-6">
          <h2 id="brief" className="text-lg inline">
            Brief
          </h2>
        </summary>
        {brief.requests.map((request) => (
          <div key={request.id} className="mt-4 first-of-type:mt-0">
            <p className="text-muted mb-3">
              Asked by {request.requesterName}, request {request.number}
              {brief.requests.length > 1 ? `: “${request.title}”` : ''}
            </p>
            <Answers items={request.items} answers={request.answers} files={request.files} />
            <Thread messages={request.messages} />
          </div>
        ))}
        <Notes piece={piece} />
        {brief.ideaFiles.length > 0 && (
          <div className="mt-3">
            <h3 className="text-muted text-[13px] font-sans font-normal tracking-normal">Came with the idea</h3>
            <FileList files={brief.ideaFiles} />
          </div>
        )}
        <AskedAboutSection
          clientId={piece.clientId}
          about={{ of: { pieceId: piece.id }, title: piece.title || piece.formatName }}
          canAsk={piece.canManage}
        />
        <PieceGuidelines piece={piece} />
        <BriefAdditions of={{ kind: 'piece', id: piece.id, canAttach: piece.canWrite }} />
      </details>
    </section>
  );
}

function Notes({ piece }: { piece: PieceShape }) {
  const [edited, setEdited] = useKept<{ notes: string; base: number }>(`piece:${piece.id}:notes`);
  const save = useWrite(({ notes, base }: { notes: string; base: number }) =>
    call(`/pieces/${piece.id}`, { method: 'PATCH', body: { notes }, version: base }),
  );
  return (
    <div className="mt-4 pt-3 border-t border-line">
      <h3 className="text-muted text-[13px] font-sans font-normal tracking-normal">Notes for the makers</h3>
      {edited === null ? (
        <>
          <p className="whitespace-pre-wrap break-words">
            {piece.brief.notes ? <LinkedText text={piece.brief.notes} /> : <span className="text-muted">None.</span>}
          </p>
          {piece.canManage && (
            <Button look="quiet" className="-ml-3 mt-1" onClick={() => setEdited({ notes: piece.brief.notes, base: piece.version })}>
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
            value={edited.notes}
            onChange={(event) => setEdited({ ...edited, notes: event.target.value })}
          />
          <div className="flex gap-2">
            <Button look="main" disabled={save.isPending} onClick={() => save.mutate(edited, { onSuccess: () => setEdited(null) })}>
              Save notes
            </Button>
            <Button onClick={() => setEdited(null)}>Leave as it was</Button>
          </div>
        </>
      )}
    </div>
  );
}
