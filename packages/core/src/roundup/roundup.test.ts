import fc from 'fast-check';
import { compareInstants, getTimeOfDay, timeIn } from '../time/index.js';
import { afterQuiet, isQuiet, joinMoves, ROUND_UP_RHYTHMS, roundUpAt, type RoundUpSetting } from './index.js';

const setting = (rhythm: RoundUpSetting['rhythm'], zone: string, at = '08:00'): RoundUpSetting => ({ rhythm, zone, at: getTimeOfDay(at) });

describe('when a round-up goes out', () => {
  it('is after a quiet moment, for those who want it at once', () => {
    expect(roundUpAt(setting('at_once', 'Europe/London'), '2027-03-01T09:00:00Z', 20)).toBe('2027-03-01T09:00:20Z');
  });

  it('is at the next full hour of the person’s own zone, half-hour zones too', () => {
    expect(roundUpAt(setting('hourly', 'Europe/London'), '2027-03-01T09:00:00Z', 20)).toBe('2027-03-01T10:00:00Z');
    expect(roundUpAt(setting('hourly', 'Asia/Kolkata'), '2027-03-01T09:10:00Z', 20)).toBe('2027-03-01T09:30:00Z'); // 15:00 there
  });

  it('is at the daily time, today while it is to come, else tomorrow', () => {
    const auckland = setting('daily', 'Pacific/Auckland'); // UTC+13 in March
    expect(roundUpAt(auckland, '2027-03-01T18:59:00Z', 20)).toBe('2027-03-01T19:00:00Z');
    expect(roundUpAt(auckland, '2027-03-01T19:00:00Z', 20)).toBe('2027-03-02T19:00:00Z');
  });

  it('keeps the wall-clock time across a clock change, and moves a time that is jumped over to the first after it', () => {
    const london = setting('daily', 'Europe/London'); // clocks go forward on 28 March 2027 at 01:00
    expect(roundUpAt(london, '2027-03-27T09:00:00Z', 20)).toBe('2027-03-28T07:00:00Z');
    expect(roundUpAt(setting('daily', 'Europe/London', '01:30'), '2027-03-27T09:00:00Z', 20)).toBe('2027-03-28T01:30:00Z');
  });

  it('always lies ahead, never more than a day and an hour', () => {
    const zones = fc.constantFrom('Europe/London', 'Pacific/Auckland', 'America/Los_Angeles', 'Asia/Kathmandu');
    fc.assert(
      fc.property(fc.constantFrom(...ROUND_UP_RHYTHMS), zones, fc.integer({ min: 0, max: 365 * 24 * 60 }), (rhythm, zone, minutes) => {
        const now = new Date(Date.UTC(2027, 0, 1) + minutes * 60_000).toISOString();
        const at = roundUpAt(setting(rhythm, zone), now, 20);
        expect(compareInstants(at, now)).toBeGreaterThan(0);
        expect(Date.parse(at) - Date.parse(now)).toBeLessThanOrEqual(25 * 3_600_000);
      }),
    );
  });
});

describe('quiet hours', () => {
  const night = { from: getTimeOfDay('20:00'), to: getTimeOfDay('08:00') };
  const quiet = (rhythm: RoundUpSetting['rhythm'], zone: string, hours = night) => ({ ...setting(rhythm, zone), quiet: hours });

  it('hold back what comes up in them until their end, over midnight too', () => {
    expect(roundUpAt(quiet('at_once', 'Europe/London'), '2027-03-01T19:59:30Z', 20)).toBe('2027-03-01T19:59:50Z');
    expect(roundUpAt(quiet('at_once', 'Europe/London'), '2027-03-01T19:59:45Z', 20)).toBe('2027-03-02T08:00:00Z');
    expect(roundUpAt(quiet('at_once', 'Europe/London'), '2027-03-02T02:00:00Z', 20)).toBe('2027-03-02T08:00:00Z');
    expect(roundUpAt(quiet('hourly', 'Europe/London'), '2027-03-01T19:10:00Z', 20)).toBe('2027-03-02T08:00:00Z');
    expect(
      roundUpAt(quiet('at_once', 'Europe/London', { from: getTimeOfDay('12:00'), to: getTimeOfDay('13:00') }), '2027-03-01T12:30:00Z', 20),
    ).toBe('2027-03-01T13:00:00Z');
  });

  it('are none when they begin as they end, and do not move the time that somebody chose for the day', () => {
    const none = { from: getTimeOfDay('08:00'), to: getTimeOfDay('08:00') };
    expect(roundUpAt(quiet('at_once', 'Europe/London', none), '2027-03-01T02:00:00Z', 20)).toBe('2027-03-01T02:00:20Z');
    expect(roundUpAt({ ...quiet('daily', 'Europe/London'), at: getTimeOfDay('06:30') }, '2027-03-01T02:00:00Z', 20)).toBe(
      '2027-03-01T06:30:00Z',
    );
  });

  it('end at a time outside of them, however they lie and wherever it is', () => {
    const times = fc
      .integer({ min: 0, max: 95 })
      .map((quarter) => getTimeOfDay(`${String(Math.floor(quarter / 4)).padStart(2, '0')}:${String((quarter % 4) * 15).padStart(2, '0')}`));
    const zones = fc.constantFrom('Europe/London', 'Pacific/Auckland', 'America/Los_Angeles', 'Australia/Lord_Howe');
    fc.assert(
      fc.property(times, times, zones, fc.integer({ min: 0, max: 365 * 24 * 60 }), (from, to, zone, minutes) => {
        const now = new Date(Date.UTC(2027, 0, 1) + minutes * 60_000).toISOString();
        const at = afterQuiet(now, zone, { from, to });
        expect(compareInstants(at, now)).toBeGreaterThanOrEqual(0);
        expect(Date.parse(at) - Date.parse(now)).toBeLessThanOrEqual(25 * 3_600_000);
        // a clock change may put the end itself into the hour that is jumped over or comes twice
        if (Date.parse(at) !== Date.parse(now) && timeIn(at, zone) === to) expect(isQuiet({ from, to }, timeIn(at, zone))).toBe(false);
        if (Date.parse(at) === Date.parse(now)) expect(isQuiet({ from, to }, timeIn(now, zone))).toBe(false);
      }),
    );
  });
});

describe('moves before anybody was told', () => {
  it('join to one, and cancel out when the value is back', () => {
    const first = joinMoves(null, { from: 'Mon', to: 'Tue' });
    expect(first).toEqual({ from: 'Mon', to: 'Tue' });
    expect(joinMoves(first, { from: 'Tue', to: 'Wed' })).toEqual({ from: 'Mon', to: 'Wed' });
    expect(joinMoves(first, { from: 'Tue', to: 'Mon' })).toBeNull();
  });
});

describe('hourly where clocks change by half an hour', () => {
  // Lord Howe Island goes back from 02:00 to 01:30 on 4 April 2027 (IANA tz database)
  const hourly = setting('hourly', 'Australia/Lord_Howe');

  it('is the next full hour after now, on every minute of the night', () => {
    for (let minute = 0; minute < 240; minute++) {
      const now = new Date(Date.UTC(2027, 3, 3, 13, minute)).toISOString();
      const at = roundUpAt(hourly, now, 0);
      expect(Date.parse(at)).toBeGreaterThan(Date.parse(now));
      expect(Date.parse(at) - Date.parse(now)).toBeLessThanOrEqual(90 * 60_000);
      expect(timeIn(at, hourly.zone).slice(3)).toBe('00');
    }
  });
});
