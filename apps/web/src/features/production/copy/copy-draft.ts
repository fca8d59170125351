import { tagWords, toTags } from '../../../lib/tags';
import type { CopyChangeBody, CopyRowShape } from '@zesting/contract';

/** What is changed in the table, in the order of its columns. */
export const COPY_FIELDS = ['copy', 'tags', 'firstComment', 'link'] as const;
export type CopyField = (typeof COPY_FIELDS)[number];

export const FIELD_WORDS: Record<CopyField, string> = { copy: 'Copy', tags: 'Tags', firstComment: 'First comment', link: 'Link' };

/** What was typed of one row, as texts, and the state of the piece on which it was typed. */
export interface RowDraft extends Partial<Readonly<Record<CopyField, string>>> {
  readonly contentVersion: number;
}

/** What was typed and is not saved yet, by row. */
export type CopyDraft = Readonly<Record<string, RowDraft>>;

/** What a row is known by: a piece can stand on one channel on several days, with the same copy. */
export const rowKey = ({ pieceId, channelId }: Pick<CopyRowShape, 'pieceId' | 'channelId'>): string => `${pieceId}:${channelId}`;

/** What is saved in a cell, as a text. */
export const savedText = (row: CopyRowShape, field: CopyField): string => (field === 'tags' ? tagWords(row.tags) : row[field]);

/** What a cell shows: what was typed, else what is saved. */
export const shownText = (row: CopyRowShape, field: CopyField, draft: CopyDraft): string =>
  draft[rowKey(row)]?.[field] ?? savedText(row, field);

const isSame = (field: CopyField, one: string, other: string): boolean =>
  field === 'tags' ? toTags(one).join(' ') === toTags(other).join(' ') : one === other;

/** A text put into a cell. What is typed back to what is saved is nothing to be kept. */
export function typed(draft: CopyDraft, row: CopyRowShape, field: CopyField, text: string): CopyDraft {
  const key = rowKey(row);
  const { [key]: before, ...rest } = draft;
  const { [field]: _, contentVersion = row.contentVersion, ...others } = before ?? {};
  const next = isSame(field, text, savedText(row, field)) ? others : { ...others, [field]: text };
  return Object.keys(next).length === 0 ? rest : { ...rest, [key]: { ...next, contentVersion } };
}

/** Whether a row can be changed: what is out stays as it went. */
export const isOpen = ({ state }: CopyRowShape): boolean => state !== 'out';

/** What pasting or filling comes to: the draft after it, how many cells were put, and how many had no place. */
export interface Filled {
  readonly draft: CopyDraft;
  readonly cells: number;
  readonly left: number;
}

/** A table that was copied from a spreadsheet, put into cells from one of them to the right and down. What is out is passed over, with its line. */
export function pasted(
  draft: CopyDraft,
  rows: readonly CopyRowShape[],
  at: { readonly row: number; readonly field: CopyField },
  table: readonly (readonly string[])[],
): Filled {
  const first = COPY_FIELDS.indexOf(at.field);
  let [next, cells, left] = [draft, 0, 0];
  for (const [down, line] of table.entries())
    for (const [right, text] of line.entries()) {
      const [row, field] = [rows[at.row + down], COPY_FIELDS[first + right]];
      if (!row || !field || !isOpen(row)) left++;
      else {
        next = typed(next, row, field, text);
        cells++;
      }
    }
  return { draft: next, cells, left };
}

/** What the first of some rows shows in a column, put into the others. */
export function filledDown(draft: CopyDraft, rows: readonly CopyRowShape[], field: CopyField): Filled {
  const [first, ...others] = rows;
  if (!first) return { draft, cells: 0, left: 0 };
  const open = others.filter(isOpen);
  const text = shownText(first, field, draft);
  return { draft: open.reduce((next, row) => typed(next, row, field, text), draft), cells: open.length, left: others.length - open.length };
}

/** What differs from what is saved, as it is sent. Rows that somebody else changed meanwhile are left out. */
export function changesOf(draft: CopyDraft, rows: readonly CopyRowShape[]): CopyChangeBody[] {
  const byKey = new Map(rows.map((row) => [rowKey(row), row]));
  return Object.entries(draft).flatMap(([key, { tags, contentVersion, ...texts }]) => {
    const row = byKey.get(key);
    if (!row || isBehind(row, draft)) return [];
    const { pieceId, channelId } = row;
    return [{ pieceId, channelId, contentVersion, ...texts, ...(tags === undefined ? {} : { tags: toTags(tags) }) }];
  });
}

/** Whether somebody else changed the piece after something was typed here. */
export const isBehind = (row: CopyRowShape, draft: CopyDraft): boolean => {
  const mine = draft[rowKey(row)];
  return mine !== undefined && mine.contentVersion !== row.contentVersion;
};

/** The draft without some pieces: they are saved, or left as they are. */
export const without = (draft: CopyDraft, pieceIds: readonly string[]): CopyDraft =>
  Object.fromEntries(Object.entries(draft).filter(([key]) => !pieceIds.includes(key.split(':')[0] ?? '')));
