import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { predictWorkload } from '../workload/index.js';
import { overloads, type DueWork } from './index.js';

/** A Monday. */
const MONDAY = getDay('2027-03-01');
const day = (number: number): Day => addDays(MONDAY, number);
const HOUR = 60;
const week = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY });
const work = (id: string, from: number, due: number, hours: number): DueWork => ({
  id,
  releasedOn: day(from),
  dueOn: day(due),
  minutes: hours * HOUR,
});
const told = (all: readonly DueWork[], taken: ReadonlyMap<Day, number> = new Map()) =>
  overloads(all, { calendar: week, taken, todayOn: MONDAY }).map(
    ({ fromOn, dueOn, overMinutes, ids }) => `${fromOn} to ${dueOn}: ${overMinutes / HOUR} h, ${[...ids].sort().join(' ')}`,
  );

describe('more work than hours', () => {
  it('is none where all fits, to the minute', () => {
    expect(told([work('a', 0, 1, 16), work('b', 2, 2, 8)])).toEqual([]);
    expect(told([])).toEqual([]);
  });

  it('is told for the days on which it cannot but fall, worked by hand', () => {
    // two days of eight hours until Tuesday, and 17 hours due; on Wednesday five of what is due that day find room, and one does not
    expect(told([work('a', 0, 1, 12), work('b', 0, 1, 5), work('c', 0, 2, 8)])).toEqual([
      '2027-03-01 to 2027-03-02: 1 h, a b',
      '2027-03-01 to 2027-03-03: 1 h, a b c',
    ]);
    // Monday is free, but what is due on Tuesday comes no sooner than that day
    expect(told([work('a', 1, 1, 10)])).toEqual(['2027-03-02 to 2027-03-02: 2 h, a']);
  });

  it('counts days off and duties as no hours, and what is past due from today', () => {
    expect(told([work('a', 4, 6, 9)])).toEqual(['2027-03-05 to 2027-03-07: 1 h, a']); // due on a Sunday
    expect(told([work('a', 0, 0, 7)], new Map([[MONDAY, 2 * HOUR]]))).toEqual(['2027-03-01 to 2027-03-01: 1 h, a']);
    expect(told([work('a', -20, -3, 9)])).toEqual(['2027-03-01 to 2027-03-01: 1 h, a']);
    // on a Saturday, what is past due is due on Monday
    const saturday = { calendar: week, taken: new Map<Day, number>(), todayOn: day(-2) };
    expect(overloads([work('a', -20, -3, 9)], saturday)).toEqual([{ fromOn: day(-2), dueOn: MONDAY, overMinutes: HOUR, ids: ['a'] }]);
    expect(overloads([work('a', -20, -3, 8)], saturday)).toEqual([]);
  });

  const anyWork = fc
    .array(
      fc.record({ from: fc.integer({ min: 0, max: 8 }), length: fc.integer({ min: 0, max: 6 }), hours: fc.integer({ min: 1, max: 14 }) }),
      { maxLength: 6 },
    )
    .map((all) => all.map(({ from, length, hours }, index) => work(`w${index}`, from, from + length, hours)));

  it('is there exactly where the prediction of one person’s work ends something late (Horn 1974)', () => {
    const seen = { over: 0, fits: 0 };
    fc.assert(
      fc.property(anyWork, (all) => {
        const doer = { calendar: week, zone: 'Europe/London', todayOn: MONDAY, todayCounts: true };
        const never = toCalendar({ weeklyMinutes: [1, 1, 1, 1, 1, 1, 1] });
        // each is released by a step that ends on the day before
        const gates = all.filter(({ releasedOn }) => releasedOn > MONDAY);
        const steps = [
          ...gates.map(({ id, releasedOn }) => ({
            id: `gate ${id}`,
            doer: 'gate',
            spanDays: Math.max(1, (Date.parse(releasedOn) - Date.parse(MONDAY)) / 86_400_000),
            effortMinutes: 0,
            latestFinishOn: null,
            predecessorIds: [],
          })),
          ...all.map(({ id, releasedOn, dueOn, minutes }) => ({
            id,
            doer: 'one',
            spanDays: 1,
            effortMinutes: minutes,
            latestFinishOn: dueOn,
            predecessorIds: releasedOn > MONDAY ? [`gate ${id}`] : [],
          })),
        ];
        const { steps: predicted } = predictWorkload({ steps, doers: { one: doer, gate: { ...doer, calendar: never, unlimited: true } } });
        const isLate = all.some(({ id, dueOn }) => (predicted.find((step) => step.id === id)?.finishOn ?? '') > dueOn);
        const found = told(all);
        if (found.length > 0) seen.over++;
        else seen.fits++;
        expect([found, isLate]).toEqual([found, found.length > 0]);
      }),
      { numRuns: 1000 },
    );
    expect(Math.min(seen.over, seen.fits)).toBeGreaterThan(50);
  });

  it('never says less where there is more to do, nor more where there are more hours', () => {
    const most = (all: readonly DueWork[], taken = new Map<Day, number>()) =>
      Math.max(0, ...overloads(all, { calendar: week, taken, todayOn: MONDAY }).map(({ overMinutes }) => overMinutes));
    fc.assert(
      fc.property(anyWork, fc.integer({ min: 0, max: 8 }), (all, at) => {
        expect(most(all)).toBeGreaterThanOrEqual(most(all.slice(1)));
        expect(most(all, new Map([[day(at), 4 * HOUR]]))).toBeGreaterThanOrEqual(most(all));
      }),
    );
  });
});
