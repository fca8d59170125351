import { addDays, type Day } from '../time/index.js';
import { countWorkingDays } from '../workdays/index.js';
import { predictWorkload, type Prediction, type WorkloadInput, type WorkloadStep } from '../workload/index.js';

/** An open step of any piece. */
export interface StaffStep extends WorkloadStep {
  readonly pieceId: string;
}

export interface StaffingInput {
  /** of all open pieces, in the order of the pieces */
  readonly steps: readonly StaffStep[];
  readonly doers: WorkloadInput['doers'];
  readonly taken?: WorkloadInput['taken'];
  /** by step that may be given away: who else could do it, whoever is to be preferred first */
  readonly able: Readonly<Record<string, readonly string[]>>;
  /** the latest finishes that gives change, by step: a plan goes by the calendar of whoever has the step; absent: they stay */
  readonly latestWith?: (gives: ReadonlyMap<string, string>) => ReadonlyMap<string, Day | null>;
  /** asked between two tries: true where no more time is to be spent */
  readonly isEnough?: () => boolean;
}

/** A step that somebody else would take. */
export interface Give {
  readonly stepId: string;
  readonly doer: string;
}

/** By piece, the working days by which its worst step misses its latest finish; those that make their dates are left out. */
export type LatePieces = ReadonlyMap<string, number>;

export interface Staffing {
  readonly gives: readonly Give[];
  readonly before: LatePieces;
  readonly after: LatePieces;
  /** how many were tried */
  readonly tried: number;
  /** false where time was up before every step was looked at */
  readonly isWhole: boolean;
}

/** Longer than this nobody is late: also what is predicted never to end. */
const NEVER_DAYS = 3653;
/** Of those who could do a step, so many are tried. */
const MOST_ABLE = 4;

/** What is late by a prediction, piece by piece. */
export function lateBy({ steps, doers }: Pick<StaffingInput, 'steps' | 'doers'>, prediction: Prediction): LatePieces {
  const ends = new Map(prediction.steps.map((step) => [step.id, step.finishOn]));
  const late = new Map<string, number>();
  for (const { id, pieceId, doer, finishedOn, latestFinishOn } of steps) {
    const by = doers[doer];
    if (finishedOn || latestFinishOn === null || !by) continue;
    const end = ends.get(id) ?? null;
    const days = end === null ? NEVER_DAYS : end <= latestFinishOn ? 0 : countWorkingDays(by.calendar, addDays(latestFinishOn, 1), end);
    if (days > (late.get(pieceId) ?? 0)) late.set(pieceId, days);
  }
  return late;
}

/** What is late after and was not before, or is later, the worst first. @param but a piece that is not looked at */
export const laterAfter = (before: LatePieces, after: LatePieces, but?: string): readonly string[] =>
  [...after]
    .filter(([pieceId, days]) => pieceId !== but && days > (before.get(pieceId) ?? 0))
    .sort(([, a], [, b]) => b - a)
    .map(([pieceId]) => pieceId);

/**
 * Who could take which steps so that the fewest days are late: steps of late pieces are gone through by earliest latest-finish, each is given to
 * whoever makes the sum of late days least, and again until nothing becomes better; what turns out not to have been needed is taken back. Every try is a
 * prediction of everybody's work. A local search: never worse than giving nothing away, and not always the best there is.
 */
export function proposeDoers({ steps, doers, taken = [], able, latestWith, isEnough = () => false }: StaffingInput): Staffing {
  const given = new Map<string, string>();
  const lateWith = (gives: ReadonlyMap<string, string>): LatePieces => {
    const latest = latestWith?.(gives);
    const dueOf = ({ id, latestFinishOn }: StaffStep) => (latest?.has(id) ? (latest.get(id) ?? null) : latestFinishOn);
    const now = steps.map((step) => ({ ...step, doer: gives.get(step.id) ?? step.doer, latestFinishOn: dueOf(step) }));
    return lateBy({ steps: now, doers }, predictWorkload({ steps: now, doers, taken }));
  };
  const before = lateWith(given);
  let [late, tried, isWhole] = [before, 0, true];
  const tryWith = (change: (gives: Map<string, string>) => void): { gives: Map<string, string>; late: LatePieces } => {
    tried++;
    const gives = new Map(given);
    change(gives);
    return { gives, late: lateWith(gives) };
  };
  const take = (found: { gives: ReadonlyMap<string, string>; late: LatePieces }) => {
    given.clear();
    for (const [id, doer] of found.gives) given.set(id, doer);
    late = found.late;
  };
  const byDue = steps
    .filter((step) => !step.finishedOn && (able[step.id]?.length ?? 0) > 0)
    .sort((a, b) => ((a.latestFinishOn ?? '9') < (b.latestFinishOn ?? '9') ? -1 : 1));
  for (let isBetter = true; isBetter && late.size > 0 && isWhole;) {
    isBetter = false;
    // what is late first; then what may stand in its way
    for (const step of [...byDue.filter(({ pieceId }) => late.has(pieceId)), ...byDue.filter(({ pieceId }) => !late.has(pieceId))]) {
      if (late.size === 0) break;
      const others = (able[step.id] ?? []).filter((doer) => doer !== (given.get(step.id) ?? step.doer) && doers[doer] !== undefined);
      let best: ReturnType<typeof tryWith> | undefined;
      for (const doer of others.slice(0, MOST_ABLE)) {
        if (isEnough()) {
          isWhole = false;
          break;
        }
        const found = tryWith((gives) => gives.set(step.id, doer));
        if (sumOf(found.late) < sumOf(best?.late ?? late)) best = found;
      }
      if (best) {
        take(best);
        isBetter = true;
      }
      if (!isWhole) break;
    }
  }
  for (const id of [...given.keys()]) {
    if (isEnough()) break;
    const without = tryWith((gives) => gives.delete(id));
    if (sumOf(without.late) <= sumOf(late)) take(without);
  }
  return { gives: [...given].map(([stepId, doer]) => ({ stepId, doer })), before, after: late, tried, isWhole };
}

const sumOf = (late: LatePieces): number => [...late.values()].reduce((sum, days) => sum + days, 0);
