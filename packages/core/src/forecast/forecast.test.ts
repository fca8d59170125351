import fc from 'fast-check';
import { addDays, getDay, toDayNumber, type Day } from '../time/index.js';
import { MONDAY_TO_FRIDAY, moveWorkingNumber, seekWorkingNumber, toCalendar, type WorkCalendar } from '../workdays/index.js';
import {
  brierScore,
  chanceOfDays,
  daysFor,
  durationOf,
  givenWaited,
  kaplanMeier,
  type Case,
  type Duration,
  type ForecastStep,
} from './index.js';

const over = (...days: number[]): Case[] => days.map((each) => ({ days: each, isOver: true }));
const open = (...days: number[]): Case[] => days.map((each) => ({ days: each, isOver: false }));
const anyCases = fc.array(fc.record({ days: fc.integer({ min: 1, max: 12 }), isOver: fc.boolean() }), { maxLength: 30 });
const survival = ({ chances, beyond }: Duration) =>
  chances.map((_, index) => chances.slice(index + 1).reduce((sum, chance) => sum + chance, beyond));

const seeded = (seed: number) => () => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
  return seed / 2 ** 32;
};

describe('how long something takes', () => {
  // Freireich et al. 1963 (Blood 21: 699), remission under 6-MP in weeks, 21 patients; the estimate as textbooks print it. From memory.
  it('is the published Kaplan–Meier table', () => {
    const cases = [...over(6, 6, 6, 7, 10, 13, 16, 22, 23), ...open(6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35)];
    expect(kaplanMeier(cases).map(({ days, atRisk, ended, survival: left }) => [days, atRisk, ended, left.toFixed(3)])).toEqual([
      [6, 21, 3, '0.857'],
      [7, 17, 1, '0.807'],
      [10, 15, 1, '0.753'],
      [13, 12, 1, '0.690'],
      [16, 11, 1, '0.627'],
      [22, 7, 1, '0.538'],
      [23, 6, 1, '0.448'],
    ]);
  });

  it('is plain counting where all of it is over', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 30 }), (days) => {
        for (const row of kaplanMeier(over(...days)))
          expect(row.survival).toBeCloseTo(days.filter((each) => each > row.days).length / days.length, 10);
      }),
    );
  });

  it('is that of all without cases of its own, its own with very many, and between both with few', () => {
    const all = [...over(1, 2, 2, 3, 5, 8), ...open(4, 6)];
    const ofAll = kaplanMeier(all);
    const drawn = survival(durationOf([], all));
    for (const { days, survival: left } of ofAll) expect(drawn[days - 1]).toBeCloseTo(left, 10);
    const own = Array.from({ length: 5000 }, () => over(1, 1, 3)).flat();
    const mine = survival(durationOf(own, [...all, ...own]));
    expect(mine[0]).toBeCloseTo(1 / 3, 2);
    const few = survival(durationOf(over(1, 1, 1), [...all, ...over(1, 1, 1)]))[0] ?? 0;
    const whole = kaplanMeier([...all, ...over(1, 1, 1)])[0]?.survival ?? 0;
    expect(few).toBeLessThan(whole);
    expect(few).toBeGreaterThan(0);
    // worked by hand: 3 of its own end on the first day of 3, of all 4 of 11: (3 + 5 × 4/11) ÷ (3 + 5)
    expect(1 - few).toBeCloseTo((3 + (5 * 4) / 11) / 8, 10);
  });

  it('adds up to one, whatever there was, and also once some of it went by', () => {
    fc.assert(
      fc.property(anyCases, anyCases, fc.nat(15), (own, others, waited) => {
        for (const duration of [durationOf(own, [...own, ...others]), givenWaited(durationOf(own, [...own, ...others]), waited)]) {
          expect(duration.chances.every((chance) => chance >= 0 && chance <= 1 + 1e-9)).toBe(true);
          expect(duration.chances.reduce((sum, chance) => sum + chance, duration.beyond)).toBeCloseTo(1, 9);
        }
        const given = givenWaited(durationOf(own, [...own, ...others]), waited);
        expect(given.chances.slice(0, waited).every((chance) => chance === 0)).toBe(true);
      }),
    );
  });

  it('is the same in steps of waiting as at once', () => {
    fc.assert(
      fc.property(anyCases, fc.nat(5), fc.nat(5), (all, some, more) => {
        const duration = durationOf([], all);
        const once = givenWaited(duration, some + more);
        const twice = givenWaited(givenWaited(duration, some), some + more);
        for (const [index, chance] of once.chances.entries()) expect(twice.chances[index]).toBeCloseTo(chance, 9);
      }),
    );
  });

  it('says within how many days it ends, and nothing where that was never seen', () => {
    const duration = durationOf([], [...over(1, 2, 3, 4), ...open(4)]);
    expect([daysFor(duration, 0.5), daysFor(duration, 0.8), daysFor(duration, 0.9)]).toEqual([3, 4, null]);
    expect(givenWaited(durationOf([], over(2)), 2)).toMatchObject({ beyond: 1, chances: [0, 0] });
  });
});

