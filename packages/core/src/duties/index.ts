import { daysOfRule } from '../cadence/index.js';
import { addDays, fromDayNumber, laterOf, toDayNumber, type Day } from '../time/index.js';
import { isWorkingDay, seekWorkingNumber, type WorkCalendar } from '../workdays/index.js';
import type { LoadDay } from '../workload/index.js';

/** When a duty comes again. */
export interface DutyRule {
  /** as `readRule` gives it; null: once, on its first day */
  readonly rule: string | null;
  /** what the rule is counted from; null where that is its first day */
  readonly anchorOn?: Day | null;
  /** no day of the rule before it or after `untilOn` is one of the duty's */
  readonly fromOn: Day;
  readonly untilOn: Day | null;
  /** so many days before a day of the rule it may be begun, and stands on desks */
  readonly leadDays: number;
}

/** Who does it: the lead person, or the second one where the lead person is away. */
export type DutyDoer = 'lead' | 'second';

/** One time that a duty comes. */
export interface DutyDay {
  /** the day of the rule: what it is known by, whatever calendars say later */
  readonly on: Day;
  /** from this day on it can be done */
  readonly startOn: Day;
  /** a working day of the one who does it, and never before the duty begins */
  readonly dueOn: Day;
  readonly doer: DutyDoer;
}

export interface DutyCalendars {
  readonly lead: WorkCalendar;
  readonly second: WorkCalendar | null;
}

/** The days of the rule itself from `from` to `to`, both included. */
function ruleDays({ rule, anchorOn, fromOn, untilOn }: DutyRule, from: Day, to: Day): readonly Day[] {
  if (rule === null) return fromOn >= from && fromOn <= to ? [fromOn] : [];
  const last = untilOn !== null && untilOn < to ? untilOn : to;
  return daysOfRule(rule, anchorOn ?? fromOn, laterOf(from, fromOn), last);
}

/** So far beyond what is asked for days of a rule are known at once: what somebody does instead mostly lies within a week. */
const MARGIN_DAYS = 40;

/** The days of a duty's rule in a period and somewhat around it, found once; further away they are asked for as they are needed. */
class RuleDays {
  private readonly first: Day;
  private readonly last: Day;
  private readonly known: readonly Day[];

  constructor(
    private readonly duty: DutyRule,
    from: Day,
    to: Day,
  ) {
    [this.first, this.last] = [addDays(from, -MARGIN_DAYS), addDays(to, MARGIN_DAYS)];
    this.known = ruleDays(duty, this.first, this.last);
  }

  /** Those from `from` to `to`, both included. */
  between(from: Day, to: Day): readonly Day[] {
    if (from < this.first || to > this.last) return ruleDays(this.duty, from, to);
    const start = this.placeOf(from);
    let end = start;
    while ((this.known[end] ?? '9999') <= to) end++;
    return this.known.slice(start, end);
  }

