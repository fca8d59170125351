import { fail, ok, dayIn, type InstantText, type Result } from '@zesting/core';
import type { AwayBody, CoverBody, FoundTimeOff, FoundTimeOffShape, TimeOffBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { publicHolidays } from '../../../platform/time/holidays.js';
import { replanWhere } from '../../planning/index.js';
import { giveStep, Step } from '../../production/index.js';
import { runLimited } from '../../../platform/work/limited.js';
import type { ReadFailure } from '../ical-time-off.js';
import type { TimeOffTask } from '../read-time-off.worker.js';
import { lockPerson, recordPerson } from './edit-person.js';
import { IsNull, MoreThanOrEqual, Not } from 'typeorm';
import { Cover } from '../entities/cover.entity.js';
import { TimeOff } from '../entities/time-off.entity.js';

/** The longest calendar file that is read, in characters, and what reading it may take. */
const FILE_LENGTH = 5_000_000;
const READING = { milliseconds: 5_000, megabytes: 200 };

type Wrong = { code: 'time_off.order_wrong' };

/** Enters an absence; what the person has to do is planned around it. */
export function addTimeOff(app: App, viewer: Viewer, personId: string, body: TimeOffBody): Promise<Result<string, Wrong>> {
  return app.write<string, Wrong>((tx, now) => putTimeOff(tx, viewer, personId, body, now));
}

async function putTimeOff(tx: Tx, viewer: Viewer, personId: string, body: TimeOffBody, now: InstantText): Promise<Result<string, Wrong>> {
  if (body.endOn < body.startOn) return fail({ code: 'time_off.order_wrong' });
  await lockPerson(tx, personId);
  const { startOn, endOn, part, note = '' } = body;
  const id = await insertRow(tx, TimeOff, { personId, startOn, endOn, part, note });
  await recordPerson(tx, viewer, personId, 'time_off.added', { startOn, endOn, part, note }, now);
  await replanWhere(tx, { personId }, now);
  return ok(id);
}

type AwayRefused = Wrong | { code: 'step.other_doer' } | (Awaited<ReturnType<typeof giveStep>> & { ok: false })['failure'];

/** Enters an absence and gives steps to those who take over, all or none. Whoever can start hears it. */
export function goAway(app: App, viewer: Viewer, personId: string, body: AwayBody): Promise<Result<null, AwayRefused>> {
  return app.write<null, AwayRefused>(async (tx, now) => {
    const entered = await putTimeOff(tx, viewer, personId, body, now);
    if (!entered.ok) return entered;
    for (const give of body.gives) {
      const step = await tx.findOneBy(Step, { id: give.stepId });
      if (step?.doerId !== personId) return fail({ code: 'step.other_doer' });
      const given = await giveStep(app, tx, viewer, give, now);
      if (!given.ok) return given;
    }
    return ok(null);
  });
}

/** Takes an absence away. One that is gone already is no failure. */
export function removeTimeOff(app: App, viewer: Viewer, personId: string, timeOffId: string): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    await lockPerson(tx, personId);
    const off = await tx.findOneBy(TimeOff, { id: timeOffId, personId });
    if (off) {
      await tx.delete(TimeOff, timeOffId);
      const { startOn, endOn, part, note } = off;
      await recordPerson(tx, viewer, personId, 'time_off.removed', { startOn, endOn, part, note }, now);
    }
    await replanWhere(tx, { personId }, now);
    return ok(null);
  });
}

/** Reads a calendar file without taking anything over: the person looks first. */
export async function readTimeOffFile(app: App, personId: string, text: string): Promise<Result<FoundTimeOffShape, ReadFailure>> {
  const [person] = await app.read<{ zone: string; region: string; weekly_minutes: number[] }>(
    'select zone, region, weekly_minutes from people where id = $1',
    [personId],
  );
  if (!person) throw new Error('the person went away');
  const todayOn = dayIn(app.clock.now(), person.zone);
  const year = Number(todayOn.slice(0, 4));
  if (text.length > FILE_LENGTH) return fail({ code: 'time_off.too_many' });
  const facts = {
    weeklyMinutes: person.weekly_minutes,
    holidays: publicHolidays(person.region, year, year + 2).map((holiday) => holiday.on),
  };
  const script = new URL('../read-time-off.worker.js', import.meta.url);
  const task: TimeOffTask = { text, zone: person.zone, todayOn, facts };
  const found = await runLimited<TimeOffTask, Result<FoundTimeOffShape, ReadFailure>>(script, task, READING);
  return found ?? fail({ code: 'time_off.file_unreadable' });
}

/** Takes over absences read from a file. Those it brought before, and that are still to come, are replaced. */
export function importTimeOff(app: App, viewer: Viewer, personId: string, absences: readonly FoundTimeOff[]): Promise<Result<null, Wrong>> {
  return app.write<null, Wrong>(async (tx, now) => {
    if (absences.some((absence) => absence.endOn < absence.startOn)) return fail({ code: 'time_off.order_wrong' });
    const person = await lockPerson(tx, personId);
    await tx.delete(TimeOff, { personId, sourceUid: Not(IsNull()), endOn: MoreThanOrEqual(dayIn(now, person.zone)) });
    await tx.insert(
      TimeOff,
      absences.map(({ uid, startOn, endOn, part, note }) => ({ personId, startOn, endOn, part, note: note ?? '', sourceUid: uid })),
    );
    await recordPerson(tx, viewer, personId, 'time_off.imported', { count: absences.length }, now);
    await replanWhere(tx, { personId }, now);
    return ok(null);
  });
}

type CoverFailure = { code: 'time_off.order_wrong' | 'person.not_a_manager' };

/** Has one manager's clients looked after by another from one day to another, both included, by the absent one's date. */
export function addCover(app: App, viewer: Viewer, managerId: string, body: CoverBody): Promise<Result<null, CoverFailure>> {
  return app.write<null, CoverFailure>(async (tx, now) => {
    if (body.endOn < body.startOn) return fail({ code: 'time_off.order_wrong' });
    const people = await rowsOf<{ id: string; name: string }>(
      tx,
      "select id, name from people where id in ($1, $2) and active and role in ('lead', 'manager')",
      [managerId, body.coverId],
    );
    if (people.length !== 2) return fail({ code: 'person.not_a_manager' });
    await tx.insert(Cover, { managerId, coverId: body.coverId, startOn: body.startOn, endOn: body.endOn });
    const cover = people.find((person) => person.id === body.coverId)?.name;
    await recordPerson(tx, viewer, managerId, 'cover.added', { cover, startOn: body.startOn, endOn: body.endOn }, now);
    return ok(null);
  });
}

export function removeCover(app: App, viewer: Viewer, managerId: string, coverRowId: string): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const cover = await tx.findOneBy(Cover, { id: coverRowId, managerId });
    const { affected } = await tx.delete(Cover, { id: coverRowId, managerId });
    if (cover && affected) await recordPerson(tx, viewer, managerId, 'cover.removed', { startOn: cover.startOn, endOn: cover.endOn }, now);
    return ok(null);
  });
}
