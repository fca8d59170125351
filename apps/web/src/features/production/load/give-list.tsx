import type { ProposedGiveShape } from '@zesting/contract';
import { Link } from 'react-router';
import { dayWords, minutesWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { ClientCode } from '../../../ui/tags';
import { DoerChoice } from './doer-choice';

interface GiveListProps {
  /** as they are chosen */
  readonly gives: readonly ProposedGiveShape[];
  /** as they are proposed */
  readonly proposed: readonly ProposedGiveShape[];
  readonly leftOut: ReadonlySet<string>;
  readonly currency: string;
  readonly onTaken: (stepIds: readonly string[], isTaken: boolean) => void;
  readonly onDoer: (stepId: string, personId: string) => void;
}

/** Who would take what, piece by piece. */
export function GiveList({ gives, proposed, leftOut, currency, onTaken, onDoer }: GiveListProps) {
  const { clientOf } = useClients();
  const peopleOf = new Map(
    proposed.map(({ stepId, personId, personName: name, why, cost, others }) => [stepId, [{ personId, name, why, cost }, ...others]]),
  );
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
              <div
                key={give.stepId}
                className="grid grid-cols-[minmax(0,1fr)] sm:grid-cols-[minmax(0,10rem)_minmax(0,1fr)_minmax(0,9rem)] gap-x-3 gap-y-0.5 items-baseline py-1.5 border-t border-line"
              >
                <label className="flex items-baseline gap-2 min-w-0 min-h-6">
                  <input
                    type="checkbox"
                    className="size-4 accent-pine self-center shrink-0"
                    checked={!leftOut.has(give.stepId)}
                    onChange={(event) => onTaken([give.stepId], event.target.checked)}
                  />
                  <span className="min-w-0 break-words">
                    {give.stepTitle} <span className="text-muted text-[13px] whitespace-nowrap">{minutesWords(give.minutes)}</span>
                  </span>
                </label>
                <span className="flex items-baseline gap-2 min-w-0">
                  {give.fromName && <span className="text-muted whitespace-nowrap">{give.fromName} →</span>}
                  <DoerChoice
                    label={`Who takes “${give.stepTitle}” of “${pieceTitle}”`}
                    people={peopleOf.get(give.stepId) ?? []}
                    currency={currency}
                    value={give.personId}
                    onChange={(personId) => onDoer(give.stepId, personId)}
                  />
                </span>
                <span className="sm:text-right text-[13px]">{!leftOut.has(give.stepId) && <EndWords give={give} />}</span>
              </div>
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
