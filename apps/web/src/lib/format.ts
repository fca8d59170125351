import { present } from './now';

/** Dates and times in words. Days are dates without a zone and are never read as instants. */

/** How a language writes days and times. */
export interface DayFormats {
  readonly dayWords: (on: string, thisYear?: string | null) => string;
  readonly monthWords: (month: string) => string;
  readonly instantWords: (at: string) => string;
}

export function dayFormats(locale: string): DayFormats {
  const day = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options });
  const short = day({ weekday: 'short', day: 'numeric', month: 'short' });
  const withYear = day({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
  const month = day({ month: 'long', year: 'numeric' });
  const written = (format: Intl.DateTimeFormat, on: string) => format.format(new Date(`${on}T00:00:00Z`)).replace(',', '');
  return {
    dayWords: (on, thisYear = String(present().getFullYear())) =>
      written(thisYear !== null && on.startsWith(thisYear) ? short : withYear, on),
    monthWords: (text) => month.format(new Date(`${text}-01T00:00:00Z`)),
    instantWords: (at) =>
      new Intl.DateTimeFormat(locale, { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }).format(
        new Date(at),
      ),
  };
}

/**
 * "Tue 16 Mar"; with the year when it is not this one, or always where that is null. "March 2027" of `2027-03`. An instant in the viewer's own
 * zone: "Tue 16 Mar, 09:05".
 */
export const { dayWords, monthWords, instantWords } = dayFormats('en-GB');

/** "Auckland" of `Pacific/Auckland`. */
export const zoneWords = (zone: string): string => (zone.split('/').at(-1) ?? zone).replaceAll('_', ' ');

/** "1 day", "3 days". */
export const count = (number: number, one: string, many = `${one}s`): string => `${number} ${number === 1 ? one : many}`;

/** "1 h 30 min" of 90. */
export function minutesWords(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  return [hours > 0 ? `${hours} h` : '', rest > 0 || hours === 0 ? `${rest} min` : ''].filter(Boolean).join(' ');
}

/** "1.5 h" of 90: short, for columns. */
export const hoursWords = (minutes: number): string => `${Math.round(minutes / 6) / 10} h`;

/** "512 kB", "60.2 MB", in steps of a thousand as file managers count. */
export function bytesWords(bytes: number): string {
  const [value, unit] = bytes < 1e6 ? [bytes / 1e3, 'kB'] : bytes < 1e9 ? [bytes / 1e6, 'MB'] : [bytes / 1e9, 'GB'];
  return `${value < 10 && bytes >= 1e6 ? value.toFixed(1) : Math.round(value)} ${unit}`;
}

/** “Rye, Buns and 2 more”. */
export const listWords = (parts: readonly string[]): string => new Intl.ListFormat('en-GB').format(parts);

/** A number with a real minus sign. */
export const signed = (number: number): string => (number < 0 ? `−${-number}` : String(number));
