import { isClientsStep } from '../../planning/index.js';
import {
  addDays,
  compareInstants,
  dayIn,
  daysBetween,
  getDay,
  themeOn,
  THEME_LIKE_ENOUGH,
  timeIn,
  toInstantAfterGap,
  wordsOfTheme,
  type Day,
  type InstantText,
  type TimeOfDay,
  type YearlyDay,
} from '@zesting/core';
import type {
  CalendarCountsShape,
  CalendarEntryShape,
  CalendarShape,
  DayCountShape,
  DueShape,
  ClientClockShape,
  MarkerShape,
  PlacementShape,
} from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { windowOf } from '../../embargoes/index.js';
import { firstPicture, PLACEMENT_COLUMNS } from '../../production/index.js';
import { publicHolidays } from '../../../platform/time/holidays.js';
import { themesOf } from './themes-of.js';
import { observancesIn } from '../../../platform/time/observances.js';

const entryWith = (
  picture: string,
): string => `${PLACEMENT_COLUMNS}, h.kind as "channelKind", p.title as "pieceTitle", p.number as "pieceNumber", p.stage,
  l.publish_at as "publishAt", p.pillar_id as "pillarId", p.format_id as "formatId", f.name as "formatName", a.id as "campaignId", a.name as "campaignName", ${picture} as "pictureId",
  p.earliest_publish_on as "earliestOn", ${windowOf('p.id')} as window,
  (select count(*) from placements o where o.piece_id = l.piece_id and o.id <> l.id and not o.cancelled and o.out_at is null and o.on_day is not null) as "siblings"`;
const ENTRY = entryWith('null');
const PICTURED = entryWith(firstPicture('p.content'));
/** Pictures are shown where there is room for them: in a week. */
const PICTURED_DAYS = 7;
const FROM = `from placements l join channels h on h.id = l.channel_id join pieces p on p.id = l.piece_id left join versions v on v.id = l.out_version_id
  join formats f on f.id = p.format_id left join campaign_pieces g on g.piece_id = p.id left join campaigns a on a.id = g.campaign_id`;
/** So many undated ones are in the tray, and so many of a day on the calendar; how many more there are is said. */
const TRAY = 100;
const A_DAY = 30;

/** What is asked for alone; null: all. */
export interface CalendarFilter {
  readonly pillarId: string | null;
  readonly formatId: string | null;
  readonly channelId: string | null;
  readonly campaignId: string | null;
  readonly stage: string | null;
  /** whether it speaks to the theme of its day; of one client alone */
  readonly theme: 'on' | 'off' | null;
}

/** By day, the words of its theme. */
type ThemeWords = Readonly<Record<string, readonly string[]>>;

/** The condition that a placement `l` of a piece `p` is one that is asked for; the filter's values begin at `$first`. */
const passes = (
  first: number,
): string => `($${first}::uuid is null or p.pillar_id = $${first}) and ($${first + 1}::uuid is null or p.format_id = $${first + 1})
  and ($${first + 2}::uuid is null or l.channel_id = $${first + 2}) and ($${first + 3}::uuid is null or p.id in (select piece_id from campaign_pieces where campaign_id = $${first + 3}))
  and ($${first + 4}::text is null or p.stage = $${first + 4})
  and ($${first + 5}::text is null or (($${first + 6}::jsonb) ? l.on_day::text and ($${first + 5} = 'on') = exists (select 1 from jsonb_array_elements_text($${first + 6}::jsonb -> l.on_day::text) w
    where word_similarity(w, p.title || ' ' || left(p.notes, 500)) >= ${THEME_LIKE_ENOUGH})))`;
