import { countWorkingDays, isWorkingDay, moveWorkingNumber, type WorkCalendar } from '../workdays/index.js';
import { addDays, fromDayNumber, toDayNumber, weekdayOf, type Day } from '../time/index.js';

/** When somebody is reminded: half-way through the time they have, on the due day; past it their manager hears instead. */
export type ReminderStage = 'half_way' | 'due_day' | 'past_due';

export interface ReminderFacts {
  /** the working calendar of the one who must act */
  readonly calendar: WorkCalendar;
  /** the day on which it came to them; not counted as time they had */
  readonly cameOn: Day;
  readonly dueOn: Day;
  /** their date now */
  readonly todayOn: Day;
  readonly sent: readonly ReminderStage[];
}

/**
 * The day half-way: after half of the working days between coming and due (rounded up), never on the due day itself.
 * @returns null where there are fewer than two working days in between: then the due day is reminder enough
 */
export function halfWayOn(calendar: WorkCalendar, cameOn: Day, dueOn: Day): Day | null {
  if (dueOn <= cameOn) return null;
  const days = countWorkingDays(calendar, cameOn, dueOn) - (isWorkingDay(calendar, cameOn) ? 1 : 0);
  if (days < 2) return null;
  const half = moveWorkingNumber(calendar, toDayNumber(cameOn), Math.ceil(days / 2));
  const on = half === undefined ? null : fromDayNumber(half);
  return on !== null && on < dueOn ? on : null;
}

/** The reminder to send today; null when there is none. Nobody is reminded on a day off, and of nothing twice. */
export function reminderDue({ calendar, cameOn, dueOn, todayOn, sent }: ReminderFacts): ReminderStage | null {
  if (!isWorkingDay(calendar, todayOn) || todayOn <= cameOn) return null;
  if (todayOn > dueOn) return sent.includes('past_due') ? null : 'past_due';
  if (todayOn === dueOn) return sent.includes('due_day') ? null : 'due_day';
  const half = halfWayOn(calendar, cameOn, dueOn);
  return half !== null && todayOn >= half && !sent.includes('half_way') ? 'half_way' : null;
}

/**
 * The day on which the coming week is checked, in the week (Monday to Sunday) of a day: the weekday that was chosen, or where nobody works then the
 * last working day before it, so that there is time to mend what is found.
 * @param weekday Monday is 1
 * @returns null where nobody works in that week up to the weekday
 */
export function checkWeekOn(calendar: WorkCalendar, weekday: number, inWeekOf: Day): Day | null {
  const mondayOn = addDays(inWeekOf, 1 - weekdayOf(inWeekOf));
  for (let after = weekday - 1; after >= 0; after -= 1)
    if (isWorkingDay(calendar, addDays(mondayOn, after))) return addDays(mondayOn, after);
  return null;
}
