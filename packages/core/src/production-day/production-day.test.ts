import fc from 'fast-check';
import { addDays, daysBetween, getDay, weekdayOf, type Day } from '../time/index.js';
import { makeUpDay, shortageOf } from './index.js';

const today = getDay('2027-03-01');
const day = (on: string, needBy: (string | null)[] = [], capacity = 3) => ({ on: getDay(on), capacity, needBy: needBy as (Day | null)[] });
const works = (one: Day) => weekdayOf(one) < 6;

describe('a production day', () => {
  it('is short of all its pieces where it is blocked, else of those beyond its capacity', () => {
    const four = day('2027-03-10', [null, null, null, null]);
    expect([shortageOf(four, true), shortageOf(four, false), shortageOf({ ...four, capacity: 6 }, false)]).toEqual([4, 1, 0]);
  });

  it('is made up for on the nearest free day before the first piece needs it, the earlier of two', () => {
    expect(makeUpDay(day('2027-03-10'), today, works)).toBe('2027-03-09');
    expect(makeUpDay(day('2027-03-10'), today, (one) => works(one) && one > '2027-03-10')).toBe('2027-03-11');
    expect(makeUpDay(day('2027-03-08'), today, works)).toBe('2027-03-09'); // before it is a weekend
    expect(makeUpDay(day('2027-03-10', ['2027-03-30', '2027-03-08']), today, works)).toBe('2027-03-08');
  });

  it('is not made up for today, in the past, or too late', () => {
    expect(makeUpDay(day('2027-03-02', ['2027-03-02']), today, works)).toBeNull();
    expect(makeUpDay(day('2027-03-02', ['2027-03-03']), today, works)).toBe('2027-03-03');
    expect(makeUpDay(day('2027-03-10'), today, () => false)).toBeNull();
  });

  it('is made up for on a day that is free and in time, and no nearer one is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.uniqueArray(fc.integer({ min: -5, max: 100 })),
        fc.option(fc.integer({ min: 0, max: 60 })),
        (after, free, need) => {
          const on = addDays(today, after);
          const isFree = (one: Day) => free.includes(daysBetween(today, one));
          const last = need === null ? null : addDays(today, need);
          const found = makeUpDay({ on, capacity: 1, needBy: [last] }, today, isFree);
          const fits = (one: Day) => one > today && one !== on && isFree(one) && (last === null || one <= last);
          const away = (one: Day) => Math.abs(daysBetween(on, one));
          if (found !== null) expect(fits(found)).toBe(true);
          for (let number = 1; number <= 60; number += 1)
            for (const one of [addDays(on, number), addDays(on, -number)])
              if (fits(one)) expect(found !== null && away(found) <= away(one)).toBe(true);
        },
      ),
    );
  });
});
