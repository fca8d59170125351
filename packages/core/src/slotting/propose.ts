import { fitOf, IN_A_ROW, OWED, pillarIn, SAME_SUBJECT, type FitReason, type SlottingCase } from './fit.js';

export interface ProposedLine {
  readonly slotId: string;
  readonly candidateId: string;
  readonly reasons: readonly FitReason[];
  /** whether the mix is owed its pillar */
  readonly owed: boolean;
  /** whether what stands before or after it has the same pillar */
  readonly inARow: boolean;
  /** whether what stands before or after it is about the same subject */
  readonly likeBeside: boolean;
}

export interface Proposal {
  /** in the order of the slots */
  readonly lines: readonly ProposedLine[];
  /** see `valueOf` */
  readonly value: number;
}

/** Stands for: no candidate, no pillar. */
const NONE = -1;

/** A case in numbers, for the many small changes that are tried. */
interface Prepared {
  readonly whole: SlottingCase;
  /** points by slot and candidate; negative infinity where it may not stand there */
  readonly points: readonly Float64Array[];
  /** the candidates that may stand in a slot, the best first */
  readonly ranked: readonly (readonly number[])[];
  /** the pillar by slot and candidate; `NONE`: it has none */
  readonly pillars: readonly Int32Array[];
  /** the subject by candidate; `NONE`: nobody said */
  readonly subjects: Int32Array;
  /** what is fixed, by slot; undefined where the slot is free */
  readonly fixed: readonly ({ readonly pillar: number; readonly subject: number } | undefined)[];
  /** by pillar, not below 0 */
  readonly owed: Int32Array;
  readonly free: readonly number[];
}

/** What stands where: of each free slot its candidate, of each candidate its slot, and how many there are of each pillar. */
interface State {
  readonly filled: Int32Array;
  readonly place: Int32Array;
  readonly counts: Int32Array;
}

function prepare(whole: SlottingCase): Prepared {
  const numbers = new Map<string, number>();
  const numberOf = (pillarId: string | null): number => {
    if (pillarId === null) return NONE;
    const number = numbers.get(pillarId) ?? numbers.size;
    numbers.set(pillarId, number);
    return number;
  };
  const subjects = Int32Array.from(whole.candidates, ({ subjectId }) => numberOf(subjectId));
  const rows = whole.slots.map((slot) => {
    const points = new Float64Array(whole.candidates.length).fill(Number.NEGATIVE_INFINITY);
    const pillars = new Int32Array(whole.candidates.length);
    if (!slot.taken)
      for (const [which, candidate] of whole.candidates.entries()) {
        const fit = fitOf(slot, candidate, whole.readyByFormat);
        if (fit.fits) points[which] = fit.points;
        pillars[which] = numberOf(pillarIn(slot, candidate));
      }
    const able = [...points.keys()].filter((which) => points[which] !== Number.NEGATIVE_INFINITY);
    return { points, pillars, ranked: able.sort((a, b) => (points[b] ?? 0) - (points[a] ?? 0) || a - b) };
  });
  const fixed = whole.slots.map(({ taken }) => taken && { pillar: numberOf(taken.pillarId), subject: numberOf(taken.subjectId) });
  const owed = new Int32Array(numbers.size);
  for (const [pillarId, number] of numbers) owed[number] = Math.max(0, whole.owed[pillarId] ?? 0);
  return {
    whole,
    points: rows.map(({ points }) => points),
    ranked: rows.map(({ ranked }) => ranked),
    pillars: rows.map(({ pillars }) => pillars),
    subjects,
    fixed: fixed.map((there) => there ?? undefined),
    owed,
    free: whole.slots.flatMap((slot, at) => (slot.taken ? [] : [at])),
  };
}

/** The pillar that stands in a slot, or `NONE`. */
function pillarAt({ fixed, pillars }: Prepared, { filled }: State, at: number): number {
  const there = fixed[at];
  if (there !== undefined) return there.pillar;
  const which = filled[at] ?? NONE;
  return which === NONE ? NONE : (pillars[at]?.[which] ?? NONE);
}

/** The subject of what stands in a slot, or `NONE`. */
function subjectAt({ fixed, subjects }: Prepared, { filled }: State, at: number): number {
  const there = fixed[at];
  if (there !== undefined) return there.subject;
  const which = filled[at] ?? NONE;
  return which === NONE ? NONE : (subjects[which] ?? NONE);
}

const areSame = (a: number, b: number): boolean => a !== NONE && a === b;

