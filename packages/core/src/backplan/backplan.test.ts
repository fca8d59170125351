import fc from 'fast-check';
import { getValue } from '../result/index.js';
import { addDays, dayIn, fromDayNumber, getDay, getTimeOfDay, toDayNumber, toInstant, type Day } from '../time/index.js';
import { countWorkingDays, isWorkingDay, MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { planPiece, type Aim, type Plan, type PlanDoer, type PlanInput, type PlanStep } from './index.js';

const d = getDay;
const at = getTimeOfDay;

const doer = (overrides: Partial<PlanDoer> & { off?: readonly Day[]; todayOn: Day }): PlanDoer => ({
  calendar: toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: overrides.off ?? [] }),
  zone: 'Europe/London',
  todayCounts: true,
  ...overrides,
});

const chain = (...spans: [id: string, doer: string, spanDays: number][]): PlanStep[] =>
  spans.map(([id, who, spanDays], index) => ({
    id,
    doer: who,
    spanDays,
    predecessorIds: index === 0 ? [] : [spans[index - 1]?.[0] ?? ''],
  }));

/** Plans for a client in London that publishes at nine; today is the first doer's, unless said otherwise. */
const asInput = ({ aim, ...input }: Partial<PlanInput> & Pick<PlanInput, 'steps' | 'doers'> & { aim?: Aim }): PlanInput => ({
  publishZone: 'Europe/London',
  todayOn: Object.values(input.doers)[0]?.todayOn ?? d('2027-03-01'),
  slots: [{ at: at('09:00'), leadDays: aim?.leadDays ?? 0 }],
  aims: aim ? [aim] : [],
  ...input,
});
const plan = (input: Parameters<typeof asInput>[0]): Plan => getValue(planPiece(asInput(input)));

const latest = (result: Plan) => result.steps.map((step) => `${step.id} ${step.latestStartOn}/${step.latestFinishOn}`);
const earliest = (result: Plan) => result.steps.map((step) => `${step.id} ${step.earliestStartOn}/${step.earliestFinishOn}`);
const london = (on: string, time = '09:00') => getValue(toInstant(d(on), at(time), 'Europe/London'));

describe('the piece for Tuesday 16 March 2027, worked by hand in the design', () => {
  const people = (todayOn: Day) => ({
    maker: doer({ todayOn, off: [d('2027-03-04')] }),
    checker: doer({ todayOn }),
    client: doer({ todayOn, off: [d('2027-03-12')] }),
  });
  const steps = chain(['make', 'maker', 3], ['check', 'checker', 1], ['sign-off', 'client', 2], ['enter', 'checker', 1]);
  const aim = { publishAt: london('2027-03-16'), leadDays: 0 };

  it('plans backwards over days that each doer works', () => {
    expect(latest(plan({ steps, doers: people(d('2027-02-25')), aim }))).toEqual([
      'make 2027-03-03/2027-03-08',
      'check 2027-03-09/2027-03-09',
      'sign-off 2027-03-10/2027-03-11',
      'enter 2027-03-15/2027-03-15',
    ]);
  });

  it('has no slack, and is tight, on the day the first step must start', () => {
    const result = plan({ steps, doers: people(d('2027-03-03')), aim });
    expect([result.slackDays, result.danger]).toEqual([0, 'tight']);
    expect(result.steps.filter((step) => step.critical).map((step) => step.id)).toEqual(['make', 'check', 'sign-off', 'enter'].slice(0, 3));
  });

  it('is out of reach a day later, and names the earliest date that can be met', () => {
    const result = plan({ steps, doers: people(d('2027-03-05')), aim });
    expect([result.slackDays, result.danger, result.earliestPublishOn]).toEqual([-1, 'out_of_reach', '2027-03-17']);
    const met = plan({ steps, doers: people(d('2027-03-05')), aim: { publishAt: london('2027-03-17'), leadDays: 0 } });
    expect(met.slackDays).toBe(0);
  });

  it('is overdue once a latest finish has passed', () => {
    expect(plan({ steps, doers: people(d('2027-03-09')), aim }).danger).toBe('overdue');
  });

  it('leaves all dates open without an aim', () => {
    const result = plan({ steps, doers: people(d('2027-03-01')) });
    expect(result.steps.map((step) => step.latestFinishOn)).toEqual([null, null, null, null]);
    expect([result.slackDays, result.danger]).toEqual([null, null]);
  });

  it('starts tomorrow at the earliest once the cut-off has passed', () => {
    const before = people(d('2027-03-02'));
    const after = { ...before, maker: { ...before.maker, todayCounts: false } };
    expect([plan({ steps, doers: before, aim }).slackDays, plan({ steps, doers: after, aim }).slackDays]).toEqual([1, 0]);
  });

  it('moves the finish earlier by the lead of the channel', () => {
    expect(
      plan({ steps: chain(['enter', 'checker', 1]), doers: people(d('2027-03-01')), aim: { ...aim, leadDays: 2 } }).steps[0]
        ?.latestFinishOn,
    ).toBe('2027-03-11');
  });
});