  /** Where the first stands that is not before a day. */
  private placeOf(day: Day): number {
    let [low, high] = [0, this.known.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.known[middle] ?? day) < day) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

/** The last day on or before `day` on which somebody of the two works, and who: the lead person where they do at all between `startOn` and `day`. */
function lastWorked({ lead, second }: DutyCalendars, startOn: Day, day: Day): { readonly dueOn: Day; readonly doer: DutyDoer } | undefined {
  const [leadLast, secondLast] = [lead, second].map((calendar) => calendar && seekWorkingNumber(calendar, toDayNumber(day), -1));
  const isLead = secondLast == null || (leadLast != null && (leadLast >= toDayNumber(startOn) || leadLast >= secondLast));
  const found = isLead ? leadLast : secondLast;
  return found == null ? undefined : { dueOn: fromDayNumber(found), doer: isLead ? 'lead' : 'second' };
}

function firstWorked({ lead, second }: DutyCalendars, day: Day): { readonly dueOn: Day; readonly doer: DutyDoer } | undefined {
  const [leadFirst, secondFirst] = [lead, second].map((calendar) => calendar && seekWorkingNumber(calendar, toDayNumber(day), 1));
  const isLead = secondFirst == null || (leadFirst != null && leadFirst <= secondFirst);
  const found = isLead ? leadFirst : secondFirst;
  return found == null ? undefined : { dueOn: fromDayNumber(found), doer: isLead ? 'lead' : 'second' };
}

/** When one day of the rule is due; undefined where it falls together with another, or nobody ever works. */
function dueOf(duty: DutyRule, calendars: DutyCalendars, on: Day, days: RuleDays): DutyDay | undefined {
  const startOn = laterOf(duty.fromOn, addDays(on, -duty.leadDays));
  const before = lastWorked(calendars, startOn, on);
  if (before && before.dueOn >= duty.fromOn) {
    return isTogether(duty, calendars, on, before, days) ? undefined : { on, startOn: earlierOf(startOn, before.dueOn), ...before };
  }
  // nobody works between its first day and this one: it is done as soon as somebody does, unless it comes again by then
  const after = firstWorked(calendars, on);
  return after && days.between(addDays(on, 1), after.dueOn).length === 0 ? { on, startOn, ...after } : undefined;
}

/** Whether an earlier day of the rule is done with this one: a Saturday's that would be done on Friday, where Friday has its own, is Friday's. */
function isTogether(
  duty: DutyRule,
  calendars: DutyCalendars,
  on: Day,
  { dueOn, doer }: Pick<DutyDay, 'dueOn' | 'doer'>,
  days: RuleDays,
): boolean {
  if (dueOn === on) return false;
  // what nobody could do before the first worked day waits for it
  const isFirst = firstWorked(calendars, duty.fromOn)?.dueOn === dueOn;
  const previous = days.between(isFirst ? duty.fromOn : dueOn, addDays(on, -1)).at(-1);
  if (previous === undefined) return false;
  if (previous < dueOn) return true;
  const same = lastWorked(calendars, laterOf(duty.fromOn, addDays(previous, -duty.leadDays)), previous);
  return same?.dueOn === dueOn && same.doer === doer;
}

const earlierOf = (a: Day, b: Day): Day => (a < b ? a : b);

/**
 * The times that a duty comes on days of its rule from `from` to `to`, both included. Each is due on the last working day of who does it on or before
 * the day of the rule: the lead person, where they work at all between its start and then; else whoever of the two works last. Where several would be
 * done on the same day, only the first of them is there: a daily duty is not done three times on a Friday.
 */
export function dutyDays(duty: DutyRule, calendars: DutyCalendars, from: Day, to: Day): DutyDay[] {
  const days = new RuleDays(duty, from, to);
  return days.between(from, to).flatMap((on) => dueOf(duty, calendars, on, days) ?? []);
}

/**
 * Days of the rule on which the other side works, but nobody of the duty's does between its start and then: nobody answers the comments of a client
 * while the one who does is away.
 * @param others the client's working calendar, or the agency's
 */
export const uncoveredDays = (duty: DutyRule, { lead, second }: DutyCalendars, others: WorkCalendar, from: Day, to: Day): Day[] =>
  ruleDays(duty, from, to).filter((on) => {
    if (!isWorkingDay(others, on)) return false;
    const start = toDayNumber(addDays(on, -duty.leadDays));
    return ![lead, second].some((calendar) => calendar && (seekWorkingNumber(calendar, toDayNumber(on), -1) ?? -Infinity) >= start);
  });

/** How a time stands that was neither done nor left out: it comes later, can be done, is due today, or was missed. */
export type DutyState = 'ahead' | 'open' | 'due' | 'missed';

/** @param todayOn the date of who does it */
export function dutyState({ startOn, dueOn }: Pick<DutyDay, 'startOn' | 'dueOn'>, todayOn: Day): DutyState {
  if (dueOn < todayOn) return 'missed';
  if (dueOn === todayOn) return 'due';
  return startOn <= todayOn ? 'open' : 'ahead';
}

/**
 * The minutes that one time takes, spread evenly over the working days that are left of it: what divides unevenly falls to the first of them.
 * @param todayOn the date of who does it; what is missed takes none
 */
export function dutyLoad(day: DutyDay, minutes: number, doer: string, calendar: WorkCalendar, todayOn: Day): LoadDay[] {
  const numbers: number[] = [];
  for (let number = Math.max(toDayNumber(day.startOn), toDayNumber(todayOn)), end = toDayNumber(day.dueOn); number <= end; number++)
    if (calendar.minutesOnNumber(number) > 0) numbers.push(number);
  const [each, rest] = [Math.floor(minutes / numbers.length), minutes % numbers.length];
  const load: LoadDay[] = [];
  for (const [index, number] of numbers.entries()) {
    const part = each + (index < rest ? 1 : 0);
    if (part > 0) load.push({ doer, on: fromDayNumber(number), minutes: part });
  }
  return load;
}
