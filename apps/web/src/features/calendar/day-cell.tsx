import { useDroppable } from '@dnd-kit/core';
import type { CalendarEntryShape, DueShape, FreeSlotShape, MarkerShape } from '@zesting/contract';
import type { Day } from '@zesting/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { dayWords, monthWords } from '../../lib/format';
import { Dues } from './dues';
import { EntryChip } from './entry-chip';
import { MarkerLine } from './marker-line';
import { OpenSlots } from './open-slots';
import { isWeekend, type Colouring } from './view';

/** Seasons last for weeks: they stand in the year and the month, not on every day. */
const isOfDay = ({ kind }: MarkerShape): boolean => kind !== 'season_busy' && kind !== 'season_quiet';

interface DayCellProps {
  /** the day, or `client/day` in a client's own lane */
  readonly dropId: string;
  readonly day: Day;
  readonly isOutside?: boolean;
  readonly isToday: boolean;
  /** says of which month it is: the first of all, and the first of each month */
  readonly namesMonth?: boolean;
  readonly entries: readonly CalendarEntryShape[];
  readonly markers: readonly MarkerShape[];
  /** slots in which nothing stands */
  readonly slots: readonly FreeSlotShape[];
  /** pieces that have to be done by this day */
  readonly dues: readonly DueShape[];
  readonly colouring: Colouring;
  /** entries shown before the rest is counted; a click shows all */
  readonly shown: number;
  readonly roomy?: boolean;
  /** whether many weeks are seen at once: a row is no higher than what stands in it */
  readonly dense?: boolean;
  /** the day's number is told by the column already */
  readonly bare?: boolean;
  readonly onOpen: (id: string) => void;
  /** begins a piece for this day; absent where nothing can be begun */
  readonly onBegin?: (() => void) | undefined;
}

/** One day: its markers, and its entries in the order of their time. What is dropped on it gets its date. */
export function DayCell({
  dropId,
  day,
  isOutside = false,
  isToday,
  namesMonth = false,
  entries,
  markers,
  slots,
  dues,
  colouring,
  shown,
  roomy = false,
  dense = false,
  bare = false,
  onOpen,
  onBegin,
}: DayCellProps) {
  const { setNodeRef, isOver } = useDroppable({ id: dropId });
  const [all, setAll] = useState(false);
  const ground = isOver ? 'bg-pine-soft' : isToday && bare ? 'bg-sunk' : isWeekend(day) || isOutside ? 'bg-paper' : '';
  const hidden = entries.length - shown;
  return (
    <td
      ref={setNodeRef}
      className={`group relative align-top ${roomy ? 'h-[120px]' : dense ? 'h-[58px]' : 'h-[106px]'} p-1 border-b border-r border-line last:border-r-0 ${ground}`}
      aria-label={dayWords(day)}
    >
      {onBegin && (
        // by keyboard a piece is begun from the head of the calendar: no stop per day
        <button
          type="button"
          tabIndex={-1}
          aria-label={`Begin a piece for ${dayWords(day)}`}
          title={`Begin a piece for ${dayWords(day)}`}
          className="no-print absolute right-0.5 top-0.5 grid place-items-center size-6 rounded-md opacity-0 group-hover:opacity-100 hover:bg-sunk bg-card"
          onClick={onBegin}
        >
          <Plus size={14} aria-hidden />
        </button>
      )}
      {!bare && (
        <p className={`px-1 tabular text-[12px] ${isOutside ? 'text-muted' : 'font-medium'}`}>
          <span className={isToday ? 'inline-grid place-items-center min-w-5 h-5 rounded-md bg-pine text-on-pine px-1' : ''}>
            {Number(day.slice(8))}
            {namesMonth && ` ${monthWords(day.slice(0, 7)).slice(0, 3)}`}
          </span>
        </p>
      )}
      {isToday && <span className="sr-only">Today</span>}
      {markers.filter(isOfDay).map((marker) => (
        <MarkerLine key={`${marker.id ?? ''}${marker.clientId ?? ''}${marker.name}`} marker={marker} />
      ))}
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5">
        {entries.map((entry, index) => (
          <li key={entry.id} className={all || index < shown ? '' : 'hidden print:block'}>
            <EntryChip entry={entry} colouring={colouring} roomy={roomy} onOpen={onOpen} />
          </li>
        ))}
      </ul>
      {hidden > 0 && !all && (
        <button
          type="button"
          className="block text-pine text-[12px] leading-6 underline h-6 mt-0.5 px-1 no-print"
          onClick={() => setAll(true)}
        >
          {hidden} more
        </button>
      )}
      <Dues dues={dues} shown={roomy ? 20 : 3} />
      <OpenSlots slots={slots} room={shown - entries.length} />
    </td>
  );
}