describe('zones', () => {
  it('takes the date that the publish instant has where the doer is: Auckland 08:00 is a Monday in London and Los Angeles', () => {
    const publishAt = getValue(toInstant(d('2027-03-16'), at('08:00'), 'Pacific/Auckland'));
    expect(publishAt).toBe('2027-03-15T19:00:00Z');
    expect(dayIn(publishAt, 'America/Los_Angeles')).toBe('2027-03-15');
    for (const zone of ['Europe/London', 'America/Los_Angeles']) {
      const doers = { maker: doer({ todayOn: d('2027-03-01'), zone }) };
      const result = plan({ steps: chain(['make', 'maker', 1]), doers, aim: { publishAt, leadDays: 0 }, publishZone: 'Pacific/Auckland' });
      expect(result.steps[0]?.latestFinishOn).toBe('2027-03-12');
    }
  });

  it('refuses a time that the clocks jump over and takes the first of one that comes twice', () => {
    expect(toInstant(d('2027-03-28'), at('01:30'), 'Europe/London')).toEqual({ ok: false, failure: { code: 'time.in_gap' } });
    expect(toInstant(d('2027-10-31'), at('01:30'), 'Europe/London')).toEqual({ ok: true, value: '2027-10-31T00:30:00Z' });
  });
});

describe('steps', () => {
  const doers = { a: doer({ todayOn: d('2027-03-01') }), b: doer({ todayOn: d('2027-03-01') }) };
  const aim = { publishAt: london('2027-03-16'), leadDays: 0 };

  it('lets a same-day step finish and start on one day, both ways', () => {
    const steps: PlanStep[] = [
      { id: 'check', doer: 'a', spanDays: 1, predecessorIds: [] },
      { id: 'release', doer: 'b', spanDays: 1, predecessorIds: ['check'], sameDay: true },
    ];
    const result = plan({ steps, doers, aim });
    expect(latest(result)).toEqual(['check 2027-03-15/2027-03-15', 'release 2027-03-15/2027-03-15']);
    expect(earliest(result)).toEqual(['check 2027-03-01/2027-03-01', 'release 2027-03-01/2027-03-01']);
  });

  it('keeps what is done, and gives begun work the later of its span and today', () => {
    const steps: PlanStep[] = [
      { id: 'draft', doer: 'a', spanDays: 2, predecessorIds: [], startedOn: d('2027-02-22'), finishedOn: d('2027-02-24') },
      { id: 'design', doer: 'b', spanDays: 2, predecessorIds: ['draft'], startedOn: d('2027-02-25') },
      { id: 'check', doer: 'a', spanDays: 1, predecessorIds: ['design'] },
    ];
    const result = plan({ steps, doers, aim });
    expect(earliest(result)).toEqual(['draft 2027-02-22/2027-02-24', 'design 2027-02-25/2027-03-01', 'check 2027-03-02/2027-03-02']);
    expect(result.steps.map((step) => step.slackDays)).toEqual([null, 9, 9]);
    expect(result.steps[1]?.earliestHeldBy).toEqual({ by: 'today' });
  });

  it('keeps a pinned date and shows when it cannot hold', () => {
    const pinned = (pinnedFinishOn: string) =>
      plan({ steps: [{ id: 'make', doer: 'a', spanDays: 1, predecessorIds: [], pinnedFinishOn: d(pinnedFinishOn) }], doers, aim }).steps[0];
    expect([pinned('2027-03-10')?.latestFinishOn, pinned('2027-03-10')?.conflict]).toEqual(['2027-03-10', null]);
    expect(pinned('2027-03-13')?.conflict).toBe('pin_on_day_off');
    expect(pinned('2027-03-17')?.conflict).toBe('pin_after_successor');
  });

  it('refuses a ring, and a doer who never works', () => {
    const ring: PlanStep[] = [
      { id: 'x', doer: 'a', spanDays: 1, predecessorIds: ['y'] },
      { id: 'y', doer: 'a', spanDays: 1, predecessorIds: ['x'] },
    ];
    expect(planPiece(asInput({ steps: ring, doers }))).toMatchObject({
      ok: false,
      failure: { code: 'plan.circular' },
    });
    const never = { a: { ...doers.a, calendar: toCalendar({ weeklyMinutes: [] }) } };
    expect(planPiece(asInput({ steps: chain(['x', 'a', 1]), doers: never }))).toEqual({
      ok: false,
      failure: { code: 'workdays.none_in_reach', detail: { stepId: 'x' } },
    });
  });
});

