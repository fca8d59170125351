import fc from 'fast-check';
import { getValue } from '../result/index.js';
import { addDays, dayIn, getDay, type Day } from '../time/index.js';
import { countWorkingDays, isWorkingDay, MONDAY_TO_FRIDAY, toCalendar, workingDayOnOrBefore } from '../workdays/index.js';
import { dutyDays, dutyLoad, dutyState, uncoveredDays, type DutyDay, type DutyRule } from './index.js';

const day = getDay;
const duty = (rule: string | null, more: Partial<DutyRule> = {}): DutyRule => ({
  rule,
  fromOn: day('2027-03-01'),
  untilOn: null,
  leadDays: 0,
  ...more,
});
const weekdays = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY });
const off = (...days: string[]) =>
  toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, timeOff: days.map((on) => ({ startOn: day(on), endOn: day(on) })) });
const alone = { lead: weekdays, second: null };
const dues = (days: readonly DutyDay[]) => days.map(({ on, dueOn, doer }) => `${on} → ${dueOn} ${doer}`);
const between = (one: DutyRule, calendars: { lead: typeof weekdays; second: typeof weekdays | null }, from: string, to: string) =>
  dutyDays(one, calendars, day(from), day(to));

describe('when a duty is due', () => {
  it('is done on the Thursday where Friday is off', () => {
    // Good Friday 2027 is 26 March
    const lead = off('2027-03-26');
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=FR'), { lead, second: null }, '2027-03-19', '2027-04-02'))).toEqual([
      '2027-03-19 → 2027-03-19 lead',
      '2027-03-26 → 2027-03-25 lead',
      '2027-04-02 → 2027-04-02 lead',
    ]);
  });

  it('is the second person’s where the lead person is away', () => {
    const lead = off('2027-03-26');
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=FR'), { lead, second: weekdays }, '2027-03-26', '2027-03-26'))).toEqual([
      '2027-03-26 → 2027-03-26 second',
    ]);
  });

  it('stays the lead person’s as long as they work at all in the days that it has', () => {
    const lead = off('2027-03-25', '2027-03-26');
    const calendars = { lead, second: weekdays };
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=FR', { leadDays: 2 }), calendars, '2027-03-26', '2027-03-26'))).toEqual([
      '2027-03-26 → 2027-03-24 lead',
    ]);
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=FR', { leadDays: 1 }), calendars, '2027-03-26', '2027-03-26'))).toEqual([
      '2027-03-26 → 2027-03-26 second',
    ]);
  });

  it('comes five times a week where it is daily and nobody works at weekends', () => {
    expect(between(duty('FREQ=DAILY'), alone, '2027-03-01', '2027-03-31')).toHaveLength(23); // the working days of March 2027
    expect(dues(between(duty('FREQ=DAILY'), alone, '2027-03-05', '2027-03-08'))).toEqual([
      '2027-03-05 → 2027-03-05 lead',
      '2027-03-08 → 2027-03-08 lead',
    ]);
  });

  it('begins on the first working day, not before it begins', () => {
    const quarterly = duty('FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=2', { fromOn: day('2027-01-02') }); // a Saturday
    expect(dues(between(quarterly, alone, '2027-01-01', '2027-04-30'))).toEqual([
      '2027-01-02 → 2027-01-04 lead',
      '2027-04-02 → 2027-04-02 lead',
    ]);
    expect(dues(between(duty('FREQ=DAILY', { fromOn: day('2027-03-06') }), alone, '2027-03-06', '2027-03-09'))).toEqual([
      '2027-03-08 → 2027-03-08 lead',
      '2027-03-09 → 2027-03-09 lead',
    ]);
  });

  it('comes once without a rule, and only while it holds', () => {
    expect(dues(between(duty(null), alone, '2027-02-01', '2027-05-01'))).toEqual(['2027-03-01 → 2027-03-01 lead']);
    expect(between(duty(null), alone, '2027-03-02', '2027-05-01')).toEqual([]);
    expect(between(duty('FREQ=WEEKLY;BYDAY=MO', { untilOn: day('2027-03-14') }), alone, '2027-03-01', '2027-04-30')).toHaveLength(2);
  });

  it('is not there twice on the first day on which somebody works', () => {
    // nobody on Wednesday and Thursday: what was due then, and on Saturday, is Friday's
    const third = duty('FREQ=DAILY;INTERVAL=3', { fromOn: day('2027-03-03') });
    expect(dues(between(third, { lead: off('2027-03-03', '2027-03-04'), second: null }, '2027-03-03', '2027-03-09'))).toEqual([
      '2027-03-03 → 2027-03-05 lead',
      '2027-03-09 → 2027-03-09 lead',
    ]);
  });

  it('goes to each of the two as they work, and only what the same one would do on the same day is one', () => {
    const people = { lead: off('2027-03-05'), second: weekdays };
    expect(dues(between(duty('FREQ=DAILY', { leadDays: 1 }), people, '2027-03-04', '2027-03-08'))).toEqual([
      '2027-03-04 → 2027-03-04 lead', // and Friday's with it
      '2027-03-06 → 2027-03-05 second', // and Sunday's with it
      '2027-03-08 → 2027-03-08 lead',
    ]);
  });

  it('is the lead person’s where both worked last on the same day, and where both are there first', () => {
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=SU'), { lead: weekdays, second: weekdays }, '2027-03-07', '2027-03-07'))).toEqual([
      '2027-03-07 → 2027-03-05 lead',
    ]);
    const both = off('2027-03-01');
    expect(dues(between(duty(null), { lead: both, second: both }, '2027-03-01', '2027-03-01'))).toEqual(['2027-03-01 → 2027-03-02 lead']);
    const later = { lead: off('2027-03-01', '2027-03-02', '2027-03-03'), second: off('2027-03-01', '2027-03-02') };
    expect(dues(between(duty(null), later, '2027-03-01', '2027-03-01'))).toEqual(['2027-03-01 → 2027-03-03 second']);
    const never = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });
    expect(dues(between(duty(null), { lead: never, second: both }, '2027-03-01', '2027-03-01'))).toEqual([
      '2027-03-01 → 2027-03-02 second',
    ]);
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=SU'), { lead: never, second: weekdays }, '2027-03-07', '2027-03-07'))).toEqual([
      '2027-03-07 → 2027-03-05 second',
    ]);
  });

  it('can be due on its very first day, and ends where it ends or where nobody asks further', () => {
    expect(dues(between(duty('FREQ=WEEKLY;BYDAY=SA', { fromOn: day('2027-03-05') }), alone, '2027-03-05', '2027-03-07'))).toEqual([
      '2027-03-06 → 2027-03-05 lead',
    ]);
    expect(between(duty('FREQ=DAILY', { untilOn: day('2027-03-31') }), alone, '2027-03-01', '2027-03-10')).toHaveLength(8);
  });

  it('can be begun so many days before', () => {
    const [first] = between(duty('FREQ=WEEKLY;BYDAY=FR', { leadDays: 3 }), alone, '2027-03-05', '2027-03-05');
    expect(first?.startOn).toBe('2027-03-02');
    // but not before the duty is there at all
    const [early] = between(duty('FREQ=WEEKLY;BYDAY=TU', { leadDays: 9 }), alone, '2027-03-02', '2027-03-02');
    expect(early?.startOn).toBe('2027-03-01');
  });

  it('never comes where nobody ever works', () => {
    const never = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });
    expect(between(duty('FREQ=DAILY'), { lead: never, second: null }, '2027-03-01', '2027-03-31')).toEqual([]);
  });
});

