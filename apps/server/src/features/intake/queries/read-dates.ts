import type { DatedEntryShape, DatesReadShape, ReadDatesBody } from '@zesting/contract';
import { addDays, ALIKE, dayIn, fail, getDay, readDatedLines, similarity } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { runLimited } from '../../../platform/work/limited.js';
import type { datedLinesOf } from '../dated-lines-of.js';
import type { LinesTask } from '../dated-lines-of.worker.js';

/** Days around a date on which something alike is taken for the same. */
const AROUND_DAYS = 3;

/** Reads pasted lines by the client's day, and says what of it stands on the calendar already. */
export async function readDates(app: App, clientId: string, { text, order }: ReadDatesBody): Promise<DatesReadShape> {
  const [client] = await app.read<{ zone: string }>('select zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  const { lines, isAmbiguous } = readDatedLines(text, dayIn(app.clock.now(), client.zone), order);
  const days = lines.flatMap(({ on, until }) => (on && until ? [on, until] : [])).sort();
  const there =
    days.length === 0
      ? []
      : await app.read<{ name: string; start_on: string; end_on: string }>(
          `select name, start_on, end_on from markers where (client_id = $1 or client_id is null) and end_on >= $2::date - ${AROUND_DAYS} and start_on <= $3::date + ${AROUND_DAYS}
           union all select name, start_on, end_on from client_closures where client_id = $1 and end_on >= $2::date - ${AROUND_DAYS} and start_on <= $3::date + ${AROUND_DAYS}
           union all select title, wish_on, wish_on from requests where client_id = $1 and state in ('new', 'asked_back') and wish_on between $2::date - ${AROUND_DAYS} and $3::date + ${AROUND_DAYS}
           limit 2000`,
          [clientId, days[0], days.at(-1)],
        );
  const twinOf = ({ on, until, title }: Pick<DatedEntryShape, 'on' | 'until' | 'title'>): string | null => {
    if (!on || !until) return null;
    const [first, last] = [addDays(getDay(on), -AROUND_DAYS), addDays(getDay(until), AROUND_DAYS)];
    const near = there.filter(({ start_on: start, end_on: end }) => start <= last && end >= first);
    const [best] = near.map(({ name }) => ({ name, likeness: similarity(title, name) })).sort((a, b) => b.likeness - a.likeness);
    return best && best.likeness >= ALIKE ? best.name : null;
  };
  return { entries: lines.map((line) => ({ ...line, twin: twinOf(line) })), isAmbiguous };
}

const READING = { milliseconds: 20_000, megabytes: 256 };

/** Reads a file of dates (iCalendar, CSV, XLSX, plain lines) as lines, in a thread of its own; nothing is kept. */
export async function readDatesFile(app: App, clientId: string, bytes: Buffer): ReturnType<typeof datedLinesOf> {
  const [client] = await app.read<{ zone: string }>('select zone from clients where id = $1', [clientId]);
  if (!client) throw new Error('the client went away');
  const { zone } = client;
  const task: LinesTask = { bytes, zone, todayOn: dayIn(app.clock.now(), zone) };
  const script = new URL('../dated-lines-of.worker.js', import.meta.url);
  return (
    (await runLimited<LinesTask, Awaited<ReturnType<typeof datedLinesOf>>>(script, task, READING)) ?? fail({ code: 'table.unreadable' })
  );
}
