import { Temporal } from 'temporal-polyfill';
import { addDays, compareInstants, dayIn, timeIn, toInstantAfterGap, type InstantText, type TimeOfDay } from '../time/index.js';

/** How often a person's messages go out. */
export const ROUND_UP_RHYTHMS = ['at_once', 'hourly', 'daily'] as const;
export type RoundUpRhythm = (typeof ROUND_UP_RHYTHMS)[number];

export interface RoundUpSetting {
  readonly rhythm: RoundUpRhythm;
  /** the wall-clock time of the daily round-up in the person's zone */
  readonly at: TimeOfDay;
  readonly zone: string;
  /** messages that come up between these times of the person's day wait for the second; the same twice, or none: no such hours */
  readonly quiet?: QuietHours;
}

/** Hours of a person's day in which nothing is sent; `from` later than `to` goes over midnight. */
export interface QuietHours {
  readonly from: TimeOfDay;
  readonly to: TimeOfDay;
}

/** Whether a time of day lies in the quiet hours: their beginning does, their end does not. */
export const isQuiet = ({ from, to }: QuietHours, time: TimeOfDay): boolean =>
  from <= to ? time >= from && time < to : time >= from || time < to;

/** The end of the quiet hours that an instant lies in; the instant itself outside of them. */
export function afterQuiet(at: InstantText, zone: string, quiet: QuietHours): InstantText {
  const time = timeIn(at, zone);
  if (!isQuiet(quiet, time)) return at;
  const today = dayIn(at, zone);
  return toInstantAfterGap(time < quiet.to ? today : addDays(today, 1), quiet.to, zone);
}

/**
 * When a message that comes up at `now` goes out: after `quietSeconds` (so that what belongs to one hand-off goes together), at
 * the next full hour of the person's zone, or at the next daily time; the first two wait for the end of quiet hours. A daily time that the clock jumps over moves to the first after it.
 * @param quietSeconds whole seconds, for *at once* only
 * @returns an instant later than `now`
 */
export function roundUpAt(setting: RoundUpSetting, now: InstantText, quietSeconds: number): InstantText {
  const instant = Temporal.Instant.from(now);
  const awake = (at: InstantText): InstantText => (setting.quiet ? afterQuiet(at, setting.zone, setting.quiet) : at);
  switch (setting.rhythm) {
    case 'at_once':
      return awake(instant.add({ seconds: quietSeconds }).toString());
    case 'hourly':
      return awake(nextFullHour(instant, setting.zone).toString());
    case 'daily': {
      const today = dayIn(now, setting.zone);
      const next = toInstantAfterGap(today, setting.at, setting.zone);
      return compareInstants(next, now) > 0 ? next : toInstantAfterGap(addDays(today, 1), setting.at, setting.zone);
    }
  }
}

/** The next instant at which the zone's clock shows a full hour. Where clocks change by half an hour on the way, it is found again from there. */
function nextFullHour(instant: Temporal.Instant, zone: string): Temporal.Instant {
  const minuteOf = (at: Temporal.Instant) => at.toZonedDateTimeISO(zone).minute;
  const whole = instant.round({ smallestUnit: 'minute', roundingMode: 'floor' });
  let next = whole.add({ minutes: 60 - minuteOf(whole) });
  if (minuteOf(next) !== 0) next = next.add({ minutes: 60 - minuteOf(next) });
  return next;
}

/** Where a value moved from and to, before anybody was told. */
export interface Moved {
  readonly from: string;
  readonly to: string;
}

/**
 * Joins a move to one that still waits to be told: the first *from* stays.
 * @returns null when the value is back where it was: then there is nothing to tell
 */
export function joinMoves(waiting: Moved | null, next: Moved): Moved | null {
  const joined = { from: waiting?.from ?? next.from, to: next.to };
  return joined.from === joined.to ? null : joined;
}