const rules = fc.constantFrom(
  null,
  'FREQ=DAILY',
  'FREQ=DAILY;INTERVAL=3',
  'FREQ=WEEKLY;BYDAY=SA',
  'FREQ=WEEKLY;BYDAY=FR,SU',
  'FREQ=MONTHLY;BYMONTHDAY=1',
  'FREQ=MONTHLY;BYDAY=-1FR',
);
const calendars = fc
  .tuple(
    fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 20 }),
    fc.option(fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 20 })),
  )
  .map(([leadOff, secondOff]) => {
    const away = (offsets: readonly number[]) => off(...offsets.map((by) => addDays(day('2027-03-01'), by)));
    return { lead: away(leadOff), second: secondOff && away(secondOff) };
  });
const duties = fc
  .tuple(rules, fc.integer({ min: 0, max: 8 }), fc.integer({ min: 0, max: 10 }))
  .map(([rule, leadDays, later]) => duty(rule, { leadDays, fromOn: addDays(day('2027-03-01'), later) }));

describe('by law', () => {
  it('is due on a working day of its doer, begins no later, and on no day before the duty is there', () => {
    fc.assert(
      fc.property(duties, calendars, (one, people) => {
        for (const { startOn, dueOn, doer } of between(one, people, '2027-03-01', '2027-04-30')) {
          const calendar = people[doer];
          expect(calendar && isWorkingDay(calendar, dueOn)).toBe(true);
          expect(startOn <= dueOn && startOn >= one.fromOn).toBe(true);
        }
      }),
    );
  });

  it('comes on the same days in a period as in its parts', () => {
    fc.assert(
      fc.property(duties, calendars, fc.integer({ min: 0, max: 59 }), (one, people, at) => {
        const cut = addDays(day('2027-03-01'), at);
        const parts = [...between(one, people, '2027-03-01', cut), ...between(one, people, addDays(cut, 1), '2027-04-30')];
        expect(parts).toEqual(between(one, people, '2027-03-01', '2027-04-30'));
      }),
    );
  });

  it('is done once a day at most where it has no days before', () => {
    fc.assert(
      fc.property(duties, calendars, (one, people) => {
        const days = between({ ...one, leadDays: 0 }, people, '2027-03-01', '2027-04-30').map(({ dueOn, doer }) => `${dueOn} ${doer}`);
        expect(new Set(days).size).toBe(days.length);
      }),
    );
  });

  it('spreads all of its minutes over the working days that are left', () => {
    fc.assert(
      fc.property(duties, calendars, fc.integer({ min: 1, max: 600 }), fc.integer({ min: 0, max: 60 }), (one, people, minutes, at) => {
        const todayOn = addDays(day('2027-03-01'), at);
        for (const time of between(one, people, '2027-03-01', '2027-04-30')) {
          const calendar = people[time.doer] ?? weekdays;
          const load = dutyLoad(time, minutes, time.doer, calendar, todayOn);
          const sum = load.reduce((all, row) => all + row.minutes, 0);
          expect(sum).toBe(dutyState(time, todayOn) === 'missed' ? 0 : minutes);
          for (const { on } of load) expect(isWorkingDay(calendar, on) && on >= todayOn && on <= time.dueOn).toBe(true);
        }
      }),
    );
  });
});

