import type { PieceShape, StepShape } from '@zesting/contract';
import { isByClient } from '@zesting/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../lib/api';
import { count, dayWords, signed } from '../../lib/format';
import { useClients, useDaysOff, useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button, buttonClass } from '../../ui/button';
import { DayInput } from '../../ui/day-field';
import { Obstacles, SettledObstacles } from '../../parts/obstacles';
import { ChaseDialog } from '../../parts/chase-dialog';
import { DangerTag, Tag } from '../../ui/tags';
import { AssignDialog } from './assign-dialog';
import { ChangeStepDialog } from './change-step-dialog';
import { DeliveryLine } from './material/delivery-line';
import { ForecastLine } from './forecast-line';
import { MendsDialog } from './mends-dialog';
import { predictedWords, whyWords } from './why';
import { TickedLines } from './step-checklist';

/** The path: each step with its doer, its latest dates, slack, danger and why. */
export function PathSection({ piece }: { piece: PieceShape }) {
  return (
    <section aria-labelledby="path" className="card p-4">
      <h2 id="path" className="text-lg mb-2 scroll-mt-4">
        Path
      </h2>
      <AimLine key={piece.version} piece={piece} />
      {piece.steps.some(({ finishedOn }) => finishedOn === null) && <Obstacles pieceId={piece.id} clientId={piece.clientId} />}
      <ol className="mt-2">
        {piece.steps.map((step) => (
          <StepLine key={step.id} step={step} piece={piece} />
        ))}
      </ol>
      {piece.canManage && <LeftOut piece={piece} />}
      <SettledObstacles pieceId={piece.id} />
    </section>
  );
}

