import fc from 'fast-check';
import type { PlanDoer } from '../backplan/index.js';
import { getValue } from '../result/index.js';
import { addDays, getDay, getTimeOfDay, toDayNumber } from '../time/index.js';
import { MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { predictWorkload, type WorkloadStep } from '../workload/index.js';
import { fitSteps, freeMinutes, TakenHours, type FitStep } from './index.js';

const MONDAY = getDay('2027-03-01');
const doer = (weeklyMinutes: readonly number[], more: Partial<PlanDoer> = {}): PlanDoer => ({
  calendar: toCalendar({ weeklyMinutes }),
  zone: 'Europe/London',
  todayOn: MONDAY,
  todayCounts: true,
  ...more,
});
const step = (id: string, candidates: readonly string[], effortMinutes: number, more: Partial<FitStep> = {}): FitStep => ({
  id,
  candidates,
  spanDays: 1,
  effortMinutes,
  predecessorIds: [],
  ...more,
});
const fit = (steps: readonly FitStep[], doers: Record<string, PlanDoer>, taken = new TakenHours()) =>
  fitSteps({ steps, doers, taken, publishZone: 'Europe/London', todayOn: MONDAY, slots: [{ at: getTimeOfDay('09:00'), leadDays: 0 }] });

describe('fitting new work in', () => {
  const people = { a: doer(MONDAY_TO_FRIDAY), b: doer(MONDAY_TO_FRIDAY) };

  it('goes to whoever ends it first, after the hours that are taken', () => {
    const taken = new TakenHours([
      { doer: 'a', on: MONDAY, minutes: 480 },
      { doer: 'a', on: addDays(MONDAY, 1), minutes: 240 },
    ]);
    expect(getValue(fit([step('s', ['a', 'b'], 480)], people, taken)).steps).toEqual([
      { id: 's', doer: 'b', startOn: MONDAY, finishOn: MONDAY },
    ]);
    // 240 minutes are left on Tuesday, so half of it is Wednesday's
    expect(getValue(fit([step('s', ['a'], 480)], people, taken))).toEqual({
      steps: [{ id: 's', doer: 'a', startOn: '2027-03-02', finishOn: '2027-03-03' }],
      spent: [
        { doer: 'a', on: '2027-03-02', minutes: 240 },
        { doer: 'a', on: '2027-03-03', minutes: 240 },
      ],
      publishOn: '2027-03-04',
    });
  });

  it('counts the hours of an earlier step of the same work', () => {
    const both = [step('one', ['a'], 300), step('two', ['a'], 300)];
    expect(getValue(fit(both, people)).steps.map(({ finishOn }) => finishOn)).toEqual(['2027-03-01', '2027-03-02']);
  });

  it('is not changed by being asked', () => {
    const taken = new TakenHours([{ doer: 'a', on: MONDAY, minutes: 60 }]);
    fit([step('s', ['a'], 400)], people, taken);
    expect(freeMinutes('a', people.a, taken, toDayNumber(MONDAY))).toBe(420);
  });

  it('lets a client answer on a day of theirs however much they are asked, over their whole span', () => {
    const doers = { ...people, client: doer([0, 480, 480, 480, 480, 0, 0], { unlimited: true }) };
    const path = [step('make', ['a'], 60), step('sign', ['client'], 0, { spanDays: 2, predecessorIds: ['make'] })];
    expect(getValue(fit(path, doers))).toEqual({
      steps: [
        { id: 'make', doer: 'a', startOn: MONDAY, finishOn: MONDAY },
        { id: 'sign', doer: 'client', startOn: '2027-03-02', finishOn: '2027-03-03' },
      ],
      spent: [{ doer: 'a', on: MONDAY, minutes: 60 }],
      publishOn: '2027-03-04',
    });
  });

  it('takes the first named of equals', () => {
    for (const candidates of [
      ['a', 'b'],
      ['b', 'a'],
    ])
      expect(getValue(fit([step('s', candidates, 60)], people)).steps[0]?.doer).toBe(candidates[0]);
  });

  it('publishes after the last steps alone, with the lead that their doers’ days give', () => {
    const doers = { mondays: doer([480, 0, 0, 0, 0, 0, 0]), daily: doer([480, 480, 480, 480, 480, 480, 480]) };
    const path = [step('first', ['mondays'], 60), step('last', ['daily'], 60, { predecessorIds: ['first'] })];
    const given = { steps: path, doers, taken: new TakenHours(), publishZone: 'Europe/London', todayOn: MONDAY };
    // Monday, Tuesday, a day of lead, out on Thursday: that who was first works no day but Mondays is nothing to it
    const fitted = fitSteps({ ...given, slots: [{ at: getTimeOfDay('09:00'), leadDays: 1 }] });
    expect(getValue(fitted).publishOn).toBe('2027-03-04');
  });

  it('gives up where so many hours never come', () => {
    expect(fit([step('s', ['a'], 10_000)], { a: doer([1, 1, 1, 1, 1, 1, 1]) })).toMatchObject({ failure: { code: 'fit.no_hours' } });
  });

  it('is asked of nobody, or of somebody who is not there, by mistake alone', () => {
    expect(() => fit([step('s', [], 60)], people)).toThrow('nobody could do s');
    expect(() => fit([step('s', ['x'], 60)], people)).toThrow('no doer x');
  });

  it('says which step has no hours, and which waits for itself', () => {
    expect(fit([step('s', ['never'], 60)], { never: doer([0, 0, 0, 0, 0, 0, 0]) })).toMatchObject({
      failure: { code: 'fit.no_hours', detail: { stepId: 's' } },
    });
    expect(fit([step('s', ['a'], 60, { predecessorIds: ['s'] })], people)).toMatchObject({
      failure: { code: 'plan.circular', detail: { stepId: 's' } },
    });
  });
});

describe('the prediction of load', () => {
  const others = fc.array(
    fc.record({
      doer: fc.constantFrom('a', 'b'),
      effortMinutes: fc.constantFrom(0, 60, 300, 960, 2000),
      spanDays: fc.integer({ min: 1, max: 3 }),
      due: fc.integer({ min: -3, max: 20 }),
      afterLast: fc.boolean(),
    }),
    { maxLength: 12 },
  );
  const chain = fc.array(
    fc.record({
      doer: fc.constantFrom('a', 'b', 'client'),
      effortMinutes: fc.constantFrom(0, 45, 480, 1100),
      spanDays: fc.integer({ min: 1, max: 4 }),
      sameDay: fc.boolean(),
    }),
    { minLength: 1, maxLength: 5 },
  );
  const week = fc.array(fc.constantFrom(0, 120, 480), { minLength: 7, maxLength: 7 }).filter((days) => days.some((day) => day > 0));

  it('says the same of a chain that comes after all other work, where each step has one who could do it', () => {
    fc.assert(
      fc.property(others, chain, fc.tuple(week, week, week), fc.boolean(), (work, added, weeks, todayCounts) => {
        const doers = {
          a: doer(weeks[0], { todayCounts }),
          b: doer(weeks[1], { todayCounts }),
          client: doer(weeks[2], { todayCounts, unlimited: true }),
        };
        const there = work.map<WorkloadStep>(({ due, afterLast, ...one }, index) => ({
          id: `other ${index}`,
          ...one,
          latestFinishOn: addDays(MONDAY, due),
          predecessorIds: afterLast && index > 0 ? [`other ${index - 1}`] : [],
        }));
        const before = (index: number) => (index > 0 ? [`new ${index - 1}`] : []);
        const mine = added.map<WorkloadStep>((one, index) => ({
          id: `new ${index}`,
          ...one,
          latestFinishOn: null,
          predecessorIds: before(index),
        }));
        const whole = predictWorkload({ steps: [...there, ...mine], doers }).steps.filter(({ id }) => id.startsWith('new'));
        const taken = new TakenHours(predictWorkload({ steps: there, doers }).load);
        const fitted = fit(
          added.map(({ doer: who, ...one }, index) => ({ id: `new ${index}`, candidates: [who], predecessorIds: before(index), ...one })),
          doers,
          taken,
        );
        expect(getValue(fitted).steps.map(({ id, startOn, finishOn }) => [id, startOn, finishOn])).toEqual(
          whole.map(({ id, startOn, finishOn }) => [id, startOn, finishOn]),
        );
      }),
      { numRuns: 500 },
    );
  });
});
