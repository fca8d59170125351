import { addDays, earlierOf, fromDayNumber, getDay, toDayNumber, weekdayOf, type Day } from './day.js';

/** Whether a text is a month, `YYYY-MM`. */
export const isMonth = (text: string): boolean => /^\d{4}-(0[1-9]|1[0-2])$/.test(text);

/** The first day of a month. */
export const firstOfMonth = (month: string): Day => getDay(`${month}-01`);

/** The Monday on or before a day. */
export const mondayOf = (day: Day): Day => addDays(day, 1 - weekdayOf(day));

/** The seven days from a Monday. */
export const weekFrom = (monday: Day): Day[] => Array.from({ length: 7 }, (_, index) => addDays(monday, index));

/** The weeks of a month, Monday first, with the days of its neighbours that fill them. */
export function weeksOf(month: string): Day[][] {
  const start = mondayOf(getDay(`${month}-01`));
  const end = addDays(getDay(`${nextMonth(month, 1)}-01`), -1);
  const weeks: Day[][] = [];
  for (let n = toDayNumber(start); n <= toDayNumber(end); n += 7) weeks.push(weekFrom(fromDayNumber(n)));
  return weeks;
}

/** The month `by` months after `YYYY-MM`. */
export function nextMonth(month: string, by: number): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  const index = year * 12 + number - 1 + by;
  return `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`;
}

/** The last day of a month. */
export const lastOfMonth = (month: string): Day => addDays(getDay(`${nextMonth(month, 1)}-01`), -1);

/**
 * The month that a span of days is about: today's where it holds today, else the one in which the fourth of its days lies (for a span from a Monday
 * the month of its first week, as ISO 8601 reckons the year of a week by its Thursday).
 */
export const monthOfSpan = (fromOn: Day, toOn: Day, todayOn: Day): string =>
  (fromOn <= todayOn && todayOn <= toOn ? todayOn : earlierOf(addDays(fromOn, 3), toOn)).slice(0, 7);

/**
 * The weeks of a month as plans number them, one to five: its days from Monday to Sunday, as far as they lie in it. A weekend before its first
 * Monday belongs to the first of them, so that none is without a weekday. Common practice.
 */
export function monthWeeks(month: string): Day[][] {
  const weeks = weeksOf(month).map((week) => week.filter((on) => on.startsWith(month)));
  const [first = [], second = [], ...rest] = weeks;
  return first.every((on) => weekdayOf(on) > 5) ? [[...first, ...second], ...rest] : weeks;
}