/**
 * The eight-activity network of Heizer & Render, Operations Management, chapter on project management (values from memory):
 * A 2, B 3, C 2 after A, D 4 after A and B, E 4 after C, F 3 after C, G 5 after D and E, H 2 after F and G; 15 weeks, critical A-C-E-G-H.
 */
describe('against a textbook network', () => {
  it('matches ES, EF, LS, LF, with a week as a day that all work', () => {
    const network: [string, number, string[], [es: number, ef: number, ls: number, lf: number]][] = [
      ['A', 2, [], [0, 2, 0, 2]],
      ['B', 3, [], [0, 3, 1, 4]],
      ['C', 2, ['A'], [2, 4, 2, 4]],
      ['D', 4, ['A', 'B'], [3, 7, 4, 8]],
      ['E', 4, ['C'], [4, 8, 4, 8]],
      ['F', 3, ['C'], [4, 7, 10, 13]],
      ['G', 5, ['D', 'E'], [8, 13, 8, 13]],
      ['H', 2, ['F', 'G'], [13, 15, 13, 15]],
    ];
    const start = d('2027-03-01');
    const always = { all: doer({ todayOn: start, calendar: toCalendar({ weeklyMinutes: [60, 60, 60, 60, 60, 60, 60] }) }) };
    const steps = network.map(([id, spanDays, predecessorIds]) => ({ id, doer: 'all', spanDays, predecessorIds }));
    const result = plan({ steps, doers: always, aim: { publishAt: london(addDays(start, 15)), leadDays: 0 } });
    // the book's times are moments: finish n is the end of day n - 1
    expect(result.steps.map((step) => [step.earliestStartOn, step.earliestFinishOn, step.latestStartOn, step.latestFinishOn])).toEqual(
      network.map(([, , , [es, ef, ls, lf]]) => [addDays(start, es), addDays(start, ef - 1), addDays(start, ls), addDays(start, lf - 1)]),
    );
    expect(result.steps.filter((step) => step.critical).map((step) => step.id)).toEqual(['A', 'C', 'E', 'G', 'H']);
  });
});

