import { parseDay, weekdayOf, type Day } from '../time/index.js';

/**
 * Reads dates out of pasted lines, as clients send their month: "Mon 7 Dec live talk", "12.12. winter sale starts", "email: gift guide 15 Dec",
 * "12–14 December market". English and German words are read, whatever the client's language: people mix them.
 */

/** What a line is about, guessed from its words. */
export const DATED_KINDS = ['event', 'launch', 'offer', 'production_day', 'blackout', 'closure'] as const;
export type DatedKind = (typeof DATED_KINDS)[number];

/** Which of two figures with a stroke between them is the day: "3/4" alone does not say. */
export type FigureOrder = 'day_first' | 'month_first';

export interface DatedLine {
  /** counted from 1 */
  readonly line: number;
  readonly text: string;
  /** first and last day; null where none was found */
  readonly on: Day | null;
  readonly until: Day | null;
  /** what is left of the line */
  readonly title: string;
  readonly kind: DatedKind;
  /** why a person must look: no day, a day that there is not, a weekday that is another, no words beside the day */
  readonly doubt: 'no_day' | 'no_such_day' | 'weekday_differs' | 'no_title' | null;
}

export interface ReadLines {
  readonly lines: readonly DatedLine[];
  /** whether a date can be read in two ways and nothing says which: ask once */
  readonly isAmbiguous: boolean;
}

const MONTHS: readonly (readonly string[])[] = [
  ['january', 'jan', 'januar', 'jänner', 'jaenner'],
  ['february', 'feb', 'februar'],
  ['march', 'mar', 'märz', 'mrz', 'maerz'],
  ['april', 'apr'],
  ['may', 'mai'],
  ['june', 'jun', 'juni'],
  ['july', 'jul', 'juli'],
  ['august', 'aug'],
  ['september', 'sep', 'sept'],
  ['october', 'oct', 'oktober', 'okt'],
  ['november', 'nov'],
  ['december', 'dec', 'dezember', 'dez'],
];
const WEEKDAYS: readonly (readonly string[])[] = [
  ['monday', 'mon', 'montag', 'mo'],
  ['tuesday', 'tue', 'tues', 'dienstag', 'di'],
  ['wednesday', 'wed', 'weds', 'mittwoch', 'mi'],
  ['thursday', 'thu', 'thur', 'thurs', 'donnerstag', 'do'],
  ['friday', 'fri', 'freitag', 'fr'],
  ['saturday', 'sat', 'samstag', 'sonnabend', 'sa'],
  ['sunday', 'sun', 'sonntag', 'so'],
];
const numberIn = (lists: readonly (readonly string[])[], word: string): number =>
  lists.findIndex((names) => names.includes(word.toLowerCase())) + 1;

const names = (lists: readonly (readonly string[])[]): string => [...lists.flat()].sort((a, b) => b.length - a.length).join('|');
const MONTH = `(?:${names(MONTHS)})\\.?`;
/** Short German weekdays are words of their own in English ("do", "so"): they count only right before a figure. */
const WEEKDAY = `(?:(?:${names(WEEKDAYS)})\\.?,?\\s+(?=\\d|the\\s|${MONTH}\\s))?`;
const DAY = '(\\d{1,2})(?:st|nd|rd|th|\\.)?';
const YEAR = '(?:,?\\s*(\\d{4}))?';
const TO = '\\s*(?:-|–|—|to|until|till|bis)\\s*';
const EDGE = '(?<![\\p{L}\\p{N}/.-])';
const END = '(?![\\p{L}\\p{N}/]|\\.\\d)';

interface Found {
  readonly from: number;
  readonly to: number;
  readonly weekday: number;
  readonly first: Parts;
  readonly last: Parts | null;
}
interface Parts {
  readonly day: number;
  readonly month: number | null;
  readonly year: number | null;
}

const pattern = (source: string): RegExp => new RegExp(`${EDGE}(${WEEKDAY})${source}${END}`, 'iu');
const year = (text: string | undefined): number | null =>
  text === undefined ? null : text.length === 2 ? 2000 + Number(text) : Number(text);

type Reader = (match: RegExpExecArray, order: FigureOrder) => { first: Parts; last: Parts | null };
const at = (match: RegExpExecArray, index: number): string | undefined => match[index];
const num = (match: RegExpExecArray, index: number): number => Number(match[index]);
const monthOf = (text: string | undefined): number => numberIn(MONTHS, (text ?? '').replace('.', ''));

