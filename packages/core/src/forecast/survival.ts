/** How long something took, in whole working days; where it is not over yet it takes longer than that. */
export interface Case {
  readonly days: number;
  readonly isOver: boolean;
}

/** A row of a life table: at the end of so many days. */
export interface LifeRow {
  readonly days: number;
  /** how many had not ended before, and were still watched */
  readonly atRisk: number;
  readonly ended: number;
  /** the share that takes longer */
  readonly survival: number;
}

/**
 * The product-limit estimate of how long something takes, from cases of which some are not over yet. One that is watched until a day counts
 * among those that could have ended on it.
 * @returns a row for each number of days at which something ended, in order
 * @see Kaplan & Meier 1958, Nonparametric estimation from incomplete observations
 */
export function kaplanMeier(cases: readonly Case[]): LifeRow[] {
  const ends = [...new Set(cases.filter(({ isOver }) => isOver).map(({ days }) => days))].sort((a, b) => a - b);
  let survival = 1;
  return ends.map((days) => {
    const atRisk = cases.filter((one) => one.days >= days).length;
    const ended = cases.filter((one) => one.isOver && one.days === days).length;
    survival *= 1 - ended / atRisk;
    return { days, atRisk, ended, survival };
  });
}

/** How long something takes, as chances. */
export interface Duration {
  /** at index n: the chance that it takes n + 1 days */
  readonly chances: readonly number[];
  /** the chance that it takes longer than all of these */
  readonly beyond: number;
  /** on how many cases it rests: own ones, and all that there were */
  readonly own: number;
  readonly all: number;
}

/** What few cases of one's own are drawn to what is known of all by: as if so many of all were one's own (common practice). */
export const DRAWN_BY = 5;

/**
 * How long something takes for one client, drawn to how long it takes for all where there are few cases of its own: day by day, the chance
 * that it ends then is that of its own cases and of `DRAWN_BY` cases that end as all do.
 * @param own are among `all`
 */
export function durationOf(own: readonly Case[], all: readonly Case[]): Duration {
  const longest = Math.max(0, ...all.filter(({ isOver }) => isOver).map(({ days }) => days));
  const chances: number[] = [];
  let left = 1;
  for (let days = 1; days <= longest; days++) {
    const [ofAll, ofOwn] = [hazard(all, days), hazard(own, days)];
    const ends = (ofOwn.ended + (DRAWN_BY * ofAll.ended) / Math.max(1, ofAll.atRisk)) / (ofOwn.atRisk + DRAWN_BY);
    chances.push(left * ends);
    left *= 1 - ends;
  }
  return { chances, beyond: left, own: own.length, all: all.length };
}

const hazard = (cases: readonly Case[], days: number): { readonly ended: number; readonly atRisk: number } => ({
  atRisk: cases.filter((one) => one.days >= days).length,
  ended: cases.filter((one) => one.isOver && one.days === days).length,
});

/**
 * How long it takes in all, once so many days went by without its end. Longer than was ever seen: nothing is known but that it takes longer.
 * @param waited whole working days that are over
 */
export function givenWaited(duration: Duration, waited: number): Duration {
  const kept = duration.chances.map((chance, index) => (index < waited ? 0 : chance));
  const left = kept.reduce((sum, chance) => sum + chance, 0) + duration.beyond;
  if (left <= 1e-12) return { ...duration, chances: kept.map(() => 0), beyond: 1 };
  return { ...duration, chances: kept.map((chance) => chance / left), beyond: duration.beyond / left };
}

/** At index n: the chance that it has ended within n + 1 days. */
export function endedWithin({ chances }: Duration): number[] {
  let sum = 0;
  return chances.map((chance) => (sum += chance));
}

/** The number of days within which it ends with at least that chance; null where that is beyond what was ever seen. */
export function daysFor(duration: Duration, chance: number): number | null {
  let sum = 0;
  for (const [index, ends] of duration.chances.entries()) {
    sum += ends;
    if (sum >= chance - 1e-12) return index + 1;
  }
  return null;
}
