import { addDays, dayIn, fail, getDay, laterOf, ok, readRule, type Day, type InstantText, type Result } from '@zesting/core';
import type { DutyBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { knownDays, loadCalendars, loadDuties, MISSED_DAYS, wantPredictionOf } from '../../planning/index.js';
import { DutyMark } from '../entities/duty-mark.entity.js';
import { Duty } from '../entities/duty.entity.js';

export type DutyFailure = {
  code:
    | 'access.refused'
    | 'rhythm.rule_wrong'
    | 'rhythm.order_wrong'
    | 'rhythm.in_past'
    | 'person.unknown'
    | 'route.unknown'
    | 'channel.unknown'
    | 'pillar.unknown'
    | 'duty.no_client'
    | 'duty.client_fixed'
    | 'duty.ended'
    | 'duty.too_many'
    | 'http.changed_meanwhile';
};

const MOST_DUTIES = 100;

type Known = Omit<Duty, 'id' | 'version' | 'anchorOn'>;

/** Adds a duty, for a client or for the agency itself. */
export function addDuty(app: App, viewer: Viewer, body: DutyBody): Promise<Result<string, DutyFailure>> {
  return app.write<string, DutyFailure>(async (tx, now) => {
    const { clientId } = body;
    if (clientId !== null && !viewer.clientIds.includes(clientId)) return fail({ code: 'access.refused' });
    const todayOn = await todayOf(tx, clientId, now);
    if (body.fromOn < todayOn) return fail({ code: 'rhythm.in_past' });
    const known = await checked(tx, body);
    if (!known.ok) return known;
    // two at once are counted one after the other
    await (clientId === null
      ? tx.query('select 1 from agencies for no key update')
      : tx.query('select 1 from clients where id = $1 for no key update', [clientId]));
    const [{ count } = { count: 0 }] = await rowsOf<{ count: number }>(
      tx,
      'select count(*) as count from duties where client_id is not distinct from $1 and (until_on is null or until_on >= $2)',
      [clientId, todayOn],
    );
    if (count >= MOST_DUTIES) return fail({ code: 'duty.too_many' });
    const id = await insertRow(tx, Duty, { ...known.value, anchorOn: body.fromOn, version: 1 });
    await noteDuty(tx, viewer, { id, clientId }, 'duty.added', { title: known.value.title }, now);
    await wantPredictionOf(tx, peopleOf(known.value));
    return ok(id);
  });
}

/**
 * Changes a duty. Where its days change and it has begun, it is reckoned by the new rule from today on, counted as before: what was missed until now is
 * written down, and what was done stays. It keeps its client.
 */
export function changeDuty(app: App, viewer: Viewer, dutyId: string, body: DutyBody, version: number): Promise<Result<null, DutyFailure>> {
  return app.write<null, DutyFailure>(async (tx, now) => {
    const { duty, todayOn } = await lockDuty(tx, dutyId, now);
    if (duty.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (duty.untilOn !== null && duty.untilOn < todayOn) return fail({ code: 'duty.ended' });
    if (body.clientId !== duty.clientId) return fail({ code: 'duty.client_fixed' });
    const known = await checked(tx, body);
    if (!known.ok) return known;
    const next: Known & Pick<Duty, 'anchorOn'> = { ...known.value, anchorOn: duty.anchorOn };
    const hasBegun = duty.fromOn <= todayOn;
    const isMoved = next.rule !== duty.rule || next.leadDays !== duty.leadDays || next.fromOn !== duty.fromOn;
    if (isMoved && (!hasBegun || next.rule === null) && next.fromOn < todayOn) return fail({ code: 'rhythm.in_past' });
    if (isMoved && hasBegun) {
      // what comes once and is put off was not missed
      if (duty.rule !== null) await keepMissed(tx, dutyId, todayOn, now);
      // what is counted from its first day keeps it, unless that day itself was changed to a later one
      if (next.fromOn > todayOn || next.rule === null) next.anchorOn = next.fromOn;
      next.fromOn = laterOf(todayOn, getDay(next.fromOn));
      if (next.untilOn !== null && next.untilOn < next.fromOn) return fail({ code: 'rhythm.order_wrong' });
    } else if (isMoved) next.anchorOn = next.fromOn;
    const shown = ({ fromOn: _, anchorOn, ...rest }: Known & Pick<Duty, 'anchorOn'>) => ({ ...rest, from: anchorOn });
    const { id: _, version: __, ...before } = duty;
    const changes = changesBetween(shown(before), shown(next));
    if (Object.keys(changes).length === 0) return ok(null);
    await tx.update(Duty, dutyId, { ...next, version: duty.version + 1 });
    await noteDuty(tx, viewer, duty, 'duty.changed', changes, now);
    await wantPredictionOf(tx, [...new Set([...peopleOf(duty), ...peopleOf(next)])]);
    return ok(null);
  });
}

/** Ends a duty: one that has begun ends yesterday, one that has not is gone. */
export function endDuty(app: App, viewer: Viewer, dutyId: string): Promise<Result<null, DutyFailure>> {
  return app.write<null, DutyFailure>(async (tx, now) => {
    const { duty, todayOn } = await lockDuty(tx, dutyId, now);
    if (duty.untilOn !== null && duty.untilOn < todayOn) return ok(null);
    if (duty.fromOn < todayOn) await tx.update(Duty, dutyId, { untilOn: addDays(todayOn, -1), version: duty.version + 1 });
    else await tx.delete(Duty, dutyId);
    await noteDuty(tx, viewer, duty, 'duty.ended', { title: duty.title }, now);
    await wantPredictionOf(tx, peopleOf(duty));
    return ok(null);
  });
}

export const peopleOf = ({ leadId, secondId }: Pick<Duty, 'leadId' | 'secondId'>): string[] => [leadId, ...(secondId ? [secondId] : [])];

/** Writes down what was missed before a day, so that it stays whatever the rule is later. */
async function keepMissed(tx: Tx, dutyId: string, todayOn: Day, now: InstantText): Promise<void> {
  const book = await loadCalendars(tx, now);
  const since = addDays(todayOn, -MISSED_DAYS);
  const [source] = await loadDuties(tx, book, since, [dutyId]);
  if (!source) return;
  const missed = knownDays(source, book, since, addDays(todayOn, -1)).filter(({ state }) => state === 'missed');
  const ticksOn = (on: string) => source.marks.find((mark) => mark.on === on)?.ticks ?? [];
  if (missed.length > 0)
    await tx.upsert(
      DutyMark,
      missed.map(({ on }) => ({ dutyId, onDay: on, mark: 'missed' as const, ticks: ticksOn(on), personId: null, pieceId: null, at: now })),
      ['dutyId', 'onDay'],
    );
}

/** The day by which a duty's rule is changed: its client's, or the agency's. */
async function todayOf(tx: Tx, clientId: string | null, now: InstantText): Promise<Day> {
  const [row] = await rowsOf<{ zone: string }>(
    tx,
    'select coalesce((select zone from clients where id = $1), zone) as zone from agencies',
    [clientId],
  );
  if (!row) throw new Error('there is no agency');
  return dayIn(now, row.zone);
}

/** A duty under lock; a missing one is a bug, since access was checked. */
export async function lockDuty(tx: Tx, dutyId: string, now: InstantText): Promise<{ duty: Duty; todayOn: Day }> {
  const duty = await tx.findOneOrFail(Duty, { where: { id: dutyId }, lock: { mode: 'pessimistic_write' } });
  return { duty, todayOn: await todayOf(tx, duty.clientId, now) };
}

/** What is asked for as it is stored, where all that it names is there. */
async function checked(tx: Tx, body: DutyBody): Promise<Result<Known, DutyFailure>> {
  const rule = body.rule === null ? ok(null) : readRule(body.rule);
  if (!rule.ok) return rule;
  if (body.untilOn !== null && body.untilOn < body.fromOn) return fail({ code: 'rhythm.order_wrong' });
  const { clientId, piece, leadId, secondId } = body;
  if (piece && clientId === null) return fail({ code: 'duty.no_client' });
  const [found] = await rowsOf<{ people: boolean; route: boolean; channels: boolean; pillar: boolean }>(
    tx,
    `select not exists (select 1 from unnest($1::uuid[]) i where not exists (select 1 from people p where p.id = i and p.active)) as people,
       $2::uuid is null or exists (select 1 from routes where id = $2 and archived_at is null) as route,
       not exists (select 1 from unnest($3::uuid[]) i where not exists (select 1 from channels h where h.id = i and h.client_id = $5 and h.archived_at is null)) as channels,
       $4::uuid is null or exists (select 1 from pillars where id = $4 and client_id = $5 and archived_at is null) as pillar`,
    [peopleOf({ leadId, secondId }), piece?.routeId ?? null, piece?.channelIds ?? [], piece?.pillarId ?? null, clientId],
  );
  if (!found?.people) return fail({ code: 'person.unknown' });
  if (!found.route) return fail({ code: 'route.unknown' });
  if (!found.channels) return fail({ code: 'channel.unknown' });
  if (!found.pillar) return fail({ code: 'pillar.unknown' });
  return ok({
    clientId,
    title: body.title.trim(),
    remark: body.remark.trim(),
    checklist: body.checklist.map((line) => line.trim()),
    rule: rule.value,
    fromOn: body.fromOn,
    untilOn: body.rule === null ? null : body.untilOn,
    leadDays: body.leadDays,
    leadId,
    secondId: secondId === leadId ? null : secondId,
    minutes: body.minutes,
    routeId: piece?.routeId ?? null,
    channelIds: piece?.channelIds ?? [],
    pillarId: piece?.pillarId ?? null,
  });
}

/** Writes in the record what became of a duty. */
export const noteDuty = (
  tx: Tx,
  { name }: Pick<Viewer, 'name'>,
  { id, clientId }: Pick<Duty, 'id' | 'clientId'>,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  at: InstantText,
): Promise<void> => recordActivity(tx, { clientId, thing: 'duty', thingId: id, verb, actor: name, detail, at });
