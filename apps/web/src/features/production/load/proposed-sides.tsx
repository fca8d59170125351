import type { LeftStepShape, ProposedGiveShape, StaffingOutcomeShape } from '@zesting/contract';
import { Link } from 'react-router';
import { count, minutesWords } from '../../../lib/format';
import { moneyWords } from '../../../lib/money';
import { useClients } from '../../../lib/queries';
import { ClientCode } from '../../../ui/tags';
import { DoerChoice } from './doer-choice';

const sumOf = (amounts: readonly number[]): number => amounts.reduce((sum, amount) => sum + amount, 0);

/** What each would get: the sum of what is chosen. @param currency of what freelance hours cost */
export function WhoGets({ gives, currency }: { gives: readonly ProposedGiveShape[]; currency: string }) {
  const people = new Map<string, { name: string; steps: number; minutes: number }>();
  for (const { personId, personName, minutes } of gives) {
    const one = people.get(personId) ?? { name: personName, steps: 0, minutes: 0 };
    people.set(personId, { ...one, steps: one.steps + 1, minutes: one.minutes + minutes });
  }
  if (people.size === 0) return null;
  const costs = gives.flatMap(({ cost }) => cost ?? []);
  const most = Math.max(...[...people.values()].map(({ minutes }) => minutes), 1);
  return (
    <section aria-labelledby="who-gets" className="card px-4 py-3">
      <h3 id="who-gets" className="text-base mb-1">
        Who gets what
      </h3>
      <ul>
        {[...people.entries()]
          .sort(([, a], [, b]) => b.minutes - a.minutes)
          .map(([id, { name, steps, minutes }]) => (
            <li key={id} className="py-1.5 border-t border-line first:border-t-0">
              <p className="flex items-baseline gap-2">
                <span className="font-medium flex-1 min-w-0 break-words">{name}</span>
                <span className="text-muted text-[13px] whitespace-nowrap">
                  {count(steps, 'step')}, {minutesWords(minutes)}
                </span>
              </p>
              <div aria-hidden className="h-1 mt-1 rounded bg-sunk">
                <div className="h-1 rounded bg-pine" style={{ width: `${(minutes / most) * 100}%` }} />
              </div>
            </li>
          ))}
      </ul>
      {costs.length > 0 && (
        <p className="pt-1.5 border-t border-line text-[13px]">
          Paid for freelance hours: <strong className="font-semibold">{moneyWords(sumOf(costs), currency)}</strong>
        </p>
      )}
    </section>
  );
}

const daysWords = (days: number): string => (days === 0 ? 'in time' : days > 3000 ? 'never done' : `${count(days, 'working day')} late`);

interface LaterPiecesProps {
  /** what it comes to; undefined while it is reckoned */
  readonly outcome: Pick<StaffingOutcomeShape, 'pieces' | 'othersLater'> | undefined;
}

/** Pieces that are late all the same, or become later. */
export function LaterPieces({ outcome }: LaterPiecesProps) {
  const { clientOf } = useClients();
  if (!outcome)
    return (
      <p role="status" className="text-muted text-[13px]">
        Reckoning what it would come to …
      </p>
    );
  const { pieces, othersLater } = outcome;
  if (pieces.length + othersLater === 0)
    return (
      <p role="status" className="text-muted text-[13px]">
        With what is chosen, nothing of this is late, and nothing else becomes later.
      </p>
    );
  return (
    <section aria-labelledby="late-with-it" className="card px-4 py-3">
      <h3 id="late-with-it" className="text-base mb-1">
        {count(pieces.length + othersLater, 'piece')} late with it
      </h3>
      <ul>
        {pieces.map((piece) => {
          const client = clientOf(piece.clientId);
          return (
            <li key={piece.pieceId} className="py-1.5 border-t border-line first:border-t-0">
              <p className="flex items-center gap-2 min-w-0">
                <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
                <Link to={`/pieces/${piece.pieceId}`} className="font-medium hover:underline min-w-0 break-words">
                  {piece.title}
                </Link>
              </p>
              <p className="text-[13px]">
                {piece.was !== piece.after && <span className="text-muted">{daysWords(piece.was)} now, </span>}
                <span className="text-rhubarb font-medium">
                  {daysWords(piece.after)}
                  {piece.was === piece.after ? ', as it is now' : ' then'}
                </span>
              </p>
            </li>
          );
        })}
        {othersLater > 0 && (
          <li className="py-1.5 border-t border-line first:border-t-0 text-[13px]">
            {othersLater === 1 ? 'One piece of another client becomes' : `${othersLater} pieces of other clients become`} later
          </li>
        )}
      </ul>
    </section>
  );
}

const WHY_LEFT: Record<LeftStepShape['why'], (skill: string) => string> = {
  nobody_able: (skill) => `Nobody who may work for them has the skill “${skill}”`,
  no_hours: () => 'Nobody has the hours for it',
};

interface LeftStepsProps {
  readonly left: readonly LeftStepShape[];
  /** by step, who takes it all the same */
  readonly instead: ReadonlyMap<string, string>;
  readonly currency: string;
  readonly onDoer: (stepId: string, personId: string) => void;
}

/** Steps that nobody is proposed for, and why; somebody who has the skill can be given them all the same. */
export function LeftSteps({ left, instead, currency, onDoer }: LeftStepsProps) {
  const { clientOf } = useClients();
  if (left.length === 0) return null;
  return (
    <section aria-labelledby="left-steps" className="card px-4 py-3 mt-3">
      <h3 id="left-steps" className="text-base mb-1">
        {count(left.length, 'step')} for nobody
      </h3>
      <ul>
        {left.map((step) => {
          const client = clientOf(step.clientId);
          return (
            <li key={step.stepId} className="flex flex-wrap items-baseline gap-x-3 gap-y-0.5 py-1.5 border-t border-line first:border-t-0">
              <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
              <span className="flex-1 min-w-40 break-words">
                {step.stepTitle} of{' '}
                <Link to={`/pieces/${step.pieceId}`} className="font-medium hover:underline">
                  {step.pieceTitle}
                </Link>
              </span>
              <span className="text-rind font-medium text-[13px]">{WHY_LEFT[step.why](step.skill)}</span>
              {step.others.length > 0 && (
                <span className="basis-full sm:basis-64 min-w-0">
                  <DoerChoice
                    label={`Who takes “${step.stepTitle}” of “${step.pieceTitle}” all the same`}
                    people={step.others}
                    currency={currency}
                    value={instead.get(step.stepId) ?? ''}
                    orNobody
                    onChange={(personId) => onDoer(step.stepId, personId)}
                  />
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
