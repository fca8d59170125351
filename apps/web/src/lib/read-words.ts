import { GB } from 'chrono-node/en';
import { parseDay, type Day } from '@zesting/core';
import type { WordReader } from './read-day';

/** Reads a day in English words; all of the text must be about it. Loaded when somebody types. */
export const readWords: WordReader = (text, todayOn) => {
  // "march 16" is read as a year: the day goes first; shown days begin with their weekday
  const plain = text.replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,? (?=\d)/, '').replace(/\b([a-z]{3,9}) (\d{1,2})(?!\d)/g, '$2 $1');
  const [year = 0, month = 0, day = 0] = todayOn.split('-').map(Number);
  const [found] = GB.parse(plain, new Date(year, month - 1, day, 12), { forwardDate: true });
  if (!found || found.text.length < plain.trim().length) return undefined;
  const part = (name: 'year' | 'month' | 'day') => String(found.start.get(name) ?? '').padStart(name === 'year' ? 4 : 2, '0');
  return parseDay(`${part('year')}-${part('month')}-${part('day')}`) as Day | undefined;
};
