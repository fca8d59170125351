import { followersOf, without, type Graph } from '../graph/index.js';
import { fail, ok, type Result } from '../result/index.js';
import type { Day } from '../time/index.js';
import { isByClient, type StepKind } from './kinds.js';
import { EFFORT_LIMIT_MINUTES, SPAN_LIMIT_DAYS } from './limits.js';
import { withoutSteps, type RouteStep } from './route.js';
import type { PathStep } from './path.js';

/** A step of a piece, as far as changes of its path ask. The list stands in the order in which the path is read. */
export interface ChangeableStep extends PathStep {
  /** which step of the route it is; any other where it was added by hand */
  readonly key?: string;
  readonly title: string;
  readonly skill: string;
  /** whole working days, start and finish both counted */
  readonly spanDays: number;
  readonly effortMinutes: number;
  /** what the doer says is left; null: the whole effort */
  readonly remainingMinutes: number | null;
  readonly sameDay: boolean;
  /** may be left out */
  readonly optional: boolean;
  readonly startedOn: Day | null;
  readonly finishedOn: Day | null;
  /** a latest finish set by hand */
  readonly pinnedFinishOn: Day | null;
}

/** Work that a path is given by hand. */
export interface AddedStep {
  readonly id: string;
  readonly title: string;
  /** the client's word is never added by hand: it stands where the route has it */
  readonly kind: Exclude<StepKind, 'sign_off'>;
  readonly skill: string;
  readonly spanDays: number;
  readonly effortMinutes: number;
  readonly sameDay: boolean;
}

/** Where a step is put, seen from another: what follows that one waits for both where they stand side by side. */
export type StepPlace = 'before' | 'after' | 'beside';

export type PathChange =
  | { readonly kind: 'leave_out'; readonly stepId: string }
  | { readonly kind: 'add'; readonly step: AddedStep; readonly place: StepPlace; readonly stepId: string }
  | { readonly kind: 'retime'; readonly stepId: string; readonly spanDays: number; readonly effortMinutes: number }
  /** null takes the pin away */
  | { readonly kind: 'pin'; readonly stepId: string; readonly finishOn: Day | null }
  /** a step of the route that the path does without */
  | { readonly kind: 'bring_back'; readonly id: string; readonly key: string; readonly route: readonly RouteStep[] }
  /** a part of the work becomes a step of its own, which follows or stands beside */
  | { readonly kind: 'split'; readonly step: AddedStep; readonly place: 'after' | 'beside'; readonly stepId: string };

export interface PathFailure {
  readonly code:
    | 'step.not_on_path'
    | 'step.already_finished'
    | 'step.already_begun'
    | 'step.not_optional'
    | 'step.client_decides'
    | 'step.time_wrong'
    | 'path.title_twice'
    | 'path.nothing_made'
    | 'path.follower_begun'
    | 'path.split_too_much';
}

const graphOf = <T extends ChangeableStep>(): Graph<T> => ({ idOf: (step) => step.id, beforeOf: (step) => step.predecessorIds });

const isTime = (spanDays: number, effortMinutes: number): boolean =>
  Number.isInteger(spanDays) &&
  spanDays >= 1 &&
  spanDays <= SPAN_LIMIT_DAYS &&
  Number.isInteger(effortMinutes) &&
  effortMinutes >= 0 &&
  effortMinutes <= EFFORT_LIMIT_MINUTES;

/**
 * Changes the path of one piece, one change after the other. What is finished or begun never changes its place, the client's step stays last of its
 * round, and no step comes to wait for one that stands behind it.
 * @param make what an added step is beside what this module knows, told from the step that it is put next to; undefined where the route brings it back
 * @returns the steps in their new order; or why the first change that cannot be made cannot
 */
export function changePath<T extends ChangeableStep>(
  steps: readonly T[],
  changes: readonly PathChange[],
  make: (added: ChangeableStep, from: T | undefined) => T,
): Result<T[], PathFailure> {
  let path: Result<T[], PathFailure> = ok([...steps]);
  for (const change of changes) {
    if (!path.ok) return path;
    path = changed(path.value, change, make);
  }
  return path;
}

