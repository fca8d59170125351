import type { PersonRow, PillarShape, SheetChangeBody, SheetRowShape, SheetStepShape } from '@zesting/contract';
import type { Day, Purpose, SheetColumn } from '@zesting/core';
import { readDay } from '../../../lib/read-day';
import { PURPOSE_OPTIONS } from '../../../lib/words';

/** What is changed in the sheet itself. */
export const WRITTEN = ['title', 'pillar', 'lead', 'purpose', 'doer', 'wish'] as const satisfies readonly SheetColumn[];
export type WrittenColumn = (typeof WRITTEN)[number];

/** What was put into one line, and the state of the piece on which it was put; what is saved already is not in it. */
export type LineDraft = Readonly<Omit<SheetChangeBody, 'pieceId'>>;
/** What was put in and is not saved yet, by piece. */
export type SheetDraft = Readonly<Record<string, LineDraft>>;

/** One cell's new value: a text, a day, the id of a pillar, purpose or person; null: none. */
export interface Put {
  readonly column: WrittenColumn;
  readonly value: string | null;
}

/** The step that "with" is about: what is at hand, where that is one step of the agency's. */
export const stepAtHand = ({ atHand: [step, ...more] }: SheetRowShape): SheetStepShape | undefined =>
  step && more.length === 0 && !step.isClients ? step : undefined;

/** What is done stays as it is: nothing of it is changed here. */
export const canPut = (row: SheetRowShape, column: WrittenColumn): boolean =>
  row.stage !== 'published' && row.stage !== 'shelved' && (column !== 'doer' || stepAtHand(row) !== undefined);

/** What is saved in a cell. */
function savedIn(row: SheetRowShape, column: WrittenColumn): string | null {
  if (column === 'title') return row.title;
  if (column === 'pillar') return row.pillarId;
  if (column === 'purpose') return row.purpose;
  if (column === 'lead') return row.leadId;
  return column === 'wish' ? row.wishOn : (stepAtHand(row)?.doerId ?? null);
}

/** What a cell shows: what was put in, else what is saved. */
export function shownIn(row: SheetRowShape, column: WrittenColumn, draft: SheetDraft): string | null {
  const mine = draft[row.id];
  const saved = savedIn(row, column);
  if (!mine) return saved;
  if (column === 'doer') return mine.doer ? (mine.doer.personId ?? null) : saved;
  const put = { title: mine.title, pillar: mine.pillarId, lead: mine.leadId, purpose: mine.purpose, wish: mine.wishOn }[column];
  return put === undefined ? saved : put;
}

export const isChanged = (row: SheetRowShape, column: WrittenColumn, draft: SheetDraft): boolean =>
  shownIn(row, column, draft) !== savedIn(row, column);

/** A value put into a cell. What is put back to what is saved is nothing to be kept. */
export function put(draft: SheetDraft, row: SheetRowShape, { column, value }: Put): SheetDraft {
  if (!canPut(row, column)) return draft;
  const { [row.id]: before, ...rest } = draft;
  const { version = row.version, ...fields } = before ?? {};
  const next: Omit<LineDraft, 'version'> = { ...fields, ...changeOf(row, { column, value }) };
  const kept = value === savedIn(row, column) ? withoutColumn(next, column) : next;
  return Object.keys(kept).length === 0 ? rest : { ...rest, [row.id]: { ...kept, version } };
}

function changeOf(row: SheetRowShape, { column, value }: Put): Omit<LineDraft, 'version'> {
  if (column === 'title') return { title: value ?? '' };
  if (column === 'pillar') return { pillarId: value };
  if (column === 'purpose') return { purpose: value as Purpose | null }; // of the options that there are
  if (column === 'lead') return { leadId: value };
  if (column === 'wish') return { wishOn: value };
  const step = stepAtHand(row);
  return step ? { doer: { stepId: step.stepId, version: step.version, personId: value } } : {};
}

const FIELD = { title: 'title', pillar: 'pillarId', lead: 'leadId', purpose: 'purpose', wish: 'wishOn', doer: 'doer' } as const;
function withoutColumn(line: Omit<LineDraft, 'version'>, column: WrittenColumn): Omit<LineDraft, 'version'> {
  const { [FIELD[column]]: _, ...rest } = line;
  return rest;
}

/** Whether the piece, or the step that was given away here, has changed since something was put in. */
export function isBehind(row: SheetRowShape, draft: SheetDraft): boolean {
  const mine = draft[row.id];
  if (!mine) return false;
  const step = stepAtHand(row);
  return (
    mine.version !== row.version || (mine.doer !== undefined && (mine.doer.stepId !== step?.stepId || mine.doer.version !== step.version))
  );
}