/** The shapes of dates, the more telling before those that are part of them. */
const SHAPES: readonly (readonly [RegExp, Reader])[] = [
  [pattern('(\\d{4})-(\\d{2})-(\\d{2})'), (m) => ({ first: { day: num(m, 4), month: num(m, 3), year: num(m, 2) }, last: null })],
  // 12.–14. December, 12 Dec to 3 January 2028
  [
    pattern(`${DAY}(?:\\s+(${MONTH}))?${TO}${DAY}\\s*(${MONTH})${YEAR}`),
    (m) => ({
      first: { day: num(m, 2), month: at(m, 3) ? monthOf(at(m, 3)) : monthOf(at(m, 5)), year: at(m, 3) ? null : year(at(m, 6)) },
      last: { day: num(m, 4), month: monthOf(at(m, 5)), year: year(at(m, 6)) },
    }),
  ],
  // December 12–14
  [
    pattern(`(${MONTH})\\s+${DAY}${TO}${DAY}${YEAR}`),
    (m) => ({
      first: { day: num(m, 3), month: monthOf(at(m, 2)), year: year(at(m, 5)) },
      last: { day: num(m, 4), month: monthOf(at(m, 2)), year: year(at(m, 5)) },
    }),
  ],
  [
    pattern(`(?:the\\s+)?${DAY}\\s*(?:of\\s+)?(${MONTH})${YEAR}`),
    (m) => ({ first: { day: num(m, 2), month: monthOf(at(m, 3)), year: year(at(m, 4)) }, last: null }),
  ],
  [
    pattern(`(${MONTH})\\s+${DAY}${YEAR}`),
    (m) => ({ first: { day: num(m, 3), month: monthOf(at(m, 2)), year: year(at(m, 4)) }, last: null }),
  ],
  // 12.12.–14.12.2027, 12.–14.12.
  [
    pattern('(\\d{1,2})\\.(?:(\\d{1,2})\\.)?(\\d{4}|\\d{2})?\\s*(?:-|–|—|to|bis)\\s*(\\d{1,2})\\.(\\d{1,2})\\.?(\\d{4}|\\d{2})?'),
    (m) => ({
      first: { day: num(m, 2), month: at(m, 3) ? num(m, 3) : num(m, 6), year: year(at(m, 4)) },
      last: { day: num(m, 5), month: num(m, 6), year: year(at(m, 7)) },
    }),
  ],
  [
    pattern('(\\d{1,2})\\.\\s?(\\d{1,2})\\.(\\d{4}|\\d{2})?'),
    (m) => ({ first: { day: num(m, 2), month: num(m, 3), year: year(at(m, 4)) }, last: null }),
  ],
  [
    pattern('(\\d{1,2})/(\\d{1,2})(?:/(\\d{4}|\\d{2}))?'),
    (m, order) => {
      const [day, month] = order === 'day_first' ? [num(m, 2), num(m, 3)] : [num(m, 3), num(m, 2)];
      return { first: { day, month, year: year(at(m, 4)) }, last: null };
    },
  ],
];
/** A day alone, under a heading that names the month: at the line's beginning. */
const BARE = new RegExp(`^(${WEEKDAY})${DAY}(?:${TO}${DAY})?(?=\\s|:|,|$)`, 'iu');
/** A heading: a month, with a year or without. */
const HEADING = new RegExp(`^(${MONTH})${YEAR}\\s*:?$`, 'iu');

const FIGURES = /(?<![\d/])(\d{1,2})\/(\d{1,2})(?![\d])/g;

/** What the figures with strokes themselves say about their order; undefined where all can be read both ways. */
function orderIn(text: string): { order: FigureOrder | undefined; isThere: boolean } {
  let isThere = false;
  for (const [, a, b] of text.matchAll(FIGURES)) {
    isThere ||= a !== b;
    if (Number(a) > 12 && Number(b) <= 12) return { order: 'day_first', isThere };
    if (Number(b) > 12 && Number(a) <= 12) return { order: 'month_first', isThere };
  }
  return { order: undefined, isThere };
}

/** So many lines are read, so long each. */
const LINES_LIMIT = 500;
const LENGTH_LIMIT = 500;

/**
 * Reads lines with dates in them.
 * @param todayOn a day without a year lies in this month or later
 * @param order what was said about figures such as 3/4; without it the lines themselves are asked, and the day is taken first where they do not say
 */
