import * as formula from '@formulajs/formulajs';
import fc from 'fast-check';
import { addDays, fromDayNumber, getDay, toDayNumber, weekdayOf, type Day } from '../time/index.js';
import { getValue } from '../result/index.js';
import {
  addWorkingDays,
  bothCalendars,
  countWorkingDays,
  isWorkingDay,
  minutesOn,
  MONDAY_TO_FRIDAY,
  toCalendar,
  workingDayBefore,
  workingDayOnOrAfter,
  workingDayOnOrBefore,
} from './index.js';

const d = getDay;
const someDay = fc.integer({ min: 18262, max: 24837 }).map(fromDayNumber); // 2020 to 2037

describe('a working calendar', () => {
  const calendar = toCalendar({
    weeklyMinutes: [480, 480, 240, 480, 480, 0, 0],
    holidays: [d('2027-03-26'), d('2027-03-29')],
    timeOff: [
      { startOn: d('2027-03-04'), endOn: d('2027-03-05') },
      { startOn: d('2027-03-09'), endOn: d('2027-03-09'), part: 0.5 },
    ],
    worked: [{ on: d('2027-03-13'), minutes: 180 }],
  });

  it('counts a half day as a working day with half its hours', () => {
    expect(minutesOn(calendar, d('2027-03-09'))).toBe(240);
    expect(isWorkingDay(calendar, d('2027-03-09'))).toBe(true);
  });

  it('takes away holidays and time off, and adds worked exceptions', () => {
    expect(['2027-03-04', '2027-03-05', '2027-03-26', '2027-03-13', '2027-03-14'].map((day) => minutesOn(calendar, d(day)))).toEqual([
      0, 0, 0, 180, 0,
    ]);
  });

  it('treats two half days off on one date as a day off', () => {
    const twice = toCalendar({
      weeklyMinutes: MONDAY_TO_FRIDAY,
      timeOff: [
        { startOn: d('2027-03-09'), endOn: d('2027-03-09'), part: 0.5 },
        { startOn: d('2027-03-09'), endOn: d('2027-03-09'), part: 0.5 },
      ],
    });
    expect(isWorkingDay(twice, d('2027-03-09'))).toBe(false);
  });

  it('takes an absence for good, or of a long time ago, as the span that it is', () => {
    const away = toCalendar({
      weeklyMinutes: MONDAY_TO_FRIDAY,
      timeOff: [
        { startOn: d('0001-01-01'), endOn: d('2020-12-31') },
        { startOn: d('2027-03-10'), endOn: d('9999-12-31') },
        { startOn: d('2027-03-04'), endOn: d('2027-03-09'), part: 0.5 },
      ],
    });
    expect(
      ['2020-12-31', '2021-01-01', '2027-03-03', '2027-03-04', '2027-03-09', '2027-03-10', '9999-12-30'].map((day) =>
        minutesOn(away, d(day)),
      ),
    ).toEqual([0, 480, 480, 240, 240, 0, 0]);
    expect(addWorkingDays(away, d('2027-03-09'), 1)).toEqual({ ok: false, failure: { code: 'workdays.none_in_reach' } });
  });

  it('loses the same share as the sum over its absences, day by day', () => {
    const span = fc.record({
      start: fc.integer({ min: 0, max: 60 }),
      length: fc.integer({ min: 0, max: 20 }),
      part: fc.constantFrom(0.5, 1),
    });
    fc.assert(
      fc.property(fc.array(span, { maxLength: 8 }), fc.array(fc.integer({ min: -5, max: 90 }), { maxLength: 30 }), (spans, asked) => {
        const first = d('2027-03-01');
        const reckoned = toCalendar({
          weeklyMinutes: Array(7).fill(100),
          timeOff: spans.map(({ start, length, part }) => ({
            startOn: addDays(first, start),
            endOn: addDays(first, start + length),
            part,
          })),
        });
        for (const offset of asked) {
          const lost = spans
            .filter(({ start, length }) => offset >= start && offset <= start + length)
            .reduce((sum, { part }) => sum + part, 0);
          expect(minutesOn(reckoned, addDays(first, offset))).toBe(Math.round(100 * (1 - Math.min(1, lost))));
        }
      }),
    );
  });

  it('works on days when both parties work', () => {
    const other = toCalendar({ weeklyMinutes: [480, 480, 480, 480, 480, 0, 0], holidays: [d('2027-03-10')] });
    expect(countWorkingDays(bothCalendars(calendar, other), d('2027-03-08'), d('2027-03-14'))).toBe(4);
  });

  it('says so when ten years hold no working day', () => {
    expect(addWorkingDays(toCalendar({ weeklyMinutes: [] }), d('2027-03-16'), 1)).toEqual({
      ok: false,
      failure: { code: 'workdays.none_in_reach' },
    });
  });

  it('leaves the start unchanged for 0 days, working day or not', () => {
    expect(getValue(addWorkingDays(calendar, d('2027-03-14'), 0))).toBe('2027-03-14');
  });
});

