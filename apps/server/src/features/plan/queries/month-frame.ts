import { dayIn, firstOfMonth, lastOfMonth, mondayOf, monthsToStart, monthWeeks, nameOfMonth } from '@zesting/core';
import type { MonthFrameShape, MonthsToStartShape, MonthWeekShape, PlanMonthShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { knownDays, loadCalendars, loadDuties } from '../../planning/index.js';
import { planMonth } from './plan-month.js';
import { rhythmsOf } from './rhythm-of.js';

/** What a client's month is made of before a single idea: its weeks, rhythm, pieces that come again, themes, and what is carried over. Undefined where the client is archived. */
export async function monthFrame(app: App, clientId: string, month: string): Promise<MonthFrameShape | undefined> {
  const plan = await planMonth(app, clientId, month);
  if (!plan) return undefined;
  const [from, to] = [firstOfMonth(month), lastOfMonth(month)];
  const [head] = await app.read<{ code: string; startedAt: string | null; startedBy: string | null }>(
    `select c.code, s.at as "startedAt", p.name as "startedBy" from clients c left join month_starts s on s.client_id = c.id and s.month = $2
       left join people p on p.id = s.person_id where c.id = $1`,
    [clientId, month],
  );
  const [rhythm] = await rhythmsOf(app.manager, [clientId], from, app.clock.now());
  const slotsOf = (ruleId: string) => plan.slots.filter((slot) => slot.ruleId === ruleId).length;
  const book = await loadCalendars(app.manager, app.clock.now());
  const duties = (await loadDuties(app.manager, book, from)).filter((duty) => duty.clientId === clientId && duty.makesPiece);
  // a marker stands there once for each of its days
  const markers = [...new Map(plan.markers.map((marker) => [`${marker.id ?? marker.name}${marker.startOn}`, marker])).values()];
  return {
    month,
    name: nameOfMonth(head?.code ?? '', month),
    startedAt: head?.startedAt ?? null,
    startedBy: head?.startedBy ?? null,
    weeks: weeksIn(plan),
    rules: (rhythm?.rules ?? [])
      .map(({ id, channelName, rule, at }) => ({ ruleId: id, channelName, rule, at, slots: slotsOf(id) }))
      .filter(({ slots }) => slots > 0),
    recurring: duties
      .map((duty) => ({ dutyId: duty.id, title: duty.title, days: knownDays(duty, book, from, to).map(({ on }) => String(on)) }))
      .filter(({ days }) => days.length > 0),
    themes: plan.themes,
    markers: markers.filter(({ startOn }) => startOn >= from),
    carried: markers.filter(({ startOn }) => startOn < from),
  };
}

/** Weeks one to five by real dates. */
function weeksIn({ month, slots, themes }: PlanMonthShape): MonthWeekShape[] {
  const ofMonth = themes.find(({ period }) => period === 'month')?.name ?? null;
  return monthWeeks(month).map((days, index) => {
    const last = days.at(-1) ?? firstOfMonth(month);
    const own = slots.filter(({ on }) => (days as readonly string[]).includes(on));
    return {
      number: index + 1,
      fromOn: days[0] ?? '',
      toOn: last,
      slots: own.filter(({ planned, blackout }) => planned !== null || blackout === null).length,
      filled: own.filter(({ planned }) => planned !== null).length,
      theme: themes.find(({ period, startOn }) => period === 'week' && startOn === mondayOf(last))?.name ?? ofMonth,
    };
  });
}

/** Months of these clients that should be under way and that nobody has begun to plan; of clients that have a rhythm. */
export async function monthsToBeStarted(app: App, clientIds: readonly string[]): Promise<MonthsToStartShape> {
  const rows = await app.read<{ clientId: string; code: string; zone: string; started: string[] }>(
    `select c.id as "clientId", c.code, c.zone, array(select month from month_starts s where s.client_id = c.id) as started
     from clients c where c.id = any($1) and c.archived_at is null and exists (select 1 from rhythm_rules r where r.client_id = c.id) order by c.name, c.id`,
    [clientIds],
  );
  const now = app.clock.now();
  return {
    months: rows.flatMap(({ clientId, code, zone, started }) =>
      monthsToStart(dayIn(now, zone), new Set(started)).map((one) => ({ clientId, ...one, name: nameOfMonth(code, one.month) })),
    ),
  };
}