const valuesOf = ({ pillarId, formatId, channelId, campaignId, stage, theme }: CalendarFilter, words: ThemeWords) => [
  pillarId,
  formatId,
  channelId,
  campaignId,
  stage,
  theme,
  theme === null ? null : JSON.stringify(words),
];
/** The words of the themes of a client's days that can be looked for, as core looks for them. */
async function themeWords(app: App, clientId: string, from: Day, to: Day): Promise<ThemeWords> {
  const { themes, cycle } = await themesOf(app, clientId, from, to);
  const days = Array.from({ length: daysBetween(from, to) + 1 }, (_, index) => addDays(from, index));
  return Object.fromEntries(
    days.flatMap((on) => {
      const theme = themeOn(on, themes, cycle);
      return theme ? [[on, wordsOfTheme(theme.name)] as const] : [];
    }),
  );
}

interface Asked {
  readonly filter: CalendarFilter;
  readonly from: string;
  readonly to: string;
  /** one that is shown however many there are: what an address leads to */
  readonly placementId: string | null;
  /** whether the days are told by which pieces have to be done */
  readonly withDues: boolean;
}

/** Placements from `from` to `to` (both included, each in its client's zone), the tray of undated ones, markers, and each client's clock. */
export async function calendarOf(
  app: App,
  clientIds: readonly string[],
  { from, to, placementId, filter: wanted, withDues }: Asked,
  viewerZone: string,
): Promise<CalendarShape> {
  const [only] = clientIds.length === 1 ? clientIds : [];
  const filter = { ...wanted, theme: only === undefined ? null : wanted.theme };
  const words = filter.theme === null || only === undefined ? {} : await themeWords(app, only, getDay(from), getDay(to));
  const values = valuesOf(filter, words);
  const placed = await app.read<{ id: string; count: number; isFirst: boolean }>(
    `select id, count, place = 1 as "isFirst" from (
       select l.id, count(*) over (partition by l.on_day) as count, row_number() over (partition by l.on_day order by l.publish_at, p.number, l.id) as place
       from placements l join pieces p on p.id = l.piece_id
       where l.client_id = any($1) and l.on_day between $2 and $3 and not l.cancelled and not p.shelved and ${passes(4)}) x where place <= ${A_DAY}`,
    [clientIds, from, to, ...values],
  );
  const inAll = placed.reduce((sum, row) => sum + (row.isFirst ? row.count : 0), 0);
  const columns = daysBetween(getDay(from), getDay(to)) < PICTURED_DAYS ? PICTURED : ENTRY;
  const entries = await app.read<CalendarEntryShape>(
    `select ${columns} ${FROM} where l.id = any($1) or (l.id = $2 and l.client_id = any($3) and l.on_day between $4 and $5) order by l.on_day, l.publish_at, p.number`,
    [placed.map((row) => row.id), placementId, clientIds, from, to],
  );
  const tray = await app.read<CalendarEntryShape>(
    `select ${ENTRY} ${FROM} where l.state = 'undated' and l.piece_id in (
       select p.id from pieces p where p.client_id = any($1) and not p.shelved and p.list is not null
         and exists (select 1 from placements l where l.piece_id = p.id and l.client_id = any($1) and l.state = 'undated' and ${passes(3)})
       order by (p.id = (select piece_id from placements where id = $2)) is true desc, (p.stage in ('approved', 'scheduled')) desc, p.aim_on nulls last, p.number limit ${TRAY})
       and ${passes(3)}
     order by l.id is not distinct from $2 desc, (p.stage in ('approved', 'scheduled')) desc, p.aim_on nulls last, p.number, h.position limit ${TRAY}`,
    [clientIds, placementId, ...values],
  );
  const [undated] = await app.read<{ count: number }>(
    `select count(*) as count from pieces p join placements l on l.piece_id = p.id and l.state = 'undated'
     where p.client_id = any($1) and p.list is not null and not p.shelved and ${passes(2)}`,
    [clientIds, ...values],
  );
  const filtered = values.some((value) => value !== null) ? (await countBetween(app, clientIds, from, to)) - inAll : 0;
  return {
    entries,
    hidden: Math.max(0, inAll - entries.length),
    filtered: Math.max(0, filtered),
    ...(withDues ? await duesBetween(app, clientIds, from, to, values) : { dues: [], duesHidden: 0 }),
    tray,
    trayHidden: Math.max(0, (undated?.count ?? 0) - tray.length),
    markers: await markersOf(app, clientIds, from, to),
    clocks: await clocksOf(app, clientIds, viewerZone),
  };
}