const TODAY = getDay('2027-03-09'); // a Tuesday
const MONFRI = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY });
const step = (id: string, duration: Duration, more: Partial<ForecastStep> = {}): ForecastStep => ({
  id,
  predecessorIds: [],
  calendar: MONFRI,
  duration,
  startedOn: null,
  fromOn: TODAY,
  isSameDay: false,
  byOn: null,
  ...more,
});
const evenly = (...days: number[]) => durationOf([], over(...days));

describe('the chance of making a day', () => {
  it('is worked by hand: two steps in turn, over a weekend', () => {
    // write takes 1 or 3 days, each as likely: it ends on Tue 9 or Thu 11; check takes one: Wed 10 or Fri 12
    const chain = (byOn: Day) => [step('write', evenly(1, 3)), step('check', evenly(1), { predecessorIds: ['write'], byOn })];
    expect(['2027-03-09', '2027-03-10', '2027-03-11', '2027-03-12'].map((on) => chanceOfDays(chain(getDay(on)), TODAY))).toEqual([
      0, 0.5, 0.5, 1,
    ]);
    // four days: write ends on Friday 12, check not before Monday 15
    const late = [step('write', evenly(4)), step('check', evenly(1), { predecessorIds: ['write'], byOn: getDay('2027-03-14') })];
    expect(chanceOfDays(late, TODAY)).toBe(0);
    expect(
      chanceOfDays([late[0] as ForecastStep, step('check', evenly(1), { predecessorIds: ['write'], byOn: getDay('2027-03-15') })], TODAY),
    ).toBe(1);
  });

  it('of steps side by side is that of the later one', () => {
    const both = [
      step('a', evenly(1, 2)),
      step('b', evenly(1, 2)),
      step('c', evenly(1), { predecessorIds: ['a', 'b'], byOn: getDay('2027-03-10') }),
    ];
    expect(chanceOfDays(both, TODAY)).toBeCloseTo(0.25, 10);
    const atOnce = both.map((each) => (each.id === 'c' ? { ...each, isSameDay: true, byOn: TODAY } : each));
    expect(chanceOfDays(atOnce, TODAY)).toBeCloseTo(0.25, 10);
  });

  it('of what is under way goes by the days that went by', () => {
    // begun on Friday 5, takes 1, 3 or 5: Friday and Monday are over without its end
    const begun = step('a', evenly(1, 3, 5), { startedOn: getDay('2027-03-05'), byOn: TODAY });
    expect(chanceOfDays([begun], TODAY)).toBeCloseTo(0.5, 10);
    expect(chanceOfDays([{ ...begun, byOn: getDay('2027-03-11') }], TODAY)).toBeCloseTo(1, 10);
    expect(chanceOfDays([{ ...begun, startedOn: getDay('2027-02-01') }], TODAY)).toBe(0); // longer than was ever seen
  });

  it('is none for a day that is over, and for who never works', () => {
    expect(chanceOfDays([step('a', evenly(1), { byOn: addDays(TODAY, -1) })], TODAY)).toBe(0);
    const never = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });
    expect(chanceOfDays([step('a', evenly(1), { calendar: never, byOn: addDays(TODAY, 300) })], TODAY)).toBe(0);
    expect(chanceOfDays([], TODAY)).toBe(1);
  });

  it('throws on a ring', () => {
    expect(() =>
      chanceOfDays([step('a', evenly(1), { predecessorIds: ['b'] }), step('b', evenly(1), { predecessorIds: ['a'] })], TODAY),
    ).toThrow('ring');
  });

  const durations = fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 4 }).map((days) => evenly(...days));
  // the doer of each step works on other days: all, Monday to Friday, not on Wednesdays
  const calendars: readonly WorkCalendar[] = [
    toCalendar({ weeklyMinutes: [480, 480, 480, 480, 480, 480, 480] }),
    MONFRI,
    toCalendar({ weeklyMinutes: [480, 480, 0, 480, 480, 0, 0] }),
  ];
  const anyTree = fc
    .array(
      fc.record({
        duration: durations,
        calendar: fc.constantFrom(...calendars),
        wait: fc.nat(3),
        isSameDay: fc.boolean(),
        parent: fc.nat(),
      }),
      {
        minLength: 1,
        maxLength: 5,
      },
    )
    // each step but the last stands before one later step: where they join nothing is shared
    .map((list) =>
      list.map((each, index) =>
        step(String(index), each.duration, {
          calendar: each.calendar,
          isSameDay: each.isSameDay,
          fromOn: addDays(TODAY, each.wait),
          predecessorIds: list.flatMap((other, before) =>
            before < index && before + 1 + (other.parent % (list.length - before - 1 || 1)) === index ? [String(before)] : [],
          ),
        }),
      ),
    );

  /** One drawing by chance of the day on which each step ends, as a day number. */
  function drawn(steps: readonly ForecastStep[], random: () => number): Map<string, number> {
    const ends = new Map<string, number>();
    for (const { id, predecessorIds, calendar, duration, fromOn, isSameDay } of steps) {
      let luck = random();
      const takes = duration.chances.findIndex((chance) => (luck -= chance) < 0) + 1;
      const joined = Math.max(-1, ...predecessorIds.map((before) => ends.get(before) ?? 0));
      const start = seekWorkingNumber(calendar, Math.max(toDayNumber(fromOn), joined + (isSameDay ? 0 : 1)), 1) ?? 0;
      ends.set(id, moveWorkingNumber(calendar, start, Math.max(1, takes) - 1) ?? 0);
    }
    return ends;
  }

  // the reference: seeded Monte Carlo. 4,000 drawings are within 4 standard errors, 0.032, in all but one case of 16,000
  it('is what drawing by chance comes to, on trees of steps', () => {
    fc.assert(
      fc.property(anyTree, fc.integer({ min: 2, max: 25 }), fc.nat(), (tree, ahead, seed) => {
        const steps = tree.map((each, index) => (index === tree.length - 1 ? { ...each, byOn: addDays(TODAY, ahead) } : each));
        const random = seeded(seed);
        const last = steps.at(-1)?.id ?? '';
        let made = 0;
        for (let count = 0; count < 4000; count++) if ((drawn(steps, random).get(last) ?? 0) <= toDayNumber(TODAY) + ahead) made++;
        expect(Math.abs(chanceOfDays(steps, TODAY) - made / 4000)).toBeLessThan(0.032);
      }),
      { numRuns: 40, seed: 20261128 },
    );
  });

  it('is no more than drawing by chance comes to, where steps side by side have one before them', () => {
    const first = evenly(1, 5);
    const diamond = [
      step('a', first),
      step('b', evenly(1, 2), { predecessorIds: ['a'] }),
      step('c', evenly(1, 2), { predecessorIds: ['a'] }),
      step('d', evenly(1), { predecessorIds: ['b', 'c'], byOn: addDays(TODAY, 3) }),
    ];
    const random = seeded(7);
    let made = 0;
    for (let count = 0; count < 4000; count++) if ((drawn(diamond, random).get('d') ?? 0) <= toDayNumber(TODAY) + 3) made++;
    expect(chanceOfDays(diamond, TODAY)).toBeLessThanOrEqual(made / 4000 + 0.01);
    expect(chanceOfDays(diamond, TODAY)).toBeGreaterThan(0);
  });

  it('grows with the day, and never where a step takes longer', () => {
    fc.assert(
      fc.property(anyTree, fc.nat(20), (tree, ahead) => {
        const by = (days: number, more: readonly number[] = []) =>
          chanceOfDays(
            tree.map((each, index) => ({
              ...each,
              ...(index === 0 && more.length > 0 ? { duration: evenly(...more) } : {}),
              ...(index === tree.length - 1 ? { byOn: addDays(TODAY, days) } : {}),
            })),
            TODAY,
          );
        expect(by(ahead + 1)).toBeGreaterThanOrEqual(by(ahead) - 1e-12);
        expect(by(ahead, [7])).toBeLessThanOrEqual(by(ahead, [2]) + 1e-12);
      }),
    );
  });
});

