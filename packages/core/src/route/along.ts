import { ancestorsOf, inOrder } from '../graph/index.js';
import { fail, ok, type Result } from '../result/index.js';
import type { ChangeableStep } from './change.js';
import type { RouteStep } from './route.js';

/** A step of a piece that may be taken along when its route is changed. */
export interface AlongStep extends ChangeableStep {
  /** what is looked at before it is handed in */
  readonly checklist: readonly string[];
}

/** What of a step a changed route changes. */
export type AlongField = 'title' | 'skill' | 'days' | 'effort' | 'order' | 'checklist' | 'same_day' | 'optional';

export interface AlongChange {
  readonly kind: 'added' | 'left_out' | 'changed';
  readonly stepId: string;
  readonly title: string;
  /** of a step that is changed */
  readonly fields: readonly AlongField[];
}

/** What the piece keeps although its route is otherwise by now, and why: it was begun, it was changed by hand, or what follows was begun. */
export interface AlongKept {
  readonly title: string;
  readonly why: 'begun' | 'by_hand' | 'follower_begun';
}

export interface TakenAlong {
  /** in the order in which the path is read */
  readonly steps: readonly AlongStep[];
  readonly changes: readonly AlongChange[];
  readonly kept: readonly AlongKept[];
}

export interface AlongInput {
  readonly path: readonly AlongStep[];
  /** the route as it was when the piece was made, or taken along last */
  readonly from: readonly RouteStep[];
  /** the route as it is */
  readonly to: readonly RouteStep[];
  /** the id that a new step gets */
  readonly idOf: (key: string) => string;
  /** steps that this piece does without: the client's word where the agency decides */
  readonly isSkipped: (step: RouteStep) => boolean;
}

const isBegun = (step: AlongStep): boolean => step.startedOn !== null || step.finishedOn !== null;
const byKey = (route: readonly RouteStep[]): Map<string, RouteStep> => new Map(route.map((step) => [step.key, step]));
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Takes a piece along with its route: a merge of three. What the route changed since and the piece has as the route had it, follows; what was changed by
 * hand stays; what is begun or finished never changes; a step that is new comes in unless what waits for it is begun. A step whose kind is another is another
 * step.
 * @returns what the path becomes; a ring where changes by hand and the route's stand against each other
 */
export function takeAlong({ path, from, to, idOf, isSkipped }: AlongInput): Result<TakenAlong, { code: 'path.circular' }> {
  const [was, now] = [byKey(from), byKey(to)];
  const first = new Map(path.flatMap((step) => (step.round === 1 && step.key !== undefined ? [[step.key, step] as const] : [])));
  const isSame = (key: string) => was.get(key)?.kind === now.get(key)?.kind;
  const [changes, kept]: [AlongChange[], AlongKept[]] = [[], []];
  const gone = new Set<string>();
  for (const [key, step] of first) {
    if (!was.has(key) || (now.has(key) && isSame(key))) continue;
    if (isBegun(step)) kept.push({ title: step.title, why: 'begun' });
    else {
      gone.add(step.id);
      changes.push({ kind: 'left_out', stepId: step.id, title: step.title, fields: [] });
    }
  }
  const stays = (key: string) => first.has(key) && !gone.has(first.get(key)?.id ?? '');
  const added = new Map<string, string>();
  for (const step of to) {
    if (isSkipped(step) || stays(step.key) || (was.has(step.key) && isSame(step.key))) continue;
    if (waitersOf(step.key, to).some((key) => stays(key) && isBegun(first.get(key) as AlongStep)))
      kept.push({ title: step.title, why: 'follower_begun' });
    else {
      added.set(step.key, idOf(step.key));
      changes.push({ kind: 'added', stepId: added.get(step.key) ?? '', title: step.title, fields: [] });
    }
  }
  const before = idsAfter(was, (key) => first.get(key)?.id);
  const after = idsAfter(now, (key) => added.get(key) ?? (stays(key) ? first.get(key)?.id : undefined));
  const steps = path.flatMap((step): AlongStep[] => {
    if (gone.has(step.id)) return [];
    const [base, next] = [was.get(step.key ?? ''), now.get(step.key ?? '')];
    // a step that was added by hand, or that the route no longer has, waits for what is left
    if (isBegun(step) || !base || !next || !stays(step.key ?? ''))
      return [isBegun(step) ? step : { ...step, predecessorIds: joined(step.predecessorIds, gone, path) }];
    const merged = mergeStep(step, base, next);
    const order =
      step.round > 1
        ? step.predecessorIds
        : mergeOrder(joined(step.predecessorIds, gone, path), joined(before(base), gone, path), after(next));
    const fields: AlongField[] = [
      ...merged.fields,
      ...(same([...order].sort(), [...step.predecessorIds].sort()) ? [] : (['order'] as const)),
    ];
    if (merged.isKept) kept.push({ title: merged.step.title, why: 'by_hand' });
    if (fields.length > 0) changes.push({ kind: 'changed', stepId: step.id, title: merged.step.title, fields });
    return [{ ...merged.step, predecessorIds: order }];
  });
  const placed = place(
    steps,
    [...added].map(([key, id]) => newStep(now.get(key) as RouteStep, id, after)),
  );
  const sorted = inOrder({ idOf: (step: AlongStep) => step.id, beforeOf: (step) => step.predecessorIds }, placed);
  if ('ring' in sorted) return fail({ code: 'path.circular' });
  const isAdded = changes.some(({ kind, fields }) => kind !== 'changed' || fields.includes('order'));
  return ok({ steps: isAdded ? sorted.order : steps, changes, kept });
}

