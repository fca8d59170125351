import { readDatedLines, type FigureOrder } from '../dates-in-lines/index.js';
import {
  checkAnswers,
  fieldsOf,
  isEmailLike,
  type Answer,
  type AnswerProblem,
  type Answers,
  type FormField,
  type FormItem,
  type Serves,
} from '../intake/index.js';
import { similarity } from '../lookalike/index.js';
import { parseDay, type Day } from '../time/index.js';

/** What a column of a table becomes: an answer by the key of its field (`field:about`), who asks, where they are written to, or nothing. */
export type Column = `field:${string}` | 'name' | 'email' | '';

/** From here on a head and a question mean the same. */
const SAME = 0.3;
/** How tables head what a form asks for in words of its own. */
const SERVED_HEADS: Partial<Record<Serves, readonly string[]>> = {
  title: ['subject', 'title', 'topic', 'betreff', 'titel', 'thema'],
  wish_date: ['when', 'date', 'day', 'wish date', 'wann', 'datum', 'tag', 'termin'],
  page: ['link', 'url', 'page'],
};
const NAME_HEADS = ['name', 'your name', 'who asks', 'asked by', 'requester', 'contact', 'ihr name', 'wer fragt an', 'kontakt'];
const EMAIL_HEADS = ['e-mail', 'email', 'mail', 'your e-mail', 'e-mail address', 'ihre e-mail-adresse'];

/** The fields that a cell can answer: files cannot stand in a table. */
export const cellFields = (items: readonly FormItem[]): FormField[] => fieldsOf(items).filter(({ kind }) => kind !== 'files');

/** Guesses what each column becomes, from its head: the likest field that no other column is liker to. */
export function guessColumns(heads: readonly string[], items: readonly FormItem[]): Column[] {
  const targets: readonly [Column, readonly string[]][] = [
    ...cellFields(items).map(({ key, label, serves }): [Column, readonly string[]] => [
      `field:${key}`,
      [label, key, ...((serves && SERVED_HEADS[serves]) ?? [])],
    ]),
    ['name', NAME_HEADS],
    ['email', EMAIL_HEADS],
  ];
  const likeness = (head: string, names: readonly string[]): number =>
    Math.max(...names.map((name) => (plain(head) === plain(name) ? 2 : similarity(head, name))));
  const pairs = heads
    .flatMap((head, at) => targets.map(([column, names]) => ({ at, column, like: head.trim() === '' ? 0 : likeness(head, names) })))
    .filter(({ like }) => like >= SAME)
    .sort((a, b) => b.like - a.like || a.at - b.at);
  const columns: Column[] = heads.map(() => '');
  const taken = new Set<Column>();
  for (const { at, column } of pairs) {
    if (columns[at] !== '' || taken.has(column)) continue;
    columns[at] = column;
    taken.add(column);
  }
  return columns;
}

export type RowProblem = AnswerProblem | 'no_name';

/** What is wrong with a line, and with what of it: a field’s key, `name` or `email`. */
export interface FoundProblem {
  readonly line: number;
  readonly about: Column;
  /** as it stands there; empty where nothing does */
  readonly cell: string;
  readonly problem: RowProblem;
}

/** A line as a request. */
export interface ReadRow {
  /** counted as in the file, whose heads are line 1 */
  readonly line: number;
  readonly name: string;
  readonly email: string | null;
  readonly answers: Answers;
}

export interface ReadRows {
  readonly rows: readonly ReadRow[];
  readonly problems: readonly FoundProblem[];
  /** whether a day can be read in two ways and nothing in the table says which */
  readonly isAmbiguous: boolean;
}

interface Around {
  /** the client’s today */
  readonly todayOn: Day;
  /** who asks where no column says it */
  readonly askedBy: string;
  /** which of the figures in 3/4 is the day, once somebody was asked */
  readonly order?: FigureOrder;
}

/**
 * Reads the lines of a table as answers to a form, and checks each as the form would. Browser and server run this same function. Lines in which nothing
 * stands are left out.
 */
