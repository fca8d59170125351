import {
  bindSlots,
  dayIn,
  getDay,
  getTimeOfDay,
  slotsOf,
  type Day,
  type PlacementState,
  type Purpose,
  type RhythmRule,
  type Slot,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';
import { publicHolidays } from '../../../platform/time/holidays.js';

interface RuleRow {
  readonly id: string;
  readonly clientId: string;
  readonly channelId: string;
  readonly channelName: string;
  readonly rule: string;
  readonly at: string;
  readonly anchorOn: string;
  readonly fromOn: string;
  readonly untilOn: string | null;
  readonly exceptOn: string[];
  readonly skipsHolidays: boolean;
  readonly pillarId: string | null;
  readonly formatId: string | null;
  readonly purpose: Purpose | null;
  readonly fromStock: boolean;
  readonly tagSetId: string | null;
  readonly version: number;
}

/** A rule with what it wants, and the name of its channel. */
export interface KnownRule
  extends RhythmRule, Pick<RuleRow, 'channelName' | 'pillarId' | 'formatId' | 'purpose' | 'fromStock' | 'tagSetId' | 'version'> {}

/** A client's rhythm, in its zone. */
export interface ClientRhythm {
  readonly clientId: string;
  readonly zone: string;
  readonly region: string;
  readonly todayOn: Day;
  readonly rules: readonly KnownRule[];
}

/** A slot with what its rule wants there. */
export interface WantedSlot extends Slot, Pick<RuleRow, 'channelName' | 'pillarId' | 'formatId' | 'purpose' | 'fromStock' | 'tagSetId'> {}

const toRule = ({ at, anchorOn, fromOn, untilOn, exceptOn, ...row }: RuleRow): KnownRule => ({
  ...row,
  at: getTimeOfDay(at),
  anchorOn: getDay(anchorOn),
  fromOn: getDay(fromOn),
  untilOn: untilOn === null ? null : getDay(untilOn),
  exceptOn: exceptOn.map(getDay),
});

/**
 * The rhythms of clients, in the order of their names: rules that hold on `since` or later, of channels that are not archived.
 * @param since null: all that there ever were
 */
export async function rhythmsOf(reader: Reader, clientIds: readonly string[], since: Day | null, now: string): Promise<ClientRhythm[]> {
  const clients = await rowsOf<{ id: string; zone: string; region: string }>(
    reader,
    'select id, zone, region from clients where id = any($1) and archived_at is null order by name, id',
    [clientIds],
  );
  const rules = await rowsOf<RuleRow>(
    reader,
    `select r.id, r.client_id as "clientId", r.channel_id as "channelId", h.name as "channelName", r.rule, r.at_time as at, r.anchor_on as "anchorOn",
       r.from_on as "fromOn", r.until_on as "untilOn", r.except_on as "exceptOn", r.skips_holidays as "skipsHolidays", r.pillar_id as "pillarId",
       r.format_id as "formatId", r.purpose, r.from_stock as "fromStock", r.tag_set_id as "tagSetId", r.version
     from rhythm_rules r join channels h on h.id = r.channel_id and h.archived_at is null
     where r.client_id = any($1) and ($2::date is null or r.until_on is null or r.until_on >= $2)
     order by h.position, h.name, r.at_time, r.id`,
    [clientIds, since],
  );
  const byClient = byClientOf(rules);
  return clients.map(({ id, zone, region }) => ({
    clientId: id,
    zone,
    region,
    todayOn: dayIn(now, zone),
    rules: (byClient.get(id) ?? []).map(toRule),
  }));
}

/** Rows by their client, in the order in which they came. */
export function byClientOf<Row extends { readonly clientId: string }>(rows: readonly Row[]): ReadonlyMap<string, Row[]> {
  const all = new Map<string, Row[]>();
  for (const row of rows) {
    const known = all.get(row.clientId);
    if (known) known.push(row);
    else all.set(row.clientId, [row]);
  }
  return all;
}

/** The slots of a rhythm from `from` to `to`, both included, in their order. */
export function slotsBetween({ rules, zone, region }: ClientRhythm, from: Day, to: Day): WantedSlot[] {
  if (rules.length === 0) return [];
  const holidays = new Set<string>(publicHolidays(region, Number(from.slice(0, 4)), Number(to.slice(0, 4))).map(({ on }) => on));
  const byId = new Map(rules.map((rule) => [rule.id, rule]));
  return slotsOf(rules, zone, from, to, holidays).map((slot) => {
    const rule = byId.get(slot.ruleId);
    const { channelName = '', pillarId = null, formatId = null, purpose = null, fromStock = false, tagSetId = null } = rule ?? {};
    return { ...slot, channelName, pillarId, formatId, purpose, fromStock, tagSetId };
  });
}

/** A placement as far as slots are bound to it. */
export interface BoundRow {
  readonly id: string;
  readonly clientId: string;
  readonly channelId: string;
  readonly on: Day;
  readonly at: RhythmRule['at'];
  readonly state: PlacementState;
}

/** What is placed for clients from `from` to `to`, both included. */
export async function placedBetween(reader: Reader, clientIds: readonly string[], from: Day, to: Day): Promise<BoundRow[]> {
  return rowsOf<BoundRow>(
    reader,
    `select l.id, l.client_id as "clientId", l.channel_id as "channelId", l.on_day as on, l.at_time as at, l.state
     from placements l join pieces p on p.id = l.piece_id
     where l.client_id = any($1) and l.on_day between $2 and $3 and not l.cancelled and not p.shelved order by l.publish_at, l.id`,
    [clientIds, from, to],
  );
}

/** The blackouts of each client (the agency's own are everybody's): day and name. */
export async function blackoutsBetween(
  reader: Reader,
  clientIds: readonly string[],
  from: Day,
  to: Day,
): Promise<Map<string, Map<string, string>>> {
  const rows = await rowsOf<{ clientId: string; on: string; name: string }>(
    reader,
    `select c.id as "clientId", d::date as on, m.name from clients c join markers m on m.client_id = c.id or m.client_id is null,
       generate_series(greatest(m.start_on, $2::date), least(m.end_on, $3::date), interval '1 day') d
     where c.id = any($1) and m.kind = 'blackout' and m.end_on >= $2 and m.start_on <= $3 order by m.name`,
    [clientIds, from, to],
  );
  const all = new Map<string, Map<string, string>>();
  for (const { clientId, on, name } of rows) all.set(clientId, (all.get(clientId) ?? new Map<string, string>()).set(on, name));
  return all;
}

/** Whether something stands in a slot. The slot must be one of the rhythm's. */
export async function isTaken(reader: Reader, rhythm: ClientRhythm, slot: Slot): Promise<boolean> {
  const slots = slotsBetween(rhythm, slot.on, slot.on);
  const placed = await placedBetween(reader, [rhythm.clientId], slot.on, slot.on);
  return bindSlots(slots, placed).slots.some(({ slot: one, placed: there }) => one.ruleId === slot.ruleId && there !== null);
}
