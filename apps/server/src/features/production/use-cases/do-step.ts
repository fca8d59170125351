import { fail, leftAfter, makersBefore, ok, stepsBetween, isByClient, type InstantText, type Result } from '@zesting/core';
import type { TickBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { tell, untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import type { Piece } from '../entities/piece.entity.js';
import { In } from 'typeorm';
import { Step } from '../entities/step.entity.js';
import { StepTick } from '../entities/step-tick.entity.js';
import {
  finishStep,
  freezeVersion,
  hasContent,
  isAvailable,
  lockPiece,
  lockStep,
  nextAfter,
  stepKey,
  stepsOf,
  todayOf,
} from '../piece-store.js';
import { tellDecider, tellNext } from './tell-next.js';

export type StepRefused = { code: 'step.client_decides' | 'step.already_finished' | 'step.not_available' | 'step.other_doer' };
type Refused = StepRefused;
type NothingYet = { code: 'piece.nothing_to_hand_in' | 'step.unticked' };

/** Whether this person may do the step now. Creators do their own; a manager may do any of the client's. */
function mayDo(viewer: Viewer, step: Step, steps: readonly Step[]): Refused | null {
  if (isByClient(step.kind)) return { code: 'step.client_decides' };
  if (step.finishedOn !== null) return { code: 'step.already_finished' };
  if (!isAvailable(step, steps)) return { code: 'step.not_available' };
  const manages = viewer.role === 'lead' || viewer.role === 'manager';
  return step.doerId === viewer.personId || manages ? null : { code: 'step.other_doer' };
}

/** Writes in the record what became of a step. */
export const noteStep = (
  tx: Tx,
  piece: Piece,
  viewer: Viewer,
  verb: string,
  step: Step,
  now: InstantText,
  more: Readonly<Record<string, unknown>> = {},
): Promise<void> =>
  recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb,
    actor: viewer.name,
    detail: { step: step.title, ...more },
    at: now,
  });

/** Marks a step as begun today. */
export function beginStep(app: App, viewer: Viewer, stepId: string): Promise<Result<null, Refused>> {
  return app.write<null, Refused>(async (tx, now) => {
    const begun = await beginInTurn(tx, viewer, stepId, now);
    return begun.ok ? ok(null) : begun;
  });
}

/** A step that somebody works on. */
export interface BegunStep {
  readonly clientId: string;
  readonly pieceId: string;
  readonly stepTitle: string;
}

/** The same in the caller's transaction, where it is not begun yet. Its piece is locked. */
export async function beginInTurn(tx: Tx, viewer: Viewer, stepId: string, now: InstantText): Promise<Result<BegunStep, Refused>> {
  const { piece, step, steps } = await lockStep(tx, stepId);
  const refused = mayDo(viewer, step, steps);
  if (refused) return fail(refused);
  if (step.startedOn === null) {
    step.startedOn = await todayOf(tx, step, now);
    step.acceptedOn ??= step.startedOn;
    await tx.save(step);
    await noteStep(tx, piece, viewer, 'step.begun', step, now);
    await replan(tx, [piece.id], now);
  }
  return ok({ clientId: piece.clientId, pieceId: piece.id, stepTitle: step.title });
}

/** Takes work that was done from what is left of a step, or puts it back. Nothing where the step is finished, or gone from the path. */
export async function addWork(
  tx: Tx,
  { pieceId, stepId }: { readonly pieceId: string; readonly stepId: string },
  minutes: number,
  now: InstantText,
): Promise<void> {
  await lockPiece(tx, pieceId);
  const step = await tx.findOneBy(Step, { id: stepId });
  if (!step || step.finishedOn !== null) return;
  step.remainingMinutes = leftAfter(step.remainingMinutes ?? step.effortMinutes, minutes);
  await tx.save(step);
  await replan(tx, [pieceId], now);
}

/** Whoever was given a step says that they do it. */
export function acceptStep(app: App, viewer: Viewer, stepId: string): Promise<Result<null, Refused>> {
  return app.write<null, Refused>(async (tx, now) => {
    const { piece, step } = await lockStep(tx, stepId);
    if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
    if (step.doerId !== viewer.personId) return fail({ code: 'step.other_doer' });
    if (step.acceptedOn !== null) return ok(null);
    step.acceptedOn = await todayOf(tx, step, now);
    await tx.save(step);
    await noteStep(tx, piece, viewer, 'step.accepted', step, now);
    await replan(tx, [piece.id], now); // whoever looks is told
    return ok(null);
  });
}

/** Ticks a line of a step's checklist, or takes that back; the record holds who did. */
export function tickLine(
  app: App,
  viewer: Viewer,
  stepId: string,
  { position, isDone, text }: TickBody,
): Promise<Result<null, Refused | { code: 'step.line_unknown' }>> {
  return app.write<null, Refused | { code: 'step.line_unknown' }>(async (tx, now) => {
    const { piece, step, steps } = await lockStep(tx, stepId);
    const refused = mayDo(viewer, step, steps);
    if (refused) return fail(refused);
    const line = step.checklist[position];
    if (line === undefined || (text !== undefined && text !== line)) return fail({ code: 'step.line_unknown' });
    const isThere = await tx.existsBy(StepTick, { stepId, position });
    if (isThere === isDone) return ok(null);
    if (isDone) await tx.insert(StepTick, { stepId, position, personId: viewer.personId, at: now });
    else await tx.delete(StepTick, { stepId, position });
    await noteStep(tx, piece, viewer, isDone ? 'step.ticked' : 'step.tick_taken_back', step, now, { line });
    return ok(null);
  });
}