function changed<T extends ChangeableStep>(
  steps: readonly T[],
  change: PathChange,
  make: (added: ChangeableStep, from: T | undefined) => T,
): Result<T[], PathFailure> {
  if (change.kind === 'bring_back') return broughtBack(steps, change, make);
  const step = steps.find(({ id }) => id === change.stepId);
  if (!step) return fail({ code: 'step.not_on_path' });
  const put = (next: Partial<ChangeableStep>): T[] => steps.map((other) => (other === step ? { ...other, ...next } : other));
  if (change.kind === 'add') return added(steps, step, change, make);
  if (step.finishedOn !== null) return fail({ code: 'step.already_finished' });
  switch (change.kind) {
    case 'leave_out':
      return leftOut(steps, step);
    case 'retime':
      if (!isTime(change.spanDays, change.effortMinutes)) return fail({ code: 'step.time_wrong' });
      return ok(
        put({
          spanDays: change.spanDays,
          effortMinutes: change.effortMinutes,
          // whoever said what is left said it of another effort
          ...(change.effortMinutes === step.effortMinutes ? {} : { remainingMinutes: null }),
        }),
      );
    case 'pin':
      return ok(put({ pinnedFinishOn: change.finishOn }));
    case 'split':
      return split(steps, step, change, make);
  }
}

function leftOut<T extends ChangeableStep>(steps: readonly T[], step: T): Result<T[], PathFailure> {
  if (step.kind === 'sign_off') return fail({ code: 'step.client_decides' });
  if (step.startedOn !== null) return fail({ code: 'step.already_begun' });
  if (!step.optional) return fail({ code: 'step.not_optional' });
  const left = without(graphOf<T>(), steps, [step.id], (other, predecessorIds) => ({ ...other, predecessorIds }));
  return left.some(({ kind }) => kind === 'make') ? ok(left) : fail({ code: 'path.nothing_made' });
}

function added<T extends ChangeableStep>(
  steps: readonly T[],
  beside: T,
  { step, place }: Extract<PathChange, { kind: 'add' }>,
  make: (added: ChangeableStep, from: T | undefined) => T,
): Result<T[], PathFailure> {
  if (!isTime(step.spanDays, step.effortMinutes)) return fail({ code: 'step.time_wrong' });
  if (isTitleTaken(steps, step.title, beside.round)) return fail({ code: 'path.title_twice' });
  // nothing is made once the client has it, but before the client's step
  if (beside.kind === 'sign_off' && place !== 'before') return fail({ code: 'step.client_decides' });
  const whole: ChangeableStep = {
    ...step,
    optional: true,
    round: beside.round,
    predecessorIds: [],
    remainingMinutes: null,
    startedOn: null,
    finishedOn: null,
    pinnedFinishOn: null,
  };
  return place === 'before' ? insertedBefore(steps, beside, make(whole, beside)) : inserted(steps, beside, make(whole, beside), place);
}

function insertedBefore<T extends ChangeableStep>(steps: readonly T[], beside: T, step: T): Result<T[], PathFailure> {
  if (beside.startedOn !== null) return fail({ code: 'path.follower_begun' });
  const first = { ...step, predecessorIds: beside.predecessorIds };
  return ok(steps.flatMap((other) => (other === beside ? [first, { ...other, predecessorIds: [step.id] }] : [other])));
}

/** Puts a step after another or beside it: what followed that one waits for the new one, too. */
function inserted<T extends ChangeableStep>(steps: readonly T[], beside: T, step: T, place: 'after' | 'beside'): Result<T[], PathFailure> {
  const followers = new Set(followersOf(graphOf<T>(), steps).get(beside.id) ?? []);
  if ([...followers].some(({ startedOn }) => startedOn !== null)) return fail({ code: 'path.follower_begun' });
  const placed = { ...step, predecessorIds: place === 'after' ? [beside.id] : beside.predecessorIds };
  return ok(
    steps.flatMap((other): T[] => {
      if (other === beside) return [other, placed];
      if (!followers.has(other)) return [other];
      const kept = place === 'after' ? other.predecessorIds.filter((id) => id !== beside.id) : other.predecessorIds;
      return [{ ...other, predecessorIds: [...kept, step.id] }];
    }),
  );
}

