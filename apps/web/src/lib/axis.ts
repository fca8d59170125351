import { addDays, daysBetween, type Day } from '@zesting/core';

/** The stretch of time that is seen. */
export interface Axis {
  readonly fromOn: Day;
  readonly toOn: Day;
}

const lengthOf = ({ fromOn, toOn }: Axis): number => daysBetween(fromOn, toOn) + 1;

/** Where a day begins on the axis, in percent of its width; below 0 or above 100 where it lies outside. */
export const leftOf = (axis: Axis, on: Day): number => (100 * daysBetween(axis.fromOn, on)) / lengthOf(axis);

/** Where a bar stands, in percent, as far as it is seen; null where it is not. */
export function barOf(axis: Axis, { fromOn, toOn }: Axis): { readonly left: number; readonly width: number } | null {
  const [left, right] = [Math.max(0, leftOf(axis, fromOn)), Math.min(100, leftOf(axis, addDays(toOn, 1)))];
  return right <= left ? null : { left, width: right - left };
}

/** How many days a stretch of the axis is. @param part of its width */
export const daysOf = (axis: Axis, part: number): number => Math.round(part * lengthOf(axis));

/** What is taken hold of: the whole bar, or one of its ends. */
export type Hold = 'whole' | 'start' | 'end';

/** The period after it was dragged by so many days: no end passes the other. */
export function dragged({ fromOn, toOn }: Axis, hold: Hold, days: number): Axis {
  const [start, end] = [hold === 'end' ? fromOn : addDays(fromOn, days), hold === 'start' ? toOn : addDays(toOn, days)];
  if (start <= end) return { fromOn: start, toOn: end };
  return hold === 'start' ? { fromOn: toOn, toOn } : { fromOn, toOn: fromOn };
}

/** As many of the days as leave what is held in sight: some of the bar, or its end. */
export function heldInSight(axis: Axis, { fromOn, toOn }: Axis, hold: Hold, days: number): number {
  const least = daysBetween(hold === 'start' ? fromOn : toOn, axis.fromOn);
  const most = daysBetween(hold === 'end' ? toOn : fromOn, axis.toOn);
  return Math.max(least, Math.min(most, days));
}
