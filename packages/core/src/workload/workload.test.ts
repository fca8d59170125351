import fc from 'fast-check';
import { planPiece, type PlanDoer } from '../backplan/index.js';
import { getValue } from '../result/index.js';
import { addDays, daysBetween, getDay, getTimeOfDay, toInstantAfterGap, type Day } from '../time/index.js';
import { isWorkingDay, minutesOn, MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { predictWorkload, type PredictedStep, type WorkloadStep } from './index.js';

/** Day 1 of the worked examples: a Monday. */
const MONDAY = getDay('2027-03-01');
const dayOf = (number: number): Day => addDays(MONDAY, number - 1);
const numberOf = (day: Day | null): number | null => (day === null ? null : daysBetween(MONDAY, day) + 1);

const HOUR = 60;
const doer = (weeklyMinutes: readonly number[], more: Partial<PlanDoer> = {}): PlanDoer => ({
  calendar: toCalendar({ weeklyMinutes }),
  zone: 'Europe/London',
  todayOn: MONDAY,
  todayCounts: true,
  ...more,
});
/** One who works a unit of one minute on every day: for examples whose time is in days. */
const daily = doer([1, 1, 1, 1, 1, 1, 1]);
/** One whose span sets when it ends, to release what follows. */
const release = doer([1, 1, 1, 1, 1, 1, 1], { unlimited: true });

const step = (id: string, who: string, effortMinutes: number, due: number | null, more: Partial<WorkloadStep> = {}): WorkloadStep => ({
  id,
  doer: who,
  spanDays: 1,
  effortMinutes,
  latestFinishOn: due === null ? null : dayOf(due),
  predecessorIds: [],
  ...more,
});

const finishes = (steps: readonly WorkloadStep[], doers: Record<string, PlanDoer>) =>
  Object.fromEntries(predictWorkload({ steps, doers }).steps.map(({ id, finishOn }) => [id, numberOf(finishOn)]));

describe('two persons and two pieces, worked by hand in the design', () => {
  it('takes P first, by earliest latest finish, and so ends Q on day 7', () => {
    // P: A 2 days, B 3, due day 6; Q: A 1, B 2, due day 6. Latest finishes at A: 3 and 4.
    const steps = [
      step('P at A', 'A', 2, 3),
      step('P at B', 'B', 3, 6, { predecessorIds: ['P at A'] }),
      step('Q at A', 'A', 1, 4),
      step('Q at B', 'B', 2, 6, { predecessorIds: ['Q at A'] }),
    ];
    expect(finishes(steps, { A: daily, B: daily })).toEqual({ 'P at A': 2, 'P at B': 5, 'Q at A': 3, 'Q at B': 7 });
  });
});

/**
 * 1 | r_j, preemption | Lmax, from Pinedo, Scheduling: Theory, Algorithms, and Systems, section 3.2 (values from memory): p = 4, 2, 6, 5,
 * r = 0, 1, 3, 5, d = 8, 12, 11, 10. The preemptive schedule with job 1 first is the bound at the first node of its branch and bound: Lmax = 5.
 */
describe('against the worked example in Pinedo', () => {
  it('finds the largest lateness of five', () => {
    const jobs = [
      [4, 0, 8],
      [2, 1, 12],
      [6, 3, 11],
      [5, 5, 10],
    ] as const;
    // a release at r is a predecessor whose span ends on day r
    const steps = jobs.flatMap(([effort, released, due], index) => [
      ...(released ? [step(`release ${index + 1}`, 'clock', 0, null, { spanDays: released })] : []),
      step(`${index + 1}`, 'machine', effort, due, { predecessorIds: released ? [`release ${index + 1}`] : [] }),
    ]);
    const ends = finishes(steps, { machine: daily, clock: release });
    expect([ends['1'], ends['2'], ends['3'], ends['4']]).toEqual([4, 17, 15, 10]);
    expect(Math.max(...jobs.map(([, , due], index) => (ends[`${index + 1}`] ?? NaN) - due))).toBe(5);
  });
});

describe('what a day holds', () => {
  const piet = doer([8 * HOUR, 8 * HOUR, 8 * HOUR, 8 * HOUR, 4 * HOUR, 0, 0]);

  it('spreads effort over the hours of each day, a half Friday and the weekend between', () => {
    const { steps, load } = predictWorkload({ steps: [step('design', 'piet', 38 * HOUR, null)], doers: { piet } });
    expect(steps).toEqual([{ id: 'design', startOn: dayOf(1), finishOn: dayOf(8), behindSteps: 0 }]);
    expect(load.map(({ on, minutes }) => [numberOf(on), minutes / HOUR])).toEqual([
      [1, 8],
      [2, 8],
      [3, 8],
      [4, 8],
      [5, 4],
      [8, 2],
    ]);
  });

  it('does several short steps on one day, and says how many go first', () => {
    const steps = [step('c', 'piet', 5 * HOUR, 9), step('a', 'piet', 3 * HOUR, 2), step('b', 'piet', 3 * HOUR, 3)];
    expect(predictWorkload({ steps, doers: { piet } }).steps).toEqual([
      { id: 'c', startOn: dayOf(1), finishOn: dayOf(2), behindSteps: 2 },
      { id: 'a', startOn: dayOf(1), finishOn: dayOf(1), behindSteps: 0 },
      { id: 'b', startOn: dayOf(1), finishOn: dayOf(1), behindSteps: 0 },
    ]);
  });

  it('ends at the later of effort done and span elapsed, counted from where work begins', () => {
    const steps = [
      step('first', 'piet', 8 * HOUR, 1),
      step('long', 'piet', HOUR, 9, { spanDays: 3 }),
      step('none', 'piet', 0, 9, { spanDays: 2 }),
    ];
    expect(finishes(steps, { piet })).toEqual({ first: 1, long: 4, none: 2 });
  });

  it('gives the client and nobody no limit: a step there waits for no other', () => {
    const client = doer(MONDAY_TO_FRIDAY, { unlimited: true });
    const steps = Array.from({ length: 9 }, (_, index) => step(`${index}`, 'client', 8 * HOUR, null, { spanDays: 2 }));
    expect(new Set(Object.values(finishes(steps, { client })))).toEqual(new Set([2]));
    expect(predictWorkload({ steps, doers: { client } }).load).toEqual([]);
  });

  it('goes on the same day where flagged, with the hours that are left there', () => {
    const anna = doer(MONDAY_TO_FRIDAY);
    const follow = (sameDay: boolean, effort: number) =>
      finishes(
        [
          step('make', 'piet', HOUR, 3),
          step('check', 'anna', effort, 3, { predecessorIds: ['make'], sameDay }),
          step('other', 'anna', 4 * HOUR, 9),
        ],
        {
          piet,
          anna,
        },
      );
    expect(follow(false, HOUR)).toEqual({ make: 1, check: 2, other: 1 });
    expect(follow(true, 4 * HOUR)).toEqual({ make: 1, check: 1, other: 1 });
    expect(follow(true, 5 * HOUR)).toEqual({ make: 1, check: 1, other: 2 });
  });

  it('keeps what is finished, goes on with what is begun, and starts tomorrow after the cut-off', () => {
    const steps = [
      step('draft', 'piet', 8 * HOUR, null, { startedOn: dayOf(-6), finishedOn: dayOf(-5) }),
      step('design', 'piet', 2 * HOUR, null, { startedOn: dayOf(-4), spanDays: 2, predecessorIds: ['draft'] }),
      step('check', 'piet', HOUR, null, { predecessorIds: ['design'] }),
    ];
    expect(finishes(steps, { piet })).toEqual({ design: 1, check: 2 });
    expect(finishes(steps, { piet: { ...piet, todayCounts: false } })).toEqual({ design: 1, check: 2 }); // what is begun goes on
  });

  it('predicts nothing for one who never works, and for what waits for that; a doer who is missing is a mistake', () => {
    const steps = [step('a', 'never', HOUR, 1), step('b', 'piet', HOUR, 2, { predecessorIds: ['a'] }), step('c', 'piet', HOUR, 3)];
    expect(finishes(steps, { piet, never: doer([]) })).toEqual({ a: null, b: null, c: 1 });
    expect(() => predictWorkload({ steps, doers: { piet } })).toThrow('no doer never');
    expect(predictWorkload({ steps: [], doers: {} })).toEqual({ steps: [], load: [] });
  });
});

/** The least largest lateness of any order of work in days, by trying them all. */
function bestLateness(jobs: readonly { effort: number; released: number; due: number }[]): number {
  const seen = new Map<string, number>();
  const search = (day: number, left: readonly number[]): number => {
    if (left.every((effort) => effort === 0)) return -Infinity;
    const key = `${day}:${left.join()}`;
    const known = seen.get(key);
    if (known !== undefined) return known;
    const available = jobs.flatMap((job, index) => (job.released <= day && (left[index] ?? 0) > 0 ? [index] : []));
    const best =
      available.length === 0
        ? search(day + 1, left)
        : Math.min(
            ...available.map((chosen) => {
              const then = left.map((effort, index) => (index === chosen ? effort - 1 : effort));
              return Math.max(then[chosen] === 0 ? day + 1 - (jobs[chosen]?.due ?? 0) : -Infinity, search(day + 1, then));
            }),
          );
    seen.set(key, best);
    return best;
  };
  return search(
    0,
    jobs.map((job) => job.effort),
  );
}

describe('laws', () => {
  it('finds for one person the least largest lateness that any order of work has (Horn 1974, against brute force)', () => {
    const scenario = fc.array(
      fc.record({ effort: fc.integer({ min: 1, max: 4 }), released: fc.integer({ min: 0, max: 8 }), due: fc.integer({ min: 1, max: 14 }) }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(scenario, (jobs) => {
        const steps = jobs.flatMap(({ effort, released, due }, index) => [
          ...(released ? [step(`r${index}`, 'clock', 0, null, { spanDays: released })] : []),
          step(`${index}`, 'machine', effort, due, { predecessorIds: released ? [`r${index}`] : [] }),
        ]);
        const ends = finishes(steps, { machine: daily, clock: release });
        expect(Math.max(...jobs.map(({ due }, index) => (ends[`${index}`] ?? NaN) - due))).toBe(bestLateness(jobs));
      }),
      { numRuns: 300 },
    );
  });

  const people = {
    a: doer(MONDAY_TO_FRIDAY),
    b: doer([4 * HOUR, 0, 8 * HOUR, 8 * HOUR, 2 * HOUR, 0, 3 * HOUR], { todayCounts: false }),
    client: doer(MONDAY_TO_FRIDAY, { unlimited: true }),
  };
  const graph = fc
    .array(
      fc.record({
        who: fc.constantFrom('a', 'b', 'client'),
        effort: fc.integer({ min: 0, max: 20 * HOUR }),
        span: fc.integer({ min: 1, max: 4 }),
        due: fc.option(fc.integer({ min: 1, max: 40 })),
        sameDay: fc.boolean(),
        begun: fc.option(fc.integer({ min: -6, max: 1 }), { freq: 4 }),
        links: fc.array(fc.nat(), { maxLength: 2 }),
      }),
      { minLength: 1, maxLength: 12 },
    )
    .map((drafts) =>
      drafts.map(({ who, effort, span, due, sameDay, begun, links }, index) =>
        step(`s${index}`, who, effort, due, {
          spanDays: span,
          sameDay,
          startedOn: begun === null ? null : dayOf(begun),
          predecessorIds: index === 0 ? [] : [...new Set(links.map((link) => `s${link % index}`))],
        }),
      ),
    );

  it('never ends before the earliest finish of a plan without load, on a day off, or before what comes first', () => {
    fc.assert(
      fc.property(graph, (steps) => {
        const predicted = new Map(predictWorkload({ steps, doers: people }).steps.map((each) => [each.id, each]));
        const plan = getValue(planPiece({ steps, doers: people, publishZone: 'Europe/London', todayOn: dayOf(1), slots: [] }));
        for (const planned of plan.steps) expect((predicted.get(planned.id)?.finishOn ?? '') >= planned.earliestFinishOn).toBe(true);
        for (const each of steps) {
          const found = predicted.get(each.id);
          if (!found?.startOn || !found.finishOn) throw new Error('not predicted');
          expect(isWorkingDay(people[each.doer as keyof typeof people].calendar, found.finishOn)).toBe(true);
          if (each.startedOn) continue;
          for (const id of each.predecessorIds) {
            const before = predicted.get(id)?.finishOn ?? '';
            expect(each.sameDay ? before <= found.startOn : before < found.startOn).toBe(true);
          }
        }
      }),
      { numRuns: 300 },
    );
  });

  it('is the plan without load where nobody has two things to do and effort fits into the span', () => {
    fc.assert(
      fc.property(graph, (steps) => {
        const alone = steps.map((each, index) => ({
          ...each,
          doer: `${each.doer}${index}`,
          effortMinutes: Math.min(each.effortMinutes, 2 * HOUR),
        }));
        const doers = Object.fromEntries(alone.map((each, index) => [each.doer, people[steps[index]?.doer as keyof typeof people]]));
        const plan = getValue(planPiece({ steps: alone, doers, publishZone: 'Europe/London', todayOn: dayOf(1), slots: [] }));
        expect(predictWorkload({ steps: alone, doers }).steps.map(({ id, finishOn }) => [id, finishOn])).toEqual(
          plan.steps.map((planned) => [planned.id, planned.earliestFinishOn]),
        );
      }),
      { numRuns: 200 },
    );
  });

  it('says the same of one step when it is asked about that step alone', () => {
    fc.assert(
      fc.property(graph, fc.nat(), (steps, choice) => {
        const asked = steps[choice % steps.length]?.id ?? '';
        const of = (all: readonly PredictedStep[]) => all.find((step) => step.id === asked);
        expect(of(predictWorkload({ steps, doers: people, until: asked }).steps)).toEqual(
          of(predictWorkload({ steps, doers: people }).steps),
        );
      }),
    );
  });

  it('gives each day no more than its hours, and each limited step its effort in all', () => {
    fc.assert(
      fc.property(graph, (steps) => {
        const { load } = predictWorkload({ steps, doers: people });
        for (const { doer: key, on, minutes } of load)
          expect(minutes).toBeLessThanOrEqual(minutesOn(people[key as 'a' | 'b'].calendar, on));
        const total = (key: string) => load.filter((day) => day.doer === key).reduce((sum, day) => sum + day.minutes, 0);
        for (const key of ['a', 'b'])
          expect(total(key)).toBe(steps.filter((each) => each.doer === key).reduce((sum, each) => sum + each.effortMinutes, 0));
      }),
    );
  });
});

describe('the danger that follows', () => {
  it('is *will be late* when the prediction ends after the latest finish that the plan alone could keep', () => {
    const aim = { publishAt: toInstantAfterGap(dayOf(10), getTimeOfDay('09:00'), 'Europe/London'), leadDays: 0 };
    const danger = (predictedFinishOn: Day | null) =>
      getValue(
        planPiece({
          steps: [{ id: 'make', doer: 'a', spanDays: 2, predecessorIds: [], predictedFinishOn }],
          doers: { a: doer(MONDAY_TO_FRIDAY) },
          aims: [aim],
          publishZone: 'Europe/London',
          todayOn: dayOf(1),
          slots: [],
        }),
      ).danger;
    expect([danger(null), danger(dayOf(9)), danger(dayOf(10))]).toEqual(['fine', 'fine', 'will_be_late']);
  });
});

describe('hours that duties take', () => {
  const steps = [step('made', 'A', 6 * HOUR, 5)];
  const doers = { A: doer([8, 8, 8, 8, 8, 0, 0].map((hours) => hours * HOUR)) };
  const taken = (...rows: readonly (readonly [number, number, string?])[]) =>
    rows.map(([number, hours, who = 'A']) => ({ doer: who, on: dayOf(number), minutes: hours * HOUR }));
  const asked = (input: Partial<Parameters<typeof predictWorkload>[0]>) => predictWorkload({ steps, doers, ...input });

  it('go first, and put off what waits for them', () => {
    expect(asked({}).steps[0]?.finishOn).toBe(dayOf(1));
    expect(asked({ taken: taken([1, 3]) }).steps[0]?.finishOn).toBe(dayOf(2));
    expect(asked({ taken: taken([1, 8], [2, 8]) }).steps[0]?.finishOn).toBe(dayOf(3));
  });

  it('count as load, also of who has no step, and never more than the day has', () => {
    const load = (rows: readonly (readonly [number, number])[]) =>
      asked({ taken: taken(...rows) }).load.map(({ doer: who, on, minutes }) => [who, numberOf(on), minutes / HOUR]);
    expect(load([[1, 3]])).toEqual([
      ['A', 1, 8],
      ['A', 2, 1],
    ]);
    expect(load([[4, 3]])).toEqual([
      ['A', 1, 6],
      ['A', 4, 3],
    ]);
    expect(
      load([
        [4, 5],
        [4, 6],
        [6, 2],
      ]),
    ).toEqual([
      ['A', 1, 6],
      ['A', 4, 8],
    ]);
    expect(predictWorkload({ steps: [], doers, taken: taken([2, 1]) }).load).toEqual(taken([2, 1]));
  });

  it('of a client, whose hours are not limited, take nothing', () => {
    const client = { C: { ...daily, unlimited: true } };
    expect(predictWorkload({ steps: [step('signed', 'C', 1, 5)], doers: client, taken: taken([1, 3, 'C']) })).toEqual(
      predictWorkload({ steps: [step('signed', 'C', 1, 5)], doers: client }),
    );
  });
});
