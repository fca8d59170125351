import { earliestPublishAfter, planPiece, type Plan, type PlanInput } from '../backplan/index.js';
import { changePath, isByClient, stepsBefore, type ChangeableStep, type PathChange } from '../route/index.js';
import { addDays, type Day } from '../time/index.js';
import { countWorkingDays } from '../workdays/index.js';
import { predictWorkload, type PredictedStep, type WorkloadInput, type WorkloadStep } from '../workload/index.js';

/** A step of the piece that is asked about, with who does it. */
export interface HelpStep extends ChangeableStep {
  /** key into the doers */
  readonly doer: string;
  /** as the prediction has it */
  readonly blockedUntilOn?: Day | null;
}

/** A piece in the midst of all that the agency has to do. */
export interface PieceAmongWork {
  readonly steps: readonly HelpStep[];
  /** when it is to be out, as `planPiece` has it */
  readonly plan: Omit<PlanInput, 'steps' | 'doers'>;
  readonly doers: WorkloadInput['doers'];
  readonly taken?: WorkloadInput['taken'];
  /** the steps of all other open pieces, in the order of the pieces */
  readonly others: readonly OtherStep[];
  /** so many of the others stand before the piece in that order */
  readonly at: number;
}

export interface OtherStep extends WorkloadStep {
  readonly pieceId: string;
}

/** What becomes of a piece, and of the others beside it. */
export interface Outcome {
  readonly plan: Plan;
  /** when each open step of the piece is predicted to begin and end */
  readonly predicted: ReadonlyMap<string, PredictedStep>;
  /** by so many working days of its doer the worst step of the piece misses its latest finish; 0: the piece makes its date, or has none */
  readonly lateDays: number;
  /** the same of other pieces; those that make their dates are left out */
  readonly others: ReadonlyMap<string, number>;
}

/** Later than this nobody counts: also what is predicted never to end is so late. */
export const NEVER_DAYS = 3653;

/**
 * Plans a piece and predicts everybody's load with it in their midst.
 * @returns undefined where somebody on its path never works
 */
export function outcomeOf(work: PieceAmongWork, steps: readonly HelpStep[] = work.steps): Outcome | undefined {
  const planned = planPiece({ ...work.plan, doers: work.doers, steps });
  return planned.ok
    ? outcomeBy(work, steps, new Map(planned.value.steps.map(({ id, latestFinishOn }) => [id, latestFinishOn])))
    : undefined;
}

/** @param latest the days by which the piece's steps are worked on in turn with all others */
function outcomeBy(work: PieceAmongWork, steps: readonly HelpStep[], latest: ReadonlyMap<string, Day | null>): Outcome | undefined {
  const own = steps.map((step): WorkloadStep => ({
    ...step,
    effortMinutes: step.remainingMinutes ?? step.effortMinutes,
    latestFinishOn: latest.get(step.id) ?? null,
  }));
  const { taken = [], others } = work;
  const prediction = predictWorkload({ steps: [...others.slice(0, work.at), ...own, ...others.slice(work.at)], doers: work.doers, taken });
  const predicted = new Map(prediction.steps.map((step) => [step.id, step]));
  const whole = planPiece({
    ...work.plan,
    doers: work.doers,
    steps: steps.map((step) => ({ ...step, predictedFinishOn: predicted.get(step.id)?.finishOn ?? null })),
  });
  if (!whole.ok) return undefined;
  const late = new Map<string, number>();
  for (const step of others) {
    const days = daysLate(work, step, step.latestFinishOn, predicted.get(step.id));
    if (days > (late.get(step.pieceId) ?? 0)) late.set(step.pieceId, days);
  }
  // a pin later than what follows allows makes nothing earlier: what the date itself asks counts too
  const isPinned = steps.some(({ pinnedFinishOn, finishedOn }) => pinnedFinishOn !== null && finishedOn === null);
  const unpinned = isPinned
    ? planPiece({ ...work.plan, doers: work.doers, steps: steps.map((step) => ({ ...step, pinnedFinishOn: null })) })
    : whole;
  if (!unpinned.ok) return undefined;
  const stepOf = new Map(steps.map((step) => [step.id, step]));
  const lateDays = [...whole.value.steps, ...unpinned.value.steps].map((planned) => {
    const step = stepOf.get(planned.id);
    return step ? Math.max(daysLate(work, step, planned.latestFinishOn, predicted.get(step.id)), -(planned.slackDays ?? 0)) : 0;
  });
  return {
    plan: whole.value,
    predicted: new Map(steps.flatMap(({ id }) => (predicted.has(id) ? [[id, predicted.get(id) as PredictedStep] as const] : []))),
    lateDays: Math.max(0, ...lateDays),
    others: late,
  };
}