/** The keys of all that waits for a step, however far. */
const waitersOf = (key: string, route: readonly RouteStep[]): string[] =>
  route.flatMap((step) =>
    step.key !== key && ancestorsOf({ idOf: (one: RouteStep) => one.key, beforeOf: (one) => one.after }, step.after, route).has(key)
      ? [step.key]
      : [],
  );

/** The ids that a step of a route waits for on a path: where the path does without one, those that this one waits for. */
function idsAfter(route: ReadonlyMap<string, RouteStep>, idOf: (key: string) => string | undefined): (step: RouteStep) => string[] {
  const of = (step: RouteStep): string[] => [
    ...new Set(
      step.after.flatMap((key) => {
        const id = idOf(key);
        const before = route.get(key);
        return id === undefined ? (before ? of(before) : []) : [id];
      }),
    ),
  ];
  return of;
}

/** Links without what is gone: what waited for it waits for what it waited for. */
function joined(ids: readonly string[], gone: ReadonlySet<string>, path: readonly AlongStep[]): string[] {
  return [
    ...new Set(
      ids.flatMap((id): string[] => (gone.has(id) ? joined(path.find((step) => step.id === id)?.predecessorIds ?? [], gone, path) : [id])),
    ),
  ];
}

/** What waits by the route follows it; what was put before it by hand stays before it. */
const mergeOrder = (mine: readonly string[], base: readonly string[], next: readonly string[]): string[] => {
  const left = base.filter((id) => !mine.includes(id)); // by hand it no longer waits for these
  return [...new Set([...next.filter((id) => !left.includes(id)), ...mine.filter((id) => !base.includes(id))])];
};

/** What of a step follows its route. */
function mergeStep(step: AlongStep, base: RouteStep, next: RouteStep): { step: AlongStep; fields: AlongField[]; isKept: boolean } {
  const fields: AlongField[] = [];
  let isKept = false;
  const merge = <T>(field: AlongField, mine: T, was: T, now: T): T => {
    if (same(was, now) || same(mine, now)) return mine;
    if (!same(mine, was)) {
      isKept = true;
      return mine;
    }
    fields.push(field);
    return now;
  };
  const days = ({ spanDays, reworkSpanDays }: RouteStep) => (step.round > 1 ? (reworkSpanDays ?? spanDays) : spanDays);
  const effort = ({ effortMinutes, reworkEffortMinutes }: RouteStep) =>
    step.round > 1 ? (reworkEffortMinutes ?? effortMinutes) : effortMinutes;
  const merged = {
    ...step,
    title: merge('title', step.title, base.title, next.title),
    skill: merge('skill', step.skill, base.skill, next.skill),
    spanDays: merge('days', step.spanDays, days(base), days(next)),
    effortMinutes: merge('effort', step.effortMinutes, effort(base), effort(next)),
    sameDay: merge('same_day', step.sameDay, base.sameDay ?? false, next.sameDay ?? false),
    optional: merge('optional', step.optional, base.optional ?? false, next.optional ?? false),
    checklist: merge('checklist', [...step.checklist], [...(base.checklist ?? [])], [...(next.checklist ?? [])]),
  };
  return { step: merged, fields, isKept };
}

const newStep = (step: RouteStep, id: string, after: (step: RouteStep) => string[]): AlongStep => ({
  id,
  key: step.key,
  title: step.title,
  kind: step.kind,
  skill: step.skill,
  round: 1,
  spanDays: step.spanDays,
  effortMinutes: step.effortMinutes,
  remainingMinutes: null,
  sameDay: step.sameDay ?? false,
  optional: step.optional ?? false,
  checklist: [...(step.checklist ?? [])],
  predecessorIds: after(step),
  startedOn: null,
  finishedOn: null,
  pinnedFinishOn: null,
});

/** New steps behind the last that they wait for, so that the list is read in their order. */
function place(steps: readonly AlongStep[], added: readonly AlongStep[]): AlongStep[] {
  const all = [...steps];
  for (const step of added) {
    const at = Math.max(-1, ...step.predecessorIds.map((id) => all.findIndex((one) => one.id === id)));
    all.splice(at + 1, 0, step);
  }
  return all;
}
