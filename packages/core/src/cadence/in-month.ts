import { addDays, firstOfMonth, weekdayOf, type Day } from '../time/index.js';
import { monthPattern } from './pattern.js';

/**
 * The day of another month that stands where `day` stands in its own: its third Tuesday for a third Tuesday.
 * @param month `YYYY-MM`
 * @returns null where that month has no fifth of this weekday
 */
export function inMonth(day: Day, month: string): Day | null {
  const { nth, weekday } = monthPattern(day);
  const first = firstOfMonth(month);
  const found = addDays(first, ((weekday - weekdayOf(first) + 7) % 7) + 7 * (nth - 1));
  return found.startsWith(month) ? found : null;
}
