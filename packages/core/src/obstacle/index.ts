import type { Day } from '../time/index.js';

/** What stands in the way of a step or a piece. */
export interface Obstacle {
  /** the day on which it is expected to be gone, its last; null: nobody knows */
  readonly untilOn: Day | null;
}

/**
 * The last day on which work cannot go on, as far as anybody knows: the latest of the days that are expected. An obstacle that nobody can
 * date, or that still stands when its day is over, stands today; so what waits for it is predicted anew, a day later, every day until it is settled.
 * Common practice: an obstacle is thought gone on the day that somebody says, and never before it is said to be.
 * @param todayOn today, for whoever does the work
 * @returns null where nothing stands in the way
 */
export function standsUntil(obstacles: readonly Obstacle[], todayOn: Day): Day | null {
  return obstacles.reduce<Day | null>((latest, { untilOn }) => {
    const until = untilOn !== null && untilOn > todayOn ? untilOn : todayOn;
    return latest === null || until > latest ? until : latest;
  }, null);
}
