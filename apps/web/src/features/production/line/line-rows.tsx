import { useWindowVirtualizer } from '@tanstack/react-virtual';
import type { LineRowShape } from '@zesting/contract';
import { addDays, daysBetween, weekdayOf, type Day, type PlanDoer } from '@zesting/core';
import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { leftOf, type Axis } from '../../../lib/axis';
import { dayWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { ClientCode, DangerTag } from '../../../ui/tags';
import { DoneBar, LineBar } from './line-bar';
import { barsOf, type Bar } from './line-case';
import { PublishMark } from './publish-mark';

const LANE_PX = 26;
const ROW_PX = 34;
/** So few rows are all there: the browser's own find and print see them. */
const FEW = 40;
const GRID = 'grid grid-cols-[minmax(8rem,20rem)_minmax(0,1fr)]';

interface RowsProps {
  readonly rows: readonly LineRowShape[];
  readonly doers: ReadonlyMap<string, PlanDoer>;
  readonly axis: Axis;
  readonly todayOn: Day;
  readonly tightDays: number;
  readonly onEnd: () => void;
}

/** The rows of the line. Of many only those near the window are there. */
export function LineRows({ rows, doers, axis, todayOn, tightDays, onEnd }: RowsProps) {
  const body = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, []);
  const heights = useMemo(() => rows.map((row) => heightOf(barsOf(row.steps, axis))), [rows, axis]);
  const isLong = rows.length > FEW;
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: (index) => heights[index] ?? ROW_PX,
    overscan: 8,
    scrollMargin: top,
    enabled: isLong,
    useFlushSync: false,
  });
  const near = virtual.getVirtualItems();
  const [first, last] = isLong ? [near[0]?.index ?? 0, near.at(-1)?.index ?? 0] : [0, rows.length - 1];
  const isAtEnd = isLong && last >= rows.length - 15;
  useEffect(() => {
    if (isAtEnd) onEnd();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once per arrival at the end of so many rows
  }, [isAtEnd, rows.length]);
  const above = isLong ? (near[0]?.start ?? top) - top : 0;
  const below = isLong ? virtual.getTotalSize() - ((near.at(-1)?.end ?? top) - top) : 0;
  return (
    <div className="card">
      <Days axis={axis} todayOn={todayOn} />
      <ul ref={body} aria-label="Pieces over days" style={{ paddingTop: above, paddingBottom: Math.max(0, below) }}>
        {rows.slice(first, last + 1).map((row) => (
          <LineRow key={row.id} row={row} doers={doers} axis={axis} todayOn={todayOn} tightDays={tightDays} />
        ))}
      </ul>
    </div>
  );
}

/** As many lanes as the bars need, and a line for the border. */
const heightOf = (bars: readonly Bar[]): number => Math.max(ROW_PX, (Math.max(0, ...bars.map(({ lane }) => lane)) + 1) * LANE_PX + 8);

/** The days over the rows: each by itself in up to four weeks, else the Mondays. */
function Days({ axis, todayOn }: { axis: Axis; todayOn: Day }) {
  const length = daysBetween(axis.fromOn, axis.toOn) + 1;
  const isClose = length <= 28;
  const days = Array.from({ length }, (_, index) => addDays(axis.fromOn, index)).filter((day) => isClose || weekdayOf(day) === 1);
  return (
    <div className={`${GRID} text-[12px] text-muted border-b border-line sticky top-0 z-20 bg-card rounded-t-md`} aria-hidden>
      <span className="px-3 py-1">Piece</span>
      <div className="relative h-10">
        {days.map((day) => {
          const [weekday = '', date = '', month = ''] = dayWords(day, day.slice(0, 4)).split(' ');
          const isFirst = day === axis.fromOn || date === '1';
          return (
            <span
              key={day}
              className={`absolute inset-y-0 pt-0.5 text-center tabular leading-tight whitespace-nowrap ${isClose ? '' : 'pl-1 text-left'} ${day === todayOn ? 'text-rhubarb font-semibold' : ''}`}
              style={{ left: `${leftOf(axis, day)}%`, width: isClose ? `${100 / length}%` : undefined }}
            >
              {isClose ? weekday.slice(0, length > 14 ? 1 : 3) : month}
              <br />
              {date}
              {isClose && isFirst && length <= 14 ? ` ${month}` : ''}
            </span>
          );
        })}
      </div>
    </div>
  );
}

