import { addDays, dayIn, ok, type Day, type Result } from '@zesting/core';
import type ICAL from 'ical.js';
import { occurrencesOf, plainDay, readCalendarFile, type Occurrence } from '../../platform/time/calendar-file.js';
import { readTable } from './read-table.js';

/** How far ahead repeated events are read, and how long ago one may have ended to be there. */
const AHEAD_DAYS = 400;
const BEHIND_DAYS = 31;
/** So many lines are made at most: as many as are read. */
const LINES = 500;

interface Reading {
  /** the client’s: timed events are laid on its days */
  readonly zone: string;
  readonly todayOn: Day;
}

/** What a file of dates says, as lines that a person could have written, to be read and corrected like those. */
export async function datedLinesOf(
  bytes: Buffer,
  reading: Reading,
): Promise<Result<string, { code: 'table.unreadable' | 'table.empty' | 'table.too_large' }>> {
  const text = bytes.toString('utf8').replace(/^\ufeff/, '');
  const events = /^\s*BEGIN:VCALENDAR/i.test(text) ? readCalendarFile(text, (found) => linesOfEvents(found, reading)) : undefined;
  if (events) return ok(events.slice(0, LINES).join('\n'));
  const table = await readTable(bytes);
  // a list of lines is no table: it stands as it is
  if (!table.ok) return table.failure.code === 'table.empty' && text.trim() !== '' ? ok(text) : table;
  const { heads, rows } = table.value;
  if (heads.length === 1 && !isZip(bytes)) return ok(text);
  return ok([heads, ...rows].map((cells) => cells.map(bare).filter(Boolean).join(' ')).join('\n'));
}

const isZip = (bytes: Buffer): boolean => bytes.subarray(0, 2).toString('latin1') === 'PK';
const bare = (cell: string): string => cell.replace(/\s+/g, ' ').trim();

function linesOfEvents(events: readonly ICAL.Event[], { zone, todayOn }: Reading): string[] {
  const [first, last] = [addDays(todayOn, -BEHIND_DAYS), addDays(todayOn, AHEAD_DAYS)];
  return events
    .flatMap((event) => occurrencesOf(event, last))
    .map((one) => ({ ...daysOf(one, zone), title: bare(one.event.summary ?? '') }))
    .filter(({ until, on }) => until >= first && on <= last)
    .sort((a, b) => a.on.localeCompare(b.on) || a.title.localeCompare(b.title))
    .map(({ on, until, title }) => `${on === until ? on : `${figures(on)}–${figures(until)}`} ${title}`.trim());
}

/** A day as it is read in a span: 03.04.2027. */
const figures = (on: Day): string => on.split('-').reverse().join('.');

/** The days of an occurrence. The end of a whole day is the day after; one that ends at midnight ends the day before. */
function daysOf({ start, end }: Occurrence, zone: string): { on: Day; until: Day } {
  const on = dayOf(start, zone);
  const until = addDays(dayOf(end, zone), endsBefore(end, zone) ? -1 : 0);
  return { on, until: until < on ? on : until };
}

/** A day by the client’s clock; one without a zone is meant wherever somebody is. */
const dayOf = (time: ICAL.Time, zone: string): Day =>
  time.isDate || time.zone.tzid === 'floating' ? plainDay(time) : dayIn(time.toJSDate().toISOString(), zone);

const endsBefore = (time: ICAL.Time, zone: string): boolean =>
  time.isDate ||
  dayOf(time, zone) !==
    (time.zone.tzid === 'floating' ? secondBefore(time) : dayIn(new Date(time.toJSDate().getTime() - 1000).toISOString(), zone));

function secondBefore(time: ICAL.Time): Day {
  const before = time.clone();
  before.adjust(0, 0, 0, -1);
  return plainDay(before);
}
