import { daysOfRule } from '../cadence/index.js';
import { largestRemainders } from '../mix/index.js';
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
function dueOf(duty: DutyRule, calendars: DutyCalendars, on: Day): DutyDay | undefined {
  const startOn = laterOf(duty.fromOn, addDays(on, -duty.leadDays));
  const before = lastWorked(calendars, startOn, on);
  if (before && before.dueOn >= duty.fromOn) {
    return isTogether(duty, calendars, on, before) ? undefined : { on, startOn: earlierOf(startOn, before.dueOn), ...before };
  }
  // nobody works between its first day and this one: it is done as soon as somebody does, unless it comes again by then
  const after = firstWorked(calendars, on);
  return after && ruleDays(duty, addDays(on, 1), after.dueOn).length === 0 ? { on, startOn, ...after } : undefined;
}

/** Whether an earlier day of the rule is done with this one: a Saturday's that would be done on Friday, where Friday has its own, is Friday's. */
function isTogether(duty: DutyRule, calendars: DutyCalendars, on: Day, { dueOn, doer }: Pick<DutyDay, 'dueOn' | 'doer'>): boolean {
  if (dueOn === on) return false;
  // what nobody could do before the first worked day waits for it
  const isFirst = firstWorked(calendars, duty.fromOn)?.dueOn === dueOn;
  const previous = ruleDays(duty, isFirst ? duty.fromOn : dueOn, addDays(on, -1)).at(-1);
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
export const dutyDays = (duty: DutyRule, calendars: DutyCalendars, from: Day, to: Day): DutyDay[] =>
  ruleDays(duty, from, to).flatMap((on) => dueOf(duty, calendars, on) ?? []);

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
  const days: Day[] = [];
  for (let on = laterOf(day.startOn, todayOn); on <= day.dueOn; on = addDays(on, 1)) if (isWorkingDay(calendar, on)) days.push(on);
  const parts = largestRemainders(
    days.map(() => 1),
    minutes,
  );
  return days.flatMap((on, index) => (parts[index] ? [{ doer, on, minutes: parts[index] }] : []));
}
