import {
  DndContext,
  KeyboardSensor,
  pointerWithin,
  PointerSensor,
  rectIntersection,
  useSensor,
  useSensors,
  type CollisionDetection,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { CalendarEntryShape, CalendarShape } from '@zesting/contract';
import { isId, lastOfMonth, type Day } from '@zesting/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { calendarQuery } from '../../api/calendar';
import { freeSlotsQuery } from '../../api/plan';
import { wordsOf } from '../../lib/api';
import { usePlacements } from '../../lib/placements';
import { count } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { BeginPieceDialog } from '../../parts/begin-piece-dialog';
import { withChanges } from '../../lib/use-search';
import { Failed, Loading } from '../../ui/page';
import { PlacementDialog } from '../../parts/placement-dialog';
import { CalendarFilter } from './calendar-filter';
import { CalendarHead } from './calendar-head';
import { dayKeys } from './day-keys';
import { DragHint } from './drag-hint';
import { MixPanel } from './mix-panel';
import { MonthGrid } from './month-grid';
import { Tray } from './tray';
import { filterQuery, viewOf } from './view';
import { WeekLanes } from './week-lanes';
import { YearGrid } from './year-grid';

/** The calendar of one client or all, each placement on its client's own day; the tray of undated ones beside it. */
export function CalendarPage() {
  const { query, client } = useClients();
  const { todayOn, role } = useSession();
  const [begun, setBegun] = useState<{ on?: string; clientId?: string | undefined }>();
  const [search, setSearch] = useSearchParams();
  const view = viewOf(search, todayOn as Day); // a day of the contract's
  // what the address leads to is among what is shown
  const [led] = useState(() => [search.get('placement') ?? ''].find(isId) ?? null);
  const withDues = view.days === 'publish' ? '' : 'dues=yes';
  const asked = calendarQuery([query, filterQuery(view.filter), withDues].filter(Boolean).join('&'), view.from, view.to, led);
  // a year is told in numbers: what stands around it is that of today
  const calendar = useQuery(view.kind === 'year' ? calendarQuery(query, todayOn, todayOn, led) : asked);
  const canPlan = role === 'lead' || role === 'manager';
  const free = useQuery({ ...freeSlotsQuery(query, view.from, view.to), enabled: canPlan && view.slots });
  const [showsFilter, setShowsFilter] = useState(false);
  // what is filtered says so
  const isFiltered = showsFilter || Object.values(view.filter).some((value) => value !== null);
  const [openId, setOpenId] = useState<string | null>(led);
  const drop = useDrop(asked.queryKey, calendar.data);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: dayKeys }),
  );
  if (calendar.isError) return <Failed message={wordsOf(calendar.error)} onRetry={() => void calendar.refetch()} />;
  if (!calendar.data) return <Loading />;
  const hereOn = (calendar.data.clocks.find((clock) => clock.clientId === client?.id)?.todayOn ?? todayOn) as Day; // likewise
  const month = view.kind === 'month' ? view.month : hereOn.slice(0, 7);
  const grid = {
    view,
    calendar: calendar.data,
    slots: canPlan && view.slots && view.days !== 'due' ? (free.data?.slots ?? []) : [],
    onOpen: setOpenId,
    onBegin: canPlan ? (on: string, clientId?: string) => setBegun({ on, clientId }) : undefined,
  };
  return (
    <>
      <CalendarHead
        view={view}
        calendar={calendar.data}
        onChange={setSearch}
        isFiltered={isFiltered}
        onFilter={() => setShowsFilter(!showsFilter)}
        {...(canPlan ? { onBegin: () => setBegun({}) } : {})}
      />
      {isFiltered && <CalendarFilter filter={view.filter} from={view.from} to={view.to} calendar={calendar.data} />}
      {calendar.data.hidden > 0 && (
        <p role="status" className="text-muted mb-2">
          {count(calendar.data.hidden, 'more placement')} on these days {calendar.data.hidden === 1 ? 'is' : 'are'} not shown: choose a
          client above to see all of theirs.
        </p>
      )}
      {calendar.data.duesHidden > 0 && (
        <p role="status" className="text-muted mb-2">
          {count(calendar.data.duesHidden, 'more piece')} due on these days: choose a client above to see all of theirs.
        </p>
      )}
      {view.kind === 'year' && (
        <YearGrid
          query={[query, filterQuery(view.filter)].filter(Boolean).join('&')}
          view={view}
          todayOn={hereOn}
          toWeek={(day) => `?${withChanges(search.toString(), { view: 'week', week: day, month: null }).toString()}`}
        />
      )}
      {view.kind !== 'year' && (
        <DndContext
          sensors={sensors}
          collisionDetection={dayUnder}
          onDragEnd={drop}
          accessibility={{ screenReaderInstructions: { draggable: INSTRUCTIONS } }}
        >
          <DragHint calendar={calendar.data} />
          <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_230px] print:block sideways items-start">
            {view.kind === 'week' && !client ? <WeekLanes {...grid} /> : <MonthGrid {...grid} isFiltered={isFiltered} todayOn={hereOn} />}
            <Tray entries={calendar.data.tray} hidden={calendar.data.trayHidden} colouring={view.colouring} onOpen={setOpenId}>
              {client && <MixPanel clientId={client.id} month={month} lastOn={lastOfMonth(month)} />}
            </Tray>
          </div>
        </DndContext>
      )}
      {begun && <BeginPieceDialog {...begun} onClose={() => setBegun(undefined)} />}
      {openId && <OpenedEntry key={openId} id={openId} calendar={calendar.data} onClose={() => setOpenId(null)} />}
    </>
  );
}

