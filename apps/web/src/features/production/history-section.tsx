import type { PieceShape } from '@zesting/contract';
import { Download, FileCheck } from 'lucide-react';
import { instantWords } from '../../lib/format';
import { ActivityList } from '../../parts/activity';
import { buttonClass } from '../../ui/button';
import { Tag } from '../../ui/tags';

/** What can be taken away: the approved files, and the proof of what was approved. */
function TakeAway({ piece }: { piece: PieceShape }) {
  if (piece.decisions.length === 0) return null;
  return (
    <p className="flex flex-wrap gap-2 mb-3">
      <a href={`/api/pieces/${piece.id}/sign-off-record`} className={buttonClass()} download>
        <FileCheck size={15} aria-hidden /> Sign-off record (PDF)
      </a>
      {piece.content.shared.state === 'signed' && (
        <a href={`/api/pieces/${piece.id}/finals`} className={buttonClass()} download>
          <Download size={15} aria-hidden /> Finals (ZIP)
        </a>
      )}
    </p>
  );
}

/** What the client said, round by round, and the record of who did what. */
export function HistorySection({ piece }: { piece: PieceShape }) {
  if (piece.decisions.length === 0 && piece.activity.length === 0) return null;
  return (
    <section aria-labelledby="history" className="card p-4">
      <h2 id="history" className="text-lg mb-2">
        History
      </h2>
      <ul className="grid gap-2 mb-3">
        {piece.decisions.map((decision, index) => (
          <li key={index} className="border-l-4 border-lake pl-3">
            <p className="flex flex-wrap items-center gap-2">
              <strong>{decision.contactName}</strong>
              <Tag tone={decision.verdict === 'approve' ? 'pine' : 'rind'}>
                {decision.verdict === 'approve' ? 'Approved' : 'Changes asked'}
              </Tag>
              <span className="text-muted text-[13px]">
                round {decision.round}, version {decision.versionNumber}
              </span>
            </p>
            {decision.remark && <p className="break-words">{decision.remark}</p>}
            <p className="text-muted text-[13px]">
              {instantWords(decision.decidedAt)}
              {decision.recordedBy && `, recorded by ${decision.recordedBy}: ${decision.how}`}
            </p>
          </li>
        ))}
      </ul>
      <TakeAway piece={piece} />
      {piece.activity.length > 0 && (
        <details>
          <summary className="text-pine min-h-6">Activity ({piece.activity.length})</summary>
          <div className="mt-2">
            <ActivityList items={piece.activity} />
          </div>
        </details>
      )}
    </section>
  );
}
