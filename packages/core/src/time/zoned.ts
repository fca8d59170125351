import { Temporal } from 'temporal-polyfill';
import { fail, ok, type Result } from '../result/index.js';
import type { Day } from './day.js';

/** A wall-clock time `HH:MM`, 24 hours. */
export type TimeOfDay = string & { readonly timeBrand: never };

/** A point in time in UTC, written as ISO 8601 with `Z`. */
export type InstantText = string;

export function parseTimeOfDay(text: string): TimeOfDay | undefined {
  return /^([01]\d|2[0-3]):[0-5]\d$/.test(text) ? (text as TimeOfDay) : undefined; // checked by the pattern
}

/**
 * Reads a time of day as people type it: `9`, `930`, `9:30`, `9.30`, `21h`, `9:30 pm`. Undefined where it is none.
 */
export function readTimeOfDay(text: string): TimeOfDay | undefined {
  const found = /^(\d{1,2}?)(?:[:.h ]?([0-5]\d))?\s*(?:h|uhr)?\s*(am|pm)?$/i.exec(text.trim().replaceAll('.m.', 'm'));
  if (!found) return undefined;
  const [, hours = '', minutes = '00', half] = found;
  let hour = Number(hours);
  if (half) {
    if (hour < 1 || hour > 12) return undefined;
    hour = (hour % 12) + (half.toLowerCase() === 'pm' ? 12 : 0);
  }
  return parseTimeOfDay(`${String(hour).padStart(2, '0')}:${minutes}`);
}

export function getTimeOfDay(text: string): TimeOfDay {
  const time = parseTimeOfDay(text);
  if (time === undefined) throw new RangeError(`not a time of day: ${text}`);
  return time;
}

/** Whether the runtime knows the IANA zone. */
export function isZone(zone: string): boolean {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
}

/**
 * The instant of a wall-clock time in a zone, by IANA rules.
 * @returns `time.in_gap` when the clock jumps over that time; a time that comes twice means the first of the two
 */
export function toInstant(on: Day, at: TimeOfDay, zone: string): Result<InstantText, { code: 'time.in_gap' }> {
  const wall = Temporal.PlainDateTime.from(`${on}T${at}`);
  const earlier = wall.toZonedDateTime(zone, { disambiguation: 'earlier' });
  if (!earlier.toPlainDateTime().equals(wall)) return fail({ code: 'time.in_gap' });
  return ok(earlier.toInstant().toString());
}

const REMEMBERED = 20_000;

/** What was reckoned for a key before: planning asks for the same few times of the same days again and again. Forgets all once there are too many. */
function remembered<T>(known: Map<string, T>, key: string, reckon: () => T): T {
  const found = known.get(key);
  if (found !== undefined) return found;
  if (known.size >= REMEMBERED) known.clear();
  const made = reckon();
  known.set(key, made);
  return made;
}

const instants = new Map<string, InstantText>();
const days = new Map<string, Day>();

/** As `toInstant`, but a time in a gap moves on by the length of the gap: for reckoning, where nobody typed the time. */
export const toInstantAfterGap = (on: Day, at: TimeOfDay, zone: string): InstantText =>
  remembered(instants, `${on}T${at} ${zone}`, () =>
    Temporal.PlainDateTime.from(`${on}T${at}`).toZonedDateTime(zone, { disambiguation: 'compatible' }).toInstant().toString(),
  );

/** The date that an instant has in a zone. */
export const dayIn = (instant: InstantText, zone: string): Day =>
  remembered(
    days,
    `${instant} ${zone}`,
    () => Temporal.Instant.from(instant).toZonedDateTimeISO(zone).toPlainDate().toString() as Day, // PlainDate prints ISO
  );

/** The wall-clock time that an instant has in a zone. */
export const timeIn = (instant: InstantText, zone: string): TimeOfDay =>
  Temporal.Instant.from(instant).toZonedDateTimeISO(zone).toPlainTime().toString().slice(0, 5) as TimeOfDay; // HH:MM

/** Orders instants: negative when `a` is earlier. */
export function compareInstants(a: InstantText, b: InstantText): number {
  // to the second the text of UTC has the order of time; only what is equal so far, or written otherwise, has to be read
  if (IN_UTC.test(a) && IN_UTC.test(b)) {
    const [first, second] = [a.slice(0, SECONDS), b.slice(0, SECONDS)];
    if (first !== second) return first < second ? -1 : 1;
  }
  return Temporal.Instant.compare(Temporal.Instant.from(a), Temporal.Instant.from(b));
}

const SECONDS = '2027-03-16T09:00:00'.length;
const IN_UTC = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z$/;

/** Minutes from one instant to another, with their parts; negative where the other comes first. */
export const minutesBetween = (from: InstantText, to: InstantText): number =>
  Temporal.Instant.from(from).until(Temporal.Instant.from(to)).total('minutes');
