import { isByClient, type RouteStep } from '../route/index.js';

/** What a period asks to be made. */
export interface Batch {
  /** how many of each format, those that are most first; of as many in the order in which they come */
  readonly formats: readonly { readonly formatId: string; readonly count: number }[];
  /** how many could be of any format: neither they nor their hours are known */
  readonly ofAny: number;
  /** hands-on minutes per skill, those that are most first; what the client does is not counted */
  readonly skills: readonly { readonly skill: string; readonly minutes: number }[];
  readonly minutes: number;
}

/**
 * Counts what is to be made by format, and the hands-on work of it by skill. Batching work by kind is common practice.
 * @param wanted the format of each piece that is to be made; null: any
 * @param stepsOf the steps by which a format is made; empty where no route makes it
 */
export function batchOf(wanted: readonly (string | null)[], stepsOf: (formatId: string) => readonly RouteStep[]): Batch {
  const counts = new Map<string, number>();
  const minutes = new Map<string, number>();
  for (const formatId of wanted) {
    if (formatId === null) continue;
    counts.set(formatId, (counts.get(formatId) ?? 0) + 1);
    for (const { kind, skill, effortMinutes } of stepsOf(formatId))
      if (!isByClient(kind) && effortMinutes > 0) minutes.set(skill, (minutes.get(skill) ?? 0) + effortMinutes);
  }
  const most = <Key>(all: ReadonlyMap<Key, number>) => [...all].sort(([, a], [, b]) => b - a);
  return {
    formats: most(counts).map(([formatId, count]) => ({ formatId, count })),
    ofAny: wanted.filter((formatId) => formatId === null).length,
    skills: most(minutes).map(([skill, all]) => ({ skill, minutes: all })),
    minutes: [...minutes.values()].reduce((sum, all) => sum + all, 0),
  };
}
