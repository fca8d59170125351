import { ancestorsOf, inOrder, without, type Graph } from '../graph/index.js';
import type { StepKind } from './kinds.js';
import { EFFORT_LIMIT_MINUTES, SPAN_LIMIT_DAYS } from './limits.js';

/** One step of a route. `after` names the keys of its predecessors; none means that it may start at once. */
export interface RouteStep {
  readonly key: string;
  readonly title: string;
  readonly kind: StepKind;
  readonly skill: string;
  /** whole working days of whoever does it, start and finish both counted */
  readonly spanDays: number;
  readonly effortMinutes: number;
  readonly after: readonly string[];
  readonly sameDay?: boolean;
  /** may be left out when a piece is planned */
  readonly optional?: boolean;
  /** what is looked at before it is handed in, line by line */
  readonly checklist?: readonly string[];
  /** set where the step is done again when changes are asked, with its span then */
  readonly reworkSpanDays?: number;
  readonly reworkEffortMinutes?: number;
}

export interface RouteProblem {
  readonly code:
    | 'route.empty'
    | 'route.title_missing'
    | 'route.title_twice'
    | 'route.span_wrong'
    | 'route.effort_wrong'
    | 'route.predecessor_unknown'
    | 'route.circular'
    | 'route.nothing_made'
    | 'route.sign_off_not_last';
  /** the step it is about; null for the route as a whole */
  readonly key: string | null;
}

/** What is wrong with a route; empty when pieces can take it. */
export function routeProblems(steps: readonly RouteStep[]): RouteProblem[] {
  if (steps.length === 0) return [{ code: 'route.empty', key: null }];
  const keys = new Set(steps.map((step) => step.key));
  const titles = new Map<string, number>();
  for (const step of steps) titles.set(step.title.trim().toLowerCase(), (titles.get(step.title.trim().toLowerCase()) ?? 0) + 1);
  const isSpan = (days: number | undefined) => days === undefined || (Number.isInteger(days) && days >= 1 && days <= SPAN_LIMIT_DAYS);
  const isEffort = (minutes: number | undefined) =>
    minutes === undefined || (Number.isInteger(minutes) && minutes >= 0 && minutes <= EFFORT_LIMIT_MINUTES);
  const problems = steps.flatMap((step): RouteProblem[] => {
    const about = (code: RouteProblem['code'], wrong: boolean): RouteProblem[] => (wrong ? [{ code, key: step.key }] : []);
    return [
      ...about('route.title_missing', step.title.trim() === ''),
      ...about('route.title_twice', step.title.trim() !== '' && (titles.get(step.title.trim().toLowerCase()) ?? 0) > 1),
      ...about('route.span_wrong', !isSpan(step.spanDays) || !isSpan(step.reworkSpanDays)),
      ...about('route.effort_wrong', !isEffort(step.effortMinutes) || !isEffort(step.reworkEffortMinutes)),
      ...about(
        'route.predecessor_unknown',
        step.after.some((key) => !keys.has(key)),
      ),
    ];
  });
  if (problems.length > 0) return problems;
  const sorted = inOrder(ROUTE, steps);
  if ('ring' in sorted) return [{ code: 'route.circular', key: sorted.ring.key }];
  if (!steps.some((step) => step.kind === 'make')) return [{ code: 'route.nothing_made', key: null }];
  const early = steps.find(
    (step) => step.kind === 'sign_off' && steps.some((other) => other.kind !== 'sign_off' && follows(steps, other, step)),
  );
  return early ? [{ code: 'route.sign_off_not_last', key: early.key }] : [];
}

const ROUTE: Graph<RouteStep> = { idOf: (step) => step.key, beforeOf: (step) => step.after };

/** The steps in an order in which each comes after what it waits for; as they stand where some wait in a ring. */
export function stepsInOrder(steps: readonly RouteStep[]): readonly RouteStep[] {
  const sorted = inOrder(ROUTE, steps);
  return 'order' in sorted ? sorted.order : steps;
}

/**
 * The fewest working days that a route takes, where everybody works on the same days and nothing waits for hours: the longest way through it, a step
 * that may start on the same day sharing one with what it waits for.
 */
export function leastDays(steps: readonly RouteStep[]): number {
  const ends = new Map<string, number>();
  for (const step of stepsInOrder(steps)) {
    const before = Math.max(0, ...step.after.map((key) => ends.get(key) ?? 0));
    ends.set(step.key, before + step.spanDays - (step.sameDay && before > 0 ? 1 : 0));
  }
  return Math.max(0, ...ends.values());
}

/** Whether `later` waits, directly or through others, for `earlier`. */
const follows = (steps: readonly RouteStep[], later: RouteStep, earlier: RouteStep): boolean =>
  ancestorsOf(ROUTE, later.after, steps).has(earlier.key);

/** Removes steps and joins their links: what waited for one waits for what it waited for. */
export const withoutSteps = (steps: readonly RouteStep[], keys: readonly string[]): RouteStep[] =>
  without(ROUTE, steps, keys, (step, after) => ({ ...step, after }));
