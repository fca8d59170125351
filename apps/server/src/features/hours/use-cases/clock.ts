import { clockMinutes, dayIn, fail, ok, type InstantText, type Result } from '@zesting/core';
import { IsNull } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addWork, beginInTurn, type StepRefused } from '../../production/index.js';
import { Worked } from '../entities/worked.entity.js';

type StartFailure = StepRefused | ClockFailure;
type ClockFailure = { code: 'hours.clock_forgotten' };

/** Starts the clock of a step, and the step where it is not begun. A clock that runs on another is stopped. */
export function startClock(app: App, viewer: Viewer, stepId: string): Promise<Result<null, StartFailure>> {
  return app.write<null, StartFailure>(async (tx, now) => {
    const begun = await beginInTurn(tx, viewer, stepId, now);
    if (!begun.ok) return begun;
    const running = await tx.findOneBy(Worked, { personId: viewer.personId, minutes: IsNull(), removedAt: IsNull() });
    if (running?.stepId === stepId) return ok(null);
    if (running) {
      const stopped = await stop(tx, running, now);
      if (!stopped.ok) return stopped;
    }
    const { clientId, pieceId, stepTitle } = begun.value;
    const onDay = dayIn(now, viewer.zone);
    await tx.insert(Worked, { clientId, pieceId, stepId, stepTitle, personId: viewer.personId, onDay, startedAt: now, minutes: null });
    return ok(null);
  });
}

/** Stops one's own clock. @param minutes how long it was, where that is not what the clock says */
export function stopClock(
  app: App,
  viewer: Viewer,
  minutes: number | null,
): Promise<Result<null, ClockFailure | { code: 'hours.no_clock' }>> {
  return app.write<null, ClockFailure | { code: 'hours.no_clock' }>(async (tx, now) => {
    const running = await tx.findOne(Worked, {
      where: { personId: viewer.personId, minutes: IsNull(), removedAt: IsNull() },
      lock: { mode: 'pessimistic_write' },
    });
    return running ? stop(tx, running, now, minutes) : fail({ code: 'hours.no_clock' });
  });
}

/** Stops a clock: what it ran is taken from what is left of the step. */
async function stop(tx: Tx, running: Worked, now: InstantText, said: number | null = null): Promise<Result<null, ClockFailure>> {
  const minutes = said ?? clockMinutes(running.startedAt ?? now, now);
  if (minutes === null) return fail({ code: 'hours.clock_forgotten' });
  await tx.update(Worked, running.id, { minutes });
  await addWork(tx, running, minutes, now);
  await record(tx, running, minutes, now);
  return ok(null);
}

/** Puts down hours that somebody worked on a step today. */
export function addHours(app: App, viewer: Viewer, stepId: string, minutes: number): Promise<Result<null, StepRefused>> {
  return app.write<null, StepRefused>(async (tx, now) => {
    const begun = await beginInTurn(tx, viewer, stepId, now);
    if (!begun.ok) return begun;
    const { clientId, pieceId, stepTitle } = begun.value;
    const of = { clientId, pieceId, stepId, stepTitle, personId: viewer.personId };
    await tx.insert(Worked, { ...of, onDay: dayIn(now, viewer.zone), startedAt: null, minutes });
    await addWork(tx, of, minutes, now);
    await record(tx, of, minutes, now);
    return ok(null);
  });
}

/** Takes hours back: one's own, or as a manager anybody's. They are left to be done again. */
export function removeHours(app: App, viewer: Viewer, workedId: string): Promise<Result<null, { code: 'note.of_another' }>> {
  return app.write<null, { code: 'note.of_another' }>(async (tx, now) => {
    const worked = await tx.findOneOrFail(Worked, { where: { id: workedId }, lock: { mode: 'pessimistic_write' } });
    if (worked.personId !== viewer.personId && viewer.role !== 'lead' && viewer.role !== 'manager')
      return fail({ code: 'note.of_another' });
    if (worked.removedAt !== null) return ok(null);
    await tx.update(Worked, workedId, { removedAt: now });
    if (worked.minutes === null) return ok(null);
    await addWork(tx, worked, -worked.minutes, now);
    await record(tx, worked, -worked.minutes, now);
    return ok(null);
  });
}

/** A step that is finished has no clock running: it stops with it. One that was forgotten counts as nothing, and its person types what it was. */
export async function stopOfStep(tx: Tx, { id: stepId }: { readonly id: string }, now: InstantText): Promise<void> {
  for (const running of await tx.findBy(Worked, { stepId, minutes: IsNull(), removedAt: IsNull() })) {
    const minutes = clockMinutes(running.startedAt ?? now, now);
    if (minutes === null) await tx.update(Worked, running.id, { removedAt: now });
    else await tx.update(Worked, running.id, { minutes });
  }
}

async function record(
  tx: Tx,
  { clientId, pieceId, stepTitle, personId }: Pick<Worked, 'clientId' | 'pieceId' | 'stepTitle' | 'personId'>,
  minutes: number,
  at: InstantText,
): Promise<void> {
  const [person] = await rowsOf<{ name: string }>(tx, 'select name from people where id = $1', [personId]);
  const verb = minutes > 0 ? 'step.worked' : 'step.hours_taken_back';
  const detail = { step: stepTitle, minutes: String(Math.abs(minutes)) };
  await recordActivity(tx, { clientId, thing: 'piece', thingId: pieceId, verb, actor: person?.name ?? '', detail, at });
}
