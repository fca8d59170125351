import fc from 'fast-check';
import { getValue } from '../result/index.js';
import {
  addDays,
  compareInstants,
  dayIn,
  dayInWords,
  readTimeOfDay,
  daysBetween,
  fromDayNumber,
  getDay,
  getTimeOfDay,
  isZone,
  earlierOf,
  laterOf,
  parseDay,
  parseTimeOfDay,
  timeIn,
  toDayNumber,
  toInstant,
  toInstantAfterGap,
  weekdayOf,
} from './index.js';

describe('a day', () => {
  it.each(['2027-02-29', '2027-13-01', '2027-04-31', '2027-4-3', '27-04-03', '2027-04-03T00:00', '', 'tomorrow'])('is not “%s”', (text) => {
    expect(parseDay(text)).toBeUndefined();
    expect(() => getDay(text)).toThrow(RangeError);
  });

  it('counts from 1970-01-01, a Thursday, over leap days and the other way', () => {
    expect(toDayNumber(getDay('1970-01-01'))).toBe(0);
    expect(weekdayOf(getDay('1970-01-01'))).toBe(4);
    expect(toDayNumber(getDay('1969-12-31'))).toBe(-1);
    expect(weekdayOf(getDay('1969-12-31'))).toBe(3);
    expect(daysBetween(getDay('2028-02-28'), getDay('2028-03-01'))).toBe(2);
    expect(daysBetween(getDay('2100-02-28'), getDay('2100-03-01'))).toBe(1); // 2100 is no leap year
    expect(daysBetween(getDay('2027-03-02'), getDay('2027-03-01'))).toBe(-1);
    expect(addDays(getDay('2027-12-31'), 1)).toBe('2028-01-01');
  });

  it('agrees with the runtime’s own calendar (ECMAScript Date in UTC) over four centuries, there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -80_000, max: 80_000 }), (number) => {
        const day = fromDayNumber(number);
        const reference = new Date(number * 86_400_000);
        expect(day).toBe(reference.toISOString().slice(0, 10));
        expect(weekdayOf(day)).toBe(reference.getUTCDay() || 7);
        expect(toDayNumber(day)).toBe(number);
        expect(parseDay(day)).toBe(day);
      }),
    );
  });

  it('stands in words in letters', () => {
    expect(dayInWords(getDay('2027-03-16'))).toBe('Tuesday 16 March 2027');
    expect(laterOf(getDay('2027-03-16'), getDay('2027-03-09'))).toBe('2027-03-16');
    expect(earlierOf(getDay('2027-03-16'), getDay('2027-03-09'))).toBe('2027-03-09');
  });
});

describe('a time of day', () => {
  it.each(['24:00', '9:00', '09:60', '09:00:00', '', 'noon'])('is not “%s”', (text) => {
    expect(parseTimeOfDay(text)).toBeUndefined();
    expect(() => getTimeOfDay(text)).toThrow(RangeError);
  });
});

describe('zones', () => {
  it('knows IANA names only', () => {
    expect([isZone('Pacific/Auckland'), isZone('UTC'), isZone('Moon/Base'), isZone('')]).toEqual([true, true, false, false]);
  });

  /** Transitions of the IANA time zone database: spring forward and fall back, both hemispheres, half an hour on Lord Howe Island. */
  it.each([
    ['Europe/London', '2027-03-28', '01:30', '02:30', '2027-10-31', '01:30'],
    ['America/New_York', '2027-03-14', '02:30', '03:30', '2027-11-07', '01:30'],
    ['Pacific/Auckland', '2027-09-26', '02:30', '03:30', '2027-04-04', '02:30'],
    ['Australia/Lord_Howe', '2027-10-03', '02:15', '02:45', '2027-04-04', '01:45'],
  ])(
    'refuses the gap of %s on %s, moves on by it where nobody typed the time, and takes the first of a time that comes twice',
    (zone, gapOn, gapAt, movedTo, twiceOn, twiceAt) => {
      const [gap, twice] = [getDay(gapOn), getDay(twiceOn)];
      expect(toInstant(gap, getTimeOfDay(gapAt), zone)).toEqual({ ok: false, failure: { code: 'time.in_gap' } });
      const moved = toInstantAfterGap(gap, getTimeOfDay(gapAt), zone);
      expect([dayIn(moved, zone), timeIn(moved, zone)]).toEqual([gapOn, movedTo]);
      const first = getValue(toInstant(twice, getTimeOfDay(twiceAt), zone));
      expect(toInstantAfterGap(twice, getTimeOfDay(twiceAt), zone)).toBe(first);
      expect(timeIn(first, zone)).toBe(twiceAt);
      const again = [30, 60].map((minutes) => new Date(Date.parse(first) + minutes * 60_000).toISOString());
      expect(again.map((instant) => timeIn(instant, zone))).toContain(twiceAt); // and it does come again
    },
  );

  it('goes there and back, and agrees with the runtime’s Intl on what the clock on the wall says', () => {
    const zones = ['Europe/London', 'America/Los_Angeles', 'Pacific/Auckland', 'Asia/Kathmandu', 'Pacific/Apia', 'Africa/Casablanca'];
    fc.assert(
      fc.property(fc.constantFrom(...zones), fc.integer({ min: 1_700_000_000, max: 2_000_000_000 }), (zone, seconds) => {
        const date = new Date(Math.floor(seconds / 60) * 60_000);
        const instant = date.toISOString();
        const wall = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(date);
        expect(`${dayIn(instant, zone)} ${timeIn(instant, zone)}`).toBe(wall);
        const back = getValue(toInstant(dayIn(instant, zone), timeIn(instant, zone), zone));
        expect(compareInstants(back, instant)).toBeLessThanOrEqual(0); // the same, or the first of a time that came twice
        expect([dayIn(back, zone), timeIn(back, zone)]).toEqual([dayIn(instant, zone), timeIn(instant, zone)]);
      }),
    );
  });
});

describe('a time of day as people type it', () => {
  it.each([
    ['9', '09:00'],
    ['09', '09:00'],
    ['21', '21:00'],
    ['930', '09:30'],
    ['0930', '09:30'],
    ['2130', '21:30'],
    ['9:30', '09:30'],
    ['9.30', '09:30'],
    [' 9h30 ', '09:30'],
    ['21h', '21:00'],
    ['9 am', '09:00'],
    ['9:30pm', '21:30'],
    ['12 am', '00:00'],
    ['12:15 PM', '12:15'],
    ['24', undefined],
    ['9:60', undefined],
    ['13 pm', undefined],
    ['noon', undefined],
    ['', undefined],
    ['12345', undefined],
  ])('%s', (text, time) => expect(readTimeOfDay(text)).toBe(time));
});

describe('the order of instants', () => {
  it('is that of time, to the nanosecond and however they are written', () => {
    const ordered = [
      '2027-03-16T08:59:59Z',
      '2027-03-16T09:00:00Z',
      '2027-03-16T09:00:00.000000001Z',
      '2027-03-16T09:00:00.5Z',
      '2027-03-16T09:00:01Z',
      '+010000-01-01T00:00:00Z',
    ];
    for (const [at, one] of ordered.entries())
      for (const [other, two] of ordered.entries()) expect(compareInstants(one, two)).toBe(Math.sign(at - other));
    expect(compareInstants('2027-03-16T09:00:00.000Z', '2027-03-16T09:00:00Z')).toBe(0);
    expect(compareInstants('2027-03-16T09:00:00+01:00', '2027-03-16T08:30:00Z')).toBe(-1);
  });
});
