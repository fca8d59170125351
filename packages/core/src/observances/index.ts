import { wordSimilarity } from '../lookalike/index.js';
import { parseDay, type Day } from '../time/index.js';
import { WORLD_DAYS } from './world-days.js';

export { WORLD_DAYS } from './world-days.js';

/** A day of note that comes every year on the same date, with words for what it is about. */
export interface YearlyDay {
  readonly name: string;
  /** 1 to 12 */
  readonly month: number;
  /** of the month; the 29th of February comes in leap years alone */
  readonly day: number;
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
  return all.sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}

/** International days over these years, by date. */
export const worldDaysIn = (from: number, to: number): Observance[] => yearlyDaysIn(WORLD_DAYS, from, to);

/** Words that are shorter say too little. */
const LEAST_LETTERS = 3;
/** So alike a word must be to one of the client's: *trees* to *tree* is, *words* to *world* is not. */
const LIKE_ENOUGH = 0.6;
/** A shorter word must stand there as it is: *law* is not in *lawns*. */
const LIKE_LETTERS = 5;
/** Words that stand in the name of every such day. */
const SAY_NOTHING = new Set(['world', 'international', 'national', 'day', 'week', 'days', 'the', 'and', 'for', 'with', 'from']);

/**
 * What a client's pillars and topics have in common with a day of note: those of its words (name and subjects) that are like a word of theirs,
 * each once, in their order. Nothing in common: it fits in no way that words can tell, and is offered all the same.
 * @param texts names of pillars and topics
 */
export function fitOfObservance(texts: readonly string[], { name, subjects }: Pick<Observance, 'name' | 'subjects'>): string[] {
  const words = [...subjects.map((word) => word.toLowerCase()), ...wordsIn(name)];
  const telling = [...new Set(words)].filter((word) => word.length >= LEAST_LETTERS && !SAY_NOTHING.has(word));
  const theirs = new Set(texts.flatMap(wordsIn));
  const fits = (word: string): boolean =>
    theirs.has(word) || (word.length >= LIKE_LETTERS && texts.some((text) => wordSimilarity(word, text) >= LIKE_ENOUGH));
  // *book* says no more than *books* before it
  return telling
    .filter(fits)
    .filter((word, index, all) => !all.slice(0, index).some((other) => wordSimilarity(word, other) >= LIKE_ENOUGH));
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
