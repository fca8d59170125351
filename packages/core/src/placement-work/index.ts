import { addDays, type Day } from '../time/index.js';
import { isWorkingDay, workingDayOnOrAfter, workingDayOnOrBefore, type WorkCalendar } from '../workdays/index.js';

/**
 * The steps that belong to a placement, not to its piece: *enter* puts it into its channel, due by the placement's own day; a *follow-up* comes once it
 * is out, such as answering what people write.
 */
export const PLACEMENT_WORK_KINDS = ['enter', 'follow_up'] as const;
export type PlacementWorkKind = (typeof PLACEMENT_WORK_KINDS)[number];

export interface PlacementWorkRule {
  readonly kind: PlacementWorkKind;
  /** calendar days before the placement's day (enter), or after the day on which it went out (follow-up); 0: that day itself */
  readonly days: number;
  /** a follow-up that comes every day for so many days, as in "answer comments for a week"; 1: once */
  readonly forDays: number;
}

/**
 * The days on which something is done around a placement.
 * - Enter: the last working day on or before its day less `days`.
 * - A follow-up that comes once: its day, or where somebody in particular does it, the first working day from then on.
 * - A follow-up of several days: each working day among them, at least the first from then on.
 * @param on the placement's day; for follow-ups the day on which it really went out
 * @param calendar of who does it, or the client's; null: every day is as good as another
 * @returns in their order, never none
 */
export function placementWorkDays({ kind, days, forDays }: PlacementWorkRule, on: Day, calendar: WorkCalendar | null): Day[] {
  if (kind === 'enter') {
    const latest = addDays(on, -days);
    const found = calendar && workingDayOnOrBefore(calendar, latest);
    return [found?.ok ? found.value : latest];
  }
  const first = addDays(on, days);
  const all = Array.from({ length: Math.max(1, forDays) }, (_, index) => addDays(first, index));
  if (!calendar) return all;
  const worked = all.filter((day) => isWorkingDay(calendar, day));
  if (worked.length > 0) return worked;
  const next = workingDayOnOrAfter(calendar, first);
  return [next.ok ? next.value : first];
}
