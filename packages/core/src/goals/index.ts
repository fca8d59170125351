import { addDays, daysBetween, type Day } from '../time/index.js';

/** What a measure was on a day. */
export interface Reading {
  readonly on: Day;
  readonly value: number;
}

/** From where to where a measure shall go, and by when. The target may lie below the start. */
export interface GoalFacts {
  readonly startValue: number;
  readonly target: number;
  readonly startOn: Day;
  /** after the start */
  readonly byOn: Day;
  /** in the order of time; those before the start count as the start's */
  readonly readings: readonly Reading[];
}

/**
 * `ahead`: begins later. `unknown`: begun, and nothing was read since. `reached`: the last reading is at the target or beyond. `missed`: its day is over,
 * and it is not. `behind`, `on_pace`, `before`: less than the straight line asks for today, as much, or more.
 */
export type GoalStanding = 'ahead' | 'unknown' | 'reached' | 'missed' | 'behind' | 'on_pace' | 'before';

export interface GoalPace {
  readonly standing: GoalStanding;
  /** the last reading; null: none yet */
  readonly value: number | null;
  /** what the straight line from start to target asks for today */
  readonly expected: number;
  /** a week, from start to target on a straight line */
  readonly neededPerWeek: number;
  /** a week from today on, to reach the target after all; null: nothing is left to do, or no time */
  readonly neededNowPerWeek: number | null;
  /** a week, from the start to the last reading; null: nothing was read after the start */
  readonly realPerWeek: number | null;
  /** when the target is reached if it goes on as it went; null: never, or nothing is known */
  readonly reachesOn: Day | null;
}

const WEEK = 7;
/** So far from the straight line, as a part of the whole way, is still on pace. Common practice: one part in twenty. */
const TOLERANCE = 0.05;
/** What would be reached later is not reached. */
const FURTHEST_DAYS = 3653;

/** What the straight line from start to target asks for on a day: the start before it, the target after. */
export function expectedOn({ startValue, target, startOn, byOn }: GoalFacts, on: Day): number {
  const part = Math.min(1, Math.max(0, daysBetween(startOn, on) / daysBetween(startOn, byOn)));
  return startValue + (target - startValue) * part;
}

/** The last reading on or before a day, and after the start. */
const lastReading = ({ readings, startOn }: GoalFacts, on: Day): Reading | undefined =>
  readings.filter((reading) => reading.on <= on && reading.on > startOn).at(-1);

/** How a goal stands today, and what it would need. Straight lines are common practice, where nobody knows how a measure really moves. */
export function paceOf(goal: GoalFacts, todayOn: Day): GoalPace {
  const { startValue, target, startOn, byOn } = goal;
  const way = target - startValue;
  const last = lastReading(goal, todayOn);
  const expected = expectedOn(goal, todayOn);
  const neededPerWeek = (way / daysBetween(startOn, byOn)) * WEEK;
  const perDay = last ? (last.value - startValue) / daysBetween(startOn, last.on) : null;
  const done = last ? (last.value - startValue) * Math.sign(way) : 0;
  const isReached = last !== undefined && done >= Math.abs(way);
  const left = last && !isReached ? target - last.value : isReached ? 0 : way;
  const daysLeft = daysBetween(todayOn, byOn);
  const base = {
    value: last?.value ?? null,
    expected,
    neededPerWeek,
    neededNowPerWeek: isReached || daysLeft <= 0 ? null : (left / Math.min(daysLeft, daysBetween(startOn, byOn))) * WEEK,
    realPerWeek: perDay === null ? null : perDay * WEEK,
    reachesOn: last ? reachedOn(goal, last, perDay ?? 0, isReached) : null,
  };
  return { ...base, standing: standingOf() };

  function standingOf(): GoalStanding {
    if (isReached) return 'reached';
    if (todayOn > byOn) return 'missed';
    if (todayOn <= startOn) return 'ahead';
    if (!last) return 'unknown';
    // a reading is held against the line of its own day: nothing was read since
    const off = ((last.value - expectedOn(goal, last.on)) * Math.sign(way)) / Math.abs(way);
    return off < -TOLERANCE ? 'behind' : off > TOLERANCE ? 'before' : 'on_pace';
  }
}

function reachedOn({ startValue, target, readings, startOn }: GoalFacts, last: Reading, perDay: number, isReached: boolean): Day | null {
  const sign = Math.sign(target - startValue);
  if (isReached) return readings.find(({ on, value }) => on > startOn && (value - target) * sign >= 0)?.on ?? last.on;
  if (perDay * sign <= 0) return null;
  const days = Math.ceil((target - last.value) / perDay);
  return days > FURTHEST_DAYS ? null : addDays(last.on, days);
}

export interface GoalQuarter {
  /** "2027 Q1" */
  readonly year: number;
  readonly quarter: number;
  /** its last day, or the goal's where that is earlier */
  readonly endOn: Day;
  readonly expected: number;
  /** the last reading until then; null: none, or it is still to come */
  readonly value: number | null;
}

const MONTHS_A_QUARTER = 3;

/** The last day of the quarter in which a day lies. */
function quarterEnd(day: Day): Day {
  const [year, month] = [Number(day.slice(0, 4)), Number(day.slice(5, 7))];
  const next = Math.ceil(month / MONTHS_A_QUARTER) * MONTHS_A_QUARTER + 1;
  const first = next > 12 ? `${year + 1}-01-01` : `${year}-${String(next).padStart(2, '0')}-01`;
  return addDays(first as Day, -1); // the first of a month
}

/** A goal quarter by quarter: what each should have brought by its end, and what it did. */
export function quartersOf(goal: GoalFacts, todayOn: Day): GoalQuarter[] {
  const quarters: GoalQuarter[] = [];
  for (let from = goal.startOn; from <= goal.byOn; from = addDays(quarterEnd(from), 1)) {
    const end = quarterEnd(from);
    const endOn = end < goal.byOn ? end : goal.byOn;
    quarters.push({
      year: Number(from.slice(0, 4)),
      quarter: Math.ceil(Number(from.slice(5, 7)) / MONTHS_A_QUARTER),
      endOn,
      expected: expectedOn(goal, endOn),
      value: from > todayOn ? null : (lastReading(goal, endOn)?.value ?? null),
    });
  }
  return quarters;
}
