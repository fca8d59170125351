import { addDays, daysBetween, mondayOf, type Day } from '../time/index.js';

/** A pillar's place in the mix of a period. */
export interface MixRow<Id> {
  readonly id: Id;
  /** the share that it should have, whole percent */
  readonly share: number;
  /** pieces of the period that have it */
  readonly count: number;
  /** the share that it has, whole percent; those of all rows make 100, or 0 where there is no piece */
  readonly actual: number;
  /** how many more of the same number of pieces it should have; negative: so many too many */
  readonly owed: number;
}

/**
 * Shares whole units among parts in proportion to their counts: each gets its whole quota, those with the largest remainders one more until
 * none is left; of equal remainders the first.
 * @see the method of largest remainders (Hamilton)
 */
export function largestRemainders(counts: readonly number[], units: number): number[] {
  const total = counts.reduce((sum, count) => sum + count, 0);
  if (total === 0) return counts.map(() => 0);
  const quotas = counts.map((count) => (count * units) / total);
  const parts = quotas.map(Math.floor);
  const left = units - parts.reduce((sum, part) => sum + part, 0);
  const byRemainder = quotas
    .map((quota, index) => ({ index, rest: quota - Math.floor(quota) }))
    .sort((a, b) => b.rest - a.rest || a.index - b.index);
  for (const { index } of byRemainder.slice(0, left)) parts[index] = (parts[index] ?? 0) + 1;
  return parts;
}

/**
 * How many of `total` pieces each pillar should have by its share, in whole numbers. What the shares leave free is a part of its own.
 * @param shares whole percent, together at most 100
 * @see the method of largest remainders (Hamilton)
 */
export function wantedOf(shares: readonly number[], total: number): number[] {
  const free = 100 - shares.reduce((sum, share) => sum + share, 0);
  return largestRemainders([...shares, Math.max(0, free)], total).slice(0, shares.length);
}

/** What follows one another in a period, in the order of time. */
export interface MixEntry {
  readonly pillarId: string | null;
  readonly on: Day;
}

/** The longest stretch of one pillar: how many of it follow one another. 0 where nothing has a pillar. */
export function longestRun(entries: readonly MixEntry[]): { readonly pillarId: string | null; readonly length: number } {
  let best: { pillarId: string | null; length: number } = { pillarId: null, length: 0 };
  let here = best;
  for (const { pillarId } of entries) {
    here =
      pillarId === null
        ? { pillarId, length: 0 }
        : pillarId === here.pillarId
          ? { pillarId, length: here.length + 1 }
          : { pillarId, length: 1 };
    if (here.length > best.length) best = here;
  }
  return best;
}

/** Days without anything between two entries, at most: 0 where there is something every day, null where there are fewer than two. */
export function largestGapDays(entries: readonly MixEntry[]): number | null {
  const days = [...new Set(entries.map(({ on }) => on))].sort();
  if (days.length < 2) return null;
  return Math.max(...days.slice(1).map((on, index) => daysBetween(days[index] ?? on, on) - 1));
}

/** How the pieces of a period lie against the shares that pillars should have. What has no pillar counts as one of its own, with a share of 0. */
export function mixOf<Id>(pillars: readonly { readonly id: Id; readonly share: number; readonly count: number }[]): MixRow<Id>[] {
  const counts = pillars.map((pillar) => pillar.count);
  const actual = largestRemainders(counts, 100);
  const total = counts.reduce((sum, count) => sum + count, 0);
  const wanted = wantedOf(
    pillars.map((pillar) => pillar.share),
    total,
  );
  return pillars.map((pillar, index) => ({
    ...pillar,
    actual: actual[index] ?? 0,
    owed: pillar.share === 0 ? 0 : (wanted[index] ?? 0) - pillar.count,
  }));
}

/** A week with how much it holds. */
export interface WeekCount {
  readonly mondayOn: Day;
  readonly count: number;
}

/**
 * How much the weeks that touch a period hold, from Monday to Sunday, the days of its neighbours that fill them included. A week that met its number holds
 * at least as much: weeks that met it ÷ weeks is how steady a channel is. Common practice.
 * @param days of each thing its day; in any order
 */
export function countByWeeks(days: readonly Day[], from: Day, to: Day): WeekCount[] {
  const weeks: WeekCount[] = [];
  for (let mondayOn = mondayOf(from); mondayOn <= to; mondayOn = addDays(mondayOn, 7)) {
    const sunday = addDays(mondayOn, 6);
    weeks.push({ mondayOn, count: days.filter((on) => on >= mondayOn && on <= sunday).length });
  }
  return weeks;
}

/** What a piece asks of people: that they know something, react, come, or buy. */
export const PURPOSES = ['know', 'react', 'come', 'buy'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** How many pieces ask something of people, among those of which is said what they ask. To let somebody know asks nothing. */
export function askingOf(purposes: readonly (Purpose | null)[]): { readonly asking: number; readonly of: number } {
  const said = purposes.filter((purpose) => purpose !== null);
  return { asking: said.filter((purpose) => purpose !== 'know').length, of: said.length };
}
