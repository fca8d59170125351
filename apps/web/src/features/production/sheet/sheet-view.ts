import {
  SHEET_COLUMNS,
  SHEET_GROUPS,
  sheetOrdered,
  sheetParts,
  USUAL_COLUMNS,
  type SheetColumn,
  type SheetGroup,
  type SheetTotals,
} from '@zesting/core';
import type { SheetRowShape } from '@zesting/contract';
import { useSearch } from '../../../lib/use-search';
import { usePieceFilter } from '../piece-filter';

/** What stands in the sheet: the head of a group, or a piece. */
export type SheetEntry =
  | { readonly kind: 'part'; readonly name: string | null; readonly totals: SheetTotals }
  | { readonly kind: 'line'; readonly row: SheetRowShape; readonly index: number };

/** Without a title there is nothing to open a piece by. */
const ALWAYS: SheetColumn = 'title';

/** How the sheet is looked at, as the address has it. */
export function useSheetView() {
  const { search, put } = useSearch();
  const filter = usePieceFilter();
  const said = search.get('columns')?.split(',') ?? null;
  const columns: readonly SheetColumn[] = said
    ? SHEET_COLUMNS.filter((column) => column === ALWAYS || said.includes(column))
    : USUAL_COLUMNS;
  const by = SHEET_COLUMNS.find((column) => column === search.get('by')) ?? 'aim';
  const isDown = search.get('down') === 'yes';
  const group = SHEET_GROUPS.find((known) => known === search.get('group')) ?? null;
  const isAll = search.get('all') === 'yes';
  const narrowed = `${new URLSearchParams({ shown: isAll ? 'all' : 'open' })}${filter.query ? `&${filter.query}` : ''}`;
  const replace = { replace: true };
  return {
    filter,
    columns,
    by,
    isDown,
    group,
    isAll,
    /** what is asked of the server */
    asked: narrowed,
    /** the same with what it looks like, for taking it away */
    taken: `${narrowed}&${new URLSearchParams({ columns: columns.join(','), by, ...(isDown ? { down: 'yes' } : {}), ...(group ? { group } : {}) })}`,
    /** by another column, or the other way round */
    order: (column: SheetColumn) => put({ by: column === 'aim' ? null : column, down: column === by && !isDown ? 'yes' : null }, replace),
    putGroup: (next: SheetGroup | null) => put({ group: next }, replace),
    putAll: (next: boolean) => put({ all: next ? 'yes' : null }, replace),
    putColumn: (column: SheetColumn, isOn: boolean) => {
      const next = SHEET_COLUMNS.filter((known) => (known === column ? isOn : columns.includes(known)));
      put({ columns: next.join() === USUAL_COLUMNS.join() ? null : next.join(',') }, replace);
    },
  };
}
export type SheetView = ReturnType<typeof useSheetView>;

/** What is shown, in its order, with the heads of its groups; `index` is a piece's place among the pieces. */
export function entriesOf(rows: readonly SheetRowShape[], { by, isDown, group }: Pick<SheetView, 'by' | 'isDown' | 'group'>): SheetEntry[] {
  const ordered = sheetOrdered(rows, { by, isDown });
  const parts = group ? sheetParts(ordered, group) : [];
  let index = 0;
  const line = (row: SheetRowShape): SheetEntry => ({ kind: 'line', row, index: index++ });
  return group
    ? parts.flatMap(({ name, totals, lines }): SheetEntry[] => [{ kind: 'part', name, totals }, ...lines.map(line)])
    : ordered.map(line);
}