interface RowProps extends Omit<RowsProps, 'rows' | 'onEnd'> {
  readonly row: LineRowShape;
}

const LineRow = memo(function LineRow({ row, doers, axis, todayOn, tightDays }: RowProps) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const bars = useMemo(() => barsOf(row.steps, axis), [row.steps, axis]);
  const today = leftOf(axis, todayOn);
  const length = daysBetween(axis.fromOn, axis.toOn) + 1;
  return (
    <li className={`${GRID} border-t border-line first:border-t-0`} style={{ height: heightOf(bars) }}>
      <div className="px-3 min-w-0 flex items-center gap-2 h-[33px]">
        <ClientCode code={client?.code ?? ''} colour={client?.colour ?? 0} name={client?.name ?? ''} />
        <Link to={to(`/pieces/${row.id}`)} className="font-medium truncate flex-1 no-underline hover:underline" title={row.title}>
          {row.title}
        </Link>
        <DangerTag danger={row.danger === 'fine' ? null : row.danger} />
      </div>
      <div className="relative overflow-hidden" data-axis>
        <Ground axis={axis} length={length} />
        {today >= 0 && today < 100 && (
          <span
            className="absolute inset-y-0 bg-rhubarb-soft opacity-60"
            style={{ left: `${today}%`, width: `${100 / length}%` }}
            aria-hidden
          />
        )}
        {bars.map((bar) =>
          bar.step.finishedOn === null ? (
            <LineBar key={bar.step.id} bar={bar} row={row} doers={doers} axis={axis} tightDays={tightDays} top={7 + bar.lane * LANE_PX} />
          ) : (
            <DoneBar key={bar.step.id} bar={bar} axis={axis} top={7} />
          ),
        )}
        <PublishMarks row={row} doers={doers} axis={axis} tightDays={tightDays} />
      </div>
    </li>
  );
});

/** Weekends, and where weeks begin. */
function Ground({ axis, length }: { axis: Axis; length: number }) {
  const days = Array.from({ length }, (_, index) => addDays(axis.fromOn, index));
  return (
    <>
      {days.map((day) =>
        weekdayOf(day) === 6 ? (
          <span
            key={day}
            aria-hidden
            className="absolute inset-y-0 bg-sunk opacity-70"
            style={{ left: `${leftOf(axis, day)}%`, width: `${200 / length}%` }}
          />
        ) : weekdayOf(day) === 1 ? (
          <span key={day} aria-hidden className="absolute inset-y-0 w-px bg-line" style={{ left: `${leftOf(axis, day)}%` }} />
        ) : null,
      )}
    </>
  );
}

/** The days on which it goes out; without a placement that has one, the wish date. */
function PublishMarks({ row, doers, axis, tightDays }: Omit<RowProps, 'todayOn'>) {
  const given = row.placements.filter(({ state }) => state !== 'cancelled');
  const isLive = given.some(({ state }) => state !== 'out');
  return (
    <>
      {given.map((placement) => (
        <PublishMark
          key={placement.id}
          placement={placement}
          on={placement.on as Day}
          row={row}
          doers={doers}
          axis={axis}
          tightDays={tightDays}
        />
      ))}
      {!isLive && row.wishOn && (
        <PublishMark placement={null} on={row.wishOn as Day} row={row} doers={doers} axis={axis} tightDays={tightDays} />
      )}
    </>
  );
}