/** So many of a day are told. */
const DUES_A_DAY = 20;
/** A piece is due before it goes out, rarely longer before than so. */
const DUE_BEFORE_DAYS = 60;

/** Pieces by the day on which the last of their open steps has to be finished at the latest. */
async function duesBetween(
  app: App,
  clientIds: readonly string[],
  from: string,
  to: string,
  values: readonly unknown[],
): Promise<Pick<CalendarShape, 'dues' | 'duesHidden'>> {
  const rows = await app.read<DueShape & { count: number }>(
    `select * from (
       select x.*, count(*) over (partition by x.on) as count, row_number() over (partition by x.on order by x.number) as place from (
         select p.id as "pieceId", p.client_id as "clientId", p.title, p.number, s.latest_finish_on as on, s.title as "stepTitle",
           case when ${isClientsStep('s')} then 'the client' else d.name end as "doerName"
         from pieces p cross join lateral (select title, kind, doer_id, latest_finish_on from steps where piece_id = p.id and finished_on is null
             order by latest_finish_on desc nulls last, position desc limit 1) s left join people d on d.id = s.doer_id
         where p.client_id = any($1) and p.list is not null and not p.shelved
           and coalesce(p.aim_on, 'infinity') between $2::date and $3::date + ${DUE_BEFORE_DAYS} and s.latest_finish_on between $2 and $3
           and exists (select 1 from placements l where l.piece_id = p.id and not l.cancelled and ${passes(4)})) x) y
     where place <= ${DUES_A_DAY} order by y.on, y.number`,
    [clientIds, from, to, ...values],
  );
  const all = [...new Map(rows.map(({ on, count }) => [on, count])).values()].reduce((sum, count) => sum + count, 0);
  const dues = rows.map(({ pieceId, clientId, title, on, stepTitle, doerName }) => ({ pieceId, clientId, title, on, stepTitle, doerName }));
  return { dues, duesHidden: all - dues.length };
}

/** How much stands on each day from `from` to `to`, both included, of what is asked for. */
export async function countsBetween(
  app: App,
  clientIds: readonly string[],
  { from, to, filter: wanted }: Pick<Asked, 'from' | 'to' | 'filter'>,
): Promise<CalendarCountsShape> {
  const [only] = clientIds.length === 1 ? clientIds : [];
  const filter = { ...wanted, theme: only === undefined ? null : wanted.theme };
  const words = filter.theme === null || only === undefined ? {} : await themeWords(app, only, getDay(from), getDay(to));
  const days = await app.read<DayCountShape>(
    `select l.on_day as on, count(*) filter (where l.state in ('scheduled', 'sending', 'out', 'unsure'))::int as firm,
       count(*) filter (where l.state = 'pencilled')::int as pencilled, count(*) filter (where l.state in ('missed', 'failed'))::int as failed
     from placements l join pieces p on p.id = l.piece_id
     where l.client_id = any($1) and l.on_day between $2 and $3 and not l.cancelled and not p.shelved and ${passes(4)} group by l.on_day order by l.on_day`,
    [clientIds, from, to, ...valuesOf(filter, words)],
  );
  const markers = await markersOf(app, clientIds, from, to);
  const once = new Map(markers.map((marker) => [`${marker.id ?? ''}${marker.clientId ?? ''}${marker.name}${marker.startOn}`, marker]));
  return { days, markers: [...once.values()] };
}

/** How many placements there are on days, whatever is asked for. */
async function countBetween(app: App, clientIds: readonly string[], from: string, to: string): Promise<number> {
  const [row] = await app.read<{ count: number }>(
    `select count(*) as count from placements l join pieces p on p.id = l.piece_id
     where l.client_id = any($1) and l.on_day between $2 and $3 and not l.cancelled and not p.shelved`,
    [clientIds, from, to],
  );
  return row?.count ?? 0;
}

