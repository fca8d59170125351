import { overloads, type DueWork } from '../overload/index.js';
import { addDays, earlierOf, laterOf, type Day } from '../time/index.js';
import { addWorkingDays, minutesOn, workingDayOnOrAfter, type WorkCalendar } from '../workdays/index.js';

/** A day by which a step can be done, and what that comes to. */
export interface RosterEnd {
  readonly on: Day;
  /** the doer's working days after the latest finish; 0: in time */
  readonly late: number;
}

/** One who could take a step. */
export interface RosterWay {
  readonly doer: string;
  /** the first day on which they could work on it */
  readonly releasedOn: Day;
  /** the days by which it could end, the soonest first; see `endsOf` */
  readonly ends: readonly RosterEnd[];
  /** what their hours on it are paid, in the smallest unit of the currency; 0 for staff, who are paid anyway */
  readonly cost: number;
  /** how far they are from whoever would be the first choice, 0 or more */
  readonly fit: number;
}

/** A step that is to be given to somebody. */
export interface RosterTask {
  readonly id: string;
  /** hands-on minutes */
  readonly minutes: number;
  readonly ways: readonly RosterWay[];
}

export interface RosterDoer {
  readonly calendar: WorkCalendar;
  /** minutes by day that are spoken for by what is no step */
  readonly taken: ReadonlyMap<Day, number>;
  readonly todayOn: Day;
  /** what they have already, which becomes no later by what they are given; see `standing` */
  readonly has: readonly DueWork[];
}

export interface RosterCase {
  readonly tasks: readonly RosterTask[];
  readonly doers: Readonly<Record<string, RosterDoer>>;
}

/** Who takes what, by step: absent, nobody does. */
export type Roster = ReadonlyMap<string, { readonly doer: string; readonly end: RosterEnd }>;

/** What a roster comes to, in the order in which it counts. */
export interface RosterValue {
  /** late working days; a step that nobody takes counts as `NOBODY_DAYS` */
  readonly late: number;
  readonly cost: number;
  readonly fit: number;
}

/** A step that nobody takes weighs as much as one that is so many working days late. */
export const NOBODY_DAYS = 30;
/** Working days late that are told apart; between them the later counts. */
const LATE_DAYS = [1, 2, 3, 4, 5, 7, 10, 15, 20] as const;

/**
 * The days by which a step can end with one doer: at its latest finish, or so many of the doer's working days after it; at last on the last day.
 * @param dueOn the latest finish; null: it may end at any time
 * @param lastOn the last day that is reckoned
 * @returns the soonest first; none where it cannot be done by `lastOn`
 */
export function endsOf(
  calendar: WorkCalendar,
  {
    releasedOn,
    spanDays,
    dueOn,
    lastOn,
  }: { readonly releasedOn: Day; readonly spanDays: number; readonly dueOn: Day | null; readonly lastOn: Day },
): RosterEnd[] {
  const begin = workingDayOnOrAfter(calendar, releasedOn);
  const soonest = begin.ok ? addWorkingDays(calendar, begin.value, spanDays - 1) : begin;
  if (!soonest.ok || soonest.value > lastOn) return [];
  if (dueOn === null) return [{ on: lastOn, late: 0 }];
  const later = LATE_DAYS.flatMap((late): RosterEnd[] => {
    const on = addWorkingDays(calendar, dueOn, late);
    return on.ok && on.value >= soonest.value && on.value <= lastOn ? [{ on: on.value, late }] : [];
  });
  const all = soonest.value <= dueOn ? [{ on: dueOn, late: 0 }, ...later] : later;
  // however late: somebody who does it in the end is better than nobody
  return (all.at(-1)?.on ?? '') < lastOn ? [...all, { on: lastOn, late: NOBODY_DAYS - 1 }] : all;
}

/**
 * What somebody has, with due days that can be held: by the order of due days, what cannot end in time is due when it ends instead. What is not
 * done by the last day counts for what is done of it.
 * @param has with due days as they are wanted
 */