describe('how one time stands', () => {
  const time = { startOn: day('2027-03-03'), dueOn: day('2027-03-05') };
  it.each([
    ['2027-03-02', 'ahead'],
    ['2027-03-03', 'open'],
    ['2027-03-04', 'open'],
    ['2027-03-05', 'due'],
    ['2027-03-06', 'missed'],
  ])('on %s it is %s', (todayOn, state) => expect(dutyState(time, day(todayOn))).toBe(state));

  it('follows the date of its doer, at every hour and wherever they are', () => {
    for (let hour = 0; hour < 24; hour++) {
      const now = `2027-03-05T${String(hour).padStart(2, '0')}:30:00Z`;
      for (const zone of ['Pacific/Auckland', 'Europe/London', 'America/Los_Angeles']) {
        const todayOn = dayIn(now, zone);
        expect(dutyState(time, todayOn)).toBe(todayOn < '2027-03-05' ? 'open' : todayOn === '2027-03-05' ? 'due' : 'missed');
      }
    }
  });
});

describe('days on which nobody does it', () => {
  it('are said where the other side works, and nobody of the two does', () => {
    const lead = off('2027-03-09', '2027-03-10');
    const daily = duty('FREQ=DAILY');
    const asked = [day('2027-03-06'), day('2027-03-12')] as const;
    expect(uncoveredDays(daily, { lead, second: null }, weekdays, ...asked)).toEqual(['2027-03-09', '2027-03-10']);
    expect(uncoveredDays(daily, { lead, second: off('2027-03-10') }, weekdays, ...asked)).toEqual(['2027-03-10']);
    // somebody who never works covers nothing
    const never = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });
    expect(uncoveredDays(daily, { lead: never, second: null }, weekdays, ...asked)).toHaveLength(5);
    // with a day to do it in, the day before is soon enough
    expect(uncoveredDays({ ...daily, leadDays: 1 }, { lead, second: null }, weekdays, ...asked)).toEqual(['2027-03-10']);
  });
});

describe('the load of one time', () => {
  it('puts what divides unevenly on the first of its days, and leaves out days off', () => {
    const time: DutyDay = { on: day('2027-03-08'), startOn: day('2027-03-04'), dueOn: day('2027-03-08'), doer: 'lead' };
    expect(countWorkingDays(weekdays, time.startOn, time.dueOn)).toBe(3);
    expect(dutyLoad(time, 100, 'Ana', weekdays, day('2027-03-01'))).toEqual([
      { doer: 'Ana', on: '2027-03-04', minutes: 34 },
      { doer: 'Ana', on: '2027-03-05', minutes: 33 },
      { doer: 'Ana', on: '2027-03-08', minutes: 33 },
    ]);
    expect(dutyLoad(time, 100, 'Ana', weekdays, day('2027-03-06'))).toEqual([{ doer: 'Ana', on: '2027-03-08', minutes: 100 }]);
  });

  it('is due where counting working days backwards puts it', () => {
    const lead = off('2027-03-26');
    const sought: Day = getValue(workingDayOnOrBefore(lead, day('2027-03-28')));
    expect(between(duty('FREQ=WEEKLY;BYDAY=SU'), { lead, second: null }, '2027-03-28', '2027-03-28')[0]?.dueOn).toBe(sought);
  });
});
