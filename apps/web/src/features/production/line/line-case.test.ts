import type { LineDoerShape, LineRowShape, LineStepShape } from '@zesting/contract';
import { addDays, getDay, isWorkingDay, toInstantAfterGap, getTimeOfDay } from '@zesting/core';
import { backOf, barsOf, bodyOf, changeOf, doerOf, offDays, outcomeOf } from './line-case';

const d = getDay;
const doer = (key: string, off: readonly string[] = []): LineDoerShape => ({
  key,
  zone: 'Europe/London',
  todayOn: '2027-02-25',
  todayCounts: true,
  weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
  days: off.map((on) => ({ on, minutes: 0 })),
});
const doers = new Map(
  [doer('maker', ['2027-03-04']), doer('checker'), doer('client', ['2027-03-12'])].map((shape) => [shape.key, doerOf(shape)]),
);
const of = (key: string) => {
  const found = doers.get(key);
  if (!found) throw new Error(`no ${key}`);
  return found;
};
const step = (
  id: string,
  key: string,
  spanDays: number,
  after: string[],
  dates: readonly [string, string],
  latest: string,
): LineStepShape => ({
  id,
  title: id,
  kind: key === 'client' ? 'sign_off' : 'make',
  doer: key,
  doerId: null,
  doerName: null,
  spanDays,
  effortMinutes: 60,
  sameDay: false,
  round: 1,
  predecessorIds: after,
  startedOn: null,
  finishedOn: null,
  pinnedFinishOn: null,
  latestStartOn: null,
  latestFinishOn: latest,
  earliestStartOn: dates[0],
  earliestFinishOn: dates[1],
  predictedStartOn: dates[0],
  predictedFinishOn: dates[1],
  danger: 'fine',
  version: 3,
});
/** The piece for Tuesday 16 March 2027, worked by hand in the design: latest Wed 3 – Mon 8, Tue 9, Wed 10 – Thu 11, Mon 15. */
const row: LineRowShape = {
  id: 'p',
  number: 1,
  clientId: 'c',
  title: 'P',
  stage: 'planned',
  danger: 'fine',
  slackDays: 4,
  aimOn: '2027-03-16',
  wishOn: '2027-03-16',
  version: 1,
  steps: [
    step('make', 'maker', 3, [], ['2027-02-25', '2027-03-01'], '2027-03-08'),
    step('check', 'checker', 1, ['make'], ['2027-03-02', '2027-03-02'], '2027-03-09'),
    step('sign-off', 'client', 2, ['check'], ['2027-03-03', '2027-03-04'], '2027-03-11'),
    step('enter', 'checker', 1, ['sign-off'], ['2027-03-05', '2027-03-05'], '2027-03-15'),
  ],
  placements: [],
  plan: {
    aims: [{ publishAt: toInstantAfterGap(d('2027-03-16'), getTimeOfDay('09:00'), 'Europe/London'), leadDays: 0 }],
    publishZone: 'Europe/London',
    todayOn: '2027-02-25',
    slots: [{ at: '09:00', leadDays: 0 }],
  },
};
const axis = { fromOn: d('2027-02-22'), toOn: d('2027-03-21') };
const barOf = (id: string) => {
  const bar = barsOf(row.steps, axis).find((one) => one.step.id === id);
  if (!bar) throw new Error(`no ${id}`);
  return bar;
};
const untilOn = (...args: Parameters<typeof outcomeOf>) => Object.fromEntries(outcomeOf(...args)?.untilOn ?? []);

