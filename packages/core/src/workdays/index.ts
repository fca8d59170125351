import { fail, ok, type Result } from '../result/index.js';
import { fromDayNumber, toDayNumber, weekdayOfNumber, type Day } from '../time/index.js';

/** What makes one party's working calendar. Minutes are whole; a weekday that is absent from the pattern has none. */
export interface CalendarFacts {
  /** minutes of work on Monday to Sunday */
  readonly weeklyMinutes: readonly number[];
  /** public holidays of the party's region and its own closures: no work */
  readonly holidays?: Iterable<Day>;
  /** time off; `part` is the share of the day's hours that is lost, 1 where absent, 0.5 for a half day */
  readonly timeOff?: Iterable<{ readonly startOn: Day; readonly endOn: Day; readonly part?: number }>;
  /** worked exceptions: these minutes count instead of pattern and holidays; time off still takes its part */
  readonly worked?: Iterable<{ readonly on: Day; readonly minutes: number }>;
}

/** A working calendar, ready for counting. Make one with `toCalendar`. */
export interface WorkCalendar {
  /** minutes of work on the day with that day number (days since 1970-01-01) */
  readonly minutesOnNumber: (number: number) => number;
}

/** No working day within ten years of where the search began. */
export interface NoneInReach {
  readonly code: 'workdays.none_in_reach';
}

/** Ten years: no party is away for longer, so a longer search means a calendar without working days. */
export const REACH_DAYS = 3653;
const noneInReach = fail<NoneInReach>({ code: 'workdays.none_in_reach' });

/** Monday to Friday, eight hours. */
export const MONDAY_TO_FRIDAY: readonly number[] = [480, 480, 480, 480, 480, 0, 0];

/** Makes a working calendar: weekly pattern, less holidays, plus worked exceptions, less time off. */
export function toCalendar(facts: CalendarFacts): WorkCalendar {
  const holidays = new Set<number>();
  for (const day of facts.holidays ?? []) holidays.add(toDayNumber(day));
  const worked = new Map<number, number>();
  for (const { on, minutes } of facts.worked ?? []) worked.set(toDayNumber(on), minutes);
  const lostOn = shareLost(facts.timeOff ?? []);
  return {
    minutesOnNumber: (number) => {
      const full = worked.get(number) ?? (holidays.has(number) ? 0 : (facts.weeklyMinutes[weekdayOfNumber(number) - 1] ?? 0));
      return full === 0 ? 0 : Math.round(full * (1 - lostOn(number)));
    },
  };
}

/**
 * The share of a day's hours that absences take away, by day number, 1 at most. Absences are reckoned as spans: one that lasts for good
 * costs no more than one of a day.
 */
function shareLost(absences: Iterable<{ readonly startOn: Day; readonly endOn: Day; readonly part?: number }>): (number: number) => number {
  const changes = new Map<number, number>();
  const change = (number: number, by: number) => changes.set(number, (changes.get(number) ?? 0) + by);
  for (const { startOn, endOn, part = 1 } of absences) {
    const [first, last] = [toDayNumber(startOn), toDayNumber(endOn)];
    if (last < first) continue;
    change(first, part);
    change(last + 1, -part);
  }
  if (changes.size === 0) return () => 0;
  const starts = [...changes.keys()].sort((a, b) => a - b);
  let sum = 0;
  const shares = starts.map((number) => Math.min(1, Math.max(0, (sum += changes.get(number) ?? 0))));
  let [from, to, share] = [-Infinity, starts[0] ?? Infinity, 0]; // the stretch that was asked about last: the next question is mostly near
  return (number) => {
    if (number >= from && number < to) return share;
    let [low, high] = [0, starts.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((starts[middle] ?? Infinity) <= number) low = middle + 1;
      else high = middle;
    }
    [from, to, share] = [starts[low - 1] ?? -Infinity, starts[low] ?? Infinity, shares[low - 1] ?? 0];
    return share;
  };
}

/** Days on which both parties work; the minutes are the lesser of the two. */
export const bothCalendars = (a: WorkCalendar, b: WorkCalendar): WorkCalendar => ({
  minutesOnNumber: (number) => Math.min(a.minutesOnNumber(number), b.minutesOnNumber(number)),
});

/** Minutes of work on a day. */
export const minutesOn = (calendar: WorkCalendar, day: Day): number => calendar.minutesOnNumber(toDayNumber(day));

/** Whether any hours are left on that day. */
export const isWorkingDay = (calendar: WorkCalendar, day: Day): boolean => minutesOn(calendar, day) > 0;

/** The first working day from `number` on, going by `step` (+1 or -1), `number` itself included; undefined when none is in reach. */
export function seekWorkingNumber(calendar: WorkCalendar, number: number, step: 1 | -1): number | undefined {
  for (let n = number, left = REACH_DAYS; left > 0; n += step, left--) if (calendar.minutesOnNumber(n) > 0) return n;
  return undefined;
}

/** Moves from `number` by `count` working days (sign gives the direction); `number` itself is never counted. Undefined: none in reach. */
export function moveWorkingNumber(calendar: WorkCalendar, number: number, count: number): number | undefined {
  const step = count < 0 ? -1 : 1;
  let at: number | undefined = number;
  for (let left = Math.abs(count); left > 0 && at !== undefined; left--) at = seekWorkingNumber(calendar, at + step, step);
  return at;
}

const toResult = (number: number | undefined): Result<Day, NoneInReach> => (number === undefined ? noneInReach : ok(fromDayNumber(number)));

/**
 * Finds the day `count` working days after `start`.
 * @param start counted from, never counted itself; need not be a working day
 * @param count whole working days; negative moves back; 0 returns `start` unchanged
 * @returns the day, or `workdays.none_in_reach` when ten years hold too few
 * @see OpenDocument 1.3 part 4, WORKDAY
 */
export const addWorkingDays = (calendar: WorkCalendar, start: Day, count: number): Result<Day, NoneInReach> =>
  toResult(moveWorkingNumber(calendar, toDayNumber(start), count));

/** The last working day strictly before `day`. */
export const workingDayBefore = (calendar: WorkCalendar, day: Day): Result<Day, NoneInReach> => addWorkingDays(calendar, day, -1);

/** The first working day strictly after `day`. */
export const workingDayAfter = (calendar: WorkCalendar, day: Day): Result<Day, NoneInReach> => addWorkingDays(calendar, day, 1);

/** The last working day on or before `day`. */
export const workingDayOnOrBefore = (calendar: WorkCalendar, day: Day): Result<Day, NoneInReach> =>
  toResult(seekWorkingNumber(calendar, toDayNumber(day), -1));

/** The first working day on or after `day`. */
export const workingDayOnOrAfter = (calendar: WorkCalendar, day: Day): Result<Day, NoneInReach> =>
  toResult(seekWorkingNumber(calendar, toDayNumber(day), 1));

/**
 * Counts the working days from `from` to `to`, both included; the other way round the count is negative.
 * @see OpenDocument 1.3 part 4, NETWORKDAYS
 */
export function countWorkingDays(calendar: WorkCalendar, from: Day, to: Day): number {
  if (from > to) return -countWorkingDays(calendar, to, from);
  let count = 0;
  for (let n = toDayNumber(from), end = toDayNumber(to); n <= end; n++) if (calendar.minutesOnNumber(n) > 0) count++;
  return count;
}