describe('how good what was said is', () => {
  it('is Brier’s score', () => {
    // worked by hand: (0.1² + 0.3² + 0.5²) ÷ 3
    expect(
      brierScore([
        { chance: 0.9, came: true },
        { chance: 0.3, came: false },
        { chance: 0.5, came: true },
      ]),
    ).toBeCloseTo(0.35 / 3, 10);
    expect(brierScore([])).toBe(0);
  });

  it('is better than saying how often it came in all, on cases that were not looked at', () => {
    // two clients that answer differently; learnt from 40 cases of each, tried on 400 others
    const random = seeded(99);
    const takes = (client: number) => 1 + Math.floor(random() ** (client === 0 ? 3 : 0.6) * 8);
    const known = [0, 1].map((client) => Array.from({ length: 40 }, () => ({ days: takes(client), isOver: true })));
    const all = known.flat();
    const byThree = (duration: Duration) => duration.chances.slice(0, 3).reduce((sum, chance) => sum + chance, 0);
    const tried = [0, 1].flatMap((client) => Array.from({ length: 200 }, () => ({ client, came: takes(client) <= 3 })));
    const ours = brierScore(tried.map(({ client, came }) => ({ chance: byThree(durationOf(known[client] ?? [], all)), came })));
    const base = brierScore(tried.map(({ came }) => ({ chance: byThree(durationOf([], all)), came })));
    expect(ours).toBeLessThan(base * 0.9);
  });
});