/** Finishes a step: a making step freezes the content as a version, a check passes it. Its checklist is ticked. The next doer is told. */
export function handIn(app: App, viewer: Viewer, stepId: string): Promise<Result<null, Refused | NothingYet>> {
  return app.write<null, Refused | NothingYet>(async (tx, now) => {
    const { piece, step, steps } = await lockStep(tx, stepId);
    const refused = mayDo(viewer, step, steps);
    if (refused) return fail(refused);
    if (!hasContent(piece.content)) return fail({ code: 'piece.nothing_to_hand_in' });
    if ((await tx.countBy(StepTick, { stepId })) < step.checklist.length) return fail({ code: 'step.unticked' });
    await freezeVersion(tx, piece, viewer.personId, now);
    step.remark = null;
    await finishStep(tx, step, now);
    await untell(tx, stepKey(step));
    await noteStep(tx, piece, viewer, step.kind === 'check' ? 'step.passed' : 'step.handed_in', step, now);
    await replan(tx, [piece.id], now);
    const after = await stepsOf(tx, piece.id);
    for (const next of nextAfter(step, after)) await tellNext(app, tx, viewer, piece, `“${step.title}” of “${piece.title}” is done.`, next);
    if (after.every((other) => other.finishedOn !== null)) await tellDecider(app, tx, viewer, piece);
    return ok(null);
  });
}

/** Says how many minutes of work are left in a step; null puts the whole effort back. The prediction of load goes by it. */
export function sayRemaining(app: App, viewer: Viewer, stepId: string, minutes: number | null): Promise<Result<null, Refused>> {
  return app.write<null, Refused>(async (tx, now) => {
    const { piece, step, steps } = await lockStep(tx, stepId);
    const refused = mayDo(viewer, step, steps);
    if (refused) return fail(refused);
    if (step.remainingMinutes === minutes) return ok(null);
    const was = step.remainingMinutes ?? step.effortMinutes;
    step.remainingMinutes = minutes;
    await tx.save(step);
    await noteStep(tx, piece, viewer, 'step.remaining_said', step, now, { from: String(was), to: String(minutes ?? step.effortMinutes) });
    await replan(tx, [piece.id], now);
    return ok(null);
  });
}

type HandBackRefused = Refused | { code: 'step.not_a_check' | 'step.not_a_maker' };

/**
 * A check that does not pass: making steps before it open again, with the remark, and so does what lies between.
 * @param chosenIds which makers do it again; absent: those nearest before the check
 */
export function handBack(
  app: App,
  viewer: Viewer,
  stepId: string,
  remark: string,
  chosenIds?: readonly string[],
): Promise<Result<null, HandBackRefused>> {
  return app.write<null, HandBackRefused>(async (tx, now) => {
    const { piece, step, steps } = await lockStep(tx, stepId);
    const refused = mayDo(viewer, step, steps);
    if (refused) return fail(refused);
    const makers = makersBefore(step, steps);
    const made = chosenIds ? makers.all.filter(({ id }) => chosenIds.includes(id)) : makers.nearest;
    if (step.kind !== 'check' || made.length === 0) return fail({ code: 'step.not_a_check' });
    if (chosenIds && made.length < new Set(chosenIds).size) return fail({ code: 'step.not_a_maker' });
    for (const maker of made) Object.assign(maker, { finishedOn: null, remark, remainingMinutes: null });
    step.startedOn = null;
    // what lies between is done again too, so that the path stays whole; what the client brought is there
    const between = stepsBetween(made, step, steps).filter((other) => other.finishedOn !== null && !isByClient(other.kind));
    for (const other of between) Object.assign(other, { finishedOn: null, startedOn: null, remainingMinutes: null });
    await tx.save([...made, step, ...between]);
    await tx.delete(StepTick, { stepId: In([...made, step, ...between].map(({ id }) => id)) });
    for (const gone of [step, ...between]) await untell(tx, stepKey(gone));
    await noteStep(tx, piece, viewer, 'step.handed_back', step, now, { remark, to: made.map(({ title }) => title).join(', ') });
    await replan(tx, [piece.id], now);
    for (const maker of made)
      if (maker.doerId !== null && maker.doerId !== viewer.personId && isAvailable(maker, await stepsOf(tx, piece.id)))
        await tell(app, tx, maker.doerId, {
          clientId: piece.clientId,
          heading: `Handed back: ${piece.title}`,
          text: `“${piece.title}” came back from “${step.title}”: ${remark}`,
          path: `/pieces/${piece.id}`,
          key: stepKey(maker),
        });
    return ok(null);
  });
}
