import { addDays, earlierOf, laterOf, toDayNumber, type Day } from '../time/index.js';
import { minutesOn, type WorkCalendar } from '../workdays/index.js';

/** Work that somebody has: it can begin on one day and must end by another. */
export interface DueWork {
  readonly id: string;
  readonly releasedOn: Day;
  readonly dueOn: Day;
  /** hands-on minutes that remain */
  readonly minutes: number;
}

/** Days into which more work falls than there are hours. */
export interface Overload {
  readonly fromOn: Day;
  readonly dueOn: Day;
  /** so many minutes of work too much */
  readonly overMinutes: number;
  /** the work that cannot but be done on these days */
  readonly ids: readonly string[];
}

/**
 * Where somebody has more to do than hours, whatever the order: for each day on which something is due the stretch before it whose work, that which
 * neither can begin before it nor end after it, exceeds its hours most. None exactly where work in the order of due days ends all in time.
 * @param calendar minutes of work by day
 * @param taken minutes of days that are spoken for by what is no step
 * @param todayOn what could have begun before counts from today; what was due before, by the first day from today on that has hours
 * @returns by due day; the days without too much are left out
 * @see Horn 1974, Some Simple Scheduling Algorithms: preemptive earliest due date with release dates
 */
export function overloads(
  work: readonly DueWork[],
  { calendar, taken, todayOn }: { readonly calendar: WorkCalendar; readonly taken: ReadonlyMap<Day, number>; readonly todayOn: Day },
): Overload[] {
  const hoursOn = (day: Day) => Math.max(0, minutesOn(calendar, day) - (taken.get(day) ?? 0));
  const soonest = firstWith(hoursOn, todayOn);
  const open = work
    .filter(({ minutes }) => minutes > 0)
    .map((one) => {
      const dueOn = one.dueOn < todayOn ? soonest : one.dueOn;
      return { ...one, dueOn, releasedOn: earlierOf(laterOf(one.releasedOn, todayOn), dueOn) };
    });
  if (open.length === 0) return [];
  const hoursUntil = hoursByDay(
    hoursOn,
    todayOn,
    open.reduce((last, { dueOn }) => laterOf(last, dueOn), todayOn),
  );
  const today = toDayNumber(todayOn);
  /** the hours from one day to another, both counted */
  const hoursIn = (from: Day, to: Day) => (hoursUntil[toDayNumber(to) - today + 1] ?? 0) - (hoursUntil[toDayNumber(from) - today] ?? 0);
  // from the last release back: the stretch grows, and so does its work
  const byRelease = [...open].sort((a, b) => (a.releasedOn < b.releasedOn ? 1 : a.releasedOn > b.releasedOn ? -1 : 0));
  return [...new Set(open.map(({ dueOn }) => dueOn))].sort().flatMap((dueOn): Overload[] => {
    const due = byRelease.filter((one) => one.dueOn <= dueOn);
    let demand = 0;
    let worst: { readonly fromOn: Day; readonly overMinutes: number; readonly count: number } | undefined;
    due.forEach(({ releasedOn, minutes }, index) => {
      demand += minutes;
      if (due[index + 1]?.releasedOn === releasedOn) return;
      const overMinutes = demand - hoursIn(releasedOn, dueOn);
      if (overMinutes > (worst?.overMinutes ?? 0)) worst = { fromOn: releasedOn, overMinutes, count: index + 1 };
    });
    return worst
      ? [{ fromOn: worst.fromOn, dueOn, overMinutes: worst.overMinutes, ids: due.slice(0, worst.count).map(({ id }) => id) }]
      : [];
  });
}

/** How many hours there are before each day from one to another, and after the last. */
function hoursByDay(hoursOn: (day: Day) => number, from: Day, to: Day): number[] {
  const sums = [0];
  for (let day = from; day <= to; day = addDays(day, 1)) sums.push((sums.at(-1) ?? 0) + hoursOn(day));
  return sums;
}

/** Nobody is away for longer than this without having left. */
const MOST_AWAY_DAYS = 400;

/** The first day from one on that has hours; that day itself where none has. */
function firstWith(hoursOn: (day: Day) => number, from: Day): Day {
  for (let count = 0; count < MOST_AWAY_DAYS; count++) if (hoursOn(addDays(from, count)) > 0) return addDays(from, count);
  return from;
}
