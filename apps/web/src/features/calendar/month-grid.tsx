import type { CalendarShape, FreeSlotShape } from '@zesting/contract';
import type { Day } from '@zesting/core';
import { DayCell } from './day-cell';
import { isWeekend, type View, type ViewKind } from './view';

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
/** Entries shown in a day before the rest is counted. */
const SHOWN = 2;

interface MonthGridProps {
  readonly view: View;
  /** whether the filter stands above it */
  readonly isFiltered: boolean;
  readonly todayOn: Day;
  readonly calendar: CalendarShape;
  /** slots in which nothing stands */
  readonly slots: readonly FreeSlotShape[];
  readonly onOpen: (id: string) => void;
  readonly onBegin?: ((on: Day) => void) | undefined;
}

const CAPTIONS: Record<ViewKind, string> = {
  ahead: 'The weeks ahead',
  month: 'The month',
  quarter: 'The quarter',
  year: 'The year',
  week: 'The week',
};

/** A month or the weeks ahead as a table: a row per week, Monday first; or one client's week as one tall row. */
export function MonthGrid({ isFiltered, view, todayOn, calendar, slots, onOpen, onBegin }: MonthGridProps) {
  const isWeek = view.kind === 'week';
  const isDense = view.kind === 'quarter';
  const names = view.weekends ? WEEKDAYS : WEEKDAYS.slice(0, 5);
  return (
    <table className="card w-full table-fixed border-separate border-spacing-0">
      <caption className="sr-only">{CAPTIONS[view.kind]}, each placement on its client’s own day</caption>
      <thead>
        <tr>
          {names.map((name) => (
            <th key={name} scope="col" className="text-left text-muted text-[12px] font-medium px-2 py-1 border-b border-line">
              {name.slice(0, 3)}
              <span className="sr-only">{name.slice(3)}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.weeks.map((week) => (
          <tr
            key={week[0]}
            style={{
              height: isWeek ? '58vh' : isDense ? '3.6rem' : `calc((100vh - ${isFiltered ? '13.5rem' : '11rem'}) / ${view.weeks.length})`,
            }}
          >
            {week
              .filter((day) => view.weekends || !isWeekend(day))
              .map((day) => (
                <DayCell
                  key={day}
                  dropId={day}
                  day={day}
                  isOutside={view.kind === 'month' ? !day.startsWith(view.month) : view.kind !== 'week' && day < todayOn}
                  namesMonth={(view.kind === 'ahead' || view.kind === 'quarter') && (day === view.from || day.endsWith('-01'))}
                  isToday={day === todayOn}
                  entries={view.days === 'due' ? [] : calendar.entries.filter((entry) => entry.on === day)}
                  dues={calendar.dues.filter((due) => due.on === day)}
                  markers={calendar.markers.filter((marker) => marker.on === day)}
                  slots={slots.filter((slot) => slot.on === day)}
                  colouring={view.colouring}
                  shown={isWeek ? 20 : isDense ? 1 : SHOWN}
                  dense={isDense}
                  roomy={isWeek}
                  onOpen={onOpen}
                  onBegin={onBegin && day >= todayOn ? () => onBegin(day) : undefined}
                />
              ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
