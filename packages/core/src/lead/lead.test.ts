import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { leadStanding, prepareOn, USUAL_LEAD, monthsToStart } from './index.js';

const today = getDay('2027-03-01');
const standing = (on: string, lead: number, earliest: string | null) => leadStanding(getDay(on), lead, today, earliest as Day | null);

it('preparation begins so many days before the date: ninety for a launch, thirty as a rule (common practice)', () => {
  expect(prepareOn(getDay('2027-06-01'), USUAL_LEAD['launch'] ?? 0)).toBe('2027-03-03');
  expect(prepareOn(getDay('2027-03-31'), USUAL_LEAD['event'] ?? 0)).toBe(today);
});

it('a date is ahead until its preparation begins, then now, tight where it can only just be ready, and too late where it cannot', () => {
  expect(standing('2027-04-01', 30, '2027-03-10')).toBe('ahead');
  expect(standing('2027-03-31', 30, '2027-03-10')).toBe('now');
  expect(standing('2027-03-31', 30, null)).toBe('now');
  expect(standing('2027-03-12', 30, '2027-03-10')).toBe('now');
  expect(standing('2027-03-11', 30, '2027-03-10')).toBe('tight');
  expect(standing('2027-03-10', 30, '2027-03-10')).toBe('tight');
  expect(standing('2027-03-09', 30, '2027-03-10')).toBe('too_late');
  expect(standing('2027-02-28', 30, '2027-03-10')).toBe('past');
  expect(standing('2027-03-01', 30, null)).toBe('now'); // today
});

it('never gets better as days go by', () => {
  const order = ['ahead', 'now', 'tight', 'too_late', 'past'];
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 120 }),
      fc.integer({ min: 0, max: 100 }),
      fc.integer({ min: 0, max: 20 }),
      fc.integer({ min: 0, max: 60 }),
      (away, lead, takes, later) => {
        const on = addDays(today, away);
        const at = (day: Day) => order.indexOf(leadStanding(on, lead, day, addDays(day, takes)));
        expect(at(addDays(today, later))).toBeGreaterThanOrEqual(at(today));
      },
    ),
  );
});

describe('months that should be under way', () => {
  it('are this one and what begins within thirty days, less what was started', () => {
    const months = (on: string, ...started: string[]) => monthsToStart(getDay(on), new Set(started)).map(({ month }) => month);
    expect(months('2027-03-01')).toEqual(['2027-03']); // April is 31 days off
    expect(months('2027-03-02')).toEqual(['2027-03', '2027-04']);
    expect(months('2027-01-30')).toEqual(['2027-01', '2027-02', '2027-03']); // February is short
    expect(months('2027-12-15', '2027-12')).toEqual(['2028-01']);
    expect(monthsToStart(getDay('2027-03-02'), new Set())).toEqual([
      { month: '2027-03', hasBegun: true },
      { month: '2027-04', hasBegun: false },
    ]);
  });
});
