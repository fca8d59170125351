import fc from 'fast-check';
import { addDays, getDay } from '../time/index.js';
import { askingOf, countByWeeks, largestGapDays, largestRemainders, longestRun, mixOf, wantedOf } from './index.js';

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

describe('what a period should hold', () => {
  it('is shared out in whole pieces: 18 at 40, 25, 20 and 15 percent are 7, 4, 4 and 3', () => {
    expect(wantedOf([40, 25, 20, 15], 18)).toEqual([7, 4, 4, 3]);
  });

  it('leaves what is free to anything', () => {
    expect(wantedOf([50, 25], 8)).toEqual([4, 2]);
    expect(wantedOf([], 8)).toEqual([]);
    expect(wantedOf([60, 40], 0)).toEqual([0, 0]);
  });
});

const entries = (...all: [pillarId: string | null, on: string][]) => all.map(([pillarId, on]) => ({ pillarId, on: getDay(on) }));

describe('how a period flows', () => {
  it('has runs of one pillar: what has none ends one', () => {
    const march = entries(
      ['x', '2027-03-01'],
      ['y', '2027-03-02'],
      ['y', '2027-03-04'],
      [null, '2027-03-05'],
      ['y', '2027-03-06'],
      ['x', '2027-03-12'],
    );
    expect(longestRun(march)).toEqual({ pillarId: 'y', length: 2 });
    expect(longestRun(entries([null, '2027-03-01'], [null, '2027-03-02']))).toEqual({ pillarId: null, length: 0 });
    expect(longestRun([...march, ...march])).toEqual({ pillarId: 'y', length: 2 });
  });

  it('has gaps between its days', () => {
    expect(largestGapDays(entries(['x', '2027-03-01'], ['x', '2027-03-02'], ['x', '2027-03-06'], ['x', '2027-03-06']))).toBe(3);
    expect(largestGapDays(entries(['x', '2027-03-01'], ['x', '2027-03-02']))).toBe(0);
    expect(largestGapDays(entries(['x', '2027-03-01'], ['x', '2027-03-01']))).toBeNull();
  });
});

describe('the weeks of a period', () => {
  it('are whole ones: March 2027 touches five, and the last holds days of April', () => {
    const days = ['2027-03-01', '2027-03-07', '2027-03-08', '2027-03-31', '2027-04-01', '2027-04-04', '2027-04-05'].map(getDay);
    expect(countByWeeks(days, getDay('2027-03-01'), getDay('2027-03-31')).map(({ mondayOn, count }) => [mondayOn, count])).toEqual([
      ['2027-03-01', 2],
      ['2027-03-08', 1],
      ['2027-03-15', 0],
      ['2027-03-22', 0],
      ['2027-03-29', 3],
    ]);
  });

  it('hold every day once where the period is whole weeks', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 27 })), (offsets) => {
        const monday = getDay('2027-02-01');
        const days = offsets.map((by) => addDays(monday, by));
        const weeks = countByWeeks(days, monday, addDays(monday, 27));
        expect(weeks).toHaveLength(4);
        expect(weeks.reduce((sum, { count }) => sum + count, 0)).toBe(days.length);
      }),
    );
  });
});

describe('what pieces ask of people', () => {
  it('counts those that ask something among those of which it is said', () => {
    expect(askingOf(['know', 'react', null, 'buy', 'know', 'come'])).toEqual({ asking: 3, of: 5 });
    expect(askingOf([null])).toEqual({ asking: 0, of: 0 });
  });
});
