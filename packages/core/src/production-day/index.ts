import { addDays, daysBetween, type Day } from '../time/index.js';

/** A day on which several pieces are made together. */
export interface ProductionDay {
  readonly on: Day;
  /** so many pieces can be made on it */
  readonly capacity: number;
  /** the day by which each of its pieces has to be made; null: none is known */
  readonly needBy: readonly (Day | null)[];
}

/** How many of a day's pieces cannot be made on it: all of them where something stands in its way, else those beyond its capacity. */
export const shortageOf = ({ capacity, needBy }: ProductionDay, isBlocked: boolean): number =>
  isBlocked ? needBy.length : Math.max(0, needBy.length - capacity);

/** So far around a day another is looked for. */
const AROUND_DAYS = 60;

/**
 * The day on which to make up for one that is blocked: the nearest that is free, from tomorrow on, and not after the day by which the first of its pieces
 * has to be made; of two equally near the earlier.
 * @param isFree whether people work on a day and nothing stands in its way
 * @returns null where there is none
 */
export function makeUpDay({ on, needBy }: ProductionDay, todayOn: Day, isFree: (day: Day) => boolean): Day | null {
  const last = needBy.flatMap((day) => day ?? []).sort()[0];
  for (let away = 1; away <= AROUND_DAYS; away += 1)
    for (const day of [addDays(on, -away), addDays(on, away)])
      if (daysBetween(todayOn, day) > 0 && (last === undefined || day <= last) && isFree(day)) return day;
  return null;
}
