import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';

export interface Column<Row> {
  readonly key: string;
  /** the word over the column; `spoken` alone is for readers that do not see it */
  readonly head?: string;
  readonly spoken?: string;
  /** a fixed width in rem; what has none shares what is left */
  readonly width?: number;
  readonly align?: 'right';
  readonly cell: (row: Row) => ReactNode;
}

interface TableProps<Row> {
  readonly label: string;
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  /** called when the last rows come into view */
  readonly onEnd?: (() => void) | undefined;
}

const ROW_PX = 36;
/** So few rows are all there: the browser's own find and print see them. */
const FEW = 120;

/** A table that scrolls with the page. Of many rows only those near the window are there. */
export function Table<Row>({ label, columns, rows, keyOf, onEnd }: TableProps<Row>) {
  const body = useRef<HTMLTableSectionElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, []);
  const isLong = rows.length > FEW;
  const window_ = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => ROW_PX,
    overscan: 12,
    scrollMargin: top,
    enabled: isLong,
  });
  const shown = window_.getVirtualItems();
  const [first, last] = [isLong ? (shown[0]?.index ?? 0) : 0, isLong ? (shown.at(-1)?.index ?? 0) : rows.length - 1];
  const isAtEnd = isLong && last >= rows.length - 30;
  useEffect(() => {
    if (isAtEnd) onEnd?.();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once per arrival at the end of so many rows
  }, [isAtEnd, rows.length]);
  return (
    <div className="overflow-x-auto">
      <table className="w-full table-fixed text-[13px] min-w-[64rem]" aria-label={label} aria-rowcount={rows.length + 1}>
        <colgroup>
          {columns.map(({ key, width }) => (
            <col key={key} style={width === undefined ? {} : { width: `${width}rem` }} />
          ))}
        </colgroup>
        <thead>
          <tr className="text-left text-muted" aria-rowindex={1}>
            {columns.map(({ key, head, spoken, align }) => (
              <th key={key} scope="col" className={`font-medium px-3 py-2 whitespace-nowrap ${align === 'right' ? 'text-right' : ''}`}>
                {head ?? <span className="sr-only">{spoken}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={body}>
          <Gap height={first * ROW_PX} />
          {rows.slice(first, last + 1).map((row, index) => (
            <tr
              key={keyOf(row)}
              aria-rowindex={first + index + 2}
              className="border-t border-line hover:bg-sunk"
              style={{ height: ROW_PX }}
            >
              {columns.map(({ key, align, cell }) => (
                <td key={key} className={`px-3 truncate ${align === 'right' ? 'text-right' : ''}`}>
                  {cell(row)}
                </td>
              ))}
            </tr>
          ))}
          <Gap height={(rows.length - 1 - last) * ROW_PX} />
        </tbody>
      </table>
    </div>
  );
}

/** The room of the rows that are not there. */
const Gap = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden>
      <td style={{ height, padding: 0 }} />
    </tr>
  ) : null;
