import { ancestorsOf } from '../graph/index.js';
import type { StepKind } from './kinds.js';

/** What the graph of a piece's steps says, in whatever order they stand in the list. */
export interface PathStep {
  readonly id: string;
  readonly kind: StepKind;
  readonly round: number;
  readonly predecessorIds: readonly string[];
}

/** The ids of all steps before one, however far. */
export const stepsBefore = (step: PathStep, steps: readonly PathStep[]): Set<string> =>
  ancestorsOf({ idOf: (one) => one.id, beforeOf: (one) => one.predecessorIds }, step.predecessorIds, steps);

/**
 * The making steps whose work a step looks at: `nearest` are those that no other making step stands behind, side by side where the path has
 * branches; `all` also those further back in the same round.
 */
export function makersBefore<T extends PathStep>(step: PathStep, steps: readonly T[]): { nearest: T[]; all: T[] } {
  const earlier = stepsBefore(step, steps);
  const makers = steps.filter((one) => one.kind === 'make' && earlier.has(one.id));
  const latest = Math.max(...makers.map(({ round }) => round));
  const all = makers.filter(({ round }) => round === latest);
  const behind = new Set(all.flatMap((one) => [...stepsBefore(one, steps)]));
  return { nearest: all.filter(({ id }) => !behind.has(id)), all };
}

/** The steps that come after one of `from` and before `to`, those themselves not counted. */
export function stepsBetween<T extends PathStep>(from: readonly T[], to: PathStep, steps: readonly T[]): T[] {
  const earlier = stepsBefore(to, steps);
  const fromIds = new Set(from.map(({ id }) => id));
  return steps.filter((one) => earlier.has(one.id) && !fromIds.has(one.id) && [...stepsBefore(one, steps)].some((id) => fromIds.has(id)));
}
