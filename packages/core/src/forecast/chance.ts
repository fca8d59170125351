import { moveWorkingNumber, seekWorkingNumber, type WorkCalendar } from '../workdays/index.js';
import { toDayNumber, type Day } from '../time/index.js';
import { givenWaited, type Duration } from './survival.js';

/** A step that is not finished, as its end is forecast. */
export interface ForecastStep {
  readonly id: string;
  /** of these, those that are not among the steps are finished */
  readonly predecessorIds: readonly string[];
  readonly calendar: WorkCalendar;
  readonly duration: Duration;
  /** the day on which it was begun; null: it is to begin */
  readonly startedOn: Day | null;
  /** no start before this day: today, or when its doer is predicted to come to it */
  readonly fromOn: Day;
  /** it may begin on the day on which what stands before it ends */
  readonly isSameDay: boolean;
  /** where the chance of that is asked: the last day on which it may end */
  readonly byOn: Day | null;
}

/** So many days ahead are looked at; what ends later is said to end beyond. */
const AHEAD = 400;

/** By index, counted from the first day that is looked at: the chance that something has ended by then. */
type Ended = Float64Array;

/**
 * The chance that all steps that must end by a day do. Steps side by side are taken as if they were independent, and where they join the later
 * counts; where they have a step in common before them the true chance is no less than what is said.
 * @param todayOn nothing ends before it
 * @throws where steps wait for each other in a ring
 */
export function chanceOfDays(steps: readonly ForecastStep[], todayOn: Day): number {
  const first = toDayNumber(todayOn);
  const ended = new Map<string, Ended>();
  const byId = new Map(steps.map((step) => [step.id, step]));
  const endOf = (step: ForecastStep, depth = 0): Ended => {
    const known = ended.get(step.id);
    if (known) return known;
    if (depth > steps.length) throw new Error('steps wait for each other in a ring');
    const before = step.predecessorIds.flatMap((id) => byId.get(id) ?? []).map((other) => endOf(other, depth + 1));
    const end = step.startedOn === null ? endOfComing(step, before, first) : endOfBegun(step, step.startedOn, first);
    ended.set(step.id, end);
    return end;
  };
  let chance = 1;
  for (const step of steps) {
    const end = endOf(step);
    if (step.byOn === null) continue;
    const at = toDayNumber(step.byOn) - first;
    chance *= at < 0 ? 0 : (end[Math.min(at, AHEAD - 1)] ?? 0);
  }
  return chance;
}

/** Of a step that is under way: it has not ended yet, however long it has taken. */
function endOfBegun({ calendar, duration }: ForecastStep, startedOn: Day, first: number): Ended {
  const start = seekWorkingNumber(calendar, toDayNumber(startedOn), 1);
  if (start === undefined) return new Float64Array(AHEAD);
  let waited = 0;
  for (let at = start; at < first; at++) if (calendar.minutesOnNumber(at) > 0) waited++;
  return summed(spread(calendar, start, givenWaited(duration, waited), first, 1));
}

/** Of a step that is to begin: on its first working day after what stands before it. */
function endOfComing({ calendar, duration, fromOn, isSameDay }: ForecastStep, before: readonly Ended[], first: number): Ended {
  const ends = new Float64Array(AHEAD);
  const earliest = Math.max(first, toDayNumber(fromOn));
  let reached = 0;
  for (let at = before.length === 0 ? -1 : 0; at < AHEAD; at++) {
    // the chance that what stands before it ends just on that day; with nothing before it, all of it has before the first
    const joined = at < 0 ? 1 : before.reduce((product, end) => product * (end[at] ?? 0), 1);
    const just = joined - reached;
    reached = joined;
    if (just > 0) {
      const after = at < 0 ? earliest : Math.max(earliest, first + at + (isSameDay ? 0 : 1));
      const start = seekWorkingNumber(calendar, after, 1);
      if (start !== undefined) addTo(ends, spread(calendar, start, duration, first, just));
    }
    if (at < 0) break;
  }
  return summed(ends);
}

/** By day, the chance that work which begins on a working day ends then. */
function spread(calendar: WorkCalendar, start: number, duration: Duration, first: number, weight: number): Float64Array {
  const ends = new Float64Array(AHEAD);
  let at: number | undefined = start;
  for (const chance of duration.chances) {
    if (at === undefined || at - first >= AHEAD) break;
    const index = Math.max(0, at - first); // today at the earliest
    ends[index] = (ends[index] ?? 0) + chance * weight;
    at = moveWorkingNumber(calendar, at, 1);
  }
  return ends;
}

function addTo(sum: Float64Array, more: Float64Array): void {
  for (let at = 0; at < sum.length; at++) sum[at] = (sum[at] ?? 0) + (more[at] ?? 0);
}

function summed(ends: Float64Array): Ended {
  let sum = 0;
  return ends.map((chance) => (sum += chance));
}