export function readDatedLines(text: string, todayOn: Day, order?: FigureOrder): ReadLines {
  const figures = orderIn(text);
  const taken = order ?? figures.order ?? 'day_first';
  const lines: DatedLine[] = [];
  let heading: Pick<Parts, 'month' | 'year'> | null = null;
  for (const [index, whole] of text.split(/\r?\n/).slice(0, LINES_LIMIT).entries()) {
    const line = whole
      .replace(/^\s*(?:[-*•–]\s+)?/, '')
      .trim()
      .slice(0, LENGTH_LIMIT);
    if (line === '') continue;
    const head = HEADING.exec(line);
    if (head) {
      heading = { month: monthOf(head[1]), year: year(head[2]) };
      continue;
    }
    lines.push(readLine(line, index + 1, heading, taken, todayOn));
  }
  return { lines, isAmbiguous: order === undefined && figures.isThere && figures.order === undefined };
}

function readLine(text: string, line: number, heading: Pick<Parts, 'month' | 'year'> | null, order: FigureOrder, todayOn: Day): DatedLine {
  const found = find(text, heading, order);
  const base = { line, text, kind: kindOf(text) };
  if (!found) return { ...base, on: null, until: null, title: text, doubt: 'no_day' };
  const title = restOf(text, found);
  const on = dayOf(found.first, todayOn);
  const until = found.last === null ? on : on && dayOf(found.last, on);
  if (on === null || until === null || until < on) return { ...base, on: null, until: null, title, doubt: 'no_such_day' };
  const differs = found.weekday > 0 && weekdayOf(on) !== found.weekday;
  return { ...base, on, until, title, doubt: differs ? 'weekday_differs' : title === '' ? 'no_title' : null };
}

function find(text: string, heading: Pick<Parts, 'month' | 'year'> | null, order: FigureOrder): Found | undefined {
  for (const [shape, read] of SHAPES) {
    const match = shape.exec(text);
    if (match) return { from: match.index, to: match.index + match[0].length, weekday: weekdayIn(match[1]), ...read(match, order) };
  }
  const bare = heading && BARE.exec(text);
  if (!heading || !bare) return undefined;
  const parts = (day: string | undefined): Parts => ({ day: Number(day), ...heading });
  return {
    from: 0,
    to: bare[0].length,
    weekday: weekdayIn(bare[1]),
    first: parts(bare[2]),
    last: bare[3] === undefined ? null : parts(bare[3]),
  };
}

const weekdayIn = (text: string | undefined): number => numberIn(WEEKDAYS, (text ?? '').replace(/[.,\s]/g, ''));

/** What is left of a line without its date, without what joined the two. */
function restOf(text: string, { from, to }: Found): string {
  const [before, after] = [text.slice(0, from).trim(), text.slice(to).trim()];
  const joint = /^[\s:,;.)–—-]+|[\s:,;–—(-]+$/g;
  return [before.replace(/(?:^|\s+)(?:on|am|at|vom|ab|from)$/i, '').replace(joint, ''), after.replace(joint, '')]
    .filter(Boolean)
    .join(': ')
    .replace(/\(\s*\)/g, '')
    .trim();
}

/** A day of the calendar; without a year the next in or after the month of the day given. */
function dayOf({ day, month, year: given }: Parts, since: Day): Day | null {
  if (month === null || month < 1) return null;
  const on = (inYear: number): Day | null =>
    parseDay(`${inYear}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`) ?? null;
  if (given !== null) return on(given);
  const first = `${since.slice(0, 7)}-01`;
  const start = Number(since.slice(0, 4));
  for (let ahead = 0; ahead <= 8; ahead += 1) {
    const found = on(start + ahead); // 29 February may be years away
    if (found && found >= first) return found;
  }
  return null;
}

/** Words that say what something is, in English and German; the first list that has one decides. */
const KIND_WORDS: readonly (readonly [DatedKind, RegExp])[] = [
  ['closure', /\b(closed|closing day|holidays?|geschlossen|betriebsferien|urlaub)\b/iu],
  ['blackout', /\b(no posts?|nothing out|embargo|silence|sperre|funkstille)\b/iu],
  ['production_day', /\b(shoot|shooting|filming|photo day|recording|dreh|fototermin|aufnahme)\b/iu],
  ['launch', /\b(launch(es)?|release|new (range|product|line)|goes live|opens|opening|neuheit|eröffnung|start des)\b/iu],
  ['offer', /(\b(sale|offer|discount|promotion|voucher|rabatt|angebot|aktion|schlussverkauf)\b|\d\s?%)/iu],
];

/** What a line is about, by its words; an event where none says. */
export const kindOf = (text: string): DatedKind => KIND_WORDS.find(([, words]) => words.test(text))?.[0] ?? 'event';
