import { DANGERS, type Danger } from '../backplan/index.js';
import type { Purpose } from '../mix/index.js';
import { PIECE_STAGES, type PieceStage } from '../reckoning/index.js';
import { mondayOf, type Day } from '../time/index.js';

/** One piece as a line of a sheet. Days are dates, hours are in minutes. */
export interface SheetLine {
  readonly number: number;
  readonly clientCode: string;
  readonly title: string;
  readonly formatName: string;
  readonly pillarName: string | null;
  /** who answers for it */
  readonly leadName: string | null;
  readonly campaignNames: readonly string[];
  readonly channelNames: readonly string[];
  readonly purpose: Purpose | null;
  readonly stage: PieceStage;
  /** what is at hand, and who has it; what nobody has is left out of the names */
  readonly stepTitles: readonly string[];
  readonly doerNames: readonly string[];
  readonly round: number;
  readonly wishOn: string | null;
  readonly aimOn: string | null;
  /** when everything open is expected to be ready */
  readonly expectedOn: string | null;
  readonly slackDays: number | null;
  readonly leftMinutes: number;
  readonly workedMinutes: number;
  readonly danger: Danger | null;
}

type Kind = 'text' | 'day' | 'number' | 'minutes';

interface SheetColumnOf {
  readonly name: string;
  readonly kind: Kind;
  /** what is told of a line; null or an empty text: nothing */
  readonly of: (line: SheetLine) => string | number | null;
  /** what it is ordered by, where that is not what is told */
  readonly rank?: (line: SheetLine) => string | number | null;
}

/** "In production" of `in_production`. */
const spoken = (name: string | null): string | null =>
  name === null ? null : `${name.charAt(0).toUpperCase()}${name.slice(1)}`.replaceAll('_', ' ');
const listed = (names: readonly string[]): string => names.join(', ');
const placeIn = (names: readonly string[], name: string | null): number | null => (name === null ? null : names.indexOf(name));

/** Everything that a sheet can tell of a piece, in the order in which it stands there. */
const COLUMNS = {
  client: { name: 'Client', kind: 'text', of: ({ clientCode }) => clientCode },
  number: { name: 'No.', kind: 'number', of: ({ number }) => number },
  title: { name: 'Piece', kind: 'text', of: ({ title }) => title },
  format: { name: 'Format', kind: 'text', of: ({ formatName }) => formatName },
  pillar: { name: 'Pillar', kind: 'text', of: ({ pillarName }) => pillarName },
  lead: { name: 'Answers for it', kind: 'text', of: ({ leadName }) => leadName },
  campaign: { name: 'Campaign', kind: 'text', of: ({ campaignNames }) => listed(campaignNames) },
  channels: { name: 'Channels', kind: 'text', of: ({ channelNames }) => listed(channelNames) },
  purpose: { name: 'Purpose', kind: 'text', of: ({ purpose }) => spoken(purpose) },
  stage: { name: 'Stage', kind: 'text', of: ({ stage }) => spoken(stage), rank: ({ stage }) => placeIn(PIECE_STAGES, stage) },
  step: { name: 'At hand', kind: 'text', of: ({ stepTitles }) => listed(stepTitles) },
  doer: { name: 'With', kind: 'text', of: ({ doerNames }) => listed(doerNames) },
  round: { name: 'Round', kind: 'number', of: ({ round }) => round },
  wish: { name: 'Wish', kind: 'day', of: ({ wishOn }) => wishOn },
  aim: { name: 'Aim', kind: 'day', of: ({ aimOn }) => aimOn },
  expected: { name: 'Expected', kind: 'day', of: ({ expectedOn }) => expectedOn },
  slack: { name: 'Slack', kind: 'number', of: ({ slackDays }) => slackDays },
  left: { name: 'Left', kind: 'minutes', of: ({ leftMinutes }) => leftMinutes },
  worked: { name: 'Worked', kind: 'minutes', of: ({ workedMinutes }) => workedMinutes },
  danger: { name: 'Danger', kind: 'text', of: ({ danger }) => spoken(danger), rank: ({ danger }) => placeIn(DANGERS, danger) },
} as const satisfies Readonly<Record<string, SheetColumnOf>>;

