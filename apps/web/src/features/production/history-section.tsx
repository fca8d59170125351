import type { ActivityShape, PieceShape } from '@zesting/contract';
import { instantWords } from '../../lib/format';
import { Tag } from '../../ui/tags';

const VERBS: Record<string, string> = {
  'piece.created': 'made the piece',
  'piece.edited': 'changed the piece',
  'piece.content_edited': 'edited the content',
  'piece.sent': 'sent it to the client',
  'piece.approved': 'approved it',
  'piece.changes_asked': 'asked for changes',
  'step.assigned': 'assigned a step',
  'step.begun': 'began',
  'step.handed_in': 'handed in',
  'step.passed': 'passed',
  'step.handed_back': 'handed back',
  'placement.added': 'added a channel',
  'placement.moved': 'moved it',
  'placement.out': 'marked it as out',
  'placement.cancelled': 'cancelled a placement',
};

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
      {piece.activity.length > 0 && (
        <details>
          <summary className="text-pine min-h-6">Activity ({piece.activity.length})</summary>
          <ul className="mt-2 grid gap-1 text-[13px]">
            {piece.activity.map((entry, index) => (
              <li key={index}>
                <span className="text-muted tabular">{instantWords(entry.at)}</span> {entry.actor} {VERBS[entry.verb] ?? entry.verb}
                {detailWords(entry)}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function detailWords({ detail }: ActivityShape): string {
  const [step, to, channel] = [detail['step'], detail['to'], detail['channel']];
  const parts = [
    typeof step === 'string' ? step : '',
    typeof channel === 'string' ? channel : '',
    typeof to === 'string' ? `to ${to}` : '',
  ];
  const moved = typeof to === 'object' && to !== null && 'on' in to ? `to ${String(to.on ?? 'no date')}` : '';
  const words = [...parts, moved].filter(Boolean).join(', ');
  return words ? `: ${words}` : '';
}
