import type { MarkerShape } from '@zesting/contract';
import { addDays, daysBetween, lastOfMonth, type Day } from '@zesting/core';

/** A marker's days when it is dragged to another month: on the same day of that month, or its last where it is shorter; as long as it was. */
export function daysInMonth({ startOn, endOn }: Pick<MarkerShape, 'startOn' | 'endOn'>, month: string): { startOn: string; endOn: string } {
  const last = lastOfMonth(month);
  const asked = `${month}-${startOn.slice(8)}`;
  const start = (asked > last ? last : asked) as Day; // a day of that month
  return { startOn: start, endOn: addDays(start, daysBetween(startOn as Day, endOn as Day)) };
}

/** What is dragged in a year: a theme, known by its month, or a marker by its id. */
export const DRAGGED = { theme: 'theme:', marker: 'marker:' } as const;

/** The id of what is dragged, where it is of a kind. */
export const draggedOf = (kind: keyof typeof DRAGGED, id: string): string | undefined =>
  id.startsWith(DRAGGED[kind]) ? id.slice(DRAGGED[kind].length) : undefined;
