/** What the graph of a piece's steps says, in whatever order they stand in the list. */
export interface PathStep {
  readonly id: string;
  readonly kind: 'make' | 'check' | 'sign_off';
  readonly round: number;
  readonly predecessorIds: readonly string[];
}

/** All steps before one, however far. */
function ancestorsOf<T extends PathStep>(step: PathStep, steps: readonly T[]): Set<string> {
  const byId = new Map(steps.map((one) => [one.id, one]));
  const found = new Set<string>();
  const open = [...step.predecessorIds];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (found.has(id)) continue;
    found.add(id);
    open.push(...(byId.get(id)?.predecessorIds ?? []));
  }
  return found;
}

/**
 * The making steps whose work a step looks at: `nearest` are those that no other making step stands behind, side by side where the path has
 * branches; `all` also those further back in the same round.
 */
export function makersBefore<T extends PathStep>(step: PathStep, steps: readonly T[]): { nearest: T[]; all: T[] } {
  const before = ancestorsOf(step, steps);
  const makers = steps.filter((one) => one.kind === 'make' && before.has(one.id));
  const latest = Math.max(...makers.map(({ round }) => round));
  const all = makers.filter(({ round }) => round === latest);
  const behind = new Set(all.flatMap((one) => [...ancestorsOf(one, steps)]));
  return { nearest: all.filter(({ id }) => !behind.has(id)), all };
}

/** The steps that come after one of `from` and before `to`, those themselves not counted. */
export function stepsBetween<T extends PathStep>(from: readonly T[], to: PathStep, steps: readonly T[]): T[] {
  const before = ancestorsOf(to, steps);
  const fromIds = new Set(from.map(({ id }) => id));
  return steps.filter((one) => before.has(one.id) && !fromIds.has(one.id) && [...ancestorsOf(one, steps)].some((id) => fromIds.has(id)));
}