describe('against @formulajs/formulajs, NETWORKDAYS and WORKDAY of OpenDocument 1.3 part 4', () => {
  const asDate = (day: Day) => new Date(`${day}T00:00:00`);
  const asDay = (date: Date) =>
    getDay(`${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`);
  const holidayLists = fc.uniqueArray(fc.integer({ min: 0, max: 120 }), { maxLength: 8 });

  it('counts as NETWORKDAYS does', () => {
    fc.assert(
      fc.property(someDay, fc.integer({ min: 0, max: 120 }), holidayLists, (start, length, offsets) => {
        const holidays = offsets.map((offset) => addDays(start, offset));
        const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays });
        const end = addDays(start, length);
        expect(countWorkingDays(calendar, start, end)).toBe(formula.NETWORKDAYS(asDate(start), asDate(end), holidays.map(asDate)));
      }),
      { numRuns: 300 },
    );
  });

  it('adds and subtracts as WORKDAY does', () => {
    fc.assert(
      fc.property(someDay, fc.integer({ min: 1, max: 60 }), holidayLists, (start, count, offsets) => {
        const holidays = offsets.map((offset) => addDays(start, offset));
        const calendar = toCalendar({ weeklyMinutes: MONDAY_TO_FRIDAY, holidays });
        const expected: unknown = formula.WORKDAY(asDate(start), count, holidays.map(asDate));
        if (!(expected instanceof Date)) throw new Error('the reference gave no date');
        expect(getValue(addWorkingDays(calendar, start, count))).toBe(asDay(expected));
      }),
      { numRuns: 300 },
    );
  });
});

describe('laws', () => {
  const anyCalendar = fc
    .record({
      weeklyMinutes: fc.array(fc.constantFrom(0, 240, 480), { minLength: 7, maxLength: 7 }).filter((week) => week.some((m) => m > 0)),
      holidays: fc.array(someDay, { maxLength: 20 }),
    })
    .map(toCalendar);

  it('goes there and back from a working day', () => {
    fc.assert(
      fc.property(anyCalendar, someDay, fc.integer({ min: -40, max: 40 }), (calendar, day, count) => {
        const start = getValue(workingDayOnOrAfter(calendar, day));
        expect(getValue(addWorkingDays(calendar, getValue(addWorkingDays(calendar, start, count)), -count))).toBe(start);
      }),
    );
  });

  it('keeps order: a later start never gives an earlier end', () => {
    fc.assert(
      fc.property(
        anyCalendar,
        someDay,
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: -20, max: 20 }),
        (calendar, day, later, count) => {
          expect(getValue(addWorkingDays(calendar, addDays(day, later), count)) >= getValue(addWorkingDays(calendar, day, count))).toBe(
            true,
          );
        },
      ),
    );
  });

  it('finds the neighbours on the right side', () => {
    fc.assert(
      fc.property(anyCalendar, someDay, (calendar, day) => {
        expect(getValue(workingDayBefore(calendar, day)) < day).toBe(true);
        expect(getValue(workingDayOnOrBefore(calendar, day)) <= day).toBe(true);
        expect(getValue(workingDayOnOrAfter(calendar, day)) >= day).toBe(true);
      }),
    );
  });

  it('numbers days and weekdays without a gap', () => {
    fc.assert(
      fc.property(someDay, (day) => {
        expect(fromDayNumber(toDayNumber(day))).toBe(day);
        expect(weekdayOf(day)).toBe(new Date(`${day}T12:00:00Z`).getUTCDay() || 7);
      }),
    );
  });
});
