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

/** How the pieces of a period lie against the shares that pillars should have. What has no pillar counts as one of its own, with a share of 0. */
export function mixOf<Id>(pillars: readonly { readonly id: Id; readonly share: number; readonly count: number }[]): MixRow<Id>[] {
  const counts = pillars.map((pillar) => pillar.count);
  const actual = largestRemainders(counts, 100);
  const total = counts.reduce((sum, count) => sum + count, 0);
  return pillars.map((pillar, index) => ({
    ...pillar,
    actual: actual[index] ?? 0,
    owed: pillar.share === 0 ? 0 : Math.round((pillar.share * total) / 100) - pillar.count,
  }));
}