export function standing({ calendar, taken, todayOn, has }: RosterDoer, lastOn: Day): DueWork[] {
  const open = has.filter(({ minutes }) => minutes > 0).map((work) => ({ work, left: work.minutes, endOn: null as Day | null }));
  const byDue = [...open].sort((a, b) => (a.work.dueOn < b.work.dueOn ? -1 : a.work.dueOn > b.work.dueOn ? 1 : 0));
  for (let day = todayOn; day <= lastOn; day = addDays(day, 1)) {
    let hours = Math.max(0, minutesOn(calendar, day) - (taken.get(day) ?? 0));
    for (const one of byDue) {
      if (one.left === 0 || one.work.releasedOn > day) continue;
      const worked = Math.min(hours, one.left);
      one.left -= worked;
      hours -= worked;
      if (one.left === 0) one.endOn = day;
      if (hours === 0) break;
    }
  }
  return open.flatMap(({ work, left, endOn }): DueWork[] =>
    work.minutes === left
      ? []
      : [
          {
            ...work,
            minutes: work.minutes - left,
            releasedOn: earlierOf(laterOf(work.releasedOn, todayOn), endOn ?? lastOn),
            dueOn: endOn === null ? lastOn : laterOf(work.dueOn, endOn),
          },
        ],
  );
}

/** Whether everybody can end in time what they have and what they would be given. */
export function isRosterFeasible({ tasks, doers }: RosterCase, roster: Roster): boolean {
  return Object.entries(doers).every(([doer, by]) => {
    const given = tasks.flatMap((task): DueWork[] => {
      const taken = roster.get(task.id);
      return taken?.doer === doer ? [dueWork(task, doer, taken.end)] : [];
    });
    return given.length === 0 || overloads([...by.has, ...given], by).length === 0;
  });
}

const dueWork = (task: RosterTask, doer: string, end: RosterEnd): DueWork => ({
  id: task.id,
  minutes: task.minutes,
  releasedOn: task.ways.find((way) => way.doer === doer)?.releasedOn ?? end.on,
  dueOn: end.on,
});

/** What a roster comes to. */
export function valueOfRoster({ tasks }: RosterCase, roster: Roster): RosterValue {
  const sum = { late: 0, cost: 0, fit: 0 };
  for (const { id, ways } of tasks) {
    const taken = roster.get(id);
    const way = ways.find(({ doer }) => doer === taken?.doer);
    sum.late += taken && way ? taken.end.late : NOBODY_DAYS;
    sum.cost += way?.cost ?? 0;
    sum.fit += way?.fit ?? 0;
  }
  return sum;
}

/** Which of two values is better: fewer late days, then what costs less, then whom one would choose first. @returns below 0: the first */
export const compareRosterValues = (a: RosterValue, b: RosterValue): number => a.late - b.late || a.cost - b.cost || a.fit - b.fit;

/**
 * A roster the quick way: step by step, the soonest due first, to whoever does it with the fewest late days, then for the least, then whom one would
 * choose first, as far as they can do it beside what they have and were given. Always feasible, not always the best there is.
 */
export function quickRoster(whole: RosterCase): Roster {
  const roster = new Map<string, { doer: string; end: RosterEnd }>();
  const given = new Map<string, DueWork[]>();
  const dueOf = ({ ways }: RosterTask) =>
    ways.flatMap(({ ends }) => ends.map(({ on }) => on)).reduce((soonest, on) => (on < soonest ? on : soonest), '9' as string);
  const byDue = [...whole.tasks].sort((a, b) => (dueOf(a) < dueOf(b) ? -1 : dueOf(a) > dueOf(b) ? 1 : 0));
  for (const task of byDue) {
    const tries = task.ways
      .flatMap(({ doer, ends, cost, fit }) => ends.map((end) => ({ doer, end, late: end.late, cost, fit })))
      .sort(compareRosterValues);
    for (const { doer, end } of tries) {
      const by = whole.doers[doer];
      if (!by) continue;
      const all = [...(given.get(doer) ?? []), dueWork(task, doer, end)];
      if (overloads([...by.has, ...all], by).length > 0) continue;
      given.set(doer, all);
      roster.set(task.id, { doer, end });
      break;
    }
  }
  return roster;
}
