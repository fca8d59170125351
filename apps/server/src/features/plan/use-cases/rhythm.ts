import { addDays, dayIn, daysOfRule, fail, getDay, laterOf, ok, readRule, type Day, type InstantText, type Result } from '@zesting/core';
import type { RhythmRuleBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { StoredRule } from '../entities/rhythm-rule.entity.js';

/** A client has no more rules at a time. */
const MOST_RULES = 50;
/** A rule must have a day within so many days of its first. */
const SEEN_DAYS = 1_500;

export type RuleFailure = {
  code:
    | 'rhythm.rule_wrong'
    | 'rhythm.no_day'
    | 'rhythm.in_past'
    | 'rhythm.order_wrong'
    | 'rhythm.too_many'
    | 'rhythm.ended'
    | 'channel.unknown'
    | 'pillar.unknown'
    | 'format.unknown'
    | 'slot.unknown'
    | 'tag_set.unknown'
    | 'http.changed_meanwhile';
};

/** Adds a line to a client's rhythm, from today or a later day of the client's. */
export function addRule(app: App, viewer: Viewer, clientId: string, body: RhythmRuleBody): Promise<Result<string, RuleFailure>> {
  return app.write<string, RuleFailure>(async (tx, now) => {
    const todayOn = await lockClientDay(tx, clientId, now);
    const known = await checked(tx, clientId, body);
    if (!known.ok) return known;
    if (body.fromOn < todayOn) return fail({ code: 'rhythm.in_past' });
    const [{ count } = { count: 0 }] = await rowsOf<{ count: number }>(
      tx,
      'select count(*) as count from rhythm_rules where client_id = $1 and (until_on is null or until_on >= $2)',
      [clientId, todayOn],
    );
    if (count >= MOST_RULES) return fail({ code: 'rhythm.too_many' });
    const id = await insertRow(tx, StoredRule, { ...known.value, clientId, anchorOn: body.fromOn, exceptOn: [], version: 1 });
    await noteOfClient(
      tx,
      viewer,
      clientId,
      'rhythm.added',
      { rule: known.value.rule, at: body.at, channel: await channelName(tx, body.channelId) },
      now,
    );
    return ok(id);
  });
}

/**
 * Changes a line from today on: what was before today stays as it was, so that one which has begun ends yesterday, and another follows it. The one that
 * follows is counted as before, so that every second week stays the same weeks.
 * @returns the id of the line that holds now
 */
export function changeRule(
  app: App,
  viewer: Viewer,
  ruleId: string,
  body: RhythmRuleBody,
  version: number,
): Promise<Result<string, RuleFailure>> {
  return app.write<string, RuleFailure>(async (tx, now) => {
    const { rule, todayOn } = await lockRule(tx, ruleId, now);
    if (rule.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (rule.untilOn !== null && rule.untilOn < todayOn) return fail({ code: 'rhythm.ended' });
    const known = await checked(tx, rule.clientId, body);
    if (!known.ok) return known;
    const hasBegun = rule.fromOn < todayOn;
    if (!hasBegun && body.fromOn < todayOn) return fail({ code: 'rhythm.in_past' });
    const before = { ...rule };
    const fromOn = hasBegun ? laterOf(todayOn, getDay(body.fromOn)) : getDay(body.fromOn);
    if (body.untilOn !== null && body.untilOn < fromOn) return fail({ code: 'rhythm.order_wrong' });
    // what is counted from its first day keeps it, unless that day itself was changed to a later one
    const anchorOn = body.fromOn === rule.fromOn || (hasBegun && body.fromOn <= todayOn) ? rule.anchorOn : body.fromOn;
    const next = { ...known.value, fromOn, anchorOn, exceptOn: rule.exceptOn.filter((on) => on >= fromOn) };
    let id = ruleId;
    if (hasBegun) {
      await tx.update(StoredRule, ruleId, { untilOn: addDays(todayOn, -1), version: rule.version + 1 });
      id = await insertRow(tx, StoredRule, { ...next, clientId: rule.clientId, version: rule.version + 1 });
    } else await tx.update(StoredRule, ruleId, { ...next, version: rule.version + 1 });
    const shown = ({
      channelId,
      rule: words,
      atTime,
      untilOn,
      skipsHolidays,
      pillarId,
      formatId,
      purpose,
      fromStock,
      tagSetId,
    }: Omit<typeof next, 'anchorOn' | 'fromOn' | 'exceptOn'>) => ({
      channelId,
      rule: words,
      at: atTime,
      untilOn,
      skipsHolidays,
      pillarId,
      formatId,
      purpose,
      fromStock,
      tagSetId,
    });
    await noteOfClient(tx, viewer, rule.clientId, 'rhythm.changed', changesBetween(shown(before), shown(next)), now);
    return ok(id);
  });
}

/** Ends a line: one that has begun ends yesterday, one that has not is gone. */
export function endRule(app: App, viewer: Viewer, ruleId: string): Promise<Result<null, RuleFailure>> {
  return app.write<null, RuleFailure>(async (tx, now) => {
    const { rule, todayOn } = await lockRule(tx, ruleId, now);
    if (rule.untilOn !== null && rule.untilOn < todayOn) return ok(null);
    if (rule.fromOn < todayOn) await tx.update(StoredRule, ruleId, { untilOn: addDays(todayOn, -1), version: rule.version + 1 });
    else await tx.delete(StoredRule, ruleId);
    await noteOfClient(
      tx,
      viewer,
      rule.clientId,
      'rhythm.ended',
      { rule: rule.rule, at: rule.atTime, channel: await channelName(tx, rule.channelId) },
      now,
    );
    return ok(null);
  });
}

/** Leaves one slot out, or takes it in again. Slots before today stay as they were. */
export function exceptSlot(app: App, viewer: Viewer, ruleId: string, on: string, isLeftOut: boolean): Promise<Result<null, RuleFailure>> {
  return app.write<null, RuleFailure>(async (tx, now) => {
    const { rule, todayOn } = await lockRule(tx, ruleId, now);
    const day = getDay(on);
    if (day < todayOn) return fail({ code: 'rhythm.in_past' });
    const holds = rule.fromOn <= day && (rule.untilOn === null || rule.untilOn >= day);
    if (!holds || daysOfRule(rule.rule, getDay(rule.anchorOn), day, day).length === 0) return fail({ code: 'slot.unknown' });
    if (rule.exceptOn.includes(on) === isLeftOut) return ok(null);
    const exceptOn = isLeftOut ? [...rule.exceptOn, on].sort() : rule.exceptOn.filter((other) => other !== on);
    await tx.update(StoredRule, ruleId, { exceptOn, version: rule.version + 1 });
    const verb = isLeftOut ? 'rhythm.slot_left_out' : 'rhythm.slot_taken_in';
    await noteOfClient(tx, viewer, rule.clientId, verb, { on, channel: await channelName(tx, rule.channelId) }, now);
    return ok(null);
  });
}

/** Locks the client's row against others who change its rhythm, and tells its today. */
async function lockClientDay(tx: Tx, clientId: string, now: InstantText): Promise<Day> {
  const [client] = await rowsOf<{ zone: string }>(tx, 'select zone from clients where id = $1 for no key update', [clientId]);
  if (!client) throw new Error('the client went away');
  return dayIn(now, client.zone);
}

async function lockRule(tx: Tx, ruleId: string, now: InstantText): Promise<{ rule: StoredRule; todayOn: Day }> {
  const { clientId } = await tx.findOneByOrFail(StoredRule, { id: ruleId });
  const todayOn = await lockClientDay(tx, clientId, now);
  return { rule: await tx.findOneByOrFail(StoredRule, { id: ruleId }), todayOn };
}

type Known = Omit<StoredRule, 'id' | 'clientId' | 'anchorOn' | 'exceptOn' | 'version'>;

/** What is asked for as it is stored, where all that it names is there and it has a day at all. */
async function checked(tx: Tx, clientId: string, body: RhythmRuleBody): Promise<Result<Known, RuleFailure>> {
  const rule = readRule(body.rule);
  if (!rule.ok) return rule;
  if (body.untilOn !== null && body.untilOn < body.fromOn) return fail({ code: 'rhythm.order_wrong' });
  const last = body.untilOn ?? addDays(getDay(body.fromOn), SEEN_DAYS);
  if (daysOfRule(rule.value, getDay(body.fromOn), getDay(body.fromOn), getDay(last)).length === 0) return fail({ code: 'rhythm.no_day' });
  const [found] = await rowsOf<{ channel: boolean; pillar: boolean; format: boolean; tags: boolean }>(
    tx,
    `select exists (select 1 from channels where id = $1 and client_id = $4 and archived_at is null) as channel,
       $2::uuid is null or exists (select 1 from pillars where id = $2 and client_id = $4 and archived_at is null) as pillar,
       $3::uuid is null or exists (select 1 from formats where id = $3 and archived_at is null) as format,
       $5::uuid is null or exists (select 1 from tag_sets where id = $5 and client_id = $4 and archived_at is null) as tags`,
    [body.channelId, body.pillarId, body.formatId, clientId, body.tagSetId ?? null],
  );
  if (!found?.channel) return fail({ code: 'channel.unknown' });
  if (!found.pillar) return fail({ code: 'pillar.unknown' });
  if (!found.format) return fail({ code: 'format.unknown' });
  if (!found.tags) return fail({ code: 'tag_set.unknown' });
  const {
    channelId,
    at: atTime,
    fromOn,
    untilOn,
    skipsHolidays,
    pillarId,
    formatId,
    purpose = null,
    fromStock = false,
    tagSetId = null,
  } = body;
  return ok({ channelId, rule: rule.value, atTime, fromOn, untilOn, skipsHolidays, pillarId, formatId, purpose, fromStock, tagSetId });
}

async function channelName(tx: Tx, channelId: string): Promise<string> {
  const [row] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [channelId]);
  return row?.name ?? '';
}
