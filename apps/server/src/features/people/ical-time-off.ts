import type ICAL from 'ical.js';
import {
  addDays,
  dayIn,
  daysBetween,
  fail,
  fromDayNumber,
  getDay,
  minutesOn,
  ok,
  toDayNumber,
  type Day,
  type Result,
  type WorkCalendar,
} from '@zesting/core';
import type { FoundTimeOff, FoundTimeOffShape } from '@zesting/contract';
import { occurrencesOf, plainDay, readCalendarFile, type Occurrence } from '../../platform/time/calendar-file.js';

/** How far ahead repeated events are read. */
const AHEAD_DAYS = 550;
/** The most absences that one file may bring: what is taken over at once. */
const ABSENCES = 500;
/** An absence that lasts beyond what is read ahead ends where the file says, and here at the latest. */
const FOR_GOOD = getDay('2199-12-31');

interface Reading {
  /** the person's zone: timed events are laid on its days */
  readonly zone: string;
  /** the person's hours without time off */
  readonly calendar: WorkCalendar;
  /** events that end before it are left out */
  readonly todayOn: Day;
}

/**
 * Reads absences from a calendar file: whole-day events, and timed ones that take at least a quarter of a day's hours (half a
 * day), or three quarters (the whole day). Free and cancelled events, and those that take no working day, are left out.
 * Zones that the file defines count for it alone. Run it where a file that never ends can be ended: see `read-time-off.worker`.
 * @returns absences by day, or `time_off.file_unreadable`, or `time_off.too_many` above 500
 * @see RFC 5545
 */
export function readTimeOff(text: string, reading: Reading): Result<FoundTimeOffShape, ReadFailure> {
  return readCalendarFile(text, (events) => absencesIn(events, reading)) ?? fail({ code: 'time_off.file_unreadable' });
}

export interface ReadFailure {
  readonly code: 'time_off.file_unreadable' | 'time_off.too_many';
}

function absencesIn(events: readonly ICAL.Event[], reading: Reading): Result<FoundTimeOffShape, ReadFailure> {
  const last = addDays(reading.todayOn, AHEAD_DAYS);
  let leftOut = 0;
  const absences = events.flatMap((event) => {
    const busy = isBusy(event) ? occurrencesOf(event, last).filter((one) => isBusy(one.event)) : [];
    const found = busy.flatMap((span) => absenceOf(event, span, reading));
    if (found.length === 0) leftOut += 1;
    return found;
  });
  if (absences.length > ABSENCES) return fail({ code: 'time_off.too_many' });
  return ok({ absences: absences.sort((a, b) => a.startOn.localeCompare(b.startOn)), leftOut });
}

const isBusy = (event: ICAL.Event): boolean =>
  String(event.component.getFirstPropertyValue('transp') ?? '').toUpperCase() !== 'TRANSPARENT' &&
  String(event.component.getFirstPropertyValue('status') ?? '').toUpperCase() !== 'CANCELLED';

function absenceOf(event: ICAL.Event, span: Occurrence, reading: Reading): FoundTimeOff[] {
  const note = (event.summary ?? '').slice(0, 100);
  const days = span.start.isDate ? wholeDays(span, reading) : timedDays(span, reading);
  return joined(days).map(({ startOn, endOn, part }) => ({
    uid: `${event.uid || note}:${startOn}`.slice(0, 300),
    startOn,
    endOn,
    part,
    note,
  }));
}

interface DayOff {
  readonly on: Day;
  readonly part: number;
  /** the last day of all, where it goes on so long */
  readonly until?: Day;
}

/** The days of a span that are looked at: from today on, and so far ahead as files are read. */
function lookedAt(first: Day, last: Day, { todayOn }: Reading): Day[] {
  const from = Math.max(toDayNumber(first), toDayNumber(todayOn));
  const to = Math.min(toDayNumber(last), toDayNumber(todayOn) + AHEAD_DAYS);
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => fromDayNumber(from + index));
}

/** The end of a whole-day event is the day after its last one. One that reaches beyond what is looked at lasts to its end. */
function wholeDays({ start, end }: Occurrence, reading: Reading): DayOff[] {
  const first = plainDay(start);
  const last = addDays(first, Math.max(1, daysBetween(first, plainDay(end))) - 1);
  const days = lookedAt(first, last, reading)
    .filter((on) => minutesOn(reading.calendar, on) > 0)
    .map((on) => ({ on, part: 1 }));
  const isLonger = last > addDays(reading.todayOn, AHEAD_DAYS);
  return isLonger && days.length > 0
    ? [...days.slice(0, -1), { ...(days.at(-1) as DayOff), until: last < FOR_GOOD ? last : FOR_GOOD }]
    : days;
}

function timedDays({ start, end }: Occurrence, reading: Reading): DayOff[] {
  const { zone, calendar } = reading;
  const [from, to] = [start.toJSDate().toISOString(), end.toJSDate().toISOString()];
  const days: DayOff[] = [];
  for (const on of lookedAt(dayIn(from, zone), dayIn(to, zone), reading)) {
    const minutes = minutesOn(calendar, on);
    const share = minutes === 0 ? 0 : minutesWithin(from, to, on, zone) / minutes;
    if (share >= 0.75) days.push({ on, part: 1 });
    else if (share >= 0.25) days.push({ on, part: 0.5 });
  }
  return days;
}

/** Minutes of the span that fall on a day of the zone, by its clock. */
function minutesWithin(from: string, to: string, on: Day, zone: string): number {
  const clock = (instant: string): number => {
    const wall = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(
      new Date(instant),
    );
    const [hours = 0, minutes = 0] = wall.split(':').map(Number);
    return hours * 60 + minutes;
  };
  const begin = dayIn(from, zone) < on ? 0 : clock(from);
  const finish = dayIn(to, zone) > on ? 1440 : clock(to);
  return Math.max(0, finish - begin);
}

/** Days that follow each other with the same part, as one absence. */
function joined(days: readonly DayOff[]): { startOn: Day; endOn: Day; part: number }[] {
  const spans: { startOn: Day; endOn: Day; part: number }[] = [];
  for (const { on, part, until = on } of days) {
    const last = spans.at(-1);
    if (last && last.part === part && addDays(last.endOn, 1) === on) last.endOn = until;
    else spans.push({ startOn: on, endOn: until, part });
  }
  return spans;
}
