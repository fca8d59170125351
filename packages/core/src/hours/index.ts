import { minutesBetween, type InstantText } from '../time/index.js';

/** A clock that ran for longer was forgotten: then somebody says how long it was (common practice). */
export const LONGEST_CLOCK_MINUTES = 12 * 60;

/**
 * The minutes that a clock ran: whole ones, at least one.
 * @returns null where it ran so long that it was forgotten
 */
export function clockMinutes(fromAt: InstantText, untilAt: InstantText): number | null {
  const minutes = Math.max(1, Math.round(minutesBetween(fromAt, untilAt)));
  return minutes > LONGEST_CLOCK_MINUTES ? null : minutes;
}

/** What is left of a step after some minutes of work: never less than nothing. @param left what was left before */
export const leftAfter = (left: number, minutes: number): number => Math.max(0, left - minutes);
