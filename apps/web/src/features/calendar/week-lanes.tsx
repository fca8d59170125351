import type { CalendarShape, ClientShape, FreeSlotShape } from '@zesting/contract';
import type { Day } from '@zesting/core';
import { dayWords, zoneWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { ClientCode } from '../../ui/tags';
import { DayCell } from './day-cell';
import { WEEKDAYS } from './month-grid';
import { isWeekend, type View } from './view';

interface WeekLanesProps {
  readonly view: View;
  readonly calendar: CalendarShape;
  /** slots in which nothing stands */
  readonly slots: readonly FreeSlotShape[];
  readonly onOpen: (id: string) => void;
  readonly onBegin?: ((on: Day, clientId: string) => void) | undefined;
}

/** The week of all clients: a lane each, in the client's own days, with its own today and where its midnight falls here. */
export function WeekLanes({ view, calendar, slots, onOpen, onBegin }: WeekLanesProps) {
  const { clients } = useClients();
  const days = (view.weeks[0] ?? []).filter((day) => view.weekends || !isWeekend(day));
  return (
    <table className="card w-full table-fixed border-separate border-spacing-0">
      <caption className="sr-only">The week, a row for each client in its own days</caption>
      <thead>
        <tr>
          <th scope="col" className="w-36 text-left text-muted text-[12px] font-medium px-2 py-1 border-b border-line">
            Client
          </th>
          {days.map((day, index) => (
            <th key={day} scope="col" className="text-left text-muted text-[12px] font-medium px-2 py-1 border-b border-line">
              {WEEKDAYS[index]?.slice(0, 3)}
              <span className="sr-only">{WEEKDAYS[index]?.slice(3)}</span> <span className="tabular text-ink">{Number(day.slice(8))}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {clients.map((client) => (
          <Lane
            key={client.id}
            client={client}
            days={days}
            view={view}
            calendar={calendar}
            slots={slots}
            onOpen={onOpen}
            onBegin={onBegin}
          />
        ))}
      </tbody>
    </table>
  );
}

function Lane({ client, days, view, calendar, slots, onOpen, onBegin }: WeekLanesProps & { client: ClientShape; days: readonly Day[] }) {
  const here = useSession().zone;
  const { clients } = useClients();
  const clock = calendar.clocks.find((one) => one.clientId === client.id);
  return (
    <tr style={{ height: `clamp(6.5rem, calc((100vh - 11rem) / ${clients.length}), 14rem)` }}>
      <th scope="row" className="align-top text-left font-normal p-2 border-b border-r border-line text-[12px]">
        <ClientCode code={client.code} colour={client.colour} name={client.name} />
        <span className="block truncate">{client.name}</span>
        {clock && clock.zone !== here && (
          <span className="block text-muted tabular">
            {dayWords(clock.todayOn)}, {clock.nowAt}
            <br />
            {zoneWords(clock.zone)}
            <br />
            midnight {clock.nextDayAt}
            {clock.nextDayIsToday ? '' : ' tomorrow'} here
          </span>
        )}
      </th>
      {days.map((day) => (
        <DayCell
          key={day}
          dropId={`${client.id}/${day}`}
          day={day}
          isToday={day === clock?.todayOn}
          entries={view.days === 'due' ? [] : calendar.entries.filter((entry) => entry.on === day && entry.clientId === client.id)}
          dues={calendar.dues.filter((due) => due.on === day && due.clientId === client.id)}
          markers={calendar.markers.filter((marker) => marker.on === day && (marker.clientId === client.id || marker.clientId === null))}
          slots={slots.filter((slot) => slot.on === day && slot.clientId === client.id)}
          colouring={view.colouring}
          shown={3}
          bare
          onOpen={onOpen}
          onBegin={onBegin && clock && day >= clock.todayOn ? () => onBegin(day, client.id) : undefined}
        />
      ))}
    </tr>
  );
}
