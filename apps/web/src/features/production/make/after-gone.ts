interface Step {
  readonly stepId: string;
}

/**
 * Which step comes after one that went from a list: the first of those that stood behind it and are still there, else the last before it.
 * @param before the list in which it stood
 * @param now the list without it
 * @returns undefined where it never stood there, or nothing is left
 */
export function afterGone<T extends Step>(before: readonly Step[], now: readonly T[], goneId: string | null): T | undefined {
  const at = before.findIndex(({ stepId }) => stepId === goneId);
  if (at < 0) return undefined;
  const left = new Map(now.map((step) => [step.stepId, step]));
  const order = [...before.slice(at + 1), ...before.slice(0, at).reverse()];
  return order.flatMap(({ stepId }) => left.get(stepId) ?? [])[0];
}