/** What the new step takes of the work is taken from the other; each keeps a day at least. */
function split<T extends ChangeableStep>(
  steps: readonly T[],
  step: T,
  change: Extract<PathChange, { kind: 'split' }>,
  make: (added: ChangeableStep, from: T | undefined) => T,
): Result<T[], PathFailure> {
  if (isByClient(step.kind)) return fail({ code: 'step.client_decides' });
  const taken = change.step;
  const left = step.remainingMinutes ?? step.effortMinutes;
  if (taken.effortMinutes > left) return fail({ code: 'path.split_too_much' });
  const done = added(
    steps,
    step,
    { ...change, kind: 'add', step: { ...taken, kind: step.kind === 'check' ? 'check' : 'make', skill: step.skill } },
    make,
  );
  if (!done.ok) return done;
  return ok(
    done.value.map((other) =>
      other === step
        ? {
            ...other,
            effortMinutes: Math.max(0, step.effortMinutes - taken.effortMinutes),
            remainingMinutes: step.remainingMinutes === null ? null : left - taken.effortMinutes,
            spanDays: change.place === 'after' ? Math.max(1, step.spanDays - taken.spanDays) : step.spanDays,
          }
        : other,
    ),
  );
}

const isTitleTaken = (steps: readonly ChangeableStep[], title: string, round: number): boolean =>
  steps.some((other) => other.round === round && other.title.trim().toLowerCase() === title.trim().toLowerCase());

/**
 * Puts a step of the route back that the path does without, between what it stands between there. What a step waits for only because this one was
 * left out, it no longer waits for.
 */
function broughtBack<T extends ChangeableStep>(
  steps: readonly T[],
  { id, key, route }: Extract<PathChange, { kind: 'bring_back' }>,
  make: (added: ChangeableStep, from: T | undefined) => T,
): Result<T[], PathFailure> {
  const first = steps.filter(({ round }) => round === 1);
  const idOf = new Map(first.flatMap((step) => (step.key === undefined ? [] : [[step.key, step.id] as const])));
  const back = route.find((step) => step.key === key);
  if (!back || idOf.has(key)) return fail({ code: 'step.not_on_path' });
  if (back.kind === 'sign_off') return fail({ code: 'step.client_decides' });
  const gone = route.flatMap((step) => (idOf.has(step.key) || step.key === key ? [] : [step.key]));
  const whole = withoutSteps(route, gone);
  const before = whole.find((step) => step.key === key)?.after ?? [];
  const followers = new Map(whole.flatMap((step) => (step.after.includes(key) ? [[idOf.get(step.key), step] as const] : [])));
  if (steps.some((step) => followers.has(step.id) && step.startedOn !== null)) return fail({ code: 'path.follower_begun' });
  const idsOf = (keys: readonly string[]) => keys.flatMap((one) => idOf.get(one) ?? []);
  const placed: ChangeableStep = {
    id,
    key,
    kind: back.kind,
    title: back.title,
    skill: back.skill,
    spanDays: back.spanDays,
    effortMinutes: back.effortMinutes,
    sameDay: back.sameDay ?? false,
    optional: back.optional ?? false,
    round: 1,
    predecessorIds: idsOf(before),
    remainingMinutes: null,
    startedOn: null,
    finishedOn: null,
    pinnedFinishOn: null,
  };
  const linked = steps.map((step): T => {
    const inRoute = followers.get(step.id);
    if (!inRoute) return step;
    const since = new Set(idsOf(before.filter((one) => !inRoute.after.includes(one))));
    return { ...step, predecessorIds: [...step.predecessorIds.filter((one) => !since.has(one)), id] };
  });
  const at = linked.findIndex((step) => followers.has(step.id));
  const made = make(placed, undefined);
  return ok(at < 0 ? [...linked, made] : [...linked.slice(0, at), made, ...linked.slice(at)]);
}
