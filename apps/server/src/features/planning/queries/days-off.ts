import type { DaysOffShape, MarkedDayShape, PartyOffShape } from '@zesting/contract';
import { addDays, getDay, laterOf, weekdayOf, type Day } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { publicHolidays } from '../../../platform/time/holidays.js';

interface PartyRow {
  region: string;
  weekly_minutes: number[];
}
interface SpanRow {
  start_on: string;
  end_on: string;
  name: string;
}

/**
 * On which days from `from` to `to` a client and a person do not work, and why. Of a person's time off only that it is some is told.
 * @param clientId,personId null: not asked for
 */
export async function daysOff(
  app: App,
  of: { clientId: string | null; personId: string | null },
  from: Day,
  to: Day,
): Promise<DaysOffShape> {
  const party = async (table: 'clients' | 'people', id: string | null, spans: string): Promise<PartyOffShape | null> => {
    if (id === null) return null;
    const [row] = await app.read<PartyRow>(`select region, weekly_minutes from ${table} where id = $1`, [id]);
    return row ? offOf(row, await app.read<SpanRow>(spans, [id, from, to]), from, to) : null;
  };
  const marked =
    of.clientId === null
      ? []
      : await app.read<SpanRow & { kind: MarkedDayShape['kind'] }>(
          `select start_on, end_on, kind, name from markers where (client_id = $1 or client_id is null) and kind in ('blackout', 'production_day')
             and end_on >= $2 and start_on <= $3 order by start_on, name`,
          [of.clientId, from, to],
        );
  return {
    marked: marked.flatMap(({ kind, name, ...span }) => daysWithin(span, from, to).map((on) => ({ on, kind, name }))),
    client: await party(
      'clients',
      of.clientId,
      'select start_on, end_on, name from client_closures where client_id = $1 and end_on >= $2 and start_on <= $3',
    ),
    person: await party(
      'people',
      of.personId,
      "select start_on, end_on, 'Time off' as name from time_off where person_id = $1 and part = 1 and end_on >= $2 and start_on <= $3",
    ),
  };
}

/** The days of a span that lie in a period. */
function daysWithin({ start_on, end_on }: Pick<SpanRow, 'start_on' | 'end_on'>, from: Day, to: Day): Day[] {
  const days: Day[] = [];
  for (let day = laterOf(getDay(start_on), from); day <= end_on && day <= to; day = addDays(day, 1)) days.push(day);
  return days;
}

function offOf(party: PartyRow, spans: readonly SpanRow[], from: Day, to: Day): PartyOffShape {
  const weekdaysOff = [1, 2, 3, 4, 5, 6, 7].filter((weekday) => (party.weekly_minutes[weekday - 1] ?? 0) === 0);
  const reasons = new Map<Day, string>();
  for (const { on, name } of publicHolidays(party.region, Number(from.slice(0, 4)), Number(to.slice(0, 4))))
    if (on >= from && on <= to) reasons.set(on, name);
  for (const { name, ...span } of spans) for (const day of daysWithin(span, from, to)) reasons.set(day, name);
  const days = [...reasons].filter(([on]) => !weekdaysOff.includes(weekdayOf(on))).map(([on, reason]) => ({ on, reason }));
  return { weekdaysOff, days: days.sort((a, b) => (a.on < b.on ? -1 : 1)) };
}
