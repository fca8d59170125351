import fc from 'fast-check';
import { largestRemainders, mixOf } from './index.js';

describe('sharing whole units', () => {
  it('is done by largest remainders', () => {
    // ten seats for six parties: the textbook example of Hamilton's method (value from memory)
    expect(largestRemainders([47_000, 16_000, 15_900, 12_000, 6_000, 3_100], 10)).toEqual([5, 2, 1, 1, 1, 0]);
    expect(largestRemainders([1, 1, 1], 100)).toEqual([34, 33, 33]);
    expect(largestRemainders([0, 0], 100)).toEqual([0, 0]);
  });

  it('gives all of them, and nobody more than one beside the exact quota', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(500), { minLength: 1, maxLength: 20 }), fc.integer({ min: 1, max: 200 }), (counts, units) => {
        const total = counts.reduce((sum, count) => sum + count, 0);
        const parts = largestRemainders(counts, units);
        expect(parts.reduce((sum, part) => sum + part, 0)).toBe(total === 0 ? 0 : units);
        if (total > 0)
          for (const [index, part] of parts.entries()) expect(Math.abs(part - ((counts[index] ?? 0) * units) / total)).toBeLessThan(1);
      }),
    );
  });
});

describe('the mix of a period', () => {
  it('says what each pillar has, should have, and is owed', () => {
    const rows = mixOf([
      { id: 'season', share: 40, count: 5 },
      { id: 'grow', share: 35, count: 1 },
      { id: 'glass', share: 25, count: 1 },
      { id: null, share: 0, count: 1 },
    ]);
    expect(rows.map(({ actual, owed }) => [actual, owed])).toEqual([
      [63, -2], // three of eight would be its share
      [13, 2],
      [12, 1],
      [12, 0],
    ]);
  });

  it('is owed nothing where nothing is placed', () => {
    expect(mixOf([{ id: 'a', share: 100, count: 0 }])).toEqual([{ id: 'a', share: 100, count: 0, actual: 0, owed: 0 }]);
  });
});