/** The working days of its doer by which an open step is predicted to miss its latest finish. */
function daysLate(
  work: PieceAmongWork,
  step: Pick<WorkloadStep, 'doer' | 'finishedOn'>,
  latestFinishOn: Day | null,
  predicted: PredictedStep | undefined,
): number {
  if (step.finishedOn || latestFinishOn === null || !predicted) return 0;
  if (predicted.finishOn === null) return NEVER_DAYS;
  const doer = work.doers[step.doer];
  if (!doer || predicted.finishOn <= latestFinishOn) return 0;
  return countWorkingDays(doer.calendar, addDays(latestFinishOn, 1), predicted.finishOn);
}

/** A small change that may mend a piece. */
export type HelpChange =
  | Extract<PathChange, { kind: 'leave_out' | 'retime' | 'pin' }>
  | { readonly kind: 'give'; readonly stepId: string; readonly doer: string }
  /** what stands in the way of the piece is gone at once; the step is the first that waits for it */
  | { readonly kind: 'free'; readonly stepId: string };

/** What a change makes of another piece, in working days that it is late. */
export interface OtherEffect {
  readonly pieceId: string;
  readonly was: number;
  readonly now: number;
}

export interface Help {
  readonly changes: readonly HelpChange[];
  /** 0: the piece makes its date with it */
  readonly lateDays: number;
  readonly others: readonly OtherEffect[];
}

export interface HelpOptions {
  /** by step: who else could do it, whoever is to be preferred first */
  readonly able: Readonly<Record<string, readonly string[]>>;
  /** by step: a span that such steps have kept to before, shorter than the one that is planned */
  readonly shortest: Readonly<Record<string, number>>;
  /** asked between two tries: true where no more time is to be spent */
  readonly isEnough?: () => boolean;
}

export interface Helps {
  readonly now: Outcome;
  /** at most `MOST_HELPS`, the best first; none where the piece makes its date */
  readonly helps: readonly Help[];
  /** the first day on which it could be out if nothing is changed, by the prediction; null where a step never ends */
  readonly laterOn: Day | null;
  /** how many changes were tried, of how many that could be */
  readonly tried: number;
  readonly possible: number;
}

export const MOST_HELPS = 5;
/** Two changes at once are looked for among so many single ones that help a little. */
const PAIRED = 6;
/** Of those who could do a step, so many are tried. */
const MOST_ABLE = 4;

/**
 * The smallest changes that would bring a late piece back: a pin taken away, another order of work, another doer, a shorter span that was kept to before, leaving out what
 * may be left out, what stands in the way gone; two of these where none alone is enough. Each is tried on the whole agency's prediction, so that what it does to others is told.
 * What mends comes first; then what makes others less late; then what changes least.
 * @returns undefined where somebody on the path never works
 */
export function whatHelps(work: PieceAmongWork, options: HelpOptions): Helps | undefined {
  const now = outcomeOf(work);
  if (!now) return undefined;
  const laterOn = laterDay(work, now);
  if (now.lateDays === 0) return { now, helps: [], laterOn, tried: 0, possible: 0 };
  const isEnough = options.isEnough ?? (() => false);
  const singles = candidates(work, now, options);
  const found: Help[] = [];
  const orders = new Set<string>();
  let [tried, possible] = [0, singles.length];
  const tryAll = (many: readonly (readonly HelpChange[])[]) => {
    for (const changes of many) {
      if (isEnough()) return;
      tried++;
      const outcome = tryOut(work, now, changes);
      if (!outcome) continue;
      const { lateDays } = outcome;
      const help = { changes, lateDays, others: effects(now, outcome) };
      // two pins that lead to the same order of work are one way
      const order = JSON.stringify([lateDays, help.others, [...outcome.predicted.values()]]);
      if (changes.length === 1 && changes[0]?.kind === 'pin') {
        if (orders.has(order)) continue;
        orders.add(order);
      }
      found.push(help);
    }
  };
  tryAll(singles.map((change) => [change]));
  if (!found.some(({ lateDays }) => lateDays === 0)) {
    const best = [...found].sort(byWorth).slice(0, PAIRED);
    const pairs = best.flatMap((one, index) =>
      best.slice(index + 1).flatMap((other) => {
        const [first, second] = [one.changes[0], other.changes[0]];
        return first && second && first.stepId !== second.stepId ? [[first, second]] : [];
      }),
    );
    possible += pairs.length;
    tryAll(pairs);
  }
  return { now, helps: eachOnce(found.sort(byWorth)).slice(0, MOST_HELPS), laterOn, tried, possible };
}