export type SheetColumn = keyof typeof COLUMNS;
export const SHEET_COLUMNS = Object.keys(COLUMNS) as readonly SheetColumn[]; // of the object above
/** What a sheet shows where nobody chose. */
export const USUAL_COLUMNS = [
  'client',
  'title',
  'format',
  'pillar',
  'stage',
  'step',
  'doer',
  'aim',
  'left',
  'danger',
] as const satisfies readonly SheetColumn[];

export const sheetColumn = (column: SheetColumn): SheetColumnOf => COLUMNS[column];

/** Which way a sheet is ordered. What says nothing in that column comes last, either way. */
export interface SheetOrder {
  readonly by: SheetColumn;
  readonly isDown: boolean;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
const isNothing = (value: string | number | null): value is null | '' => value === null || value === '';

/** Compares what two lines say; nothing comes last. */
function compareSaid(one: string | number | null, other: string | number | null, isDown: boolean): number {
  if (isNothing(one) || isNothing(other)) return Number(isNothing(one)) - Number(isNothing(other));
  const way = typeof one === 'number' && typeof other === 'number' ? one - other : collator.compare(String(one), String(other));
  return isDown ? -way : way;
}

/** Lines in an order; what stands equal stays by number. The lines given are left as they are. */
export function sheetOrdered<Line extends SheetLine>(lines: readonly Line[], { by, isDown }: SheetOrder): Line[] {
  const { of, rank = of } = sheetColumn(by);
  return lines
    .map((line) => ({ line, said: rank(line) }))
    .sort((one, other) => compareSaid(one.said, other.said, isDown) || one.line.number - other.line.number)
    .map(({ line }) => line);
}

/** What lines can be put together by. */
export const SHEET_GROUPS = ['client', 'format', 'pillar', 'campaign', 'lead', 'stage', 'doer', 'week', 'month', 'danger'] as const;
export type SheetGroup = (typeof SHEET_GROUPS)[number];

/** What a line is put under: a name, the Monday of its aim's week, or its month; null: nothing. */
function groupOf(line: SheetLine, group: SheetGroup): string | null {
  if (group === 'week') return line.aimOn && mondayOf(line.aimOn as Day); // a day of the plan's
  if (group === 'month') return line.aimOn && line.aimOn.slice(0, 7);
  const said = sheetColumn(group).of(line);
  return isNothing(said) ? null : String(said);
}

/** What some lines come to. */
export interface SheetTotals {
  readonly pieces: number;
  readonly leftMinutes: number;
  readonly workedMinutes: number;
  /** overdue, out of reach, or will be late */
  readonly late: number;
}

/** A line is late whose day is gone, cannot be met, or will not be met as things stand. */
const isLate = ({ danger }: SheetLine): boolean => danger === 'overdue' || danger === 'out_of_reach' || danger === 'will_be_late';

export const totalsOf = (lines: readonly SheetLine[]): SheetTotals => ({
  pieces: lines.length,
  leftMinutes: lines.reduce((sum, { leftMinutes }) => sum + leftMinutes, 0),
  workedMinutes: lines.reduce((sum, { workedMinutes }) => sum + workedMinutes, 0),
  late: lines.filter(isLate).length,
});

export interface SheetPart<Line> {
  /** null: what has none of it */
  readonly name: string | null;
  readonly lines: readonly Line[];
  readonly totals: SheetTotals;
}

/**
 * Lines put together, each group in the order that the lines have. Groups come by name or day, stages and dangers in their own order, and what has
 * none of it last.
 */
export function sheetParts<Line extends SheetLine>(lines: readonly Line[], group: SheetGroup): SheetPart<Line>[] {
  const parts = new Map<string | null, Line[]>();
  for (const line of lines) {
    const name = groupOf(line, group);
    const part = parts.get(name);
    if (part) part.push(line);
    else parts.set(name, [line]);
  }
  const rank = (first: Line | undefined, name: string | null) =>
    first === undefined || group === 'week' || group === 'month' ? name : (sheetColumn(group).rank?.(first) ?? name);
  return [...parts]
    .sort(([one, [first]], [other, [second]]) => compareSaid(rank(first, one), rank(second, other), false))
    .map(([name, own]) => ({ name, lines: own, totals: totalsOf(own) }));
}