/** Whether a slot and the one after it hold the same pillar. */
const isRunAfter = (prepared: Prepared, state: State, at: number): boolean =>
  at >= 0 && areSame(pillarAt(prepared, state, at), pillarAt(prepared, state, at + 1));

/** Whether a slot and the one after it are about the same subject. */
const isLikeAfter = (prepared: Prepared, state: State, at: number): boolean =>
  at >= 0 && areSame(subjectAt(prepared, state, at), subjectAt(prepared, state, at + 1));

/** What it costs that a slot and the one after it are of the same pillar, or about the same subject. */
const runAfter = (prepared: Prepared, state: State, at: number): number =>
  (isRunAfter(prepared, state, at) ? IN_A_ROW : 0) + (isLikeAfter(prepared, state, at) ? SAME_SUBJECT : 0);

/** Puts a candidate (or `NONE`) into a slot. @returns what that changes in value, but for runs */
function put({ points, pillars, owed }: Prepared, { filled, place, counts }: State, at: number, which: number): number {
  let gain = 0;
  const was = filled[at] ?? NONE;
  if (was !== NONE) {
    const pillar = pillars[at]?.[was] ?? NONE;
    gain -= points[at]?.[was] ?? 0;
    if (pillar !== NONE) {
      if ((counts[pillar] ?? 0) <= (owed[pillar] ?? 0)) gain -= OWED;
      counts[pillar] = (counts[pillar] ?? 0) - 1;
    }
    if (place[was] === at) place[was] = NONE;
  }
  filled[at] = which;
  if (which !== NONE) {
    const pillar = pillars[at]?.[which] ?? NONE;
    gain += points[at]?.[which] ?? Number.NEGATIVE_INFINITY;
    if (pillar !== NONE) {
      if ((counts[pillar] ?? 0) < (owed[pillar] ?? 0)) gain += OWED;
      counts[pillar] = (counts[pillar] ?? 0) + 1;
    }
    place[which] = at;
  }
  return gain;
}

/** The runs that a change of two slots touches, each once. */
function runsAround(prepared: Prepared, state: State, a: number, b: number): number {
  let runs = runAfter(prepared, state, a - 1) + runAfter(prepared, state, a);
  if (b === a) return runs;
  if (b - 1 !== a) runs += runAfter(prepared, state, b - 1);
  if (b !== a - 1) runs += runAfter(prepared, state, b);
  return runs;
}

/** Puts candidates into two slots (or twice the same into one) if that makes the whole worth more; leaves all as it was otherwise. */
function change(prepared: Prepared, state: State, a: number, toA: number, b: number, toB: number, isTrial = false): number {
  if (b !== a && toB !== NONE && prepared.points[b]?.[toB] === Number.NEGATIVE_INFINITY) return 0;
  const [wasA, wasB] = [state.filled[a] ?? NONE, state.filled[b] ?? NONE];
  const before = runsAround(prepared, state, a, b);
  let gain = put(prepared, state, a, toA);
  if (b !== a) gain += put(prepared, state, b, toB);
  gain += runsAround(prepared, state, a, b) - before;
  if (gain > 0 && !isTrial) return gain;
  if (b !== a) put(prepared, state, b, NONE);
  put(prepared, state, a, wasA);
  if (b !== a) put(prepared, state, b, wasB);
  return isTrial ? gain : 0;
}

const emptyState = ({ whole, owed }: Prepared): State => ({
  filled: new Int32Array(whole.slots.length).fill(NONE),
  place: new Int32Array(whole.candidates.length).fill(NONE),
  counts: new Int32Array(owed.length),
});

/**
 * What a filling of the free slots is worth, the objective of every method: the points of each candidate in its slot, + 20 for every piece of a
 * pillar up to the number owed, − 15 for every two slots one after the other that hold the same pillar, − 25 for every two that are about the same subject.
 * @param chosen candidate by slot; what is missing stays empty
 * @returns negative infinity where a *must* is broken
 */
export function valueOf(whole: SlottingCase, chosen: Readonly<Record<string, string>>): number {
  const prepared = prepare(whole);
  const state = emptyState(prepared);
  let value = 0;
  for (const [at, slot] of whole.slots.entries()) {
    const which = whole.candidates.findIndex(({ id }) => id === chosen[slot.id]);
    if (chosen[slot.id] !== undefined) value += which === NONE || slot.taken ? Number.NEGATIVE_INFINITY : put(prepared, state, at, which);
  }
  return value + allRuns(prepared, state);
}

const allRuns = (prepared: Prepared, state: State): number =>
  prepared.whole.slots.reduce((sum, _, at) => sum + runAfter(prepared, state, at), 0);

