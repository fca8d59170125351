import { useQuery } from '@tanstack/react-query';
import type { CalendarCountsShape, DayCountShape, MarkerShape } from '@zesting/contract';
import { nextMonth, weeksOf, type Day } from '@zesting/core';
import { Link } from 'react-router';
import { calendarCountsQuery } from '../../api/calendar';
import { wordsOf } from '../../lib/api';
import { count, dayWords, monthWords } from '../../lib/format';
import { Failed, Loading } from '../../ui/page';
import { isWeekend, YEAR_MONTHS, type View } from './view';

interface YearGridProps {
  /** which client and what alone, as the API is asked */
  readonly query: string;
  readonly view: View;
  readonly todayOn: Day;
  /** the address of a day's week */
  readonly toWeek: (day: Day) => string;
}

/** Twelve months at a glance: how much stands on each day, and what is marked. Each day leads to its week. */
export function YearGrid({ query, view, todayOn, toWeek }: YearGridProps) {
  const counts = useQuery(calendarCountsQuery(query, view.from, view.to));
  if (counts.isError) return <Failed message={wordsOf(counts.error)} onRetry={() => void counts.refetch()} />;
  if (!counts.data) return <Loading />;
  const months = Array.from({ length: YEAR_MONTHS }, (_, index) => nextMonth(view.month, index));
  return (
    <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3 xl:grid-cols-4">
      {months.map((month) => (
        <Month key={month} month={month} counts={counts.data} todayOn={todayOn} toWeek={toWeek} />
      ))}
    </div>
  );
}

interface MonthProps extends Pick<YearGridProps, 'todayOn' | 'toWeek'> {
  readonly month: string;
  readonly counts: CalendarCountsShape;
}

function Month({ month, counts, todayOn, toWeek }: MonthProps) {
  const byDay = new Map(counts.days.map((day) => [day.on, day]));
  const total = counts.days.filter(({ on }) => on.startsWith(month)).reduce((sum, day) => sum + sumOf(day), 0);
  return (
    <section aria-label={monthWords(month)} className="card p-2">
      <h2 className="text-[13px] font-sans font-semibold tracking-normal px-1 mb-1 flex">
        <span className="flex-1">{monthWords(month)}</span>
        <span className="text-muted font-normal tabular">{total > 0 && total}</span>
      </h2>
      <table className="w-full table-fixed text-[12px] tabular">
        <tbody>
          {weeksOf(month).map((week) => (
            <tr key={week[0]}>
              {week.map((day) => (
                <td key={day} className="p-px">
                  {day.startsWith(month) && (
                    <DayLink
                      day={day}
                      found={byDay.get(day)}
                      markers={counts.markers.filter(({ startOn, endOn }) => startOn <= day && endOn >= day)}
                      isToday={day === todayOn}
                      to={toWeek(day)}
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const sumOf = ({ firm, pencilled, failed }: DayCountShape): number => firm + pencilled + failed;

interface DayLinkProps {
  readonly day: Day;
  readonly found: DayCountShape | undefined;
  readonly markers: readonly MarkerShape[];
  readonly isToday: boolean;
  readonly to: string;
}

/** A day: full where something firm stands on it, outlined where it is only pencilled, marked below where something else is on. */
function DayLink({ day, found, markers, isToday, to }: DayLinkProps) {
  // seasons last for weeks
  const marks = markers.filter(({ kind }) => !kind.startsWith('season'));
  const told = [
    ...(found && found.firm > 0 ? [`${found.firm} firm`] : []),
    ...(found && found.pencilled > 0 ? [`${found.pencilled} pencilled`] : []),
    ...(found && found.failed > 0 ? [`${found.failed} missed`] : []),
    ...marks.map(({ name }) => name),
  ];
  const words = `${Number(day.slice(8))}: ${dayWords(day)}, ${told.length > 0 ? told.join(', ') : 'nothing'}`;
  const look = !found
    ? isWeekend(day)
      ? 'bg-paper text-muted'
      : ''
    : found.failed > 0
      ? 'border border-rhubarb text-rhubarb font-semibold'
      : found.firm > 0
        ? 'bg-pine text-on-pine font-semibold'
        : 'border border-dashed border-line-strong';
  return (
    <Link
      to={to}
      title={`${words}${found && sumOf(found) > 1 ? `: ${count(sumOf(found), 'placement')}` : ''}`}
      aria-label={words}
      className={`relative grid place-items-center min-h-[26px] rounded-sm no-underline hover:outline-2 hover:outline-pine ${look} ${isToday ? 'outline-2 outline-ink' : ''}`}
    >
      {Number(day.slice(8))}
      {marks.length > 0 && (
        <span aria-hidden className={`absolute bottom-0.5 h-0.5 w-3 rounded-sm ${found && found.firm > 0 ? 'bg-on-pine' : 'bg-rind'}`} />
      )}
    </Link>
  );
}
