import type { CalendarShape, ClientClockShape } from '@zesting/contract';
import { Flag, Funnel, Grid3x3, Plus, Printer } from 'lucide-react';
import { count, zoneWords } from '../../lib/format';
import { useClients, useSession } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { searchNow, withChanges } from '../../lib/use-search';
import { Link } from 'react-router';
import { Button, buttonClass } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { PageHead } from '../../ui/page';
import { Turn } from '../../ui/turn';
import { MarkerDialog } from '../../parts/marker-dialog';
import { SavedViews } from '../../parts/saved-views';
import { COLOURINGS, DAYS_TOLD, hiddenCount, step, withKind, type View } from './view';

interface CalendarHeadProps {
  readonly view: View;
  readonly calendar: CalendarShape;
  readonly onChange: (search: URLSearchParams) => void;
  readonly onBegin?: () => void;
  /** whether the filter is seen, and what shows and hides it */
  readonly isFiltered: boolean;
  readonly onFilter: () => void;
}

const COLOURING_WORDS = { client: 'Client', channel: 'Channel', pillar: 'Pillar', format: 'Format', campaign: 'Campaign', stage: 'Stage' };

const DAYS_WORDS = { publish: 'going out', due: 'due', both: 'both' };

/** What is shown and how: every choice stands in the address. */
export function CalendarHead({ view, calendar, onChange, onBegin, isFiltered, onFilter }: CalendarHeadProps) {
  const { client, to } = useClients();
  const { role } = useSession();
  const { opened, open, close } = useOpened();
  const unit = view.kind === 'ahead' ? 'week' : view.kind;
  const put = (key: string, value: string | null) => onChange(withChanges(window.location.search, { [key]: value }));
  const hidden = hiddenCount(calendar.entries, view);
  return (
    <PageHead
      title={view.title}
      note={<Clocks calendar={calendar} clientId={client?.id} />}
      turn={
        <Turn
          before={`The ${unit} before`}
          home={`This ${unit === 'month' || unit === 'year' ? 'month' : 'week'}`}
          after={`The ${unit} after`}
          onBefore={() => onChange(step(searchNow(), view, -1))}
          onHome={() => onChange(step(searchNow(), view, null))}
          onAfter={() => onChange(step(searchNow(), view, 1))}
        />
      }
    >
      <p className="hidden print:block text-lg font-medium">{client?.name ?? 'All clients'}</p>
      <div className="flex flex-wrap items-center gap-1.5 no-print">
        <Choice
          label="How much is shown"
          value={view.kind}
          options={[
            ['ahead', 'Six weeks'],
            ['year', 'Year'],
            ['quarter', 'Quarter'],
            ['month', 'Month'],
            ['week', 'Week'],
          ]}
          onChange={(kind) => onChange(withKind(searchNow(), kind))}
        />
        {view.kind !== 'year' && <ViewChoices view={view} hidden={hidden} hasSlots={onBegin !== undefined} put={put} />}
        <Link to={to('/calendar/going-out')} className={buttonClass('plain')}>
          Going out
        </Link>
        {onBegin && (
          <Button onClick={onBegin} aria-label="Begin a piece" title="Begin a piece">
            <Plus size={15} aria-hidden />
          </Button>
        )}
        {(role === 'lead' || role === 'manager') && (
          <Button onClick={() => open('marker')} aria-label="Put a marker on the calendar" title="Put a marker on the calendar">
            <Flag size={15} aria-hidden />
          </Button>
        )}
        <Button onClick={onFilter} aria-label="Filter" aria-expanded={isFiltered} title="Filter">
          <Funnel size={15} aria-hidden />
        </Button>
        <SavedViews page="calendar" />
        {client && (
          <Link
            to={`/calendar/look?client=${client.code}`}
            className={buttonClass('plain')}
            aria-label="As followers see a channel"
            title="As followers see a channel"
          >
            <Grid3x3 size={15} aria-hidden />
          </Link>
        )}
        <Button onClick={() => window.print()} aria-label="Print" title="Print">
          <Printer size={15} aria-hidden />
        </Button>
      </div>
      {(role === 'lead' || role === 'manager') && opened === 'marker' && <MarkerDialog onClose={close} />}
    </PageHead>
  );
}

interface ViewChoicesProps {
  readonly view: View;
  /** how many placements stand on weekends that are not shown */
  readonly hidden: number;
  readonly hasSlots: boolean;
  readonly put: (key: string, value: string | null) => void;
}

/** What the days of a view tell: a year in numbers has none of it. */
function ViewChoices({ view, hidden, hasSlots, put }: ViewChoicesProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-2">
      <label className="flex items-center gap-1.5 text-[13px]">
        Colour
        <select
          className="field w-auto"
          value={view.colouring}
          onChange={(event) => put('colour', event.target.value === 'client' ? null : event.target.value)}
        >
          {COLOURINGS.map((colouring) => (
            <option key={colouring} value={colouring}>
              {COLOURING_WORDS[colouring]}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1.5 min-h-8 text-[13px]">
        <input
          type="checkbox"
          className="size-4 accent-pine"
          checked={view.weekends}
          onChange={(event) => put('weekends', event.target.checked ? null : 'off')}
        />
        Weekends
        {!view.weekends && <span className="text-rind">({hidden === 0 ? 'nothing' : count(hidden, 'placement')} hidden)</span>}
      </label>
      {hasSlots && (
        <label className="flex items-center gap-1.5 min-h-8 text-[13px]">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={view.slots}
            onChange={(event) => put('slots', event.target.checked ? null : 'off')}
          />
          Slots
        </label>
      )}
      <label className="flex items-center gap-1.5 text-[13px]">
        Days
        <select
          className="field w-auto"
          value={view.days}
          onChange={(event) => put('days', event.target.value === 'publish' ? null : event.target.value)}
        >
          {DAYS_TOLD.map((days) => (
            <option key={days} value={days}>
              {DAYS_WORDS[days]}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** Whose clock is meant, and where the day of a client in another zone changes. */
function Clocks({ calendar, clientId }: { calendar: CalendarShape; clientId: string | undefined }) {
  const { clientOf } = useClients();
  const here = useSession().zone;
  const elsewhere = calendar.clocks.filter((clock) => (clientId ? clock.clientId === clientId : true) && clock.zone !== here);
  if (elsewhere.length === 0) return clientId ? null : <>Every client’s day is yours.</>;
  const code = (clock: ClientClockShape) => clientOf(clock.clientId)?.code ?? '';
  const full = (clock: ClientClockShape) =>
    `${code(clock)}: ${clock.nowAt} in ${zoneWords(clock.zone)}, midnight ${clock.nextDayAt}${clock.nextDayIsToday ? '' : ' tomorrow'} here`;
  return (
    <>
      {!clientId && 'Midnight here: '}
      {elsewhere.map((clock, index) => (
        <span key={clock.clientId} title={full(clock)} className="whitespace-nowrap">
          {index > 0 && ' · '}
          {clientId ? full(clock) : `${code(clock)} ${clock.nextDayAt}`}
        </span>
      ))}
    </>
  );
}
