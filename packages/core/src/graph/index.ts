/** How things name themselves and what stands before them: steps of a route by key, steps of a piece by id. */
export interface Graph<T> {
  readonly idOf: (thing: T) => string;
  readonly beforeOf: (thing: T) => readonly string[];
}

/** Whether all that stands before something is finished. */
export const isFree = (before: readonly string[], finished: ReadonlySet<string>): boolean => before.every((id) => finished.has(id));

/** Things by what stands before them. */
export function followersOf<T>({ beforeOf }: Graph<T>, things: readonly T[]): Map<string, T[]> {
  const followers = new Map<string, T[]>();
  for (const thing of things)
    for (const id of beforeOf(thing)) {
      const known = followers.get(id);
      if (known) known.push(thing);
      else followers.set(id, [thing]);
    }
  return followers;
}

/**
 * Orders things so that each stands after what stands before it, as given where either may be first. What is named before and is not among
 * the things is waited for by nobody.
 * @returns all in order; or where some wait for each other in a ring, one of those
 */
export function inOrder<T>(graph: Graph<T>, things: readonly T[]): { readonly order: T[] } | { readonly ring: T } {
  const { idOf, beforeOf } = graph;
  const byId = new Map(things.map((thing) => [idOf(thing), thing]));
  const waitsFor = new Map(things.map((thing) => [thing, beforeOf(thing).filter((id) => byId.has(id)).length]));
  const followers = followersOf(graph, things);
  const order = things.filter((thing) => waitsFor.get(thing) === 0);
  for (const thing of order)
    for (const next of followers.get(idOf(thing)) ?? []) {
      const left = (waitsFor.get(next) ?? 0) - 1;
      waitsFor.set(next, left);
      if (left === 0) order.push(next); // taken later by the loop that runs
    }
  const ring = inRing(graph, things, new Set(order), byId);
  return ring === undefined ? { order } : { ring };
}

/** Whoever goes from one waiting thing to the next that it waits for comes round to one again. */
function inRing<T>({ idOf, beforeOf }: Graph<T>, things: readonly T[], done: ReadonlySet<T>, byId: ReadonlyMap<string, T>): T | undefined {
  const seen = new Set<string>();
  let at = things.find((thing) => !done.has(thing));
  while (at && !seen.has(idOf(at))) {
    seen.add(idOf(at));
    at = beforeOf(at)
      .flatMap((id) => byId.get(id) ?? [])
      .find((before) => !done.has(before));
  }
  return at;
}

/** The ids of all that stands before something, however far. */
export function ancestorsOf<T>({ idOf, beforeOf }: Graph<T>, before: readonly string[], things: readonly T[]): Set<string> {
  const byId = new Map(things.map((thing) => [idOf(thing), thing]));
  const found = new Set<string>();
  const open = [...before];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (found.has(id)) continue;
    found.add(id);
    const thing = byId.get(id);
    if (thing) open.push(...beforeOf(thing));
  }
  return found;
}

/**
 * Removes things and joins their links: what waited for one waits for what it waited for.
 * @param linked the same thing with other things before it
 */
export function without<T>(
  { idOf, beforeOf }: Graph<T>,
  things: readonly T[],
  ids: readonly string[],
  linked: (thing: T, before: string[]) => T,
): T[] {
  return ids.reduce<T[]>(
    (left, id) => {
      const gone = left.find((thing) => idOf(thing) === id);
      if (gone === undefined) return left;
      return left
        .filter((thing) => thing !== gone)
        .map((thing) => {
          const before = beforeOf(thing);
          if (!before.includes(id)) return thing;
          return linked(thing, [...new Set([...before.filter((other) => other !== id), ...beforeOf(gone)])]);
        });
    },
    [...things],
  );
}
