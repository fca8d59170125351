import { getDay } from '../time/index.js';
import { MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { answerClock, pausesOf, type Pause } from './clock.js';

/** March 2027 begins on a Monday; Friday the 5th is a holiday here. */
const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays: [getDay('2027-03-05')] });
const clock = (todayOn: string, pauses: readonly Pause[] = [], promisedDays = 2) =>
  answerClock(getDay('2027-03-03'), getDay(todayOn), { pauses, calendar, promisedDays });
const pause = (from: string, to: string | null): Pause => ({ from: getDay(from), to: to === null ? null : getDay(to) });

describe('how long a request waits', () => {
  it('counts working days after the day on which it came', () => {
    expect(clock('2027-03-03')).toEqual({ ageDays: 0, dueOn: '2027-03-08', isLate: false });
    expect(clock('2027-03-08')).toEqual({ ageDays: 2, dueOn: '2027-03-08', isLate: false });
    expect(clock('2027-03-09')).toEqual({ ageDays: 3, dueOn: '2027-03-08', isLate: true });
  });

  it('promises nothing where nothing was promised', () => {
    expect(clock('2027-03-19', [], 0)).toEqual({ ageDays: 11, dueOn: null, isLate: false });
  });

  it('stands while the requester owes an answer, and goes on on the day after it came', () => {
    expect(clock('2027-03-12', [pause('2027-03-04', null)])).toEqual({ ageDays: 1, dueOn: null, isLate: false });
    expect(clock('2027-03-12', [pause('2027-03-04', '2027-03-10')])).toEqual({ ageDays: 3, dueOn: '2027-03-11', isLate: true });
    // asked and answered on one day: nothing was lost
    expect(clock('2027-03-08', [pause('2027-03-04', '2027-03-04')])).toEqual({ ageDays: 2, dueOn: '2027-03-08', isLate: false });
  });

  it('owes from the first question until something is said', () => {
    const said = (author: 'agency' | 'requester', on: string) => ({ author, on: getDay(on) });
    expect(
      pausesOf([
        said('requester', '2027-03-02'),
        said('agency', '2027-03-03'),
        said('agency', '2027-03-04'),
        said('requester', '2027-03-08'),
        said('requester', '2027-03-09'),
        said('agency', '2027-03-10'),
      ]),
    ).toEqual([pause('2027-03-03', '2027-03-08'), pause('2027-03-10', null)]);
    expect(pausesOf([])).toEqual([]);
  });
});
