import {
  addDays,
  dutyDays,
  dutyLoad,
  dutyState,
  getDay,
  toCalendar,
  type Day,
  type DutyCalendars,
  type DutyDay,
  type DutyDoer,
  type DutyRule,
  type DutyState,
  type LoadDay,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { firstToday, getDoer, type CalendarBook } from './calendars.js';

export type DutyMarkName = 'open' | 'done' | 'left_out' | 'made' | 'missed';

/** What was said of one time of a duty. */
export interface DutyMarkRow {
  readonly on: string;
  readonly mark: DutyMarkName;
  readonly ticks: number[];
  readonly by: string | null;
  readonly pieceId: string | null;
}

interface StoredDutyRow {
  readonly id: string;
  readonly client_id: string | null;
  readonly title: string;
  readonly rule: string | null;
  readonly anchor_on: string;
  readonly from_on: string;
  readonly until_on: string | null;
  readonly lead_days: number;
  readonly lead_id: string;
  readonly second_id: string | null;
  readonly lead_active: boolean;
  readonly second_active: boolean | null;
  readonly minutes: number;
  readonly makes_piece: boolean;
  readonly marks: DutyMarkRow[];
}

/** A duty as reckoning needs it. */
export interface DutySource extends DutyRule, Pick<StoredDutyRow, 'id' | 'title' | 'minutes' | 'marks'> {
  readonly clientId: string | null;
  readonly leadId: string;
  readonly secondId: string | null;
  readonly makesPiece: boolean;
  readonly calendars: DutyCalendars;
}

/** One time of a duty, with who does it and what was said of it. */
export interface KnownDutyDay extends DutyDay {
  readonly personId: string;
  readonly mark: DutyMarkRow | null;
  readonly state: DutyState | Exclude<DutyMarkName, 'open'>;
}

/** So far back is looked for what was missed. */
export const MISSED_DAYS = 92;
/** The longest that a duty may be open before its day. */
const OPEN_DAYS = 180;
/** So far ahead duties take hours. */
const LOAD_DAYS = 366;

const NEVER = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });

/**
 * Duties that hold on `since` or later, of clients that are not archived and the agency's own; marks since then come along.
 * @param only these alone
 */
export async function loadDuties(
  reader: Reader,
  book: CalendarBook,
  since: Day,
  only: readonly string[] | null = null,
): Promise<DutySource[]> {
  const rows = await rowsOf<StoredDutyRow>(
    reader,
    `select d.id, d.client_id, d.title, d.rule, d.anchor_on, d.from_on, d.until_on, d.lead_days, d.lead_id, d.second_id, l.active as lead_active,
       s.active as second_active, d.minutes, d.route_id is not null as makes_piece,
       (select coalesce(jsonb_agg(jsonb_build_object('on', m.on_day, 'mark', m.mark, 'ticks', m.ticks, 'by', p.name, 'pieceId', m.piece_id) order by m.on_day), '[]')
        from duty_marks m left join people p on p.id = m.person_id where m.duty_id = d.id and m.on_day >= $1) as marks
     from duties d join people l on l.id = d.lead_id left join people s on s.id = d.second_id left join clients c on c.id = d.client_id
     where (d.until_on is null or d.until_on >= $1) and
       (d.rule is not null or d.from_on >= $1 or not exists (select 1 from duty_marks m where m.duty_id = d.id and m.mark <> 'open')) and c.archived_at is null and ($2::uuid[] is null or d.id = any($2))
     order by d.title, d.id`,
    [since, only],
  );
  return rows.map((row) => ({
    id: row.id,
    clientId: row.client_id,
    title: row.title,
    rule: row.rule,
    anchorOn: getDay(row.anchor_on),
    fromOn: getDay(row.from_on),
    untilOn: row.until_on === null ? null : getDay(row.until_on),
    leadDays: row.lead_days,
    leadId: row.lead_id,
    secondId: row.second_id,
    minutes: row.makes_piece ? 0 : row.minutes,
    makesPiece: row.makes_piece,
    marks: row.marks,
    calendars: {
      lead: row.lead_active ? getDoer(book, row.lead_id).calendar : NEVER,
      second: row.second_id !== null && row.second_active ? getDoer(book, row.second_id).calendar : null,
    },
  }));
}

