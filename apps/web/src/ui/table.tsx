import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { memo, useEffect, useLayoutEffect, useRef, useState, type CSSProperties, type ReactNode } from 'react';

export interface Column<Row> {
  readonly key: string;
  /** the word over the column; `spoken` alone is for readers that do not see it */
  readonly head?: string;
  /** what stands there instead of a word, such as a box that chooses all */
  readonly headCell?: ReactNode;
  readonly spoken?: string;
  /** a fixed width in rem; what has none shares what is left */
  readonly width?: number;
  readonly align?: 'right';
  /** the order that its head asks for */
  readonly order?: string;
  readonly cell: (row: Row) => ReactNode;
}

interface TableProps<Row> {
  readonly label: string;
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  /** the order that the rows have, and what a head that has one asks for; where nobody listens a head is no button */
  readonly order?: string;
  readonly onOrder?: (order: string) => void;
  /** the other way round */
  readonly isDown?: boolean;
  /** a row that is drawn over the whole width, such as the head of a group; undefined: cell by cell */
  readonly wide?: (row: Row) => ReactNode | undefined;
  /** less room between columns */
  readonly isDense?: boolean;
  /** called when the last rows come into view */
  readonly onEnd?: (() => void) | undefined;
}

const ROW_PX = 36;
/** Rows come and go by so many at once, so that most movements change nothing. */
const STEP = 4;
/** So many rows above and below what is seen are there. */
const AROUND = 12;
/** So few rows are all there: the browser's own find and print see them. */
const FEW = 120;

/**
 * A table that scrolls with the page. Of many rows only those near the window are there. Its rows are boxes with the roles of a table, each laid out by
 * itself: a real table is laid out anew as a whole with every row that comes or goes, which is seen as stutter.
 */
export function Table<Row>({ label, columns, rows, keyOf, order, onOrder, isDown = false, wide, isDense = false, onEnd }: TableProps<Row>) {
  const body = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, []);
  const isLong = rows.length > FEW;
  const near = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW_PX,
    overscan: AROUND,
    scrollMargin: top,
    enabled: isLong,
    useFlushSync: false,
  }).getVirtualItems();
  const first = isLong ? Math.floor((near[0]?.index ?? 0) / STEP) * STEP : 0;
  const last = isLong ? Math.min(rows.length, Math.ceil(((near.at(-1)?.index ?? 0) + 1) / STEP) * STEP) - 1 : rows.length - 1;
  const isAtEnd = isLong && last >= rows.length - 30;
  useEffect(() => {
    if (isAtEnd) onEnd?.();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once per arrival at the end of so many rows
  }, [isAtEnd, rows.length]);
  const tracks = columns.map(({ width }) => (width === undefined ? 'minmax(12rem,1fr)' : `${width}rem`)).join(' ');
  return (
    <div className="overflow-x-auto">
      <div
        role="table"
        aria-label={label}
        aria-rowcount={rows.length + 1}
        className="text-[13px] min-w-max"
        style={{ '--tracks': tracks } as CSSProperties}
      >
        <div role="rowgroup">
          <div role="row" aria-rowindex={1} className="table-line text-muted font-medium">
            {columns.map(({ key, head, headCell, spoken, align, order: own }) => (
              <div
                key={key}
                role="columnheader"
                aria-sort={own === undefined || !onOrder ? undefined : own !== order ? 'none' : isDown ? 'descending' : 'ascending'}
                className={`${isDense ? 'px-2' : 'px-3'} whitespace-nowrap ${align === 'right' ? 'text-right' : ''}`}
              >
                {own === undefined || !onOrder ? (
                  (headCell ?? head ?? <span className="sr-only">{spoken}</span>)
                ) : (
                  <button
                    type="button"
                    title={own === order ? `In the order of ${head}` : `Order by ${head}`}
                    className={`inline-flex items-center gap-1 min-h-7 hover:underline ${own === order ? 'text-ink' : ''}`}
                    onClick={() => onOrder(own)}
                  >
                    {head}
                    {own === order && (isDown ? <ArrowUp size={13} aria-hidden /> : <ArrowDown size={13} aria-hidden />)}
                  </button>
                )}
              </div>
            ))}
          </div>
        </div>
        <div role="rowgroup" ref={body} style={{ height: rows.length * ROW_PX, paddingTop: first * ROW_PX }}>
          {rows.slice(first, last + 1).map((row, index) => (
            <Line key={keyOf(row)} row={row} place={first + index + 2} columns={columns} wide={wide} isDense={isDense} />
          ))}
        </div>
      </div>
    </div>
  );
}

interface LineProps<Row> {
  readonly row: Row;
  readonly wide: ((row: Row) => ReactNode | undefined) | undefined;
  readonly isDense: boolean;
  readonly place: number;
  readonly columns: readonly Column<Row>[];
}

/** One row, drawn once however far the table scrolls. */
const Line = memo(function Line({ row, place, columns, wide, isDense }: LineProps<unknown>) {
  const whole = wide?.(row);
  if (whole !== undefined)
    return (
      <div role="row" aria-rowindex={place} className="border-t border-line bg-sunk flex items-center px-3" style={{ height: ROW_PX }}>
        <div role="cell" aria-colspan={columns.length} className="flex-1 min-w-0">
          {whole}
        </div>
      </div>
    );
  return (
    <div role="row" aria-rowindex={place} className="table-line border-t border-line hover:bg-sunk" style={{ height: ROW_PX }}>
      {columns.map(({ key, align, cell }) => (
        <div key={key} role="cell" className={`${isDense ? 'px-2' : 'px-3'} truncate ${align === 'right' ? 'text-right' : ''}`}>
          {cell(row)}
        </div>
      ))}
    </div>
  );
}) as <Row>(props: LineProps<Row>) => ReactNode; // a row goes with its own columns
