import { useDroppable } from '@dnd-kit/core';
import type { CalendarEntryShape, CalendarShape, MarkerShape } from '@zesting/contract';
import type { Day } from '@zesting/core';
import { useState } from 'react';
import { dayWords } from '../../lib/format';
import { useClients } from '../../lib/queries';
import { EntryChip } from './entry-chip';

const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
/** Entries shown in a day before the rest is counted; a click shows all. */
const SHOWN = 2;

interface MonthGridProps {
  readonly month: string;
  readonly weeks: readonly (readonly Day[])[];
  readonly todayOn: string;
  readonly calendar: CalendarShape;
  readonly onOpen: (id: string) => void;
}

/** A month as a table: a row per week, Monday first. */
export function MonthGrid({ month, weeks, todayOn, calendar, onOpen }: MonthGridProps) {
  return (
    <table className="card w-full table-fixed border-separate border-spacing-0 overflow-hidden">
      <caption className="sr-only">The month, each placement on its client’s own day</caption>
      <thead>
        <tr>
          {WEEKDAYS.map((name) => (
            <th key={name} scope="col" className="text-left text-muted text-[12px] font-medium px-2 py-1 border-b border-line">
              {name.slice(0, 3)}
              <span className="sr-only">{name.slice(3)}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {weeks.map((week) => (
          <tr key={week[0]}>
            {week.map((day, index) => (
              <DayCell
                key={day}
                day={day}
                isWeekend={index > 4}
                isOutside={!day.startsWith(month)}
                isToday={day === todayOn}
                entries={calendar.entries.filter((entry) => entry.on === day)}
                markers={calendar.markers.filter((marker) => marker.on === day)}
                onOpen={onOpen}
              />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface DayCellProps {
  readonly day: Day;
  readonly isWeekend: boolean;
  readonly isOutside: boolean;
  readonly isToday: boolean;
  readonly entries: readonly CalendarEntryShape[];
  readonly markers: readonly MarkerShape[];
  readonly onOpen: (id: string) => void;
}

function DayCell({ day, isWeekend, isOutside, isToday, entries, markers, onOpen }: DayCellProps) {
  const { setNodeRef, isOver } = useDroppable({ id: day });
  const [all, setAll] = useState(false);
  const ground = isOver ? 'bg-pine-soft' : isWeekend || isOutside ? 'bg-paper' : '';
  const hidden = entries.length - SHOWN;
  return (
    <td
      ref={setNodeRef}
      className={`align-top h-[106px] p-1 border-b border-r border-line last:border-r-0 ${ground}`}
      aria-label={dayWords(day)}
    >
      <p className={`px-1 tabular text-[12px] ${isOutside ? 'text-muted' : 'font-medium'}`}>
        <span className={isToday ? 'inline-grid place-items-center min-w-5 h-5 rounded-md bg-pine text-on-pine px-1' : ''}>
          {Number(day.slice(8))}
          {isToday && <span className="sr-only"> (today)</span>}
        </span>
      </p>
      {markers.map((marker) => (
        <MarkerLine key={`${marker.clientId}${marker.name}`} marker={marker} />
      ))}
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-0.5">
        {(all ? entries : entries.slice(0, SHOWN)).map((entry) => (
          <li key={entry.id}>
            <EntryChip entry={entry} onOpen={onOpen} />
          </li>
        ))}
      </ul>
      {hidden > 0 && !all && (
        <button type="button" className="text-pine text-[12px] underline min-h-6 px-1" onClick={() => setAll(true)}>
          {hidden} more
        </button>
      )}
    </td>
  );
}

function MarkerLine({ marker }: { marker: MarkerShape }) {
  const { clientOf, client } = useClients();
  const code = client ? '' : `${clientOf(marker.clientId)?.code ?? ''} `;
  return (
    <p className="px-1 text-[11.5px] text-rind truncate" title={`${code}${marker.name}`}>
      <span aria-hidden>▪ </span>
      {code}
      {marker.name}
      <span className="sr-only"> ({marker.kind === 'holiday' ? 'public holiday' : 'closure'})</span>
    </p>
  );
}
