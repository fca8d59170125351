import { addDays, type Day } from '../time/index.js';
import { isWorkingDay, type WorkCalendar } from '../workdays/index.js';

/** A time in which the requester owed an answer, by the agency's days; null: still. */
export interface Pause {
  readonly from: Day;
  readonly to: Day | null;
}

export interface AnswerClock {
  /** the agency's working days that have passed since it came, without those on which the requester owed an answer */
  readonly ageDays: number;
  /** the last day that keeps the promise; null where none was given, and while the clock stands */
  readonly dueOn: Day | null;
  /** more days have passed than were promised */
  readonly isLate: boolean;
}

/** Nobody is told of a promise further ahead. */
const REACH_DAYS = 400;

/**
 * How long a request has waited for the agency against the time that was promised. The day on which it came is not counted, nor a day on which the
 * requester owed an answer up to the one on which it came; the day on which they were asked is the agency's.
 * @param promisedDays working days within which an answer was promised; 0: none was
 */
export function answerClock(
  receivedOn: Day,
  todayOn: Day,
  { pauses, calendar, promisedDays }: { readonly pauses: readonly Pause[]; readonly calendar: WorkCalendar; readonly promisedDays: number },
): AnswerClock {
  const counts = (day: Day) => isWorkingDay(calendar, day) && !pauses.some(({ from, to }) => from < day && (to === null || day <= to));
  let ageDays = 0;
  for (let day = addDays(receivedOn, 1); day <= todayOn; day = addDays(day, 1)) if (counts(day)) ageDays++;
  return {
    ageDays,
    dueOn: promisedDays === 0 ? null : dueDay(receivedOn, promisedDays, counts),
    isLate: promisedDays > 0 && ageDays > promisedDays,
  };
}

function dueDay(receivedOn: Day, promisedDays: number, counts: (day: Day) => boolean): Day | null {
  let left = promisedDays;
  for (let days = 1; days <= REACH_DAYS; days++) {
    const day = addDays(receivedOn, days);
    if (counts(day) && --left === 0) return day;
  }
  return null;
}

/** Who said what, and on which of the agency's days. */
export interface Said {
  readonly author: 'agency' | 'requester';
  readonly on: Day;
}

/** The times in which the requester owed an answer: from the first question until they say something. */
export function pausesOf(messages: readonly Said[]): Pause[] {
  const pauses: Pause[] = [];
  let from: Day | null = null;
  for (const { author, on } of messages) {
    if (author === 'agency') from ??= on;
    else if (from !== null) {
      pauses.push({ from, to: on });
      from = null;
    }
  }
  return from === null ? pauses : [...pauses, { from, to: null }];
}
