import { getDay, weekdayOf, type Day } from '../time/index.js';

const CODES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

/** The rules that people usually mean. What is none of these is a rule of its own, in words of RFC 5545. */
export type Pattern =
  /** every `every` days */
  | { readonly kind: 'days'; readonly every: number }
  /** on weekdays (1 Monday to 7 Sunday), every `every` weeks */
  | { readonly kind: 'weeks'; readonly every: number; readonly weekdays: readonly number[] }
  /** on a date of every `every`-th month; -1: its last day */
  | { readonly kind: 'date'; readonly every: number; readonly date: number }
  /** on the nth weekday of every `every`-th month; -1: its last */
  | { readonly kind: 'nth'; readonly every: number; readonly nth: number; readonly weekday: number };

const interval = (every: number): string => (every === 1 ? '' : `;INTERVAL=${every}`);

/** A pattern as a rule of RFC 5545. */
export function ruleOf(pattern: Pattern): string {
  switch (pattern.kind) {
    case 'days':
      return `FREQ=DAILY${interval(pattern.every)}`;
    case 'weeks': {
      const codes = [...pattern.weekdays].sort((a, b) => a - b).map((weekday) => CODES[weekday - 1]);
      return `FREQ=WEEKLY${interval(pattern.every)};BYDAY=${codes.join(',')}`;
    }
    case 'date':
      return `FREQ=MONTHLY${interval(pattern.every)};BYMONTHDAY=${pattern.date}`;
    case 'nth':
      return `FREQ=MONTHLY${interval(pattern.every)};BYDAY=${pattern.nth}${CODES[pattern.weekday - 1]}`;
  }
}

const weekdayNumber = (code: string): number => CODES.findIndex((other) => other === code) + 1;

/** A rule as one of the patterns; undefined where it is none. There and back: `toPattern(ruleOf(pattern))` is the pattern. */
export function toPattern(rule: string): Pattern | undefined {
  const daily = /^FREQ=DAILY(?:;INTERVAL=(\d+))?$/.exec(rule);
  if (daily) return { kind: 'days', every: Number(daily[1] ?? 1) };
  const found = /^FREQ=(WEEKLY|MONTHLY)(?:;INTERVAL=(\d+))?;(BYDAY|BYMONTHDAY)=([^;]+)$/.exec(rule);
  if (!found) return undefined;
  const [, frequency, times = '1', by, value = ''] = found;
  const every = Number(times);
  if (frequency === 'WEEKLY') {
    const weekdays = value.split(',').map(weekdayNumber);
    return by === 'BYDAY' && weekdays.every((weekday) => weekday > 0) ? { kind: 'weeks', every, weekdays } : undefined;
  }
  if (by === 'BYMONTHDAY') return /^(-1|\d+)$/.test(value) ? { kind: 'date', every, date: Number(value) } : undefined;
  const nth = /^(-1|[1-5])(MO|TU|WE|TH|FR|SA|SU)$/.exec(value);
  return nth ? { kind: 'nth', every, nth: Number(nth[1]), weekday: weekdayNumber(nth[2] ?? '') } : undefined;
}

/** Which weekday of its month a day is: the second Tuesday is `{ nth: 2, weekday: 2 }`. */
export const monthPattern = (day: Day): { readonly nth: number; readonly weekday: number } => ({
  nth: Math.ceil(Number(getDay(day).slice(8)) / 7),
  weekday: weekdayOf(day),
});