/** Whether a filling breaks no *must*: each candidate once, only in free slots, only where it may stand. */
export function isFeasible(whole: SlottingCase, chosen: Readonly<Record<string, string>>): boolean {
  const used = Object.values(chosen);
  return new Set(used).size === used.length && Number.isFinite(valueOf(whole, chosen));
}

/** No more rounds than this: each makes the value greater, so that it ends long before. */
const ROUNDS = 50;

/**
 * Fills the free slots of a period, quickly: the best pair first, until nothing more fits; then whatever makes the whole worth more is changed
 * (another candidate, an exchange of two, one moved to another slot whose own is replaced) until nothing does. What is fixed stays. No proof that
 * it is the best.
 */
export function propose(whole: SlottingCase): Proposal {
  const prepared = prepare(whole);
  const state = emptyState(prepared);
  putBest(prepared, state);
  for (let round = 0; round < ROUNDS && improve(prepared, state); round += 1);
  const chosen = whole.slots.flatMap((slot, at) => {
    const candidate = whole.candidates[state.filled[at] ?? NONE];
    return candidate ? [[slot.id, candidate.id]] : [];
  });
  return { lines: linesOf(prepared, state), value: valueOf(whole, Object.fromEntries(chosen) as Record<string, string>) }; // pairs of ids
}

/** A filling that was found elsewhere, told as a proposal. @param chosen candidates by slot: a filling that is feasible */
export function proposalOf(whole: SlottingCase, chosen: Readonly<Record<string, string>>): Proposal {
  const prepared = prepare(whole);
  const state = emptyState(prepared);
  const numbers = new Map(whole.candidates.map(({ id }, which) => [id, which]));
  for (const [at, { id }] of whole.slots.entries()) {
    const which = numbers.get(chosen[id] ?? '');
    if (which !== undefined) put(prepared, state, at, which);
  }
  return { lines: linesOf(prepared, state), value: valueOf(whole, chosen) };
}

/** The best pair of an empty slot and an unused candidate, again and again. */
function putBest(prepared: Prepared, state: State): void {
  for (;;) {
    let best = { gain: 0, at: NONE, which: NONE };
    for (const at of prepared.free) {
      if (state.filled[at] !== NONE) continue;
      for (const which of prepared.ranked[at] ?? []) {
        // no pair is worth more than its points and what is owed, and the next has no more points
        if ((prepared.points[at]?.[which] ?? 0) + OWED <= best.gain) break;
        if (state.place[which] !== NONE) continue;
        const gain = change(prepared, state, at, which, at, which, true);
        if (gain > best.gain) best = { gain, at, which };
      }
    }
    if (best.at === NONE) return;
    put(prepared, state, best.at, best.which);
  }
}

/** Makes every change that makes the whole worth more, one after the other. @returns whether there was any */
function improve(prepared: Prepared, state: State): boolean {
  const { filled, place } = state;
  let gained = 0;
  for (const at of prepared.free) {
    for (const which of prepared.ranked[at] ?? []) {
      if (filled[at] === which) continue;
      const from = place[which] ?? NONE;
      if (from === NONE) gained += change(prepared, state, at, which, at, which);
      else {
        const exchanged = change(prepared, state, at, which, from, filled[at] ?? NONE);
        gained += exchanged > 0 ? exchanged : change(prepared, state, at, which, from, bestUnused(prepared, state, from));
      }
    }
    if (filled[at] !== NONE) gained += change(prepared, state, at, NONE, at, NONE);
  }
  return gained > 0;
}

const bestUnused = ({ ranked }: Prepared, { place }: State, at: number): number =>
  ranked[at]?.find((which) => place[which] === NONE) ?? NONE;

function linesOf(prepared: Prepared, state: State): ProposedLine[] {
  const { slots, candidates, owed, readyByFormat } = prepared.whole;
  return slots.flatMap((slot, at) => {
    const candidate = candidates[state.filled[at] ?? NONE];
    if (!candidate) return [];
    const fit = fitOf(slot, candidate, readyByFormat);
    const pillar = pillarIn(slot, candidate);
    return {
      slotId: slot.id,
      candidateId: candidate.id,
      reasons: fit.fits ? fit.reasons : [],
      owed: pillar !== null && (owed[pillar] ?? 0) > 0,
      inARow: isRunAfter(prepared, state, at) || isRunAfter(prepared, state, at - 1),
      likeBeside: isLikeAfter(prepared, state, at) || isLikeAfter(prepared, state, at - 1),
    };
  });
}
