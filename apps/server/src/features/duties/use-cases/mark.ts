import { addDays, fail, getDay, ok, type Day, type Result } from '@zesting/core';
import type { DutyDayBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { untell } from '../../notices/index.js';
import { knownDays, loadCalendars, loadDuties, MISSED_DAYS, wantPredictionOf, type KnownDutyDay } from '../../planning/index.js';
import { DutyMark } from '../entities/duty-mark.entity.js';
import type { Duty } from '../entities/duty.entity.js';
import { lockDuty, noteDuty, peopleOf } from './duties.js';

export type MarkFailure = { code: 'access.not_found' | 'duty.day_unknown' | 'duty.makes_piece' };

/** Whether somebody may say what became of a duty: who manages its client (of the agency's own, whoever manages), and who does it. */
export const mayMark = (viewer: Viewer, { clientId, leadId, secondId }: Pick<Duty, 'clientId' | 'leadId' | 'secondId'>): boolean =>
  viewer.personId === leadId ||
  viewer.personId === secondId ||
  ((viewer.role === 'lead' || viewer.role === 'manager') && (clientId === null || viewer.clientIds.includes(clientId)));

/** Says that one time of a duty is done or left out, or takes that back; ticks of its checklist come along. */
export function markDuty(app: App, viewer: Viewer, dutyId: string, { on, mark, ticks }: DutyDayBody): Promise<Result<null, MarkFailure>> {
  return app.write<null, MarkFailure>(async (tx, now) => {
    const { duty } = await lockDuty(tx, dutyId, now);
    if (!mayMark(viewer, duty)) return fail({ code: 'access.not_found' });
    const day = (await daysBetween(tx, dutyId, getDay(on), getDay(on), now))[0];
    if (!day) return fail({ code: 'duty.day_unknown' });
    if (duty.routeId !== null && (mark === 'done' || day.state === 'made')) return fail({ code: 'duty.makes_piece' });
    const known = ticks.filter((position) => position < duty.checklist.length).sort((a, b) => a - b);
    // what was missed under an earlier rule is missed again where what was said is taken back
    const stored = mark === 'open' && day.on < duty.fromOn ? 'missed' : mark;
    const before = day.mark?.mark ?? 'open';
    await tx.upsert(
      DutyMark,
      { dutyId, onDay: on, mark: stored, ticks: known, personId: mark === 'open' ? null : viewer.personId, pieceId: null, at: now },
      ['dutyId', 'onDay'],
    );
    if (before === stored) return ok(null);
    if (mark !== 'open') await untellDuty(tx, dutyId);
    await noteDuty(tx, viewer, duty, `duty.${VERBS[mark]}`, { title: duty.title, on }, now);
    await wantPredictionOf(tx, peopleOf(duty));
    return ok(null);
  });
}

const VERBS = { done: 'done', left_out: 'left_out', open: 'reopened' } as const;

/** Leaves out all that was missed up to a day. @returns how many there were */
export function leaveOutMissed(app: App, viewer: Viewer, dutyId: string, untilOn: string): Promise<Result<number, MarkFailure>> {
  return app.write<number, MarkFailure>(async (tx, now) => {
    const { duty, todayOn } = await lockDuty(tx, dutyId, now);
    if (!mayMark(viewer, duty)) return fail({ code: 'access.not_found' });
    const days = await daysBetween(tx, dutyId, addDays(todayOn, -MISSED_DAYS), getDay(untilOn), now);
    const missed = days.filter(({ state }) => state === 'missed');
    if (missed.length === 0) return ok(0);
    await tx.upsert(
      DutyMark,
      missed.map(({ on, mark }) => ({
        dutyId,
        onDay: on,
        mark: 'left_out' as const,
        ticks: mark?.ticks ?? [],
        personId: viewer.personId,
        pieceId: null,
        at: now,
      })),
      ['dutyId', 'onDay'],
    );
    await untellDuty(tx, dutyId);
    await noteDuty(tx, viewer, duty, 'duty.missed_left_out', { title: duty.title, count: missed.length }, now);
    return ok(missed.length);
  });
}

/** What is said of, or past, needs no mail that has not gone yet. */
async function untellDuty(tx: Tx, dutyId: string): Promise<void> {
  for (const key of ['reminder', 'past-due']) await untell(tx, `${key}:${dutyId}`);
}

async function daysBetween(tx: Tx, dutyId: string, from: Day, to: Day, now: string): Promise<KnownDutyDay[]> {
  const book = await loadCalendars(tx, now);
  const [source] = await loadDuties(tx, book, from, [dutyId]);
  return source ? knownDays(source, book, from, to) : [];
}
