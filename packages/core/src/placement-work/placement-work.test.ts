import fc from 'fast-check';
import { addDays, getDay, type Day } from '../time/index.js';
import { isWorkingDay, MONDAY_TO_FRIDAY, toCalendar } from '../workdays/index.js';
import { placementWorkDays, type PlacementWorkRule } from './index.js';

const day = (text: string): Day => getDay(text);
const weekdays = toCalendar({ weeklyMinutes: [...MONDAY_TO_FRIDAY] });
const never = toCalendar({ weeklyMinutes: [0, 0, 0, 0, 0, 0, 0] });
const rule = (given: Partial<PlacementWorkRule>): PlacementWorkRule => ({ kind: 'enter', days: 0, forDays: 1, ...given });

describe('what is done around a placement', () => {
  // 16 March 2027 is a Tuesday, 20 March a Saturday
  it.each([
    // the design's worked example: publish Tue 16 Mar, enter one day before it: Mon 15
    ['enter the day before', rule({ days: 1 }), '2027-03-16', ['2027-03-15']],
    ['enter on the day', rule({}), '2027-03-16', ['2027-03-16']],
    ['enter for a Saturday', rule({}), '2027-03-20', ['2027-03-19']],
    ['enter the day before a Monday', rule({ days: 1 }), '2027-03-15', ['2027-03-12']],
    ['follow up on a weekday', rule({ kind: 'follow_up', days: 2 }), '2027-03-16', ['2027-03-18']],
    ['follow up on a Saturday', rule({ kind: 'follow_up', days: 4 }), '2027-03-16', ['2027-03-22']],
    [
      'answer for a week',
      rule({ kind: 'follow_up', forDays: 7 }),
      '2027-03-19',
      ['2027-03-19', '2027-03-22', '2027-03-23', '2027-03-24', '2027-03-25'],
    ],
    ['answer over a weekend', rule({ kind: 'follow_up', days: 1, forDays: 2 }), '2027-03-19', ['2027-03-22']],
  ])('%s', (_, given, on, expected) => expect(placementWorkDays(given, day(on), weekdays)).toEqual(expected));

  it('is nobody’s in particular on any day of the week, and somebody’s who never works on its own day', () => {
    const week = rule({ kind: 'follow_up', forDays: 3 });
    expect(placementWorkDays(week, day('2027-03-19'), null)).toEqual(['2027-03-19', '2027-03-20', '2027-03-21']);
    expect(placementWorkDays(week, day('2027-03-19'), never)).toEqual(['2027-03-19']);
    expect(placementWorkDays(rule({ days: 2 }), day('2027-03-20'), never)).toEqual(['2027-03-18']);
    expect(placementWorkDays(rule({}), day('2027-03-20'), null)).toEqual(['2027-03-20']);
  });

  it('by law: entering is never after the placement’s day, following up never before, and both on working days', () => {
    const anyRule = fc.record({
      kind: fc.constantFrom('enter' as const, 'follow_up' as const),
      days: fc.nat({ max: 60 }),
      forDays: fc.integer({ min: 1, max: 30 }),
    });
    fc.assert(
      fc.property(anyRule, fc.nat({ max: 3000 }), (given, after) => {
        const on = addDays(day('2024-01-01'), after);
        const days = placementWorkDays(given, on, weekdays);
        expect(days.length).toBeGreaterThan(0);
        expect(days).toEqual([...new Set(days)].sort());
        for (const one of days) {
          expect(isWorkingDay(weekdays, one)).toBe(true);
          expect(given.kind === 'enter' ? one <= addDays(on, -given.days) : one >= addDays(on, given.days)).toBe(true);
        }
      }),
    );
  });
});
