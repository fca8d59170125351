import fc from 'fast-check';
import { addDays, daysBetween, getDay, type Day } from '../time/index.js';
import { againFrom, mayGoAgain, type EvergreenRule } from './index.js';

const day = getDay;
const rule = (more: Partial<EvergreenRule> = {}): EvergreenRule => ({ restDays: 90, timesMost: null, untilOn: null, ...more });

describe('when what lasts may go out again', () => {
  it('is after its rest, counted from the latest time, whether that was or is still to come', () => {
    // 31 − 15 days of March, 30 of April, 31 of May, 13 of June make 90
    expect(againFrom([day('2027-03-15')], rule())).toEqual({ fromOn: '2027-06-13', timesLeft: null });
    expect(againFrom([day('2027-06-01'), day('2027-03-15')], rule())).toEqual({ fromOn: '2027-08-30', timesLeft: null });
    expect(mayGoAgain(day('2027-06-12'), [day('2027-03-15')], rule())).toBe(false);
    expect(mayGoAgain(day('2027-06-13'), [day('2027-03-15')], rule())).toBe(true);
  });

  it('is never where it was never out, was out often enough, or does not hold so long', () => {
    expect(againFrom([], rule())).toBeNull();
    expect(againFrom([day('2027-03-15')], rule({ timesMost: 1 }))).toBeNull();
    expect(againFrom([day('2027-03-15')], rule({ timesMost: 3 }))).toEqual({ fromOn: '2027-06-13', timesLeft: 2 });
    expect(againFrom([day('2027-03-15')], rule({ untilOn: day('2027-06-12') }))).toBeNull();
    expect(againFrom([day('2027-03-15')], rule({ untilOn: day('2027-06-13') }))).toEqual({ fromOn: '2027-06-13', timesLeft: null });
    expect(mayGoAgain(day('2027-06-14'), [day('2027-03-15')], rule({ untilOn: day('2027-06-13') }))).toBe(false);
  });

  it('keeps the rest and the number, however long one goes on by it', () => {
    const cases = fc.record({
      restDays: fc.integer({ min: 1, max: 400 }),
      timesMost: fc.option(fc.integer({ min: 1, max: 8 })),
      wait: fc.nat(30),
    });
    fc.assert(
      fc.property(cases, ({ wait, ...told }) => {
        const days: Day[] = [day('2027-01-01')];
        for (let turn = 0; turn < 12; turn++) {
          const again = againFrom(days, rule(told));
          if (!again) break;
          days.push(addDays(again.fromOn, wait));
        }
        expect(days.length).toBe(told.timesMost ?? 13);
        for (const [index, on] of days.entries())
          if (index > 0) expect(daysBetween(days[index - 1] ?? on, on)).toBeGreaterThanOrEqual(told.restDays);
      }),
    );
  });
});
