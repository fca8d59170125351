import fc from 'fast-check';
import { addDays, daysBetween, getDay } from '../time/index.js';
import { expectedOn, paceOf, quartersOf, type GoalFacts } from './index.js';

const day = getDay;
/** From 1,000 to 1,520 in 52 weeks: ten a week. */
const goal = (readings: readonly (readonly [string, number])[] = [], more: Partial<GoalFacts> = {}): GoalFacts => ({
  startValue: 1000,
  target: 1520,
  startOn: day('2027-01-04'),
  byOn: day('2028-01-03'),
  readings: readings.map(([on, value]) => ({ on: day(on), value })),
  ...more,
});

describe('the pace of a goal, worked by hand', () => {
  it('needs ten a week, and is behind at five', () => {
    // ten weeks in: 1,100 asked for, 1,050 there; 470 left in 42 weeks; at five a week 94 weeks more
    const pace = paceOf(goal([['2027-03-15', 1050]]), day('2027-03-15'));
    expect(pace).toEqual({
      standing: 'behind',
      value: 1050,
      expected: 1100,
      neededPerWeek: 10,
      neededNowPerWeek: (470 / 294) * 7,
      realPerWeek: 5,
      reachesOn: addDays(day('2027-03-15'), 94 * 7),
    });
  });

  it.each([
    [1074, 'on_pace'], // 26 of 520 off the line: one part in twenty
    [1073, 'behind'],
    [1126, 'on_pace'],
    [1127, 'before'],
  ] as const)('at %i it is %s', (value, standing) => {
    expect(paceOf(goal([['2027-03-15', value]]), day('2027-03-15')).standing).toBe(standing);
  });

  it('holds a reading against the line of its own day, since nothing was read after it', () => {
    expect(paceOf(goal([['2027-03-15', 1100]]), day('2027-06-15')).standing).toBe('on_pace');
    expect(paceOf(goal([['2027-03-15', 1100]]), day('2027-06-15')).expected).toBeGreaterThan(1200);
  });

  it('is unknown before anything was read, ahead before it begins, missed after its day, reached for good', () => {
    expect(paceOf(goal(), day('2027-01-04')).standing).toBe('ahead');
    expect(paceOf(goal([['2026-12-01', 2000]]), day('2027-02-01'))).toMatchObject({
      standing: 'unknown',
      value: null,
      realPerWeek: null,
      reachesOn: null,
    });
    expect(paceOf(goal([['2027-12-30', 1500]]), day('2028-01-04'))).toMatchObject({ standing: 'missed', neededNowPerWeek: null });
    expect(
      paceOf(
        goal([
          ['2027-11-01', 1530],
          ['2027-12-01', 1520],
        ]),
        day('2028-02-01'),
      ),
    ).toMatchObject({
      standing: 'reached',
      reachesOn: '2027-11-01',
      neededNowPerWeek: null,
    });
  });

  it('was reached on the first day on which it was, whatever was read before its start or short of it', () => {
    const readings = [
      ['2026-12-01', 2000],
      ['2027-06-01', 1200],
      ['2027-11-01', 1520],
      ['2027-12-01', 1600],
    ] as const;
    expect(paceOf(goal(readings), day('2027-12-15'))).toMatchObject({ standing: 'reached', reachesOn: '2027-11-01' });
    const less = { startValue: 40, target: 20, startOn: day('2027-01-01'), byOn: day('2027-02-21') };
    expect(
      paceOf(
        goal(
          [
            ['2027-01-05', 30],
            ['2027-01-11', 20],
          ],
          less,
        ),
        day('2027-01-12'),
      ).reachesOn,
    ).toBe('2027-01-11');
  });

  it('is not missed on its very day, leads nowhere within ten years where it hardly moves, and nothing is read on its first day', () => {
    expect(paceOf(goal([['2027-12-30', 1500]]), day('2028-01-03')).standing).toBe('on_pace');
    expect(paceOf(goal([['2027-12-30', 1400]]), day('2028-01-03'))).toMatchObject({ standing: 'behind', neededNowPerWeek: null });
    expect(paceOf(goal([['2027-03-15', 1001]]), day('2027-03-15'))).toMatchObject({ standing: 'behind', reachesOn: null });
    expect(paceOf(goal([['2027-01-04', 1300]]), day('2027-02-01'))).toMatchObject({ standing: 'unknown', value: null });
  });

  it('goes down as well as up', () => {
    const less = { startValue: 40, target: 20, startOn: day('2027-01-01'), byOn: day('2027-01-21') };
    expect(paceOf(goal([['2027-01-11', 30]], less), day('2027-01-11'))).toMatchObject({
      standing: 'on_pace',
      neededPerWeek: -7,
      realPerWeek: -7,
      reachesOn: '2027-01-21',
    });
    expect(paceOf(goal([['2027-01-11', 36]], less), day('2027-01-11')).standing).toBe('behind');
    expect(paceOf(goal([['2027-01-11', 44]], less), day('2027-01-11'))).toMatchObject({ standing: 'behind', reachesOn: null });
    expect(paceOf(goal([['2027-01-11', 19]], less), day('2027-01-11')).standing).toBe('reached');
  });

  it('is looked at by quarters: what each should have brought, and did', () => {
    const readings = [
      ['2027-02-10', 1030],
      ['2027-03-31', 1130],
      ['2027-04-01', 1140],
    ] as const;
    expect(quartersOf(goal(readings), day('2027-05-01')).map(({ year, quarter, endOn, value }) => [year, quarter, endOn, value])).toEqual([
      [2027, 1, '2027-03-31', 1130],
      [2027, 2, '2027-06-30', 1140],
      [2027, 3, '2027-09-30', null],
      [2027, 4, '2027-12-31', null],
      [2028, 1, '2028-01-03', null],
    ]);
    expect(quartersOf(goal(), day('2027-05-01')).at(-1)?.expected).toBe(1520);
    // a quarter that begins today is looked at
    expect(quartersOf(goal(readings), day('2027-07-01')).map(({ value }) => value)).toEqual([1130, 1140, 1140, null, null]);
  });
});