describe('laws on random graphs', () => {
  const start = d('2027-03-01');
  const scenario = fc
    .array(
      fc.record({
        spanDays: fc.integer({ min: 1, max: 4 }),
        who: fc.constantFrom('a', 'b', 'c'),
        sameDay: fc.boolean(),
        links: fc.array(fc.nat(), { maxLength: 3 }),
      }),
      { minLength: 1, maxLength: 7 },
    )
    .chain((drafts) =>
      fc.record({
        steps: fc.constant(
          drafts.map<PlanStep>((draft, index) => ({
            id: `s${index}`,
            doer: draft.who,
            spanDays: draft.spanDays,
            sameDay: draft.sameDay,
            predecessorIds: index === 0 ? [] : [...new Set(draft.links.map((link) => `s${link % index}`))],
          })),
        ),
        off: fc.array(
          fc.integer({ min: 0, max: 60 }).map((n) => addDays(start, n)),
          { maxLength: 12 },
        ),
        publishIn: fc.integer({ min: 0, max: 50 }),
      }),
    );
  const peopleOff = (off: readonly Day[]) => ({
    a: doer({ todayOn: start, off }),
    b: doer({ todayOn: start, calendar: toCalendar({ weeklyMinutes: [480, 0, 480, 240, 0, 0, 480], holidays: off }) }),
    c: doer({ todayOn: start }),
  });

  it('never ends after the aim, never on a day off, never before a predecessor', () => {
    fc.assert(
      fc.property(scenario, ({ steps, off, publishIn }) => {
        const doers = peopleOff(off);
        const publishOn = addDays(start, publishIn);
        const result = plan({ steps, doers, aim: { publishAt: london(publishOn), leadDays: 0 } });
        const byId = new Map(result.steps.map((step) => [step.id, step]));
        for (const step of steps) {
          const planned = byId.get(step.id);
          if (!planned?.latestFinishOn || !planned.latestStartOn) throw new Error('not planned');
          const calendar = doers[step.doer as 'a' | 'b' | 'c'].calendar;
          expect(planned.latestFinishOn < publishOn).toBe(true);
          for (const day of [planned.latestStartOn, planned.latestFinishOn, planned.earliestStartOn, planned.earliestFinishOn])
            expect(isWorkingDay(calendar, day)).toBe(true);
          expect(countWorkingDays(calendar, planned.latestStartOn, planned.latestFinishOn)).toBe(step.spanDays);
          expect(countWorkingDays(calendar, planned.earliestStartOn, planned.earliestFinishOn)).toBe(step.spanDays);
          for (const id of step.predecessorIds) {
            const before = byId.get(id);
            if (!before?.latestFinishOn) throw new Error('not planned');
            const follows = (finish: Day, next: Day) => (step.sameDay ? finish <= next : finish < next);
            expect(follows(before.latestFinishOn, planned.latestStartOn)).toBe(true);
            expect(follows(before.earliestFinishOn, planned.earliestStartOn)).toBe(true);
          }
        }
      }),
      { numRuns: 300 },
    );
  });

  it('offers an earliest date that can be met, and none before it can', () => {
    fc.assert(
      fc.property(scenario, ({ steps, off }) => {
        const doers = peopleOff(off);
        const on = plan({ steps, doers }).earliestPublishOn;
        const slack = (publishOn: Day) => plan({ steps, doers, aim: { publishAt: london(publishOn), leadDays: 0 } }).slackDays ?? NaN;
        expect(slack(on)).toBeGreaterThanOrEqual(0);
        expect(slack(addDays(on, -1))).toBeLessThan(0);
      }),
      { numRuns: 200 },
    );
  });

  it('finds by search over all dates no later latest finish that still fits (brute force)', () => {
    fc.assert(
      fc.property(scenario, ({ steps, off, publishIn }) => {
        const doers = peopleOff(off);
        const publishOn = addDays(start, publishIn + 20);
        const result = plan({ steps, doers, aim: { publishAt: london(publishOn), leadDays: 0 } });
        const found = new Map(result.steps.map((step) => [step.id, step]));
        for (const step of steps) {
          const calendar = doers[step.doer as 'a' | 'b' | 'c'].calendar;
          const next = steps.filter((other) => other.predecessorIds.includes(step.id));
          const fits = (day: Day) =>
            isWorkingDay(calendar, day) &&
            day < publishOn &&
            next.every((other) => {
              const from = found.get(other.id)?.latestStartOn;
              return from && (other.sameDay ? day <= from : day < from);
            });
          let best = publishOn;
          while (!fits(best)) best = addDays(best, -1);
          expect(found.get(step.id)?.latestFinishOn).toBe(best);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('lets slack grow, never shrink, when the aim moves later', () => {
    fc.assert(
      fc.property(scenario, fc.integer({ min: 0, max: 20 }), ({ steps, off, publishIn }, later) => {
        const doers = peopleOff(off);
        const slack = (days: number) =>
          plan({ steps, doers, aim: { publishAt: london(fromDayOffset(days)), leadDays: 0 } }).slackDays ?? NaN;
        expect(slack(publishIn + later)).toBeGreaterThanOrEqual(slack(publishIn));
      }),
    );
  });
  const fromDayOffset = (days: number) => fromDayNumber(20878 + days); // 2027-03-01 is day 20878
});

describe('what happened and what did not', () => {
  const aim = { publishAt: london('2027-03-16'), leadDays: 0 };

  it('lets a begun step go on after the cut-off, and counts its span from the first day worked', () => {
    const step = (startedOn: string): PlanStep => ({ id: 'make', doer: 'a', spanDays: 2, predecessorIds: [], startedOn: d(startedOn) });
    const on = (todayOn: string, startedOn: string, todayCounts: boolean) =>
      plan({ steps: [step(startedOn)], doers: { a: doer({ todayOn: d(todayOn), todayCounts }) }, aim }).steps[0]?.earliestFinishOn;
    expect([on('2027-03-02', '2027-03-01', true), on('2027-03-02', '2027-03-01', false)]).toEqual(['2027-03-02', '2027-03-02']);
    expect(on('2027-03-07', '2027-03-06', true)).toBe('2027-03-09'); // begun on a Saturday: Monday is its first day
    expect(on('2027-03-13', '2027-03-01', false)).toBe('2027-03-15'); // long elapsed, and today is a Saturday
  });

  it('turns nothing out of reach at the cut-off of the last day of a begun step', () => {
    const steps = [{ id: 'make', doer: 'a', spanDays: 2, predecessorIds: [], startedOn: d('2027-03-11') }, ...chain(['b', 'a', 1])].map(
      (step) => (step.id === 'b' ? { ...step, predecessorIds: ['make'] } : step),
    );
    const at = (todayCounts: boolean) => plan({ steps, doers: { a: doer({ todayOn: d('2027-03-12'), todayCounts }) }, aim });
    expect([at(true).danger, at(false).danger]).toEqual(['tight', 'tight']);
    expect(at(false).steps.map((step) => step.slackDays)).toEqual([0, 0]);
    expect(at(false).earliestPublishOn).toBe('2027-03-16');
  });

  it('takes no notice of the calendar of whoever finished a step', () => {
    const never = { ...doer({ todayOn: d('2027-03-01') }), calendar: toCalendar({ weeklyMinutes: [] }) };
    const steps = chain(['write', 'gone', 2], ['check', 'a', 1]).map((step) =>
      step.id === 'write' ? { ...step, startedOn: d('2027-02-22'), finishedOn: d('2027-02-23') } : step,
    );
    const result = plan({ steps, doers: { a: doer({ todayOn: d('2027-03-01') }), gone: never }, aim });
    expect(latest(result)).toEqual(['write null/null', 'check 2027-03-15/2027-03-15']);
    expect([result.danger, result.earliestPublishOn]).toEqual(['fine', '2027-03-02']);
  });

  it('plans an open step for what comes after finished ones', () => {
    const steps = chain(['write', 'a', 1], ['check', 'a', 1], ['enter', 'a', 2]).map((step) =>
      step.id === 'check' ? { ...step, finishedOn: d('2027-03-01') } : step,
    );
    expect(latest(plan({ steps, doers: { a: doer({ todayOn: d('2027-03-01') }) }, aim }))).toEqual([
      'write 2027-03-11/2027-03-11',
      'check null/null',
      'enter 2027-03-12/2027-03-15',
    ]);
  });

  it('can be met today, in the client’s zone, once all is finished or there is nothing to do', () => {
    const done = chain(['write', 'a', 1]).map((step) => ({ ...step, finishedOn: d('2027-03-01') }));
    const there = { doers: { a: doer({ todayOn: d('2027-03-04') }) }, todayOn: d('2027-03-05'), publishZone: 'Pacific/Auckland' };
    expect(plan({ ...there, steps: done }).earliestPublishOn).toBe('2027-03-05');
    expect(plan({ ...there, steps: [] })).toEqual({ steps: [], slackDays: null, danger: null, earliestPublishOn: '2027-03-05' });
  });
});

describe('several placements', () => {
  const doers = { a: doer({ todayOn: d('2027-03-01') }) };
  const steps = chain(['enter', 'a', 1]);
  const finish = (...aims: Aim[]) => plan({ steps, doers, aims }).steps[0]?.latestFinishOn;

  it('leave the earliest of their latest finishes, whichever goes out first', () => {
    const [first, later] = [
      { publishAt: london('2027-03-16'), leadDays: 0 },
      { publishAt: london('2027-03-18'), leadDays: 4 },
    ];
    expect([finish(first), finish(later), finish(first, later), finish(later, first)]).toEqual([
      '2027-03-15',
      '2027-03-11',
      '2027-03-11',
      '2027-03-11',
    ]);
  });

  it('count with their leads in the earliest date that can be met', () => {
    const slots = [0, 2].map((leadDays) => ({ at: at('09:00'), leadDays }));
    expect(plan({ steps, doers, slots }).earliestPublishOn).toBe('2027-03-04'); // done on Monday 1, two working days, then out
  });

  it('know the earliest date of a client whose day is another than the doer’s', () => {
    const far = { a: doer({ todayOn: d('2027-03-01'), zone: 'Pacific/Pago_Pago' }) };
    // Kiritimati is 25 hours ahead: out on Wednesday 3 at nine there is Tuesday 2 at eight here
    const result = plan({ steps, doers: far, publishZone: 'Pacific/Kiritimati', todayOn: d('2027-03-02') });
    expect(result.earliestPublishOn).toBe('2027-03-03');
    const met = plan({
      steps,
      doers: far,
      publishZone: 'Pacific/Kiritimati',
      todayOn: d('2027-03-02'),
      aim: { publishAt: getValue(toInstant(d('2027-03-03'), at('09:00'), 'Pacific/Kiritimati')), leadDays: 0 },
    });
    expect(met.slackDays).toBe(0);
  });
});

describe('what is no plan', () => {
  it('is refused: a span that is no whole number of days', () => {
    for (const spanDays of [0, -1, 1.5, NaN, Infinity])
      expect(() => plan({ steps: chain(['x', 'a', spanDays]), doers: { a: doer({ todayOn: d('2027-03-01') }) } })).toThrow(RangeError);
  });

  it('names a step of a ring, and not one that only waits for it', () => {
    const ring: PlanStep[] = [
      { id: 'waits', doer: 'a', spanDays: 1, predecessorIds: ['x'] },
      { id: 'x', doer: 'a', spanDays: 1, predecessorIds: ['y'] },
      { id: 'y', doer: 'a', spanDays: 1, predecessorIds: ['x'] },
    ];
    const failed = planPiece(asInput({ steps: ring, doers: { a: doer({ todayOn: d('2027-03-01') }) } }));
    expect(failed.ok ? '' : failed.failure.code).toBe('plan.circular');
    expect(['x', 'y']).toContain(failed.ok ? '' : failed.failure.detail.stepId);
  });

  it('takes twenty thousand steps in a row', () => {
    const long = chain(...Array.from({ length: 20_000 }, (_, index) => [`${index}`, 'a', 1] as [string, string, number]));
    const result = plan({
      steps: long,
      doers: { a: { ...doer({ todayOn: d('2027-03-01') }), calendar: toCalendar({ weeklyMinutes: Array(7).fill(60) }) } },
    });
    expect(result.steps).toHaveLength(20_000);
    expect(result.earliestPublishOn).toBe(fromDayNumber(toDayNumber(d('2027-03-01')) + 20_000));
  });
});
