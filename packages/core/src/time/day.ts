import { Temporal } from 'temporal-polyfill';

/** A calendar date without a zone, written `YYYY-MM-DD`. Its text order is its time order. */
export type Day = string & { readonly dayBrand: never };

const numberOfDay = new Map<string, number>();
const dayOfNumber = new Map<number, Day>();
const epoch = Temporal.PlainDate.from('1970-01-01');

/** Reads a day; undefined where the text is no date of the calendar (31 February is none). */
export function parseDay(text: string): Day | undefined {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return undefined;
  if (numberOfDay.has(text)) return text as Day; // days alone have numbers
  try {
    Temporal.PlainDate.from(text, { overflow: 'reject' });
    return text as Day; // checked on the line above
  } catch {
    return undefined;
  }
}

/** Reads a day that is known to be one; throws otherwise. */
export function getDay(text: string): Day {
  const day = parseDay(text);
  if (day === undefined) throw new RangeError(`not a day: ${text}`);
  return day;
}

/** Days since 1970-01-01: the integer used inside hot loops. */
export function toDayNumber(day: Day): number {
  let found = numberOfDay.get(day);
  if (found === undefined) {
    found = epoch.until(Temporal.PlainDate.from(day), { largestUnit: 'days' }).days;
    numberOfDay.set(day, found);
    dayOfNumber.set(found, day);
  }
  return found;
}

/** The day that lies `number` days after 1970-01-01. */
export function fromDayNumber(number: number): Day {
  let found = dayOfNumber.get(number);
  if (found === undefined) {
    found = epoch.add({ days: number }).toString() as Day; // PlainDate prints ISO
    dayOfNumber.set(number, found);
    numberOfDay.set(found, number);
  }
  return found;
}

/** The day `count` calendar days after `day`; negative counts go back. */
export const addDays = (day: Day, count: number): Day => fromDayNumber(toDayNumber(day) + count);

/** Calendar days from `from` to `to`: 0 for the same day, negative when `to` lies before. */
export const daysBetween = (from: Day, to: Day): number => toDayNumber(to) - toDayNumber(from);

/** ISO weekday, 1 = Monday to 7 = Sunday. 1970-01-01 was a Thursday. */
export const weekdayOf = (day: Day): number => weekdayOfNumber(toDayNumber(day));

/** ISO weekday of a day number. */
export const weekdayOfNumber = (number: number): number => ((((number + 3) % 7) + 7) % 7) + 1;

/** A day in words, for letters: "Tuesday 16 March 2027". */
export const dayInWords = (day: Day): string =>
  Temporal.PlainDate.from(day)
    .toLocaleString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
    .replace(',', '');

export const laterOf = (a: Day, b: Day): Day => (a >= b ? a : b);

export const earlierOf = (a: Day, b: Day): Day => (a <= b ? a : b);
