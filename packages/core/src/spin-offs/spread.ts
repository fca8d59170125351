import { ok, type Result } from '../result/index.js';
import { addDays, daysBetween, type Day } from '../time/index.js';
import { addWorkingDays, type NoneInReach, type WorkCalendar } from '../workdays/index.js';

export const OFFSET_UNITS = ['days', 'working_days'] as const;

/** When an output is published, from its source's day: negative before it, 0 on it. */
export interface Offset {
  readonly count: number;
  readonly unit: (typeof OFFSET_UNITS)[number];
}

/** So far from its source an output may lie, in days or working days. */
export const OFFSET_MOST = 365;

/** The day of an output. @param calendar of the client, by which working days count; @param sourceOn counted from, need not be a working day */
export const offsetDay = (calendar: WorkCalendar, sourceOn: Day, { count, unit }: Offset): Result<Day, NoneInReach> =>
  unit === 'days' ? ok(addDays(sourceOn, count)) : addWorkingDays(calendar, sourceOn, count);

/** A source's move. */
export interface SourceMove {
  readonly from: Day;
  readonly to: Day;
}

/**
 * Where an output goes that moves along with its source: one that stands where its offset says goes where it says then; one that was put
 * elsewhere by hand moves by as many days.
 */
export function dayAlong(calendar: WorkCalendar, offset: Offset, { from, to }: SourceMove, on: Day): Result<Day, NoneInReach> {
  const [was, next] = [offsetDay(calendar, from, offset), offsetDay(calendar, to, offset)];
  return was.ok && next.ok && was.value === on ? next : ok(addDays(on, daysBetween(from, to)));
}

/** A stretch of a long clip, in whole seconds from its beginning. */
export interface ClipTimes {
  readonly from: number;
  readonly to: number;
}

/** Whether it is a stretch at all: it ends after it begins. */
export const areClipTimes = ({ from, to }: ClipTimes): boolean => to > from;

/** A time in a clip as it is written: `m:ss`, from an hour on `h:mm:ss`. @param seconds whole, from 0 */
export function clipTime(seconds: number): string {
  const two = (value: number) => String(value).padStart(2, '0');
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** Reads a time in a clip: `75`, `1:15`, `0:01:15`. Undefined where it is none. */
export function readClipTime(text: string): number | undefined {
  const parts = text.trim().split(':');
  if (parts.length > 3 || parts.some((part) => !/^\d{1,5}$/.test(part))) return undefined;
  const numbers = parts.map(Number);
  if (numbers.slice(1).some((value) => value > 59)) return undefined;
  return numbers.reduce((sum, value) => sum * 60 + value, 0);
}

/** How much of what was chosen is there. */
export interface Coverage {
  readonly covered: number;
  readonly chosen: number;
  /** chosen channels that have nothing yet */
  readonly missing: readonly string[];
}

/**
 * On how many of the chosen channels a source is seen, by itself or by what was made from it.
 * @param chosen ids; each counts once
 * @param covered ids of channels on which something of it stands
 */
export function coverageOf(chosen: readonly string[], covered: readonly string[]): Coverage {
  const all = [...new Set(chosen)];
  const there = new Set(covered);
  const missing = all.filter((id) => !there.has(id));
  return { covered: all.length - missing.length, chosen: all.length, missing };
}
