import { addDays, fromDayNumber, getDay, toDayNumber, weekdayOf, type Day } from '@zesting/core';

/** The weeks of a month, Monday first, with the days of its neighbours that fill them. */
export function weeksOf(month: string): Day[][] {
  const first = getDay(`${month}-01`);
  const start = addDays(first, 1 - weekdayOf(first));
  const end = addDays(getDay(`${nextMonth(month, 1)}-01`), -1);
  const weeks: Day[][] = [];
  for (let n = toDayNumber(start); n <= toDayNumber(end); n += 7)
    weeks.push(Array.from({ length: 7 }, (_, index) => fromDayNumber(n + index)));
  return weeks;
}

/** The month `by` months after `YYYY-MM`. */
export function nextMonth(month: string, by: number): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  const index = year * 12 + number - 1 + by;
  return `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`;
}
