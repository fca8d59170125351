import { addDays, getDay, isReady, type Day } from '@zesting/core';
import type { GoingOutShape, GoingOutSoonShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clocksOf } from '../../calendar/index.js';
import { goingOutRows, placedWhere, type Placed } from './placed.js';

/** Today and the next seven days. */
const DAYS_AHEAD = 7;
/** So long before it goes out the desk says what is not ready. */
const SOON_DAYS = 3;
/** So many are answered; how many more there are is said. */
const MOST = 300;
/** The same of what was missed and of what has no address. */
const MOST_BEHIND = 50;
/** Nobody looks for an address after so many days. */
const ADDRESS_DAYS = 60;

const MISSED = `p.client_id = any($1) and p.list = 'trouble' and not p.shelved and l.state in ('missed', 'failed', 'unsure')`;
const UNADDRESSED = `l.client_id = any($1) and l.on_day >= $2 and l.out_at is not null and l.out_address is null and h.has_address
  and not l.cancelled and not p.shelved`;

interface Reach {
  readonly clientIds: readonly string[];
  /** each client's today, by its id */
  readonly todays: Readonly<Record<string, string>>;
}

const reachOf = (clocks: readonly { readonly clientId: string; readonly todayOn: string }[]): Reach => ({
  clientIds: clocks.map(({ clientId }) => clientId),
  todays: Object.fromEntries(clocks.map(({ clientId, todayOn }) => [clientId, todayOn])),
});

/** The earliest of the clients' todays and the latest: a day or two apart. */
function firstAndLast({ todays }: Reach): [first: Day, last: Day] {
  const sorted = Object.values(todays).sort();
  return [getDay(sorted[0] ?? '1970-01-01'), getDay(sorted.at(-1) ?? '1970-01-01')];
}

/** Placements on the clients' next days, each by its own today: found by days that hold for all of them, so that an index finds them. */
const NEXT = `from placements n join pieces q on q.id = n.piece_id and not q.shelved
  where n.client_id = any($1) and n.on_day between $2 and $3 and not n.cancelled and n.state not in ('missed', 'failed', 'unsure')
    and n.on_day - ($4::jsonb ->> n.client_id::text)::date between 0 and $5::int`;

function nextValues(reach: Reach, daysAhead: number): unknown[] {
  const [first, last] = firstAndLast(reach);
  return [reach.clientIds, first, addDays(last, daysAhead), JSON.stringify(reach.todays), daysAhead];
}

/** What stands on the clients' next days, in the order in which it goes out. */
async function placedNext(app: App, reach: Reach, daysAhead: number): Promise<Placed[]> {
  const found = await app.read<{ id: string }>(
    `select n.id ${NEXT} order by n.publish_at, n.id limit ${MOST}`,
    nextValues(reach, daysAhead),
  );
  return placedWhere(app, 'l.id = any($1) order by l.publish_at, p.number, h.position', [found.map(({ id }) => id)]);
}

async function countNext(app: App, reach: Reach, daysAhead: number): Promise<number> {
  const [row] = await app.read<{ count: number }>(`select count(*)::int as count ${NEXT}`, nextValues(reach, daysAhead));
  return row?.count ?? 0;
}

async function countOf(app: App, where: string, values: readonly unknown[]): Promise<number> {
  const [row] = await app.read<{ count: number }>(
    `select count(*)::int as count from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id where ${where}`,
    [...values],
  );
  return row?.count ?? 0;
}

async function behind(app: App, where: string, values: readonly unknown[]): Promise<{ rows: Placed[]; count: number }> {
  const rows = await placedWhere(app, `${where} order by l.publish_at desc, l.id limit ${MOST_BEHIND}`, values);
  return { rows, count: rows.length < MOST_BEHIND ? rows.length : await countOf(app, where, values) };
}

/** The clients, and the day from which addresses are asked for: `UNADDRESSED` takes both. */
const addressesAsked = (reach: Reach) => [reach.clientIds, addDays(firstAndLast(reach)[0], -ADDRESS_DAYS)];

/** What goes out from each client's today on, what was missed, and what is out without its address. */
export async function goingOutOf(app: App, clientIds: readonly string[], viewerZone: string): Promise<GoingOutShape> {
  const clocks = await clocksOf(app, clientIds, viewerZone);
  const reach = reachOf(clocks);
  const next = await placedNext(app, reach, DAYS_AHEAD);
  const missed = await behind(app, MISSED, [clientIds]);
  const unaddressed = await behind(app, UNADDRESSED, addressesAsked(reach));
  return {
    clocks,
    rows: await goingOutRows(app, next),
    hidden: next.length < MOST ? 0 : (await countNext(app, reach, DAYS_AHEAD)) - next.length,
    missed: await goingOutRows(app, missed.rows),
    missedHidden: missed.count - missed.rows.length,
    unaddressed: await goingOutRows(app, unaddressed.rows),
    unaddressedHidden: unaddressed.count - unaddressed.rows.length,
  };
}

/** The same of the next three days alone, in numbers. */
export const goingOutSoon = (app: App, clientIds: readonly string[], viewerZone: string): Promise<GoingOutSoonShape> =>
  goingOutWithin(app, clientIds, viewerZone, SOON_DAYS);

/** What of it needs somebody, in numbers. What is out already needs nobody. @param days how far ahead */
export async function goingOutWithin(app: App, clientIds: readonly string[], viewerZone: string, days: number): Promise<GoingOutSoonShape> {
  const clocks = await clocksOf(app, clientIds, viewerZone);
  const reach = reachOf(clocks);
  const placed = await placedNext(app, reach, days);
  const rows = (await goingOutRows(app, placed)).filter(({ state }) => state !== 'out' && state !== 'sending');
  const ready = rows.filter(({ findings }) => isReady(findings));
  return {
    count: placed.length < MOST ? rows.length : await countNext(app, reach, days),
    unready: rows.length - ready.length,
    unchecked: ready.filter(({ check }) => check === null).length,
    missed: await countOf(app, MISSED, [clientIds]),
    unaddressed: await countOf(app, UNADDRESSED, addressesAsked(reach)),
  };
}
