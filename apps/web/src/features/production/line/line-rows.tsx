import { useWindowVirtualizer } from '@tanstack/react-virtual';
import type { LinePlacementShape, LineRowShape } from '@zesting/contract';
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
  const [trackPx, setTrackPx] = useState(0);
  useLayoutEffect(() => {
    const list = body.current;
    if (!list) return;
    setTop(list.getBoundingClientRect().top + window.scrollY);
    const watch = new ResizeObserver(() => setTrackPx(list.querySelector('[data-axis]')?.clientWidth ?? 0));
    watch.observe(list);
    return () => watch.disconnect();
  }, []);
  const dayPx = trackPx / (daysBetween(axis.fromOn, axis.toOn) + 1);
  const heights = useMemo(() => rows.map((row) => heightOf(lanesOf(barsOf(row.steps, axis), row, axis))), [rows, axis]);
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
          <LineRow key={row.id} row={row} doers={doers} axis={axis} todayOn={todayOn} tightDays={tightDays} dayPx={dayPx} />
        ))}
      </ul>
    </div>
  );
}

/** The days on which a piece goes out; without a placement that has one, the wish date. */
function marksOf({ placements, wishOn }: LineRowShape): { readonly placement: LinePlacementShape | null; readonly on: Day }[] {
  const given = placements.filter(({ state }) => state !== 'cancelled').map((placement) => ({ placement, on: placement.on as Day })); // a day of the contract's
  const isLive = given.some(({ placement }) => placement.state !== 'out');
  return isLive || wishOn === null ? given : [...given, { placement: null, on: wishOn as Day }];
}

/** How many lanes the bars need, and on which the days stand that it goes out: on the first, unless a bar is there. */
function lanesOf(bars: readonly Bar[], row: LineRowShape, axis: Axis): { readonly count: number; readonly ofMarks: number } {
  const open = bars.filter(({ step }) => step.finishedOn === null);
  // a mark is as wide as a finger, which is more than a day where many are seen
  const near = daysBetween(axis.fromOn, axis.toOn) < 28 ? 0 : 2;
  const count = Math.max(0, ...open.map(({ lane }) => lane)) + 1;
  const isInTheWay = marksOf(row).some(({ on }) =>
    open.some(({ lane, fromOn, toOn }) => lane === 0 && fromOn <= addDays(on, near) && addDays(toOn, near) >= on),
  );
  return isInTheWay ? { count: count + 1, ofMarks: count } : { count, ofMarks: 0 };
}

const heightOf = ({ count }: { readonly count: number }): number => Math.max(ROW_PX, count * LANE_PX + 8);

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
  /** how wide a day is */
  readonly dayPx: number;
}

const LineRow = memo(function LineRow({ row, doers, axis, todayOn, tightDays, dayPx }: RowProps) {
  const { clientOf, to } = useClients();
  const client = clientOf(row.clientId);
  const bars = useMemo(() => barsOf(row.steps, axis), [row.steps, axis]);
  const lanes = lanesOf(bars, row, axis);
  const today = leftOf(axis, todayOn);
  const length = daysBetween(axis.fromOn, axis.toOn) + 1;
  return (
    <li className={`${GRID} border-t border-line first:border-t-0`} style={{ height: heightOf(lanes) }}>
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
            <LineBar
              key={bar.step.id}
              bar={bar}
              row={row}
              doers={doers}
              axis={axis}
              tightDays={tightDays}
              dayPx={dayPx}
              top={7 + bar.lane * LANE_PX}
            />
          ) : (
            <DoneBar key={bar.step.id} bar={bar} axis={axis} top={7} />
          ),
        )}
        {marksOf(row).map(({ placement, on }) => (
          <PublishMark
            key={placement?.id ?? 'wish'}
            placement={placement}
            on={on}
            row={row}
            doers={doers}
            axis={axis}
            tightDays={tightDays}
            dayPx={dayPx}
            top={5 + lanes.ofMarks * LANE_PX}
          />
        ))}
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
