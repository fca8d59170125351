import { addDays, firstOfMonth, lastOfMonth, mondayOf, nextMonth, type Day } from '@zesting/core';
import type { Axis } from '../../lib/axis';

/** How many months are seen at once. */
export const SPANS = [1, 3, 12] as const;
export type Span = (typeof SPANS)[number];

/** From the first of a month to the last of the month so many later. */
export const axisOf = (month: string, span: Span): Axis => ({ fromOn: firstOfMonth(month), toOn: lastOfMonth(nextMonth(month, span - 1)) });

/** Where the axis is divided: by weeks in up to three months, by months in a year. */
export function ticksOf(axis: Axis, span: Span): { readonly on: Day; readonly isMonth: boolean }[] {
  const ticks: { on: Day; isMonth: boolean }[] = [];
  if (span === 12) {
    for (let month = axis.fromOn.slice(0, 7); month <= axis.toOn.slice(0, 7); month = nextMonth(month, 1))
      ticks.push({ on: firstOfMonth(month), isMonth: true });
    return ticks;
  }
  for (let on = mondayOf(axis.fromOn); on <= axis.toOn; on = addDays(on, 7)) if (on >= axis.fromOn) ticks.push({ on, isMonth: false });
  return ticks;
}