/** One after the other: the order of work first, since it costs nobody anything. */
function candidates(work: PieceAmongWork, now: Outcome, { able, shortest }: HelpOptions): HelpChange[] {
  const open = work.steps.filter((step) => step.finishedOn === null && step.kind !== 'sign_off');
  const orders = open.filter(({ kind }) => !isByClient(kind)).map((step) => ordersOf(work, now, step));
  return [
    ...open.flatMap((step): HelpChange[] => (step.pinnedFinishOn === null ? [] : [{ kind: 'pin', stepId: step.id, finishOn: null }])),
    ...orders.flatMap(({ first }) => first),
    ...open.flatMap((step): HelpChange[] => (step.optional && step.startedOn === null ? [{ kind: 'leave_out', stepId: step.id }] : [])),
    ...open
      .filter(({ kind }) => !isByClient(kind))
      .flatMap((step) =>
        (able[step.id] ?? [])
          .filter((doer) => doer !== step.doer)
          .slice(0, MOST_ABLE)
          .map((doer): HelpChange => ({ kind: 'give', stepId: step.id, doer })),
      ),
    ...open.flatMap((step): HelpChange[] => {
      const spanDays = shortest[step.id];
      return spanDays === undefined || spanDays >= step.spanDays
        ? []
        : [{ kind: 'retime', stepId: step.id, spanDays, effortMinutes: step.effortMinutes }];
    }),
    ...open
      .filter(({ blockedUntilOn }) => blockedUntilOn)
      .slice(0, 1)
      .map((step): HelpChange => ({ kind: 'free', stepId: step.id })),
    ...orders.flatMap(({ between }) => between),
  ];
}

/** Of the days between the earliest end of a step and the one that is predicted, so many are tried. */
const MOST_PINS = 4;

/**
 * Pins that change the order of work before a step: `first` where it, or it and all before it, is taken before all other work; `between` where
 * that order is changed in part only.
 */
function ordersOf(work: PieceAmongWork, now: Outcome, step: HelpStep): { first: HelpChange[]; between: HelpChange[] } {
  const before = stepsBefore(step, work.steps);
  const waits = (id: string) => (now.predicted.get(id)?.behindSteps ?? 0) > 0;
  const alone = waits(step.id) ? finishIfFirst(work, step, new Set([step.id])) : null;
  const whole = [...before].some(waits) ? finishIfFirst(work, step, new Set([...before, step.id])) : null;
  const first = [...new Set([alone, whole])].filter((day) => day !== null);
  const [earliest, predicted] = [whole ?? alone, now.predicted.get(step.id)?.finishOn];
  const after = earliest && predicted ? Array.from({ length: MOST_PINS }, (_, index) => addDays(earliest, index + 1)) : [];
  const between = after.filter((day) => predicted && day < predicted && !first.includes(day));
  const pin = (finishOn: Day): HelpChange => ({ kind: 'pin', stepId: step.id, finishOn });
  return { first: first.map(pin), between: between.map(pin) };
}

/** When a step would end if some steps of its path were taken before all other work; null where its doer is not known. */
function finishIfFirst(work: PieceAmongWork, step: HelpStep, first: ReadonlySet<string>): Day | null {
  const latest = new Map(work.steps.map(({ id, doer }) => [id, first.has(id) ? (work.doers[doer]?.todayOn ?? null) : null]));
  return outcomeBy(work, work.steps, latest)?.predicted.get(step.id)?.finishOn ?? null;
}