/** What the clock says at clients', by their names. */
export async function clocksOf(app: App, clientIds: readonly string[], viewerZone: string): Promise<ClientClockShape[]> {
  const now = app.clock.now();
  const clocks = new Map<string, Omit<ClientClockShape, 'clientId'>>(); // many clients, few zones
  const clockIn = (zone: string) => {
    const clock = clocks.get(zone) ?? clockOf(zone, viewerZone, now);
    clocks.set(zone, clock);
    return clock;
  };
  const zones = await app.read<{ id: string; zone: string }>('select id, zone from clients where id = any($1) order by name', [clientIds]);
  return zones.map(({ id, zone }) => ({ clientId: id, ...clockIn(zone) }));
}

/** The client's own date and time now, and when its next day begins by the viewer's clock. */
function clockOf(zone: string, viewerZone: string, now: InstantText): Omit<ClientClockShape, 'clientId'> {
  const todayOn = dayIn(now, zone);
  const midnight = toInstantAfterGap(addDays(todayOn, 1), '00:00' as TimeOfDay, zone); // a time of day
  return {
    zone,
    todayOn,
    nowAt: timeIn(now, zone),
    nextDayAt: timeIn(midnight, viewerZone),
    nextDayIsToday: dayIn(midnight, viewerZone) === dayIn(now, viewerZone) && compareInstants(midnight, now) > 0,
  };
}

/** What stands on the calendars of clients from `from` to `to`, both included: a line per day. */
export async function markersOf(app: App, clientIds: readonly string[], from: string, to: string): Promise<MarkerShape[]> {
  const clients = await app.read<{ id: string; region: string; observances: string[]; own: YearlyDay[] }>(
    `select id, region, observances, coalesce((select jsonb_agg(jsonb_build_object('name', y.name, 'month', y.month, 'day', y.day, 'subjects', y.subjects))
       from yearly_days y where y.client_id is null or y.client_id = c.id), '[]') as own from clients c where id = any($1)`,
    [clientIds],
  );
  const byHand = await app.read<MarkerShape>(
    `select m.id, m.client_id as "clientId", m.kind, m.name, m.start_on as "startOn", m.end_on as "endOn", m.lead_days as "leadDays", m.kind_id as "kindId", k.name as "kindName", m.version, d::date as on,
       (exists (select 1 from run_ups u where u.marker_id = m.id) or exists (select 1 from production_days d where d.marker_id = m.id)) as "isBound"
     from (select id, client_id, kind, kind_id, name, start_on, end_on, lead_days, version from markers where client_id is null or client_id = any($1)
       union all select id, client_id, 'closure', null, name, start_on, end_on, null, null from client_closures where client_id = any($1)) m
       left join marker_kinds k on k.id = m.kind_id,
       generate_series(greatest(m.start_on, $2::date), least(m.end_on, $3::date), interval '1 day') d
     where m.end_on >= $2 and m.start_on <= $3 order by m.start_on, m.name`,
    [clientIds, from, to],
  );
  const years = [Number(from.slice(0, 4)), Number(to.slice(0, 4))] as const;
  const given = clients.flatMap((client) => {
    const chosen = observancesIn(client.region, client.own, ...years).filter((day) => client.observances.includes(day.name));
    const marker = (kind: 'holiday' | 'observance') => (day: { on: string; name: string }) => ({
      id: null,
      on: day.on,
      startOn: day.on,
      endOn: day.on,
      name: day.name,
      kind,
      clientId: client.id,
      kindId: null,
      kindName: null,
      leadDays: null,
      isBound: false,
      version: null,
    });
    return [...publicHolidays(client.region, ...years).map(marker('holiday')), ...chosen.map(marker('observance'))];
  });
  return [...given.filter((marker) => marker.on >= from && marker.on <= to), ...byHand];
}

/** One placement as the contract shows it. */
export async function placementShape(app: App, placementId: string): Promise<PlacementShape> {
  const [row] = await app.read<PlacementShape>(`select ${PLACEMENT_COLUMNS} ${FROM} where l.id = $1`, [placementId]);
  if (!row) throw new Error('the placement went away');
  return row;
}
