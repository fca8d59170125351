import * as library from 'rrule';
import { fail, ok, type Result } from '../result/index.js';
import { fromDayNumber, toDayNumber, type Day } from '../time/index.js';

// under Node the package is CommonJS and stands under `default`; bundlers find its named exports, and no `default`
const { RRule } = (Reflect.get(library, 'default') ?? library) as typeof library;

const DAY_MS = 86_400_000;
const WEEKDAY = '(MO|TU|WE|TH|FR|SA|SU)';
const listOf = (item: string): RegExp => new RegExp(`^${item}(,${item})*$`);
const TO_366 = '[+-]?([1-9]|[1-9]\\d|[12]\\d\\d|3[0-5]\\d|36[0-6])';

/** The parts of a rule that choose days, with what each may hold. Times of day stand beside the rule, and so does how long it holds. */
const PARTS: Readonly<Record<string, RegExp>> = {
  FREQ: /^(DAILY|WEEKLY|MONTHLY|YEARLY)$/,
  INTERVAL: /^[1-9]\d{0,3}$/,
  COUNT: /^[1-9]\d{0,3}$/,
  WKST: new RegExp(`^${WEEKDAY}$`),
  BYDAY: listOf(`([+-]?[1-9]\\d?)?${WEEKDAY}`),
  BYMONTHDAY: listOf('[+-]?([1-9]|[12]\\d|3[01])'),
  BYYEARDAY: listOf(TO_366),
  BYWEEKNO: listOf('[+-]?([1-9]|[1-4]\\d|5[0-3])'),
  BYMONTH: listOf('([1-9]|1[0-2])'),
  BYSETPOS: listOf(TO_366),
};
/** A rule that is longer was not meant. */
const LONGEST = 200;

/**
 * Reads a recurrence rule of days, `FREQ=MONTHLY;BYDAY=-1FR`, without regard to case, with or without `RRULE:`.
 * @returns the rule in capitals; `rhythm.rule_wrong` where it is none, or says more than days
 * @see RFC 5545, 3.3.10
 */
export function readRule(text: string): Result<string, { code: 'rhythm.rule_wrong' }> {
  const rule = text
    .trim()
    .toUpperCase()
    .replace(/^RRULE:/, '')
    .replace(/;$/, '');
  const parts = rule.split(';').map((part): [name: string, value: string] => {
    const at = part.indexOf('=');
    return [part.slice(0, at), part.slice(at + 1)];
  });
  const names = parts.map(([name]) => name);
  const isSound = parts.every(([name, value]) => PARTS[name]?.test(value)) && new Set(names).size === names.length;
  return rule.length <= LONGEST && names.includes('FREQ') && isSound ? ok(rule) : fail({ code: 'rhythm.rule_wrong' });
}

// eslint-disable-next-line no-restricted-globals -- the library's own: the midnight of UTC stands for the day, and no clock is asked
const toDate = (day: Day): Date => new Date(toDayNumber(day) * DAY_MS);

/** Days after which a rule of days or weeks begins anew. */
const DAYS_OF: Readonly<Record<string, number>> = { DAILY: 1, WEEKLY: 7 };

/**
 * An anchor nearer to `from` that gives the same days from there on, so that nothing is counted through the years since. Rules of days and of weeks
 * repeat after their interval; those that end after so many times are counted from their own anchor.
 */
function nearer(rule: string, anchorOn: Day, from: Day): Day {
  const unit = DAYS_OF[/FREQ=(\w+)/.exec(rule)?.[1] ?? ''];
  if (unit === undefined || from <= anchorOn || rule.includes('COUNT=')) return anchorOn;
  const step = unit * Number(/INTERVAL=(\d+)/.exec(rule)?.[1] ?? 1);
  // one step less than there is room for: the week of the anchor may have begun before it
  const steps = Math.max(0, Math.floor((toDayNumber(from) - toDayNumber(anchorOn)) / step) - 1);
  return fromDayNumber(toDayNumber(anchorOn) + steps * step);
}

/**
 * The days of a rule from `from` to `to`, both included, in their order.
 * @param rule as `readRule` gives it
 * @param anchorOn what it is counted from (DTSTART); itself a day of the rule only where it fits
 * @see RFC 5545, 3.8.5.3
 */
export function daysOfRule(rule: string, anchorOn: Day, from: Day, to: Day): readonly Day[] {
  if (to < from || to < anchorOn) return [];
  const key = `${rule} ${anchorOn} ${from} ${to}`;
  const found = kept.get(key) ?? reckonDays(rule, anchorOn, from, to);
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(key, found);
  return found;
}

/** What was asked of before: every look at a month, a strip or a calendar asks for the same stretches again. */
const kept = new Map<string, readonly Day[]>();
const MOST_KEPT = 10_000;

function reckonDays(rule: string, anchorOn: Day, from: Day, to: Day): Day[] {
  const recurrence = new RRule({ ...RRule.parseString(rule), dtstart: toDate(nearer(rule, anchorOn, from)) });
  return recurrence.between(toDate(from), toDate(to), true).map((date) => fromDayNumber(Math.round(date.getTime() / DAY_MS)));
}
