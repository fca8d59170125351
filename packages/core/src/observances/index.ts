import { similarity } from '../lookalike/index.js';
import { addDays, firstOfMonth, lastOfMonth, parseDay, weekdayOf, type Day } from '../time/index.js';
import { MOVING_DAYS, WORLD_DAYS } from './world-days.js';

export { MOVING_DAYS, WORLD_DAYS } from './world-days.js';

/** A day of note that comes every year on the same date, with words for what it is about. */
export interface YearlyDay {
  readonly name: string;
  /** 1 to 12 */
  readonly month: number;
  /** of the month; the 29th of February comes in leap years alone */
  readonly day: number;
  readonly subjects: readonly string[];
}

/** A day of note that comes every year on the n-th of a weekday in its month. */
export interface MovingDay {
  readonly name: string;
  /** 1 to 12 */
  readonly month: number;
  /** ISO: 1 is Monday */
  readonly weekday: number;
  /** 1 to 4, counted from the month's beginning; −1: the last */
  readonly nth: number;
  readonly subjects: readonly string[];
}

/** A day of note on its date. */
export interface Observance {
  readonly on: Day;
  readonly name: string;
  readonly subjects: readonly string[];
}

/** The dates of yearly days over the years from `from` to `to`, both included, by date. */
export function yearlyDaysIn(days: readonly YearlyDay[], from: number, to: number): Observance[] {
  const all: Observance[] = [];
  for (let year = from; year <= to; year += 1)
    for (const { name, month, day, subjects } of days) {
      const on = parseDay(`${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`);
      if (on) all.push({ on, name, subjects });
    }
  return all.sort(byDate);
}

const byDate = (a: Observance, b: Observance): number => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0);

/** The date of a moving day in a year. */
export function movingDayIn({ month, weekday, nth }: MovingDay, year: number): Day {
  const text = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}`;
  if (nth < 0) {
    const last = lastOfMonth(text);
    return addDays(last, -((weekdayOf(last) - weekday + 7) % 7));
  }
  const first = firstOfMonth(text);
  return addDays(first, ((weekday - weekdayOf(first) + 7) % 7) + 7 * (nth - 1));
}

/** International days over these years, by date. */
export function worldDaysIn(from: number, to: number): Observance[] {
  const moving: Observance[] = [];
  for (let year = from; year <= to; year += 1)
    for (const day of MOVING_DAYS) moving.push({ on: movingDayIn(day, year), name: day.name, subjects: day.subjects });
  return [...yearlyDaysIn(WORLD_DAYS, from, to), ...moving].sort(byDate);
}

/** Words that are shorter say too little. */
const LEAST_LETTERS = 3;
/** So alike a word must be to one of the client's: *trees* to *tree* is, *words* to *world* is not. */
const LIKE_ENOUGH = 0.5;
/** A shorter word must stand there as it is: *law* is not in *lawns*. */
const LIKE_LETTERS = 5;
/** Words that stand in the name of every such day. */
const SAY_NOTHING = new Set(['world', 'international', 'national', 'day', 'week', 'days', 'the', 'and', 'for', 'with', 'from']);

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
const areAlike = (a: string, b: string): boolean => a === b || similarity(a, b) >= LIKE_ENOUGH;

/**
 * What a client's pillars and topics have in common with days of note: those of a day's words (name and subjects) that are a word of theirs, or much
 * like one, in their order; of two that are much alike the first. Nothing in common: it fits in no way that words can tell, and is offered all the same.
 * @param texts names of pillars and topics
 * @returns what each day is asked for with; it remembers words that it has met
 */
export function fitOfObservances(texts: readonly string[]): (day: Pick<Observance, 'name' | 'subjects'>) => string[] {
  const theirs = new Set(texts.flatMap(wordsIn));
  const long = [...theirs].filter((word) => word.length >= LIKE_LETTERS - 1);
  const met = new Map<string, boolean>();
  const fits = (word: string): boolean => {
    const known = met.get(word);
    if (known !== undefined) return known;
    const found = theirs.has(word) || (word.length >= LIKE_LETTERS && long.some((other) => areAlike(word, other)));
    met.set(word, found);
    return found;
  };
  return ({ name, subjects }) => {
    const words = [...new Set([...subjects.flatMap(wordsIn), ...wordsIn(name)])];
    const telling = words.filter((word) => word.length >= LEAST_LETTERS && !SAY_NOTHING.has(word) && fits(word));
    return telling.filter((word, index) => !telling.slice(0, index).some((other) => areAlike(word, other)));
  };
}
