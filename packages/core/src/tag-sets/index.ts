import { sameTag } from '../copycheck/index.js';
import type { Day } from '../time/index.js';
import { weekdayOf } from '../time/index.js';

/** Tags that are kept under a name, in their order, for a pillar, a weekday, both or neither. */
export interface TagSet {
  readonly tags: readonly string[];
  /** null: for any */
  readonly pillarId: string | null;
  /** ISO weekday, 1 is Monday; null: for any */
  readonly weekday: number | null;
}

/** A piece as tag sets are chosen for it. */
export interface TaggedPiece {
  readonly pillarId: string | null;
  /** the day on which it goes out; null: not known */
  readonly on: Day | null;
}

/** How well a set is meant for a piece: so many of what it names are true; null where it is meant for another pillar or weekday. */
export function fitOfTagSet(set: TagSet, piece: TaggedPiece): 0 | 1 | 2 | null {
  const weekday = piece.on === null ? null : weekdayOf(piece.on);
  if (set.pillarId !== null && set.pillarId !== piece.pillarId) return null;
  if (set.weekday !== null && set.weekday !== weekday) return null;
  return ((set.pillarId === null ? 0 : 1) + (set.weekday === null ? 0 : 1)) as 0 | 1 | 2;
}

/** Sets in the order in which they are offered for a piece: those meant for it first, the more is said the earlier; those meant for others last. */
export const inOrderOfFit = <Set extends TagSet>(sets: readonly Set[], piece: TaggedPiece): Set[] =>
  sets
    .map((set, index) => ({ set, index, fit: fitOfTagSet(set, piece) ?? -1 }))
    .sort((a, b) => b.fit - a.fit || a.index - b.index)
    .map(({ set }) => set);

/** Tags with those of a set behind them, each once whatever its case. */
export function withTagSet(tags: readonly string[], set: Pick<TagSet, 'tags'>): string[] {
  const there = new Set(tags.map(sameTag));
  const added: string[] = [];
  for (const tag of set.tags)
    if (!there.has(sameTag(tag))) {
      there.add(sameTag(tag));
      added.push(tag);
    }
  return [...tags, ...added];
}