export function readRows(
  items: readonly FormItem[],
  columns: readonly Column[],
  cells: readonly (readonly string[])[],
  { todayOn, askedBy, order }: Around,
): ReadRows {
  const fields = new Map(cellFields(items).map((field) => [`field:${field.key}`, field]));
  const dated = columns.flatMap((column, at) => (['day', 'span'].includes(fields.get(column)?.kind ?? '') ? [at] : []));
  const days = cells.flatMap((row) => dated.map((at) => row[at]?.trim() ?? '').filter((cell) => cell !== '' && !isoDay(cell)));
  // all days of the table together say which figure is the day
  const { isAmbiguous } = readDatedLines(days.join('\n'), todayOn);
  const figures = order ?? orderIn(days, todayOn);
  const rows: ReadRow[] = [];
  const problems: FoundProblem[] = [];
  for (const [index, row] of cells.entries()) {
    if (row.every((cell) => cell.trim() === '')) continue;
    const line = index + 2;
    const cellOf = (column: Column): string => row[columns.indexOf(column)]?.trim() ?? '';
    const answers: Record<string, Answer> = {};
    for (const [column, field] of fields) {
      const cell = columns.includes(column as Column) ? cellOf(column as Column) : '';
      if (cell !== '') answers[field.key] = answerIn(field, cell, todayOn, figures);
    }
    const checked = checkAnswers(items, answers, { todayOn });
    const find = (about: Column, problem: RowProblem) => problems.push({ line, about, cell: cellOf(about), problem });
    for (const [key, problem] of Object.entries(checked.problems)) find(`field:${key}`, problem);
    const name = cellOf('name') || askedBy.trim();
    const email = cellOf('email');
    if (name === '') find('name', 'no_name');
    else if (name.length > 100) find('name', 'too_long');
    if (email !== '' && !isEmailLike(email)) find('email', 'not_an_email');
    rows.push({ line, name, email: email === '' ? null : email, answers: checked.answers });
  }
  return { rows, problems, isAmbiguous };
}

/** A cell as the answer to a field; what cannot be read stays as it is, and fails the check. */
function answerIn(field: FormField, cell: string, todayOn: Day, order: FigureOrder): Answer {
  switch (field.kind) {
    case 'number':
    case 'money':
      return numberIn(cell);
    case 'day':
      return isoDay(cell) ?? readDatedLines(cell, todayOn, order).lines[0]?.on ?? cell;
    case 'span': {
      const one = isoDay(cell);
      const found = readDatedLines(cell, todayOn, order).lines[0];
      return one ? [one, one] : found?.on ? [found.on, found.until ?? found.on] : [cell];
    }
    case 'yes_no':
      return YES.has(plain(cell)) ? 'yes' : NO.has(plain(cell)) ? 'no' : cell;
    case 'one_of':
    case 'format':
    case 'pillar':
      return optionIn(field, cell);
    case 'channel':
      return field.several ? optionsIn(field, cell) : optionIn(field, cell);
    case 'several_of':
      return optionsIn(field, cell);
    default:
      return cell;
  }
}

const plain = (text: string): string => text.trim().toLowerCase();
const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'j', 'wahr']);
const NO = new Set(['no', 'n', 'false', '0', '-', 'nein', 'falsch']);

/** The day that a cell begins with in ISO 8601, as tables write days and instants. */
const isoDay = (cell: string): Day | undefined =>
  /^\d{4}-\d{2}-\d{2}(T|\s|$)/.test(cell) ? (parseDay(cell.slice(0, 10)) ?? undefined) : undefined;

/** Which figure is the day: as the cells say together, else the first. */
function orderIn(days: readonly string[], todayOn: Day): FigureOrder {
  const [first, second] = (['day_first', 'month_first'] as const).map(
    (order) =>
      readDatedLines(days.join('\n'), todayOn, order).lines.filter(({ doubt }) => doubt === 'no_such_day' || doubt === 'no_day').length,
  );
  return (second ?? 0) < (first ?? 0) ? 'month_first' : 'day_first';
}

/**
 * A number as people write it: "1,234.50", "1.234,50", "1 234,5", "£ 12". Of comma and point the last one divides off the decimals; a comma alone before three
 * figures divides thousands.
 */
function numberIn(cell: string): string {
  const bare = cell.replace(/[\s\u00a0\u202f'’]/g, '').replace(/^[^\d-]+|[^\d]+$/g, '');
  const [comma, point] = [bare.lastIndexOf(','), bare.lastIndexOf('.')];
  if (comma < 0) return bare.indexOf('.') === point ? bare || cell : bare.replaceAll('.', '');
  if (point > comma) return bare.replaceAll(',', '');
  if (point < 0 && /^-?\d{1,3}(,\d{3})+$/.test(bare)) return bare.replaceAll(',', '');
  return bare.replaceAll('.', '').replace(',', '.');
}

const optionOf = (field: FormField, text: string): string | undefined =>
  field.options?.find(({ value, label }) => plain(value) === plain(text) || plain(label ?? '') === plain(text))?.value;
const optionIn = (field: FormField, cell: string): string => optionOf(field, cell) ?? cell;

/** Several choices: divided by semicolons, strokes or lines, else by commas. */
function optionsIn(field: FormField, cell: string): string[] {
  const whole = optionOf(field, cell);
  if (whole !== undefined) return [whole];
  const parts = /[;|\n]/.test(cell) ? cell.split(/[;|\n]/) : cell.split(',');
  return parts.map((part) => part.trim()).flatMap((part) => (part === '' ? [] : [optionIn(field, part)]));
}
