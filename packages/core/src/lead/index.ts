import { addDays, daysBetween, nextMonth, type Day } from '../time/index.js';

/** How the preparation of a date stands. `ahead`: it begins later · `now`: it should be under way · `tight`: only just · `too_late`: nothing new can be ready by then. */
export type LeadStanding = 'ahead' | 'now' | 'tight' | 'too_late' | 'past';

/** Days between the earliest that something can be out and the date, up to which it is tight. */
const TIGHT_DAYS = 2;

/** The first day of preparation: so many days before the date. Thirty days ahead as a rule, ninety for a launch, are common practice. */
export const prepareOn = (on: Day, leadDays: number): Day => addDays(on, -leadDays);

/**
 * How something that is to be out on a day stands.
 * @param leadDays days before it on which its preparation begins
 * @param earliestOn the earliest day on which something begun today can be out; null: not known
 */
export function leadStanding(on: Day, leadDays: number, todayOn: Day, earliestOn: Day | null): LeadStanding {
  if (on < todayOn) return 'past';
  if (earliestOn !== null && earliestOn > on) return 'too_late';
  if (earliestOn !== null && daysBetween(earliestOn, on) < TIGHT_DAYS) return 'tight';
  return prepareOn(on, leadDays) > todayOn ? 'ahead' : 'now';
}

/** The days of lead that a kind of date has until something else is said; null: it needs none. */
export const USUAL_LEAD: Readonly<Record<string, number | null>> = {
  launch: 90,
  event: 30,
  conference: 30,
  offer: 30,
  email: 14,
  live: 14,
};

/** So many days before its first day a month should be under way: planning at least thirty days ahead is common practice. */
export const MONTH_LEAD_DAYS = 30;

/** A month that nobody has begun to plan. */
export interface MonthToStart {
  /** `YYYY-MM` */
  readonly month: string;
  /** whether it has begun already */
  readonly hasBegun: boolean;
}

/**
 * The months that should be under way and are not: the one that it is, and those whose first day is no further than thirty days off.
 * @param started months that somebody has begun to plan
 */
export function monthsToStart(todayOn: Day, started: ReadonlySet<string>): MonthToStart[] {
  const last = addDays(todayOn, MONTH_LEAD_DAYS).slice(0, 7);
  const first = todayOn.slice(0, 7);
  const all: MonthToStart[] = [];
  for (let month = first; month <= last; month = nextMonth(month, 1))
    if (!started.has(month)) all.push({ month, hasBegun: month === first });
  return all;
}
