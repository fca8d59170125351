import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import type { ClientShape, MarkerShape, SwapThemesBody, YearMonthShape, YearShape } from '@zesting/contract';
import { nextMonth } from '@zesting/core';
import { GripVertical } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { count, dayWords, monthWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { markerKindWords } from '../../lib/words';
import { MarkerDialog } from '../../parts/marker-dialog';
import { Menu, MenuItem } from '../../ui/menu';
import { CopyDialog } from './copy-dialog';
import { daysInMonth, DRAGGED, draggedOf } from './year-drag';
import { LAYERS, markersIn, type LayerKey } from './year-layers';

interface YearTableProps {
  readonly client: ClientShape;
  readonly year: YearShape;
  readonly hidden: ReadonlySet<LayerKey>;
}

/** Twelve months as columns, the layers as rows. */
export function YearTable({ client, year, hidden }: YearTableProps) {
  const { to } = useClients();
  const [opened, setOpened] = useState<MarkerShape>();
  const [copied, setCopied] = useState<string>();
  const { role } = useSession();
  const mayEdit = (marker: MarkerShape) => marker.version !== null && (marker.clientId !== null || role === 'lead');
  const shown = LAYERS.filter(({ key }) => !hidden.has(key));
  const drop = useYearDrop(client.id, year);
  // a click opens; by keyboard there are the menu of a theme and the dialog of a marker
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  return (
    <div className="overflow-x-auto">
      <DndContext sensors={sensors} onDragEnd={drop}>
        <table className="card w-full min-w-[76rem] table-fixed border-separate border-spacing-0 text-[12px]">
          <caption className="sr-only">The year of {client.name}</caption>
          <thead>
            <tr>
              <th scope="col" className="w-24 text-left text-muted font-medium px-2 py-1.5">
                <span className="sr-only">Layer</span>
              </th>
              {year.months.map(({ month }) => (
                <th
                  key={month}
                  scope="col"
                  className={`text-left font-medium px-1.5 py-1.5 ${year.todayOn.startsWith(month) ? 'text-pine' : ''}`}
                >
                  <Link
                    to={to(`/plan?month=${month}`)}
                    className="no-underline hover:underline inline-block min-h-6 leading-6"
                    title={`Plan ${monthWords(month)}`}
                  >
                    {monthWords(month).slice(0, 3)} <span className="text-muted tabular">{month.slice(2, 4)}</span>
                  </Link>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map(({ key, name }) => (
              <tr key={key}>
                <th scope="row" className="text-left align-top font-medium text-muted px-2 py-1.5 border-t border-line">
                  {name}
                </th>
                {year.months.map((month) => (
                  <MonthCell key={month.month} dropId={`${key}/${month.month}`}>
                    {key === 'themes' ? (
                      <Dragged id={`${DRAGGED.theme}${month.month}`} grip>
                        <ThemeCell clientId={client.id} month={month} onCopy={() => setCopied(month.month)} />
                      </Dragged>
                    ) : key === 'slots' ? (
                      <SlotsCell month={month} hasRhythm={year.hasRhythm} />
                    ) : (
                      <ul className="grid gap-0.5">
                        {markersIn(year.markers, key, month.month).map((marker) => (
                          <li key={`${marker.id ?? ''}${marker.name}${marker.startOn}`}>
                            <MarkerCell marker={marker} onOpen={mayEdit(marker) ? () => setOpened(marker) : undefined} />
                          </li>
                        ))}
                      </ul>
                    )}
                  </MonthCell>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </DndContext>
      {copied && <CopyDialog key={copied} client={client} month={copied} onClose={() => setCopied(undefined)} />}
      {opened && <MarkerDialog key={opened.id} marker={opened} onClose={() => setOpened(undefined)} />}
    </div>
  );
}

/** A month of a layer: what is dropped on it goes there. */
function MonthCell({ dropId, children }: { dropId: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: dropId });
  return (
    <td ref={setNodeRef} className={`align-top px-1.5 py-1.5 border-t border-l border-line ${isOver ? 'bg-pine-soft' : ''}`}>
      {children}
    </td>
  );
}

/** What is dragged to another month: a theme swaps with that month's, a marker goes to the same day of it. Both can be undone. */
function useYearDrop(clientId: string, year: YearShape) {
  const swap = useWrite((body: SwapThemesBody) => call(`/clients/${clientId}/themes/swap`, { method: 'POST', body }));
  const move = useWrite(({ marker, days }: { marker: MarkerShape; days: { startOn: string; endOn: string } }) => {
    const { kind, kindId, name, leadDays } = marker;
    const body = { clientId: marker.clientId, kind, kindId, name, leadDays, ...days };
    return call(`/markers/${marker.id}`, { method: 'PUT', body, version: marker.version ?? 0 });
  });
  return ({ active, over }: DragEndEvent) => {
    const [, month] = String(over?.id ?? '').split('/');
    if (!month) return;
    const from = draggedOf('theme', String(active.id));
    if (from !== undefined && from !== month) {
      const body = { period: 'month' as const, on: `${from}-01`, withOn: `${month}-01` };
      swap.mutate(body, {
        onSuccess: () =>
          toast(`${monthWords(from)} and ${monthWords(month)} have swapped themes`, {
            action: { label: 'Undo', onClick: () => swap.mutate(body) },
          }),
      });
    }
    const marker = year.markers.find(({ id }) => id !== null && id === draggedOf('marker', String(active.id)));
    if (!marker || marker.startOn.startsWith(month)) return;
    const days = daysInMonth(marker, month);
    const { startOn, endOn, version } = marker;
    move.mutate(
      { marker, days },
      {
        onSuccess: () =>
          toast(
            `${marker.name} is on ${dayWords(days.startOn)} now${marker.isBound ? '; pieces of its run-up that are made stay on their days' : ''}`,
            {
              action: {
                label: 'Undo',
                onClick: () => move.mutate({ marker: { ...marker, version: (version ?? 0) + 1 }, days: { startOn, endOn } }),
              },
            },
          ),
      },
    );
  };
}

function MarkerCell({ marker, onOpen }: { marker: MarkerShape; onOpen: (() => void) | undefined }) {
  const days = marker.startOn === marker.endOn ? dayWords(marker.startOn) : `${dayWords(marker.startOn)} to ${dayWords(marker.endOn)}`;
  const title = `${marker.name}: ${markerKindWords(marker)}, ${days}`;
  const text = (
    <>
      <span className="tabular text-muted">{Number(marker.startOn.slice(8))}.</span> {marker.name}
      {marker.kind.startsWith('season') && <span className="text-muted"> {marker.kind === 'season_busy' ? 'busy' : 'quiet'}</span>}
    </>
  );
  if (!onOpen)
    return (
      <span className="block break-words line-clamp-2" title={title}>
        {text}
      </span>
    );
  return (
    <Dragged id={`${DRAGGED.marker}${marker.id}`}>
      <button type="button" className="block text-left break-words line-clamp-3 min-h-6 hover:underline" title={title} onClick={onOpen}>
        {text}
      </button>
    </Dragged>
  );
}

interface DraggedProps {
  readonly id: string;
  /** whether it is taken by a grip beside it, since a press on itself opens something */
  readonly grip?: boolean;
  readonly children: ReactNode;
}

/** Something that can be taken by the pointer to another month. */
function Dragged({ id, grip = false, children }: DraggedProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id });
  return (
    <div
      ref={setNodeRef}
      {...(grip ? {} : listeners)}
      className={`${grip ? 'flex items-start' : ''} ${isDragging ? 'relative z-30 bg-card shadow-xl rounded-md px-1' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {grip && (
        <span {...listeners} aria-hidden title="Drag onto another month" className="cursor-grab touch-none text-line-strong pt-1 -ml-1">
          <GripVertical size={12} />
        </span>
      )}
      <div className="min-w-0 flex-1">{children}</div>
    </div>
  );
}

interface ThemeCellProps {
  readonly clientId: string;
  readonly month: YearMonthShape;
  readonly onCopy: () => void;
}

/** A month's theme, and what can be done with it. */
function ThemeCell({ clientId, month: { month, theme, weekThemes }, onCopy }: ThemeCellProps) {
  const navigate = useNavigate();
  const { to } = useClients();
  const swap = useWrite((body: SwapThemesBody) => call(`/clients/${clientId}/themes/swap`, { method: 'POST', body }));
  const swapWith = (other: string) => {
    const body = { period: 'month' as const, on: `${month}-01`, withOn: `${other}-01` };
    swap.mutate(body, {
      onSuccess: () =>
        toast(`${monthWords(month)} and ${monthWords(other)} have swapped themes`, {
          action: { label: 'Undo', onClick: () => swap.mutate(body) },
        }),
    });
  };
  const [before, after] = [nextMonth(month, -1), nextMonth(month, 1)];
  return (
    <Menu
      label={`Theme of ${monthWords(month)}: ${theme?.name ?? 'none'}`}
      className={`block w-full text-left min-h-6 rounded-md px-1 -mx-1 hover:bg-sunk break-words ${theme?.from === 'cycle' ? 'text-muted' : 'font-medium'}`}
      trigger={
        <>
          {theme?.name ?? '—'}
          {weekThemes > 0 && <span className="block text-muted font-normal">{count(weekThemes, 'week')} of its own</span>}
        </>
      }
    >
      <MenuItem onSelect={() => void navigate(to(`/plan?month=${month}`))}>Set it in {monthWords(month)}</MenuItem>
      <MenuItem onSelect={() => swapWith(before)}>Swap with {monthWords(before)}</MenuItem>
      <MenuItem onSelect={() => swapWith(after)}>Swap with {monthWords(after)}</MenuItem>
      <MenuItem onSelect={onCopy}>Copy what stands in {monthWords(month)}</MenuItem>
    </Menu>
  );
}

/** How far a month is filled. */
function SlotsCell({ month: { month, slots, filled, beside }, hasRhythm }: { month: YearMonthShape; hasRhythm: boolean }) {
  const { to } = useClients();
  if (!hasRhythm || slots === 0) return <span className="text-muted">{beside > 0 ? `${beside} placed` : '—'}</span>;
  return (
    <Link
      to={to(`/plan?month=${month}`)}
      className="block no-underline hover:underline min-h-6"
      aria-label={`${monthWords(month)}: ${filled} of ${slots} slots filled`}
    >
      <span className="tabular">
        {filled} of {slots}
      </span>
      <span className="block h-1.5 rounded-sm bg-sunk overflow-hidden mt-0.5" aria-hidden>
        <span className="block h-full bg-pine" style={{ width: `${(100 * filled) / slots}%` }} />
      </span>
    </Link>
  );
}