/** The path with a change of any kind made; undefined where it cannot be. */
export function stepsWith(steps: readonly HelpStep[], changes: readonly HelpChange[]): readonly HelpStep[] | undefined {
  return changes.reduce<readonly HelpStep[] | undefined>((path, change) => {
    if (!path) return undefined;
    if (change.kind === 'free') return path.map((step) => ({ ...step, blockedUntilOn: null }));
    if (change.kind === 'give') return path.map((step) => (step.id === change.stepId ? { ...step, doer: change.doer } : step));
    const changed = changePath(path, [change], (added, from) => ({ ...added, doer: from?.doer ?? '' }));
    return changed.ok ? changed.value : undefined;
  }, steps);
}

/** What comes of changes, where they help at all. */
function tryOut(work: PieceAmongWork, now: Outcome, changes: readonly HelpChange[]): Outcome | undefined {
  const steps = stepsWith(work.steps, changes);
  const outcome = steps && outcomeOf(work, steps);
  return outcome && outcome.lateDays < now.lateDays ? outcome : undefined;
}

/** What differs for other pieces between two outcomes, the worst first. */
export function effects(before: Outcome, after: Outcome): OtherEffect[] {
  const ids = new Set([...before.others.keys(), ...after.others.keys()]);
  return [...ids]
    .map((pieceId) => ({ pieceId, was: before.others.get(pieceId) ?? 0, now: after.others.get(pieceId) ?? 0 }))
    .filter(({ was, now }) => was !== now)
    .sort((a, b) => b.now - b.was - (a.now - a.was) || (a.pieceId < b.pieceId ? -1 : 1));
}

const KINDS: readonly HelpChange['kind'][] = ['pin', 'give', 'retime', 'free', 'leave_out'];
const harmOf = ({ others }: Help): number => others.reduce((sum, { was, now }) => sum + Math.max(0, now - was), 0);
const weightOf = ({ changes }: Help): number => changes.reduce((sum, { kind }) => sum + KINDS.indexOf(kind), 0);

function byWorth(a: Help, b: Help): number {
  if ((a.lateDays === 0) !== (b.lateDays === 0)) return a.lateDays === 0 ? -1 : 1;
  return harmOf(a) - harmOf(b) || a.changes.length - b.changes.length || a.lateDays - b.lateDays || weightOf(a) - weightOf(b);
}

/** Of the ways to change the same steps in the same manner, the best two. */
function eachOnce(helps: readonly Help[]): Help[] {
  const seen = new Map<string, number>();
  return helps.filter(({ changes }) => {
    const key = changes.map(({ kind, stepId }) => `${kind} ${stepId}`).join(', ');
    seen.set(key, (seen.get(key) ?? 0) + 1);
    return (seen.get(key) ?? 0) <= 2;
  });
}

/** The first publish date that follows the predicted ends of the last open steps. */
function laterDay(work: PieceAmongWork, { predicted, plan }: Outcome): Day | null {
  const dates = new Map(plan.steps.map((step) => [step.id, step]));
  const open = work.steps.filter(({ finishedOn }) => finishedOn === null);
  const ends: { id: string; doer: (typeof work.doers)[string]; finishOn: Day }[] = [];
  for (const step of open) {
    const [doer, finishOn] = [work.doers[step.doer], predicted.get(step.id)?.finishOn];
    if (!doer || !finishOn) return null;
    const earliest = dates.get(step.id)?.earliestFinishOn ?? finishOn;
    ends.push({ id: step.id, doer, finishOn: finishOn > earliest ? finishOn : earliest });
  }
  const { todayOn, publishZone, slots } = work.plan;
  const on = earliestPublishAfter({ todayOn, publishZone, slots, ends });
  return on.ok ? on.value : null;
}

/** So many finished steps must lie behind a span before it is said that such steps keep to it, and this share of them must have. */
export const KEPT_CASES = 5;
export const KEPT_SHARE = 0.8;

/**
 * The shortest span that at least four of five finished steps of a kind kept to.
 * @param tookDays the working days that each took, start and finish both counted
 * @returns null where there are too few
 */
export function spanKept(tookDays: readonly number[]): { readonly spanDays: number; readonly kept: number; readonly of: number } | null {
  if (tookDays.length < KEPT_CASES) return null;
  const sorted = [...tookDays].sort((a, b) => a - b);
  const spanDays = sorted[Math.ceil(KEPT_SHARE * sorted.length) - 1] as number; // within the list
  return { spanDays, kept: sorted.filter((days) => days <= spanDays).length, of: sorted.length };
}
