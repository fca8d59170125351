import ICAL from 'ical.js';
import { getDay, type Day } from '@zesting/core';

/** The most repetitions of one event that are looked at. */
const REPEATS = 2000;

/** An event as it takes place once. */
export interface Occurrence {
  readonly event: ICAL.Event;
  readonly start: ICAL.Time;
  readonly end: ICAL.Time;
}

/** The day that stands in a time, whatever its zone. */
export const plainDay = (time: ICAL.Time): Day => getDay(time.toString().slice(0, 10));

/**
 * Reads the events of a calendar file (RFC 5545), each with the exceptions of its repetitions. Zones that the file defines count while it is read, and for
 * it alone. Run it where a file that never ends can be ended: see `runLimited`.
 * @returns what `read` makes of them; undefined where the file is no calendar
 */
export function readCalendarFile<T>(text: string, read: (events: readonly ICAL.Event[]) => T): T | undefined {
  try {
    const root = new ICAL.Component(ICAL.parse(text) as unknown[]);
    if (root.name !== 'vcalendar') return undefined;
    for (const zone of root.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone);
    const events = root.getAllSubcomponents('vevent').map((part) => new ICAL.Event(part));
    const masters = events.filter((event) => !event.isRecurrenceException());
    for (const event of masters)
      for (const other of events) if (other.isRecurrenceException() && other.uid === event.uid) event.relateException(other);
    return read(masters);
  } catch {
    return undefined;
  } finally {
    ICAL.TimezoneService.reset();
  }
}

/** How often an event takes place until a day: once, or as it is repeated, with its exceptions. Cancelled ones are left out. */
export function occurrencesOf(event: ICAL.Event, last: Day): Occurrence[] {
  if (!event.isRecurring()) return isCancelled(event) ? [] : [{ event, start: event.startDate, end: event.endDate }];
  const all: Occurrence[] = [];
  const iterator = event.iterator();
  for (let seen = 0; seen < REPEATS; seen++) {
    const next = iterator.next();
    if (!next || plainDay(next) > last) break;
    const { startDate: start, endDate: end, item } = event.getOccurrenceDetails(next);
    if (!isCancelled(item)) all.push({ event: item, start, end });
  }
  return all;
}

const isCancelled = (event: ICAL.Event): boolean =>
  String(event.component.getFirstPropertyValue('status') ?? '').toUpperCase() === 'CANCELLED';
