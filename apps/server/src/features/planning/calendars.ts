import {
  addDays,
  dayIn,
  getDay,
  getTimeOfDay,
  timeIn,
  toCalendar,
  type Day,
  type InstantText,
  type PlanDoer,
  type TimeOfDay,
  type WorkCalendar,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { dayNear } from '../../platform/time/day-near.js';
import { publicHolidays } from '../../platform/time/holidays.js';

interface PartyRow {
  id: string;
  zone: string;
  region: string;
  weekly_minutes: number[];
}
interface AgencyRow extends PartyRow {
  cut_off: string;
  tight_days: number;
}
interface ClientRow extends PartyRow {
  usual_time: string;
}
/** An absence that is thought of, and not entered. */
export interface OffRow {
  owner_id: string;
  start_on: string;
  end_on: string;
  part: number;
}

export type { Reader };

/** A client as planning sees it. */
export interface PlanClient {
  readonly zone: string;
  readonly usualTime: TimeOfDay;
  readonly todayOn: Day;
}

/** The key of a doer in the book. */
export const AGENCY_KEY = 'agency';
export const clientKey = (clientId: string): string => `client:${clientId}`;

/** Later than anybody's today. */
const LAST_DAY = getDay('9999-12-31');

/** Everybody's working calendar and today, at one moment. */
export interface CalendarBook {
  readonly now: InstantText;
  readonly tightDays: number;
  readonly doers: Readonly<Record<string, PlanDoer>>;
  readonly clients: ReadonlyMap<string, PlanClient>;
}

/**
 * Loads the working calendars of the agency, its people and its clients.
 * @param also absences that are not entered
 * @param only where given, these clients and nobody of the agency's people: enough for lists of what clients are asked
 */
export async function loadCalendars(
  tx: Reader,
  now: InstantText,
  only: ReadonlySet<string> | null = null,
  also: readonly OffRow[] = [],
): Promise<CalendarBook> {
  const about = dayNear(now);
  const since = addDays(about, -400);
  const [agency] = await rowsOf<AgencyRow>(tx, 'select id, zone, region, weekly_minutes, cut_off, tight_days from agencies');
  if (!agency) throw new Error('there is no agency');
  const clientIds = only && [...only];
  const people = clientIds ? [] : await rowsOf<PartyRow>(tx, 'select id, zone, region, weekly_minutes from people');
  const clients = await rowsOf<ClientRow>(
    tx,
    'select id, zone, region, weekly_minutes, usual_time from clients where $1::uuid[] is null or id = any($1)',
    [clientIds],
  );
  const off = await rowsOf<OffRow>(
    tx,
    `select person_id as owner_id, start_on, end_on, part from time_off where end_on >= $1 and $2::uuid[] is null
     union all select client_id, start_on, end_on, 1 from client_closures where end_on >= $1 and ($2::uuid[] is null or client_id = any($2))`,
    [since, clientIds],
  );
  const years = [Number(since.slice(0, 4)), Number(about.slice(0, 4)) + 3] as const;
  const offOf = grouped([...off, ...also]);
  const calendarOf = (party: PartyRow): WorkCalendar =>
    whenAsked(() => {
      const off = offOf.get(party.id) ?? [];
      return keptCalendar([party.weekly_minutes, party.region, years, off.map((row) => [row.start_on, row.end_on, row.part])], () =>
        toCalendar({
          weeklyMinutes: party.weekly_minutes,
          holidays: publicHolidays(party.region, ...years).map((holiday) => holiday.on),
          timeOff: off.map((row) => ({ startOn: getDay(row.start_on), endOn: getDay(row.end_on), part: row.part })),
        }),
      );
    });
  const clocks = new Map<string, { todayOn: Day; todayCounts: boolean }>();
  const clockIn = (zone: string) => {
    const clock = clocks.get(zone) ?? { todayOn: dayIn(now, zone), todayCounts: timeIn(now, zone) < agency.cut_off };
    clocks.set(zone, clock);
    return clock;
  };
  const doerOf = (party: PartyRow): PlanDoer => ({
    calendar: calendarOf(party),
    zone: party.zone,
    ...clockIn(party.zone),
  });
  return {
    now,
    tightDays: agency.tight_days,
    doers: Object.fromEntries([
      [AGENCY_KEY, { ...doerOf(agency), unlimited: true }],
      ...people.map((person) => [person.id, doerOf(person)] as const),
      ...clients.map((client) => [clientKey(client.id), { ...doerOf(client), unlimited: true }] as const),
    ]),
    clients: new Map(
      clients.map((client) => [
        client.id,
        { zone: client.zone, usualTime: getTimeOfDay(client.usual_time), todayOn: clockIn(client.zone).todayOn },
      ]),
    ),
  };
}

const kept = new Map<string, WorkCalendar>();
const MOST_KEPT = 2_000;

/** A calendar as it was made for an earlier plan, as long as nothing that it is made of has changed. */
function keptCalendar(madeOf: unknown, make: () => WorkCalendar): WorkCalendar {
  const key = JSON.stringify(madeOf);
  const found = kept.get(key) ?? make();
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(key, found);
  return found;
}

/** A calendar that is made when it is first asked for: of many parties, a plan asks few. */
function whenAsked(make: () => WorkCalendar): WorkCalendar {
  let made: WorkCalendar | undefined;
  return { minutesOnNumber: (number) => (made ??= make()).minutesOnNumber(number) };
}

function grouped(rows: readonly OffRow[]): Map<string, OffRow[]> {
  const groups = new Map<string, OffRow[]>();
  for (const row of rows) {
    const group = groups.get(row.owner_id);
    if (group) group.push(row);
    else groups.set(row.owner_id, [row]);
  }
  return groups;
}

/** The doer with that key; a missing one is a bug. */
export function getDoer(book: CalendarBook, key: string): PlanDoer {
  const doer = book.doers[key];
  if (!doer) throw new Error(`no calendar for ${key}`);
  return doer;
}

/** The client with that id; a missing one is a bug. */
export function getPlanClient(book: CalendarBook, clientId: string): PlanClient {
  const client = book.clients.get(clientId);
  if (!client) throw new Error(`no client ${clientId}`);
  return client;
}

/** The earliest date that anybody has now. */
export const firstToday = (book: CalendarBook): Day =>
  Object.values(book.doers).reduce((least, { todayOn }) => (todayOn < least ? todayOn : least), LAST_DAY);
