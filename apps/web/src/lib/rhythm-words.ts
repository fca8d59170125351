import { toPattern } from '@zesting/core';

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const NTH: Readonly<Record<string, string>> = { '1': 'first', '2': 'second', '3': 'third', '4': 'fourth', '5': 'fifth', '-1': 'last' };

/** "Monday", "Monday and Friday", "Monday, Tuesday and Friday". */
const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`;

export const weekdayName = (weekday: number): string => WEEKDAYS[weekday - 1] ?? '';
export const nthName = (nth: number): string => NTH[String(nth)] ?? '';

const ordinal = (number: number): string => {
  const ending =
    number % 100 >= 11 && number % 100 <= 13 ? 'th' : (({ 1: 'st', 2: 'nd', 3: 'rd' } as Record<number, string>)[number % 10] ?? 'th');
  return `${number}${ending}`;
};

/** "every week", "every other week", "every 3 weeks". */
export const everyWords = (times: number, unit: string): string =>
  times === 1 ? `every ${unit}` : times === 2 ? `every other ${unit}` : `every ${times} ${unit}s`;

const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A recurrence rule of days in words: "Tuesday and Thursday, every other week". What is no usual pattern is said as the rule itself. */
export function rhythmWords(rule: string): string {
  const pattern = toPattern(rule);
  if (!pattern) return rule;
  switch (pattern.kind) {
    case 'days':
      return upperFirst(everyWords(pattern.every, 'day'));
    case 'weeks': {
      const days =
        pattern.weekdays.join() === '1,2,3,4,5'
          ? 'Monday to Friday'
          : pattern.weekdays.length === 7
            ? 'Every day'
            : listed(pattern.weekdays.map(weekdayName));
      return pattern.every === 1 ? days : `${days}, ${everyWords(pattern.every, 'week')}`;
    }
    case 'date':
      return `The ${pattern.date === -1 ? 'last day' : ordinal(pattern.date)} of ${everyWords(pattern.every, 'month')}`;
    case 'nth':
      return `The ${nthName(pattern.nth)} ${weekdayName(pattern.weekday)} of ${everyWords(pattern.every, 'month')}`;
  }
}
