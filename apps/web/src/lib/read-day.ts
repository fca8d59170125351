import { addDays, parseDay, type Day } from '@zesting/core';

/** A reader of days in words; undefined where it finds none. */
export type WordReader = (text: string, todayOn: Day) => Day | undefined;

/**
 * Reads a day as people type it in figures: `16/3`, `16.3.27`, `16032027`, `2027-03-16`, and `16` for the next sixteenth. The day comes before the month.
 * @param todayOn what is meant without a year or month lies on this day or after it
 * @returns undefined where the text is not of figures, or no such day is
 */
export function readFigures(text: string, todayOn: Day): Day | undefined {
  const plain = text.trim();
  if (parseDay(plain)) return parseDay(plain);
  const found = /^(\d{1,2})(?:[./\- ](\d{1,2})(?:[./\- ](\d{2}|\d{4}))?)?[./]?$/.exec(plain) ?? /^(\d{2})(\d{2})(\d{2}|\d{4})$/.exec(plain);
  if (!found) return undefined;
  const [, day = '', month, year] = found;
  const at = (y: number, m: number) => parseDay(`${y}-${String(m).padStart(2, '0')}-${day.padStart(2, '0')}`);
  if (month === undefined) {
    // the next month that has such a day
    for (let ahead = 0; ahead < 12; ahead++) {
      const months = Number(todayOn.slice(0, 4)) * 12 + Number(todayOn.slice(5, 7)) - 1 + ahead;
      const on = at(Math.floor(months / 12), (months % 12) + 1);
      if (on && on >= todayOn) return on;
    }
    return undefined;
  }
  if (year !== undefined) return at(year.length === 2 ? 2000 + Number(year) : Number(year), Number(month));
  for (let ahead = 0; ahead < 9; ahead++) {
    const on = at(Number(todayOn.slice(0, 4)) + ahead, Number(month)); // 29 February may be years away
    if (on && on >= todayOn) return on;
  }
  return undefined;
}

/** Reads a day in figures or, with a reader that is at hand, in words: "tomorrow", "next friday", "in two weeks", "16 march". */
export function readDay(text: string, todayOn: Day, words?: WordReader): Day | undefined {
  const plain = text.trim().toLowerCase();
  if (plain === '') return undefined;
  if (plain === 'today' || plain === 'heute') return todayOn;
  if (plain === 'tomorrow' || plain === 'morgen') return addDays(todayOn, 1);
  const ahead = /^\+(\d{1,3})$/.exec(plain);
  if (ahead) return addDays(todayOn, Number(ahead[1]));
  return readFigures(plain, todayOn) ?? words?.(plain, todayOn);
}