describe('by law', () => {
  const goals = fc.record({
    startValue: fc.integer({ min: -500, max: 500 }),
    way: fc.integer({ min: 1, max: 500 }),
    up: fc.boolean(),
    length: fc.integer({ min: 1, max: 800 }),
    readings: fc.array(fc.tuple(fc.integer({ min: 1, max: 900 }), fc.integer({ min: -1000, max: 1000 })), { maxLength: 8 }),
  });
  const factsOf = ({ startValue, way, up, length, readings }: typeof goals extends fc.Arbitrary<infer T> ? T : never): GoalFacts => ({
    startValue,
    target: startValue + (up ? way : -way),
    startOn: day('2027-01-01'),
    byOn: addDays(day('2027-01-01'), length),
    readings: [...readings].sort(([a], [b]) => a - b).map(([after, value]) => ({ on: addDays(day('2027-01-01'), after), value })),
  });

  it('what the line asks for runs from the start to the target and never turns', () => {
    fc.assert(
      fc.property(goals, fc.integer({ min: -50, max: 900 }), (one, after) => {
        const facts = factsOf(one);
        const on = addDays(facts.startOn, after);
        const sign = one.up ? 1 : -1;
        expect((expectedOn(facts, addDays(on, 1)) - expectedOn(facts, on)) * sign).toBeGreaterThanOrEqual(0);
        expect(expectedOn(facts, facts.startOn)).toBe(facts.startValue);
        expect(expectedOn(facts, facts.byOn)).toBe(facts.target);
      }),
    );
  });

  it('at the pace that is needed now, it is reached on its day', () => {
    fc.assert(
      fc.property(goals, fc.integer({ min: 1, max: 799 }), (one, after) => {
        const facts = factsOf(one);
        const todayOn = addDays(facts.startOn, after);
        const { neededNowPerWeek, value, standing } = paceOf(facts, todayOn);
        const left = daysBetween(todayOn, facts.byOn);
        if (neededNowPerWeek === null) expect(standing === 'reached' || left <= 0).toBe(true);
        else expect((value ?? facts.startValue) + (neededNowPerWeek / 7) * left).toBeCloseTo(facts.target, 6);
      }),
    );
  });

  it('quarters follow one another without a gap, and end with the goal', () => {
    fc.assert(
      fc.property(goals, (one) => {
        const facts = factsOf(one);
        const quarters = quartersOf(facts, facts.byOn);
        expect(quarters.at(-1)?.endOn).toBe(facts.byOn);
        for (const [index, { year, quarter }] of quarters.entries()) {
          const before = quarters[index - 1];
          if (before) expect(year * 4 + quarter).toBe(before.year * 4 + before.quarter + 1);
        }
      }),
    );
  });
});
