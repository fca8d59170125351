import { useQuery } from '@tanstack/react-query';
import type { SheetRowShape, SheetShape } from '@zesting/contract';
import { getDay, totalsOf } from '@zesting/core';
import { useCallback, useMemo, useState, type ClipboardEvent } from 'react';
import { peopleQuery } from '../../../api/people';
import { sheetQuery } from '../../../api/production';
import { wordsOf } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useClients, useSession } from '../../../lib/queries';
import { ProductionNav } from '../../../parts/production-nav';
import { SavedViews } from '../../../parts/saved-views';
import { Button, buttonClass } from '../../../ui/button';
import { Empty, Failed, Loading, PageHead } from '../../../ui/page';
import { PieceFilterRow } from '../piece-filter';
import { tableIn } from '../table-in';
import { columnsWritten, SheetLook, SheetMany, totalsWords } from './sheet-bar';
import { filledDown, hasNoTitle, isBehind, leadsAmong, pasted, put, putMany, type Filled, type WrittenColumn } from './sheet-draft';
import { SheetTable } from './sheet-table';
import { entriesOf, useSheetView, type SheetView } from './sheet-view';
import { useSheetDraft } from './use-sheet-draft';

/** Pieces as lines of a sheet: ordered, put together, added up, changed in place or many at once, and taken away. */
export function SheetPage() {
  const { query } = useClients();
  const view = useSheetView();
  const sheet = useQuery(sheetQuery(query, view.asked));
  if (sheet.isError) return <Failed message={wordsOf(sheet.error)} onRetry={() => void sheet.refetch()} />;
  if (!sheet.data) return <Loading />;
  return (
    <>
      <PageHead
        nav={<ProductionNav />}
        title="Production"
        note={`${count(sheet.data.total, 'piece')} · ${totalsWords(totalsOf(sheet.data.rows))}`}
      >
        <SavedViews page="production" />
      </PageHead>
      <PieceFilterRow filter={view.filter} leftOut={sheet.data.leftOut} />
      <Sheet sheet={sheet.data} view={view} />
    </>
  );
}

/** What the cells read names by. */
function useKnown() {
  const { clients } = useClients();
  const { todayOn } = useSession();
  const { data: people } = useQuery(peopleQuery);
  return useMemo(
    () => ({
      pillarsOf: (clientId: string) => clients.find(({ id }) => id === clientId)?.pillars ?? [],
      people: people ?? [],
      leads: leadsAmong(people ?? []),
      todayOn: getDay(todayOn),
    }),
    [clients, people, todayOn],
  );
}

function Sheet({ sheet: { rows, total }, view }: { sheet: SheetShape; view: SheetView }) {
  const { query } = useClients();
  const known = useKnown();
  const work = useSheetDraft(rows);
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const entries = entriesOf(rows, view);
  const shown = entries.flatMap((entry) => (entry.kind === 'line' ? [entry.row] : []));
  const chosen = shown.filter(({ id }) => checked.has(id));
  const { draft, change, takeIn } = work;
  const onPut = (row: SheetRowShape, column: WrittenColumn, value: string | null) => change(put(draft, row, { column, value }));
  const onPaste = (event: ClipboardEvent, index: number, column: WrittenColumn) => {
    const table = tableIn(event.clipboardData.getData('text/plain'), event.clipboardData.getData('text/html'));
    if (!table) return;
    event.preventDefault();
    takeIn(pasted(draft, shown, { row: index, column }, table, columnsWritten(view.columns), known));
  };
  /** What is put into a column that is not shown is shown. */
  const fill = (column: WrittenColumn, filled: Filled) => {
    takeIn(filled);
    if (!view.columns.includes(column)) view.putColumn(column, true);
  };
  const onCheck = useCallback(
    (ids: readonly string[], isOn: boolean) =>
      setChecked((before) => new Set(isOn ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id)))),
    [],
  );
  if (rows.length === 0)
    return (
      <Empty title={view.filter.isNarrowed ? 'No piece is like that' : 'Nothing is open'}>A request that you accept becomes a piece.</Empty>
    );
  return (
    <>
      <SaveBar work={work} rows={rows}>
        <SheetLook view={view} />
      </SaveBar>
      {chosen.length > 0 && (
        <div className="card px-3 py-1.5 mb-2 text-[13px] no-print">
          <SheetMany
            chosen={chosen}
            known={known}
            onFill={(column) => fill(column, filledDown(draft, chosen, column, known))}
            onPutAll={(column, value) => fill(column, putMany(draft, chosen, { column, value }, known))}
            onNone={() => setChecked(new Set())}
          />
        </div>
      )}
      <div className="card">
        <SheetTable
          view={view}
          entries={entries}
          checked={checked}
          onCheck={onCheck}
          draft={draft}
          known={known}
          onPut={onPut}
          onPaste={onPaste}
        />
      </div>
      <p className="flex flex-wrap items-center gap-2 mt-3 text-[13px] text-muted no-print">
        {total > rows.length
          ? `Only ${count(rows.length, 'piece')} of ${total} are here: those aimed at soonest${view.isAll ? ', then what was done latest' : ''}. Narrow them to see others.`
          : 'Cells of a spreadsheet are pasted from where you stand, to the right and down.'}
        <a href={`/api/pieces/sheet/xlsx?${view.taken}&${query}`} download className={buttonClass()}>
          As a spreadsheet
        </a>
        <a href={`/api/pieces/sheet/csv?${view.taken}&${query}`} download className={buttonClass()}>
          As CSV
        </a>
      </p>
    </>
  );
}

interface SaveBarProps {
  readonly work: ReturnType<typeof useSheetDraft>;
  readonly rows: readonly SheetRowShape[];
  readonly children: React.ReactNode;
}

/** What is put in and not saved yet, what keeps it from being saved, and how the sheet is looked at. */
function SaveBar({ work, rows, children }: SaveBarProps) {
  const { draft } = work;
  const behind = rows.filter((row) => isBehind(row, draft));
  const nameless = rows.filter((row) => draft[row.id] && hasNoTitle(row, draft)).length;
  const elsewhere = Object.keys(draft).filter((id) => rows.every((row) => row.id !== id)).length;
  const isEmpty = Object.keys(draft).length === 0;
  return (
    <div className="sticky top-0 z-10 bg-paper py-1.5 mb-1 text-[13px] no-print">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Button look="main" disabled={work.changes === 0 || work.isSaving} onClick={work.save}>
          {work.changes === 0 ? 'Save' : `Save ${count(work.changes, 'line')}`}
        </Button>
        {!isEmpty && (
          <Button look="quiet" onClick={work.letGo}>
            Leave as it was
          </Button>
        )}
        {children}
        <span role="status" className="text-lake">
          {work.said}
        </span>
        {work.undo && (
          <Button look="quiet" onClick={work.undo}>
            Take it back
          </Button>
        )}
        {nameless > 0 && <span className="text-rhubarb">{count(nameless, 'piece')} without a title cannot be saved</span>}
        {elsewhere > 0 && <span className="text-rind">{count(elsewhere, 'changed line')} not shown here, and not saved</span>}
      </div>
      {behind.length > 0 && (
        <ul className="mt-1.5" aria-label="Changed by somebody else meanwhile">
          {behind.map((row) => (
            <li key={row.id} className="flex flex-wrap items-center gap-x-3 text-rind">
              Somebody else changed “{row.title}” meanwhile.
              <button type="button" className="underline min-h-6" onClick={() => work.keepMine(row)}>
                Keep what I put in
              </button>
              <button type="button" className="underline min-h-6" onClick={() => work.takeTheirs(row)}>
                Take theirs
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