const personOf = ({ leadId, secondId }: DutySource, doer: DutyDoer): string => (doer === 'second' && secondId !== null ? secondId : leadId);

/**
 * The times of a duty on days of its rule from `from` to `to`, as they stand today; before its first day those alone of which something was said. A piece
 * that comes again goes out on the day of the rule itself.
 */
export function knownDays(duty: DutySource, book: CalendarBook, from: Day, to: Day): KnownDutyDay[] {
  const marks = new Map(duty.marks.map((mark) => [mark.on, mark]));
  const before = duty.marks.flatMap(({ on, mark }) =>
    on < duty.fromOn && on >= from && on <= to && mark !== 'open'
      ? [{ on: getDay(on), startOn: getDay(on), dueOn: getDay(on), doer: 'lead' as const }]
      : [],
  );
  return [...before, ...dutyDays(duty, duty.calendars, from, to)].map((day) => {
    const personId = personOf(duty, day.doer);
    const mark = marks.get(day.on) ?? null;
    const said = mark === null || mark.mark === 'open' ? null : mark.mark;
    return { ...day, personId, mark, state: said ?? dutyState(day, getDoer(book, personId).todayOn) };
  });
}

/** The minutes that duties take of everybody's days, from each one's today on. */
export async function loadDutyHours(reader: Reader, book: CalendarBook): Promise<LoadDay[]> {
  const first = firstToday(book);
  const duties = await loadDuties(reader, book, addDays(first, -1));
  return duties.flatMap((duty) => {
    if (duty.minutes === 0) return [];
    const days = knownDays(duty, book, addDays(first, -1), addDays(first, LOAD_DAYS));
    return days.flatMap((day) => {
      if (day.state !== 'ahead' && day.state !== 'open' && day.state !== 'due') return [];
      const { calendar, todayOn } = getDoer(book, day.personId);
      return dutyLoad(day, duty.minutes, day.personId, calendar, todayOn);
    });
  });
}

/** Minutes by whose they are, and by day. */
export function minutesByDoer(load: readonly LoadDay[]): Map<string, Map<Day, number>> {
  const all = new Map<string, Map<Day, number>>();
  for (const { doer, on, minutes } of load) {
    const days = all.get(doer) ?? new Map<Day, number>();
    all.set(doer, days.set(on, (days.get(on) ?? 0) + minutes));
  }
  return all;
}

/** Times of duties that are somebody's to do, with how many earlier ones were missed. */
export interface DueDuty {
  readonly duty: DutySource;
  readonly day: KnownDutyDay;
  readonly missedBefore: number;
}

/** The times of a duty from `since` on that can be done now or were missed, and of which nothing was said; none of those that make pieces. */
export function waitingDays(duty: DutySource, book: CalendarBook, since: Day): KnownDutyDay[] {
  if (duty.makesPiece) return [];
  const { todayOn } = getDoer(book, duty.leadId);
  // what comes once waits until something is said of it
  const from = duty.rule === null && duty.fromOn < since ? duty.fromOn : since;
  return knownDays(duty, book, from, addDays(todayOn, OPEN_DAYS)).filter(
    ({ state }) => state === 'open' || state === 'due' || state === 'missed',
  );
}

/** What persons have to do of their duties: for each the times that can be done now, else the one that was missed last; the first due first. */
export function dueDuties(duties: readonly DutySource[], book: CalendarBook): DueDuty[] {
  const due = duties.flatMap((duty) => {
    const days = waitingDays(duty, book, addDays(getDoer(book, duty.leadId).todayOn, -MISSED_DAYS));
    return [...new Set(days.map(({ personId }) => personId))].flatMap((personId) => {
      const theirs = days.filter((day) => day.personId === personId);
      const missed = theirs.filter(({ state }) => state === 'missed');
      const now = theirs.filter(({ state }) => state !== 'missed');
      const shown = now.length > 0 ? now : missed.slice(-1);
      const before = missed.length - (now.length > 0 ? 0 : 1);
      return shown.map((day, index) => ({ duty, day, missedBefore: index > 0 ? 0 : before }));
    });
  });
  return due.sort((a, b) => compare(a.day.dueOn, b.day.dueOn) || compare(a.duty.title, b.duty.title));
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