/** Steps of the route that the path does without. */
function LeftOut({ piece }: { piece: PieceShape }) {
  const bring = useWrite((key: string) =>
    call(`/pieces/${piece.id}/path`, { method: 'POST', body: { changes: [{ kind: 'bring_back', key }] } }),
  );
  if (piece.leftOut.length === 0) return null;
  return (
    <ul className="border-t border-line pt-2" aria-label="Left out">
      {piece.leftOut.map(({ key, title }) => (
        <li key={key} className="flex items-center gap-2">
          <span className="text-muted flex-1">{title} is left out</span>
          <Button look="quiet" disabled={bring.isPending} aria-label={`Bring ${title} back`} onClick={() => bring.mutate(key)}>
            Bring back
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** The aim, whether it can be met, and the earliest date that can. */
function AimLine({ piece }: { piece: PieceShape }) {
  const edit = useWrite((wishOn: string | null) =>
    call(`/pieces/${piece.id}`, { method: 'PATCH', body: { wishOn }, version: piece.version }),
  );
  const { todayOn } = useSession();
  const { opened, open, close } = useOpened();
  const off = useDaysOff({ clientId: piece.canManage ? piece.clientId : undefined, placing: true });
  const [wish, setWish] = useState(piece.wishOn ?? '');
  const dated = piece.placements.some((placement) => placement.on !== null && placement.state !== 'cancelled' && placement.state !== 'out');
  const cannot = piece.danger === 'out_of_reach' || piece.danger === 'overdue';
  const late = piece.danger === 'will_be_late' ? piece.steps.find((step) => step.danger === 'will_be_late') : undefined;
  const earliest = piece.earliestPublishOn;
  return (
    <div className={`rounded-md px-3 py-2 ${cannot || late ? 'bg-rhubarb-soft' : 'bg-sunk'}`}>
      {piece.canManage && !dated ? (
        <div className="flex items-center gap-2">
          <span className="font-medium whitespace-nowrap">Wish date</span>
          <DayInput
            label="Wish date"
            todayOn={todayOn}
            off={off}
            marks={earliest ? [{ on: earliest, words: 'Earliest that its path can meet' }] : []}
            value={wish}
            onChange={setWish}
            onDone={(on) => (on || null) !== piece.wishOn && edit.mutate(on || null)}
          />
        </div>
      ) : (
        <p className="font-medium">Aim: {piece.aimOn ? dayWords(piece.aimOn) : 'no date'}</p>
      )}
      {cannot && (
        <p className="text-rhubarb mt-1">
          {piece.aimOn ? `${dayWords(piece.aimOn)} cannot be met` : 'The path cannot be met'}
          {piece.slackDays !== null && `: ${count(Math.abs(piece.slackDays), 'working day')} short`}.
          {earliest && ` The earliest date that can is ${dayWords(earliest)}.`}
        </p>
      )}
      {late?.predictedFinishOn && late.latestFinishOn && (
        <p className="text-rhubarb mt-1">
          The days would do, the hours do not: {late.title} is needed {dayWords(late.latestFinishOn)} and predicted{' '}
          {dayWords(late.predictedFinishOn)}.
        </p>
      )}
      {piece.canManage && (cannot || late) && (
        <Button className="mt-2 mr-2" look="main" onClick={() => open('mends')}>
          What would help
        </Button>
      )}
      {piece.canManage && opened === 'mends' && <MendsDialog piece={piece} onClose={close} />}
      {!cannot && !late && piece.slackDays !== null && (
        <p className="text-muted mt-1">
          {piece.slackDays === 0 ? 'No slack: every day counts.' : `${count(piece.slackDays, 'working day')} of slack.`}
        </p>
      )}
      {!cannot && piece.aimOn && <ForecastLine piece={piece} />}
      {!piece.aimOn && earliest && <p className="text-muted mt-1">The earliest date that can be met is {dayWords(earliest)}.</p>}
      {piece.canManage && !dated && earliest && (cannot || !piece.aimOn) && (
        <Button className="mt-2" disabled={edit.isPending} onClick={() => edit.mutate(earliest)}>
          Take {dayWords(earliest)}
        </Button>
      )}
    </div>
  );
}

function StepLine({ step, piece }: { step: StepShape; piece: PieceShape }) {
  const { opened, open, close } = useOpened();
  const done = step.finishedOn !== null;
  const canAssign = piece.canManage && !done && !isByClient(step.kind);
  return (
    <li className={`relative pl-6 py-2.5 border-t border-line first:border-t-0 ${done ? 'text-muted' : ''}`}>
      <StepSign step={step} />
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <span className="font-semibold">{step.title}</span>
        {step.round > 1 && <span className="text-[12px] text-muted">round {step.round}</span>}
        {canAssign ? (
          <button
            type="button"
            className={`underline decoration-dotted underline-offset-4 min-h-6 ${step.doerName ? '' : 'text-rind font-medium'}`}
            onClick={() => open(`give-${step.id}`)}
            aria-label={`${step.title}: ${step.doerName ?? 'nobody yet'}. Choose a person`}
          >
            {step.doerName ?? 'nobody yet'}
          </button>
        ) : (
          <span>{step.doerName ?? 'nobody'}</span>
        )}
        {step.withName && <span className="text-muted">with {step.withName}</span>}
        {step.isOffered && <Tag tone="lake">not taken on yet</Tag>}
        <span className="ml-auto">{done ? <Tag tone="pine">Done</Tag> : <DangerTag danger={step.danger} />}</span>
      </div>
      <StepDates step={step} steps={piece.steps} />
      <TickedLines step={step} />
      {step.kind === 'deliver' && <DeliveryLine piece={piece} step={step} />}
      {step.kind === 'sign_off' && step.atHand && piece.canManage && piece.stage !== 'with_client' && <SendLink piece={piece} />}
      {!done && (
        <div className="flex flex-wrap gap-x-1 -ml-3 [&>ul]:basis-full [&>ul]:ml-3 [&>ul]:-order-1">
          {piece.canManage && (
            <Button look="quiet" aria-label={`Change ${step.title}`} onClick={() => open(`change-${step.id}`)}>
              Change…
            </Button>
          )}
          {piece.canManage && step.atHand && step.doerId && <ChaseButton step={step} />}
          <Obstacles pieceId={piece.id} clientId={piece.clientId} step={step} />
        </div>
      )}
      {opened === `give-${step.id}` && <AssignDialog step={step} onClose={close} />}
      {piece.canManage && !done && opened === `change-${step.id}` && (
        <ChangeStepDialog pieceId={piece.id} clientId={piece.clientId} step={step} onClose={close} />
      )}
    </li>
  );
}

/** Filled: done. Bold ring: at hand. Thin ring: waiting. */
function StepSign({ step }: { step: StepShape }) {
  const look = step.finishedOn !== null ? 'bg-pine border-pine' : step.atHand ? 'border-pine border-[3px]' : 'border-line-strong';
  return <span aria-hidden className={`absolute left-0 top-[0.95rem] size-3.5 rounded-full border-2 ${look}`} />;
}

const CONFLICTS: Record<NonNullable<StepShape['conflict']>, string> = {
  pin_on_day_off: 'a day off of whoever does it',
  pin_after_successor: 'later than what follows allows',
};

function StepDates({ step, steps }: { step: StepShape; steps: readonly StepShape[] }) {
  if (step.finishedOn !== null) return <p className="text-[13px]">Finished {dayWords(step.finishedOn)}</p>;
  const predicted = predictedWords(step);
  return (
    <>
      <p className="tabular text-[13px]">
        {step.latestStartOn && step.latestFinishOn ? (
          <>
            {step.startedOn ? `begun ${dayWords(step.startedOn)}, ` : `start by ${dayWords(step.latestStartOn)}, `}
            <strong>finish by {dayWords(step.latestFinishOn)}</strong>
            {step.slackDays !== null && <span className="text-muted"> · slack {signed(step.slackDays)}</span>}
          </>
        ) : (
          <>could end {dayWords(step.earliestFinishOn)}</>
        )}
      </p>
      {step.pinnedFinishOn && (
        <p className={`text-[13px] ${step.conflict ? 'text-rhubarb font-medium' : ''}`}>
          Pinned to {dayWords(step.pinnedFinishOn)}
          {step.conflict && `: ${CONFLICTS[step.conflict]}`}
        </p>
      )}
      {predicted && <p className={`text-[13px] ${step.danger === 'will_be_late' ? 'text-rhubarb font-medium' : ''}`}>{predicted}</p>}
      <p className="text-muted text-[12.5px]">{whyWords(step, steps)}</p>
    </>
  );
}

/** Asks whoever has the step how far it is. */
function ChaseButton({ step }: { step: StepShape }) {
  const { personId } = useSession();
  const { opened, open, close } = useOpened();
  if (step.doerId === personId) return null;
  return (
    <>
      <Button look="quiet" aria-label={`Chase ${step.doerName ?? ''} about ${step.title}`} onClick={() => open(`chase-${step.id}`)}>
        Chase…
      </Button>
      {opened === `chase-${step.id}` && <ChaseDialog path={`/steps/${step.id}`} onClose={close} />}
    </>
  );
}

function SendLink({ piece }: { piece: PieceShape }) {
  const { clientOf } = useClients();
  return (
    <Link to={`/sign-off?client=${clientOf(piece.clientId)?.code ?? ''}&piece=${piece.id}`} className={buttonClass('main', 'mt-2')}>
      Send to the client
    </Link>
  );
}