/** The dialog of an entry, which stays open as it was opened, even when somebody else moves the entry out of sight. */
function OpenedEntry({ id, calendar, onClose }: { id: string; calendar: CalendarShape; onClose: () => void }) {
  const { clientOf } = useClients();
  const all = [...calendar.entries, ...calendar.tray];
  const [entry] = useState(all.find((candidate) => candidate.id === id));
  if (!entry) return null;
  const others = all.filter((other) => other.clientId === entry.clientId && other.id !== id && other.state !== 'out');
  return (
    <PlacementDialog
      placement={entry}
      title={entry.pieceTitle}
      siblings={entry.siblings}
      others={others}
      channels={clientOf(entry.clientId)?.channels ?? []}
      onClose={onClose}
    />
  );
}

/** The day under the pointer; by keyboard, the day that the entry covers most. */
const dayUnder: CollisionDetection = (args) => {
  const under = pointerWithin(args);
  return under.length > 0 ? under : rectIntersection(args);
};

const INSTRUCTIONS =
  'Press Space to lift, arrow keys to go from day to day, Space to drop, Escape to leave it where it was. Enter opens a dialog with all that can be done instead.';

/** Drops a placement on a day: shown there at once, put back when the server refuses. */
function useDrop(key: readonly unknown[], calendar: CalendarShape | undefined) {
  const queries = useQueryClient();
  const { move } = usePlacements();
  return ({ active, over }: DragEndEvent) => {
    const entry = [...(calendar?.entries ?? []), ...(calendar?.tray ?? [])].find((candidate) => candidate.id === active.id);
    const [on = '', clientId] = String(over?.id ?? '')
      .split('/')
      .reverse();
    if (!entry || on === '' || entry.on === on || !calendar) return;
    if (clientId !== undefined && clientId !== entry.clientId) {
      toast('That is another client’s lane. Each placement stays with its client.');
      return;
    }
    const moved: CalendarEntryShape = { ...entry, on };
    queries.setQueryData<CalendarShape>(key, {
      ...calendar,
      entries: [...calendar.entries.filter((other) => other.id !== entry.id), moved],
      tray: calendar.tray.filter((other) => other.id !== entry.id),
    });
    move({ placement: entry, on, at: entry.at });
  };
}
