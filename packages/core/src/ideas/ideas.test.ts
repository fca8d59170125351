import fc from 'fast-check';
import { getDay } from '../time/index.js';
import { freshnessOf, supplyOf, worthOf } from './index.js';

describe('what an idea is worth', () => {
  const even = { merit: 1, ease: 1, chance: 1 };

  it('is the mean of its marks by their weights, the middle one where nobody gave any', () => {
    expect(worthOf({ merit: 5, ease: 5, chance: 5 }, even)).toBe(1);
    expect(worthOf({ merit: 1, ease: 1, chance: 1 }, even)).toBe(0);
    expect(worthOf({ merit: null, ease: null, chance: null }, even)).toBe(0.5);
    expect(worthOf({ merit: 5, ease: 1, chance: null }, { merit: 3, ease: 1, chance: 0 })).toBe(0.75);
    expect(worthOf({ merit: 5, ease: 1, chance: 1 }, { merit: 0, ease: 0, chance: 0 })).toBe(0.5);
  });

  it('lies between 0 and 1, and never falls when a mark rises', () => {
    const mark = fc.integer({ min: 1, max: 4 });
    const weight = fc.integer({ min: 0, max: 9 });
    fc.assert(
      fc.property(
        fc.record({ merit: mark, ease: mark, chance: mark }),
        fc.record({ merit: weight, ease: weight, chance: weight }),
        (marks, weights) => {
          const worth = worthOf(marks, weights);
          expect(worth).toBeGreaterThanOrEqual(0);
          expect(worth).toBeLessThanOrEqual(1);
          expect(worthOf({ ...marks, merit: marks.merit + 1 }, weights)).toBeGreaterThanOrEqual(worth);
        },
      ),
    );
  });
});

it('what follows a trend fades in its last week, and is stale after its last day', () => {
  const fresh = (until: string | null) => freshnessOf(until === null ? null : getDay(until), getDay('2027-03-08'));
  expect([null, '2027-03-15', '2027-03-14', '2027-03-08', '2027-03-07'].map(fresh)).toEqual([
    'lasting',
    'fresh',
    'fading',
    'fading',
    'stale',
  ]);
});

describe('weeks of supply', () => {
  const pillars = [
    { id: 'craft', share: 50 },
    { id: 'people', share: 25 },
  ];
  const ideas = (craft: number, people: number, free: number) => [
    ...Array.from({ length: craft }, () => ({ pillarId: 'craft' })),
    ...Array.from({ length: people }, () => ({ pillarId: 'people' })),
    ...Array.from({ length: free }, () => ({ pillarId: null })),
  ];

  it('are the ideas by what the rhythm takes a week: slots of the pillar, and its share of the others', () => {
    const slots = [...Array.from({ length: 8 }, () => ({ pillarId: 'craft' })), ...Array.from({ length: 16 }, () => ({ pillarId: null }))];
    expect(supplyOf(pillars, ideas(8, 3, 1), slots, 8)).toEqual([
      { pillarId: 'craft', ideas: 8, perWeek: 2, weeks: 4 },
      { pillarId: 'people', ideas: 3, perWeek: 0.5, weeks: 6 },
      { pillarId: null, ideas: 1, perWeek: 0.5, weeks: 2 },
    ]);
  });

  it('are none to tell where the rhythm takes none', () => {
    expect(supplyOf(pillars, ideas(2, 0, 0), [], 8).map(({ weeks }) => weeks)).toEqual([null, null, null]);
    expect(supplyOf([{ id: 'craft', share: 100 }], [], [{ pillarId: null }], 1).map(({ weeks }) => weeks)).toEqual([0, null]);
  });
});