describe('the line of a piece', () => {
  it('plans as the server does: the example worked by hand', () => {
    expect(untilOn(row, doers, 0, null)).toEqual({
      make: '2027-03-08',
      check: '2027-03-09',
      'sign-off': '2027-03-11',
      enter: '2027-03-15',
    });
    expect(outcomeOf(row, doers, 0, null)).toMatchObject({ danger: 'fine', worse: [], isTooLate: false });
  });

  it('draws in turn on one lane, side by side on two, and what is done on none', () => {
    expect(barsOf(row.steps, axis).map(({ lane }) => lane)).toEqual([0, 0, 0, 0]);
    const beside = [...row.steps, step('draw', 'checker', 2, [], ['2027-03-01', '2027-03-02'], '2027-03-08')];
    expect(barsOf(beside, axis).map(({ step: { id }, lane }) => `${id} ${lane}`)).toEqual([
      'make 0',
      'draw 1',
      'check 0',
      'sign-off 0',
      'enter 0',
    ]);
    const done = beside.map((one) => (one.id === 'draw' ? { ...one, startedOn: '2027-03-01', finishedOn: '2027-03-02' } : one));
    expect(Math.max(...barsOf(done, axis).map(({ lane }) => lane))).toBe(0);
    expect(barsOf(row.steps, { fromOn: d('2027-05-01'), toOn: d('2027-05-31') })).toEqual([]);
  });

  it('pins the finish of a bar that is dragged, to a day that its doer works', () => {
    expect(changeOf(barOf('make'), of('maker'), 'whole', 1)).toEqual({ kind: 'pin', stepId: 'make', finishOn: '2027-03-02' });
    expect(changeOf(barOf('make'), of('maker'), 'whole', 3)).toEqual({ kind: 'pin', stepId: 'make', finishOn: '2027-03-05' }); // off on the 4th
    expect(changeOf(barOf('make'), of('maker'), 'whole', -2)).toEqual({ kind: 'pin', stepId: 'make', finishOn: '2027-02-26' }); // over a weekend
    expect(changeOf(barOf('make'), of('maker'), 'whole', -30)).toEqual({ kind: 'pin', stepId: 'make', finishOn: '2027-02-25' }); // not before today
    expect(changeOf(barOf('make'), of('maker'), 'whole', 0)).toBeNull();
    for (let days = -40; days <= 40; days++) {
      const change = changeOf(barOf('sign-off'), of('client'), 'whole', days);
      if (change?.kind === 'pin') expect([days, isWorkingDay(of('client').calendar, change.finishOn)]).toEqual([days, true]);
    }
  });

  it('gives a bar whose end is dragged the working days that lie in it, one at least', () => {
    expect(changeOf(barOf('make'), of('maker'), 'end', 4)).toEqual({ kind: 'span', stepId: 'make', spanDays: 6 }); // to Friday the 5th, without the 4th and a weekend
    expect(changeOf(barOf('make'), of('maker'), 'end', -30)).toEqual({ kind: 'span', stepId: 'make', spanDays: 1 });
    expect(changeOf(barOf('check'), of('checker'), 'end', -3)).toBeNull();
    const make = barOf('make');
    const done = { ...make, step: { ...make.step, finishedOn: '2027-03-01' } };
    expect(changeOf(done, of('maker'), 'whole', 3)).toBeNull();
  });

  it('tells what would be late, while it is dragged', () => {
    expect(untilOn(row, doers, 0, { kind: 'pin', stepId: 'check', finishOn: d('2027-03-03') })).toMatchObject({
      make: '2027-03-02',
      check: '2027-03-03',
    });
    const early = outcomeOf(row, doers, 0, { kind: 'pin', stepId: 'check', finishOn: d('2027-03-01') });
    expect(early?.worse.map(({ title, danger }) => `${title} ${danger}`)).toEqual(['make out_of_reach', 'check out_of_reach']);
    expect(outcomeOf(row, doers, 0, { kind: 'pin', stepId: 'make', finishOn: d('2027-03-10') })).toMatchObject({ isTooLate: true });
    expect(outcomeOf(row, doers, 0, { kind: 'span', stepId: 'make', spanDays: 8 })?.danger).toBe('out_of_reach');
    const soon = outcomeOf(row, doers, 0, { kind: 'publish', placementId: null, on: d('2027-03-05') });
    expect([soon?.danger, soon?.worse.length]).toEqual(['out_of_reach', 4]);
    const later = outcomeOf(row, doers, 0, { kind: 'publish', placementId: null, on: d('2027-03-17') });
    expect(later?.untilOn.get('enter')).toBe('2027-03-16');
  });

  it('moves the day of one placement alone, and keeps its time', () => {
    const at = (on: string, time: string) => ({ publishAt: toInstantAfterGap(d(on), getTimeOfDay(time), 'Europe/London'), leadDays: 0 });
    const placement = (id: string, on: string) => ({ id, channelName: id, on, at: '18:30', state: 'pencilled', version: 1 });
    const two = {
      ...row,
      placements: [placement('a', '2027-03-16'), placement('b', '2027-03-30')],
      plan: { ...row.plan, aims: [at('2027-03-16', '18:30'), at('2027-03-30', '18:30')] },
    };
    expect(outcomeOf(two, doers, 0, { kind: 'publish', placementId: 'b', on: d('2027-04-06') })?.untilOn.get('enter')).toBe('2027-03-15');
    expect(outcomeOf(two, doers, 0, { kind: 'publish', placementId: 'a', on: d('2027-04-06') })?.untilOn.get('enter')).toBe('2027-03-29');
    expect(outcomeOf(two, doers, 0, { kind: 'publish', placementId: 'b', on: d('2027-03-12') })?.untilOn.get('enter')).toBe('2027-03-11');
  });

  it('asks for what was dragged, and for what was before to take it back', () => {
    const [make] = row.steps as [LineStepShape];
    const pin = { kind: 'pin', stepId: 'make', finishOn: d('2027-03-02') } as const;
    expect([bodyOf(pin, make), backOf(pin, make)]).toEqual([
      { kind: 'pin', stepId: 'make', version: 3, finishOn: '2027-03-02' },
      { kind: 'pin', stepId: 'make', version: 4, finishOn: null },
    ]);
    const span = { kind: 'span', stepId: 'make', spanDays: 5 } as const;
    expect([bodyOf(span, make), backOf(span, make)]).toEqual([
      { kind: 'retime', stepId: 'make', version: 3, spanDays: 5, effortMinutes: 60 },
      { kind: 'retime', stepId: 'make', version: 4, spanDays: 3, effortMinutes: 60 },
    ]);
  });

  it('greys the days on which whoever does it is off', () => {
    expect(offDays(of('maker'), { fromOn: d('2027-03-03'), toOn: addDays(d('2027-03-03'), 4) })).toEqual([
      '2027-03-04',
      '2027-03-06',
      '2027-03-07',
    ]);
  });
});
