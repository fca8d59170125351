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
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CalendarEntryShape, CalendarShape } from '@zesting/contract';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, wordsOf } from '../../lib/api';
import { monthWords, zoneWords } from '../../lib/format';
import { useMove } from '../../lib/placements';
import { useClients, useSession } from '../../lib/queries';
import { Button } from '../../ui/button';
import { Failed, Loading, PageHead } from '../../ui/page';
import { PlacementDialog } from '../../ui/placement-dialog';
import { MonthGrid } from './month-grid';
import { nextMonth, weeksOf } from './month';
import { Tray } from './tray';

/** The month of one client or all, each placement on its client's own day; the tray of undated ones beside it. */
export function CalendarPage() {
  const { query, client, clients } = useClients();
  const { todayOn } = useSession();
  const [search, setSearch] = useSearchParams();
  const month = /^\d{4}-\d{2}$/.test(search.get('month') ?? '') ? (search.get('month') ?? '') : todayOn.slice(0, 7);
  const weeks = weeksOf(month);
  const [from, to] = [weeks[0]?.[0] ?? '', weeks.at(-1)?.[6] ?? ''];
  const key = ['calendar', query, from, to];
  const calendar = useQuery({
    queryKey: key,
    queryFn: () => call<CalendarShape>(`/calendar?from=${from}&to=${to}&${query}`),
    placeholderData: keepPreviousData,
    refetchInterval: 30_000,
  });
  const [openId, setOpenId] = useState<string | null>(search.get('placement'));
  const drop = useDrop(key, calendar.data);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(KeyboardSensor));
  const go = (by: number | null) => {
    const next = new URLSearchParams(search);
    if (by === null) next.delete('month');
    else next.set('month', nextMonth(month, by));
    next.delete('placement');
    setSearch(next);
  };
  if (calendar.isError) return <Failed message={wordsOf(calendar.error)} onRetry={() => void calendar.refetch()} />;
  if (!calendar.data) return <Loading />;
  const note = client
    ? `${zoneWords(client.zone)} time`
    : clients.map((shown) => `${shown.code} in ${zoneWords(shown.zone)} time`).join(', ');
  return (
    <>
      <PageHead title={monthWords(month)} note={note}>
        <Button onClick={() => go(-1)} aria-label="Month before">
          <ChevronLeft size={16} aria-hidden />
        </Button>
        <Button onClick={() => go(null)}>This month</Button>
        <Button onClick={() => go(1)} aria-label="Month after">
          <ChevronRight size={16} aria-hidden />
        </Button>
      </PageHead>
      <DndContext
        sensors={sensors}
        collisionDetection={dayUnder}
        onDragEnd={drop}
        accessibility={{ screenReaderInstructions: { draggable: INSTRUCTIONS } }}
      >
        <div className="grid gap-3 lg:grid-cols-[minmax(0,1fr)_230px] items-start">
          <MonthGrid month={month} weeks={weeks} todayOn={todayOn} calendar={calendar.data} onOpen={setOpenId} />
          <Tray entries={calendar.data.tray} onOpen={setOpenId} />
        </div>
      </DndContext>
      {openId && <OpenedEntry key={openId} id={openId} calendar={calendar.data} onClose={() => setOpenId(null)} />}
    </>
  );
}

/** The dialog of an entry, which stays open as it was opened, even when somebody else moves the entry out of this month. */
function OpenedEntry({ id, calendar, onClose }: { id: string; calendar: CalendarShape; onClose: () => void }) {
  const [entry] = useState([...calendar.entries, ...calendar.tray].find((candidate) => candidate.id === id));
  return entry && <PlacementDialog placement={entry} title={entry.pieceTitle} onClose={onClose} />;
}

/** The day under the pointer; by keyboard, the day that the entry covers most. */
const dayUnder: CollisionDetection = (args) => {
  const under = pointerWithin(args);
  return under.length > 0 ? under : rectIntersection(args);
};

const INSTRUCTIONS = 'Press Space to lift, arrow keys to move, Space to drop. Enter opens a dialog with day and time instead.';

/** Drops a placement on a day: shown there at once, put back when the server refuses. */
function useDrop(key: readonly unknown[], calendar: CalendarShape | undefined) {
  const queries = useQueryClient();
  const move = useMove();
  return ({ active, over }: DragEndEvent) => {
    const entry = [...(calendar?.entries ?? []), ...(calendar?.tray ?? [])].find((candidate) => candidate.id === active.id);
    if (!entry || !over || entry.on === over.id || !calendar) return;
    const on = String(over.id);
    const moved: CalendarEntryShape = { ...entry, on };
    queries.setQueryData<CalendarShape>(key, {
      ...calendar,
      entries: [...calendar.entries.filter((other) => other.id !== entry.id), moved],
      tray: calendar.tray.filter((other) => other.id !== entry.id),
    });
    move.go({ placement: entry, on, at: entry.at });
  };
}