/** Keeps what was put in here, upon the state that somebody else left; who should have a step that is not at hand any more goes. */
export function keptOver(draft: SheetDraft, row: SheetRowShape): SheetDraft {
  const { [row.id]: mine, ...rest } = draft;
  if (!mine) return draft;
  const step = stepAtHand(row);
  const { doer, ...fields } = mine;
  const again = doer && doer.stepId === step?.stepId ? { doer: { ...doer, version: step.version } } : {};
  const next = { ...fields, ...again };
  return Object.keys(next).length === 1 ? rest : { ...rest, [row.id]: { ...next, version: row.version } };
}

/** A title cannot be empty: such a line waits until it has one. */
export const hasNoTitle = (row: SheetRowShape, draft: SheetDraft): boolean => shownIn(row, 'title', draft)?.trim() === '';

/** What can be sent: lines that are there, whose piece nobody else changed, with a title. */
export const changesOf = (draft: SheetDraft, rows: readonly SheetRowShape[]): SheetChangeBody[] =>
  rows.flatMap((row) => {
    const mine = draft[row.id];
    if (!mine || isBehind(row, draft) || hasNoTitle(row, draft)) return [];
    return [{ ...mine, pieceId: row.id, ...(mine.title === undefined ? {} : { title: mine.title.trim() }) }];
  });

export const without = (draft: SheetDraft, pieceIds: readonly string[]): SheetDraft =>
  Object.fromEntries(Object.entries(draft).filter(([id]) => !pieceIds.includes(id)));

/** What putting many cells comes to: the draft after it, how many were put, and how many had no place or were not understood. */
export interface Filled {
  readonly draft: SheetDraft;
  readonly cells: number;
  readonly left: number;
}

/** One value put into a column of many lines; a pillar only where the piece's client has it. */
export function putMany(draft: SheetDraft, rows: readonly SheetRowShape[], one: Put, known: Known): Filled {
  let [next, cells, left] = [draft, 0, 0];
  for (const row of rows) {
    const isTheirs = one.column !== 'pillar' || one.value === null || known.pillarsOf(row.clientId).some(({ id }) => id === one.value);
    if (!canPut(row, one.column) || !isTheirs) left++;
    else {
      next = put(next, row, one);
      cells++;
    }
  }
  return { draft: next, cells, left };
}

/** What the first of some lines shows in a column, put into the others. */
export function filledDown(draft: SheetDraft, rows: readonly SheetRowShape[], column: WrittenColumn, known: Known): Filled {
  const [first, ...others] = rows;
  if (!first) return { draft, cells: 0, left: 0 };
  return putMany(draft, others, { column, value: shownIn(first, column, draft) }, known);
}

/** What names are read by. */
export interface Known {
  readonly pillarsOf: (clientId: string) => readonly Pick<PillarShape, 'id' | 'name'>[];
  readonly people: readonly Pick<PersonRow, 'id' | 'name' | 'role'>[];
  readonly todayOn: Day;
}

/** Those who may answer for a piece: freelance creators see only what they work on. */
export const leadsAmong = <Person extends Pick<PersonRow, 'role'>>(people: readonly Person[]): Person[] =>
  people.filter(({ role }) => role !== 'freelance');

/** What a text out of a spreadsheet means in a column; undefined: nothing that is known. */
export function readIn(
  row: SheetRowShape,
  column: WrittenColumn,
  text: string,
  { pillarsOf, people, todayOn }: Known,
): string | null | undefined {
  const plain = text.trim();
  if (column === 'title') return plain === '' ? undefined : plain;
  if (plain === '' || (column === 'doer' && plain.toLowerCase() === 'nobody')) return null;
  if (column === 'wish') return readDay(plain, todayOn);
  if (column === 'lead') return leadsAmong(people).find(({ name }) => name.toLowerCase() === plain.toLowerCase())?.id;
  const options =
    column === 'pillar'
      ? pillarsOf(row.clientId)
      : column === 'doer'
        ? people
        : [...PURPOSE_OPTIONS, ...PURPOSE_OPTIONS.map(({ id }) => ({ id, name: id }))];
  return options.find(({ name }) => name.toLowerCase() === plain.toLowerCase())?.id;
}

/** A table that was copied from a spreadsheet, put into cells from one of them to the right and down, over the columns that are shown and can be written. */
export function pasted(
  draft: SheetDraft,
  rows: readonly SheetRowShape[],
  at: { readonly row: number; readonly column: WrittenColumn },
  table: readonly (readonly string[])[],
  columns: readonly WrittenColumn[],
  known: Known,
): Filled {
  const first = columns.indexOf(at.column);
  let [next, cells, left] = [draft, 0, 0];
  for (const [down, line] of table.entries())
    for (const [right, text] of line.entries()) {
      const [row, column] = [rows[at.row + down], columns[first + right]];
      const value = row && column && canPut(row, column) ? readIn(row, column, text, known) : undefined;
      if (!row || !column || value === undefined) left++;
      else {
        next = put(next, row, { column, value });
        cells++;
      }
    }
  return { draft: next, cells, left };
}
