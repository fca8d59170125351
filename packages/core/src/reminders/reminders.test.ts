import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { isWorkingDay, MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { checkWeekOn, halfWayOn, reminderDue, type ReminderStage } from './index.js';

const week = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY });
const day = getDay;

/** Every reminder from the day it came until `days` later, as the daily run would send them. */
function runOf(cameOn: Day, dueOn: Day, days: number, calendar = week): string[] {
  const sent: ReminderStage[] = [];
  const lines: string[] = [];
  for (let offset = 0; offset <= days; offset++) {
    const todayOn = addDays(cameOn, offset);
    const stage = reminderDue({ calendar, cameOn, dueOn, todayOn, sent });
    if (stage) {
      sent.push(stage);
      lines.push(`${todayOn} ${stage}`);
    }
  }
  return lines;
}

describe('reminders', () => {
  // 2027-03-01 is a Monday
  it('come half-way, on the due day, and then to the manager', () => {
    expect(runOf(day('2027-03-01'), day('2027-03-05'), 14)).toEqual(['2027-03-03 half_way', '2027-03-05 due_day', '2027-03-08 past_due']);
  });

  it('count working days, not days: over a weekend half-way is later', () => {
    expect(runOf(day('2027-03-05'), day('2027-03-10'), 10)).toEqual(['2027-03-09 half_way', '2027-03-10 due_day', '2027-03-11 past_due']);
  });

  it('leave out half-way when there is hardly time', () => {
    expect(runOf(day('2027-03-01'), day('2027-03-02'), 4)).toEqual(['2027-03-02 due_day', '2027-03-03 past_due']);
  });

  it('wait for a day worked: a closure on the day after moves the manager’s', () => {
    const closed = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: [day('2027-03-08')] });
    expect(runOf(day('2027-03-01'), day('2027-03-05'), 14, closed).at(-1)).toBe('2027-03-09 past_due');
  });

  it('never come on a day off, never twice, never after the stage that follows', () => {
    const order: ReminderStage[] = ['half_way', 'due_day', 'past_due'];
    fc.assert(
      fc.property(fc.nat(400), fc.integer({ min: 0, max: 30 }), fc.array(fc.nat(60), { maxLength: 10 }), (start, length, off) => {
        const cameOn = addDays(day('2027-01-01'), start);
        const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: off.map((offset) => addDays(cameOn, offset)) });
        const lines = runOf(cameOn, addDays(cameOn, length), 70, calendar);
        const stages = lines.map((line) => line.slice(11) as ReminderStage); // written above
        expect(stages).toEqual(order.filter((stage) => stages.includes(stage)));
        for (const line of lines) expect(isWorkingDay(calendar, day(line.slice(0, 10)))).toBe(true);
        expect(stages.at(-1)).toBe('past_due');
        const half = halfWayOn(calendar, cameOn, addDays(cameOn, length));
        if (half) expect(half > cameOn && half < addDays(cameOn, length)).toBe(true);
      }),
    );
  });
});

describe('the check of the coming week', () => {
  it('is on its weekday, whatever day of the week it is asked on', () => {
    for (let offset = 0; offset < 7; offset++) expect(checkWeekOn(week, 4, addDays(day('2027-03-01'), offset))).toBe('2027-03-04');
    expect(checkWeekOn(week, 1, day('2027-03-07'))).toBe('2027-03-01');
    expect(checkWeekOn(week, 4, day('2027-03-08'))).toBe('2027-03-11');
  });

  it('is earlier where nobody works then, never in the week before, and not at all where nobody works before', () => {
    const off = (...holidays: string[]) => toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: holidays.map(day) });
    expect(checkWeekOn(off('2027-03-04'), 4, day('2027-03-01'))).toBe('2027-03-03');
    expect(checkWeekOn(week, 7, day('2027-03-01'))).toBe('2027-03-05');
    expect(checkWeekOn(off('2027-03-01'), 1, day('2027-03-03'))).toBeNull();
    expect(checkWeekOn(off('2027-03-01', '2027-03-02', '2027-03-03', '2027-03-04'), 4, day('2027-03-05'))).toBeNull();
  });
});
