import type { ProposedFor, ProposedGiveShape } from '@zesting/contract';
import { Link } from 'react-router';
import { dayWords, minutesWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { ClientCode, Tag } from '../../../ui/tags';

const WHY: Record<ProposedFor, string> = { usual: 'Usually does this', own: 'Works for them', skill: 'Has the skill' };

interface GiveListProps {
  readonly gives: readonly ProposedGiveShape[];
  readonly left: ReadonlySet<string>;
  readonly onPut: (stepIds: readonly string[], isTaken: boolean) => void;
}

/** Who would take what, piece by piece. */
export function GiveList({ gives, left, onPut }: GiveListProps) {
  const { clientOf } = useClients();
  return (
    <div className="grid gap-3">
      {byPiece(gives).map(({ pieceId, pieceTitle, clientId, steps }) => {
        const client = clientOf(clientId);
        return (
          <fieldset key={pieceId} className="card px-4 py-2 min-w-0">
            <legend className="sr-only">{pieceTitle}</legend>
            <p className="flex items-center gap-2 py-1 min-w-0">
              <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
              <Link to={`/pieces/${pieceId}`} className="font-medium hover:underline min-w-0 break-words">
                {pieceTitle}
              </Link>
            </p>
            {steps.map((give) => (
              <label
                key={give.stepId}
                className="grid grid-cols-[auto_minmax(0,1fr)] sm:grid-cols-[auto_minmax(0,9rem)_minmax(0,1fr)_auto] gap-x-3 gap-y-0.5 items-baseline py-1.5 border-t border-line"
              >
                <input
                  type="checkbox"
                  className="size-4 accent-pine self-center"
                  checked={!left.has(give.stepId)}
                  onChange={(event) => onPut([give.stepId], event.target.checked)}
                />
                <span className="min-w-0 break-words">
                  {give.stepTitle} <span className="text-muted text-[13px] whitespace-nowrap">{minutesWords(give.minutes)}</span>
                </span>
                <span className="col-start-2 sm:col-start-auto flex flex-wrap items-baseline gap-x-2 gap-y-1">
                  {give.fromName && <span className="text-muted">{give.fromName} →</span>}
                  <strong className="font-semibold">{give.personName}</strong>
                  <Tag tone={give.why === 'usual' ? 'lake' : 'calm'}>{WHY[give.why]}</Tag>
                </span>
                <span className="col-start-2 sm:col-start-auto sm:text-right text-[13px]">
                  <EndWords give={give} />
                </span>
              </label>
            ))}
          </fieldset>
        );
      })}
    </div>
  );
}

/** When it would end, and whether that is in time. */
function EndWords({ give: { predictedFinishOn, latestFinishOn } }: { give: ProposedGiveShape }) {
  const needed = latestFinishOn === null ? '' : `, needed ${dayWords(latestFinishOn)}`;
  if (predictedFinishOn === null) return <span className="text-rhubarb font-medium">Would never end{needed}</span>;
  const isLate = latestFinishOn !== null && predictedFinishOn > latestFinishOn;
  return (
    <>
      Ends {dayWords(predictedFinishOn)}
      <span className={isLate ? 'text-rhubarb font-medium' : 'text-muted'}>{needed}</span>
    </>
  );
}

interface PieceGives extends Pick<ProposedGiveShape, 'pieceId' | 'pieceTitle' | 'clientId'> {
  readonly steps: ProposedGiveShape[];
}

/** By piece, in the order in which the first of its steps is due. */
function byPiece(gives: readonly ProposedGiveShape[]): readonly PieceGives[] {
  const pieces = new Map<string, PieceGives>();
  for (const give of gives) {
    const { pieceId, pieceTitle, clientId } = give;
    const piece = pieces.get(pieceId) ?? { pieceId, pieceTitle, clientId, steps: [] };
    piece.steps.push(give);
    pieces.set(pieceId, piece);
  }
  return [...pieces.values()];
}
