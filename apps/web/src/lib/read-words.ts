import { casual as german } from 'chrono-node/de';
import { GB } from 'chrono-node/en';
import { parseDay, type Day, type FormLanguage } from '@zesting/core';
import type { WordReader } from './read-day';

/** Puts English words into the order that is read with the day first: "march 16" would be a year; shown days begin with their weekday. */
const plainEnglish = (text: string): string =>
  text.replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,? (?=\d)/, '').replace(/\b([a-z]{3,9}) (\d{1,2})(?!\d)/g, '$2 $1');
/** German words without the weekday that shown days begin with. */
const plainGerman = (text: string): string => text.replace(/^(mo|di|mi|do|fr|sa|so)[a-z]*\.?,? (?=\d)/, '');

/** Reads a day in words; all of the text must be about it. */
const reader =
  (chrono: typeof GB, plainly: (text: string) => string): WordReader =>
  (text, todayOn) => {
    const plain = plainly(text);
    const [year = 0, month = 0, day = 0] = todayOn.split('-').map(Number);
    const [found] = chrono.parse(plain, new Date(year, month - 1, day, 12), { forwardDate: true });
    if (!found || found.text.length < plain.trim().length) return undefined;
    const part = (name: 'year' | 'month' | 'day') => String(found.start.get(name) ?? '').padStart(name === 'year' ? 4 : 2, '0');
    return parseDay(`${part('year')}-${part('month')}-${part('day')}`) as Day | undefined;
  };

/** Readers of days in words, by language. Loaded when somebody types. */
export const readWords: Readonly<Record<FormLanguage, WordReader>> = { en: reader(GB, plainEnglish), de: reader(german, plainGerman) };
