import type { LoadPersonShape, LoadStepShape } from '@zesting/contract';
import { getDay } from '@zesting/core';
import { cellsOf, fullness, isOfOverload, seenDay, shortHours, stepsWithin, worstOf } from './load-case';

const d = getDay;
const step = (stepId: string, startOn: string, finishOn: string): LoadStepShape => ({
  stepId,
  version: 1,
  title: stepId,
  pieceId: 'p',
  pieceTitle: 'P',
  clientId: 'c',
  minutes: 60,
  spanDays: 1,
  startOn,
  finishOn,
  latestFinishOn: null,
  releasedOn: startOn,
  danger: null,
});
/** Ten days from Wednesday 3 March 2027: a week and a half, the Friday full, three hours too much due on it. */
const person: LoadPersonShape = {
  personId: 'p',
  name: 'P',
  role: 'staff',
  zone: 'Europe/London',
  todayOn: '2027-03-03',
  hours: [480, 480, 480, 0, 0, 480, 480, 480, 480, 480],
  taken: [120, 240, 480, 0, 0, 60, 0, 0, 0, 0],
  overloads: [
    { fromOn: '2027-03-03', dueOn: '2027-03-05', overMinutes: 180 },
    { fromOn: '2027-03-03', dueOn: '2027-03-08', overMinutes: 60 },
  ],
};

const steps = [step('a', '2027-03-03', '2027-03-05'), step('b', '2027-03-08', '2027-03-09')];

describe('load by days and weeks', () => {
  it('adds up to the same hours either way, weeks from Monday', () => {
    const [days, weeks] = [cellsOf(person, d('2027-03-03'), false), cellsOf(person, d('2027-03-03'), true)];
    expect(days).toHaveLength(10);
    expect(weeks.map(({ fromOn, toOn, hours, taken, over }) => [fromOn, toOn, hours, taken, over])).toEqual([
      ['2027-03-03', '2027-03-07', 1440, 840, 180],
      ['2027-03-08', '2027-03-12', 2400, 60, 60],
    ]);
    const sum = (cells: typeof days) => cells.reduce((all, { taken }) => all + taken, 0);
    expect(sum(days)).toBe(sum(weeks));
    expect(days.filter(({ over }) => over > 0).map(({ fromOn, over }) => [fromOn, over])).toEqual([
      ['2027-03-05', 180],
      ['2027-03-08', 60],
    ]);
    expect(worstOf(person)?.dueOn).toBe('2027-03-05');
  });

  it.each([
    [480, 0, 0],
    [480, 60, 1],
    [480, 240, 2],
    [480, 400, 3],
    [480, 480, 4],
    [0, 0, null],
    [0, 30, 4],
  ])('of %i minutes %i taken is step %s', (hours, taken, expected) => {
    expect(fullness({ hours, taken })).toBe(expected);
  });

  it.each([
    [0, '0'],
    [10, '½'],
    [30, '½'],
    [60, '1'],
    [95, '1½'],
    [480, '8'],
  ])('says %i minutes as %s', (minutes, expected) => {
    expect(shortHours(minutes)).toBe(expected);
  });

  it('marks the steps that days are over-full by', () => {
    const over = { fromOn: '2027-03-08', dueOn: '2027-03-10', overMinutes: 60 };
    const of = (releasedOn: string, latestFinishOn: string | null, fromOn = over.fromOn) =>
      isOfOverload({ ...step('x', releasedOn, releasedOn), latestFinishOn }, { ...over, fromOn }, person.todayOn);
    expect([
      of('2027-03-08', '2027-03-10'),
      of('2027-03-05', '2027-03-10'),
      of('2027-03-08', '2027-03-11'),
      of('2027-03-08', null),
    ]).toEqual([true, false, false, false]);
    expect(of('2027-02-20', '2027-03-01', person.todayOn)).toBe(true); // begun long ago, past due
  });

  it('finds the steps of a stretch, and no day that is not seen', () => {
    expect(stepsWithin(steps, d('2027-03-05'), d('2027-03-05')).map(({ stepId }) => stepId)).toEqual(['a']);
    expect(stepsWithin(steps, d('2027-03-06'), d('2027-03-07'))).toEqual([]);
    expect(stepsWithin(steps, d('2027-03-03'), d('2027-03-09'))).toHaveLength(2);
    expect(seenDay('2027-03-05', d('2027-03-03'), d('2027-03-12'))).toBe('2027-03-05');
    for (const text of [null, '', 'x', '2027-03-13', '2027-3-5']) expect(seenDay(text, d('2027-03-03'), d('2027-03-12'))).toBeNull();
  });
});
