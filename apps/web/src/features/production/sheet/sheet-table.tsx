import type { SheetRowShape } from '@zesting/contract';
import { sheetColumn, type SheetColumn } from '@zesting/core';
import { count, dayWords, monthWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { Table, type Column } from '../../../ui/table';
import { totalsWords } from './sheet-bar';
import { ReadCell, WrittenCell, type SheetWork } from './sheet-cell';
import { WRITTEN } from './sheet-draft';
import type { SheetEntry, SheetView } from './sheet-view';

/** How wide each column is, in rem; the title takes what is left. */
const WIDTHS: Partial<Record<SheetColumn, number>> = {
  client: 5,
  number: 4,
  format: 7,
  pillar: 8.5,
  lead: 9,
  campaign: 11,
  channels: 12,
  purpose: 8.5,
  stage: 7,
  step: 8,
  doer: 9,
  round: 4.5,
  wish: 10,
  aim: 8.5,
  expected: 8.5,
  slack: 4.5,
  left: 4.5,
  worked: 5.5,
  danger: 7,
};
const RIGHT: readonly SheetColumn[] = ['number', 'round', 'slack', 'left', 'worked'];

interface SheetTableProps extends SheetWork {
  readonly view: SheetView;
  readonly entries: readonly SheetEntry[];
  readonly checked: ReadonlySet<string>;
  readonly onCheck: (ids: readonly string[], isOn: boolean) => void;
}

/** The sheet itself: a line for each piece, under the heads of its groups. */
export function SheetTable({ view, entries, checked, onCheck, draft, known, onPut, onPaste }: SheetTableProps) {
  const rows = entries.flatMap((entry) => (entry.kind === 'line' ? [entry.row] : []));
  const of = (column: SheetColumn): Column<SheetEntry> => {
    const written = WRITTEN.find((one) => one === column);
    return {
      key: column,
      head: sheetColumn(column).name,
      order: column,
      ...(WIDTHS[column] === undefined ? {} : { width: WIDTHS[column] }),
      ...(RIGHT.includes(column) ? { align: 'right' as const } : {}),
      cell: (entry) =>
        entry.kind === 'part' ? null : written ? (
          <WrittenCell column={written} row={entry.row} index={entry.index} draft={draft} known={known} onPut={onPut} onPaste={onPaste} />
        ) : (
          <ReadCell row={entry.row} column={column} />
        ),
    };
  };
  const choose: Column<SheetEntry> = {
    key: 'choose',
    width: 2.25,
    headCell: (
      <input
        type="checkbox"
        className="size-4 accent-pine block"
        aria-label="Choose all"
        checked={rows.length > 0 && rows.every(({ id }) => checked.has(id))}
        onChange={({ target }) =>
          onCheck(
            rows.map(({ id }) => id),
            target.checked,
          )
        }
      />
    ),
    cell: (entry) => entry.kind === 'line' && <Choose row={entry.row} isChecked={checked.has(entry.row.id)} onCheck={onCheck} />,
  };
  return (
    <Table
      label="Sheet"
      isDense
      columns={[choose, ...view.columns.map(of)]}
      rows={entries}
      keyOf={(entry) => (entry.kind === 'part' ? `part:${entry.name}` : entry.row.id)}
      order={view.by}
      isDown={view.isDown}
      onOrder={(by) => view.order(by as SheetColumn)} // of the columns above
      wide={(entry) => (entry.kind === 'part' ? <PartHead entry={entry} group={view.group} /> : undefined)}
    />
  );
}

const Choose = ({ row, isChecked, onCheck }: { row: SheetRowShape; isChecked: boolean; onCheck: SheetTableProps['onCheck'] }) => (
  <input
    type="checkbox"
    className="size-4 accent-pine block"
    aria-label={`Choose ${row.title}`}
    checked={isChecked}
    onChange={({ target }) => onCheck([row.id], target.checked)}
  />
);

/** A group's name and what it comes to. */
function PartHead({ entry, group }: { entry: SheetEntry & { kind: 'part' }; group: SheetView['group'] }) {
  const { clients } = useClients();
  const client = group === 'client' ? clients.find(({ code }) => code === entry.name) : undefined;
  return (
    <span className="font-medium">
      {partWords(entry.name, group)} {client?.name}
      <span className="text-muted font-normal tabular ml-3">
        {count(entry.totals.pieces, 'piece')} · {totalsWords(entry.totals)}
      </span>
    </span>
  );
}

export function partWords(name: string | null, group: SheetView['group']): string {
  if (name === null) return group === 'doer' || group === 'lead' ? 'Nobody' : group === 'week' || group === 'month' ? 'No aim' : 'None';
  if (group === 'week') return `Week of ${dayWords(name)}`;
  return group === 'month' ? monthWords(name) : name;
}
