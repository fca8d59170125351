import { addDays, earlierOf, laterOf, type Day } from '../time/index.js';
import { minutesOn } from '../workdays/index.js';
import type { DueWork } from '../overload/index.js';
import { NOBODY_DAYS, type Roster, type RosterCase, type RosterEnd, type RosterValue } from './roster.js';

/** A choice that the programme has for a step: who does it, and by when; nobody where `doer` is null. */
export interface RosterColumn extends RosterValue {
  readonly name: string;
  readonly taskId: string;
  readonly doer: string | null;
  readonly end: RosterEnd | null;
}

/** Who takes which step, as an integer programme: plain data, so that it can be sent to a solver in another thread. */
export interface RosterModel {
  readonly columns: readonly RosterColumn[];
  /** in the LP format */
  readonly rows: readonly string[];
}

/** What is made least, one after the other: what was reached before is kept. */
export const ROSTER_STAGES = ['late', 'cost', 'fit'] as const;
export type RosterStage = (typeof ROSTER_STAGES)[number];

/** A choice as work of its doer, and the column that makes it; without a column: what they have. */
interface Placed extends DueWork {
  readonly column: string | null;
}

/**
 * The programme: each step is taken by one, by one of the days by which it can end, or by nobody; and for each doer and each stretch of days the work
 * that can neither begin before it nor end after it fits into its hours. These stretches are all that is needed: exactly then the work in the order
 * of due days ends in time.
 * @param most the late days that a roster is known to reach: what alone comes to more is left out
 * @see Horn 1974, Some Simple Scheduling Algorithms: preemptive earliest due date with release dates
 */
export function rosterModel({ tasks, doers }: RosterCase, most = Infinity): RosterModel {
  const columns: RosterColumn[] = [];
  const rows: string[] = [];
  const byDoer = new Map<string, Placed[]>();
  for (const [at, { id: taskId, minutes, ways }] of tasks.entries()) {
    const own: string[] = [];
    const add = (column: Omit<RosterColumn, 'name' | 'taskId'>): string => {
      const name = `x${at}_${own.length}`;
      columns.push({ name, taskId, ...column });
      own.push(name);
      return name;
    };
    for (const { doer, releasedOn, ends, cost, fit } of ways) {
      if (!doers[doer]) continue;
      for (const end of ends) {
        if (end.late > most) break;
        const column = add({ doer, end, late: end.late, cost, fit });
        const placed = byDoer.get(doer) ?? [];
        placed.push({ id: taskId, releasedOn: earlierOf(releasedOn, end.on), dueOn: end.on, minutes, column });
        byDoer.set(doer, placed);
      }
    }
    if (NOBODY_DAYS <= most) add({ doer: null, end: null, late: NOBODY_DAYS, cost: 0, fit: 0 });
    rows.push(`${own.map((name) => `+ 1 ${name}`).join(' ')} = 1`);
  }
  for (const [doer, placed] of byDoer) {
    const by = doers[doer];
    if (!by) continue;
    const all = [...placed, ...by.has.map((work): Placed => ({ ...work, column: null }))].map((one) => ({
      ...one,
      releasedOn: laterOf(one.releasedOn, by.todayOn),
    }));
    const hours = hoursBetween((day) => Math.max(0, minutesOn(by.calendar, day) - (by.taken.get(day) ?? 0)), by.todayOn, lastOf(all));
    rows.push(...stretchRows(all, hours));
  }
  return { columns, rows };
}

const lastOf = (all: readonly DueWork[]): Day => all.reduce((last, { dueOn }) => laterOf(last, dueOn), all[0]?.dueOn ?? ('' as Day)); // only where there is one

/** For every stretch that begins where work can begin and ends where work is due: what is in it fits into its hours. Rows that always hold are left out. */
function stretchRows(all: readonly Placed[], hoursIn: (from: Day, to: Day) => number): string[] {
  const rows: string[] = [];
  const byRelease = [...all].sort((a, b) => (a.releasedOn < b.releasedOn ? 1 : a.releasedOn > b.releasedOn ? -1 : 0));
  for (const dueOn of [...new Set(all.map((one) => one.dueOn))].sort()) {
    const inside: Placed[] = [];
    let [has, hasEnd] = [0, false];
    const most = new Map<string, number>(); // of each step once
    const due = byRelease.filter((one) => one.dueOn <= dueOn);
    due.forEach((one, index) => {
      if (one.column === null) has += one.minutes;
      else {
        inside.push(one);
        most.set(one.id, one.minutes);
      }
      hasEnd ||= one.dueOn === dueOn;
      if (due[index + 1]?.releasedOn === one.releasedOn || inside.length === 0 || !hasEnd) return;
      const room = Math.max(0, hoursIn(one.releasedOn, dueOn) - has);
      if ([...most.values()].reduce((sum, minutes) => sum + minutes, 0) <= room) return;
      rows.push(`${inside.map(({ minutes, column }) => `+ ${minutes} ${column}`).join(' ')} <= ${room}`);
    });
  }
  return rows;
}

/** The hours from one day to another, both counted, from sums made once. */
function hoursBetween(hoursOn: (day: Day) => number, from: Day, to: Day): (from: Day, to: Day) => number {
  const before = new Map<string, number>([[from, 0]]);
  let sum = 0;
  for (let day = from; day <= to; day = addDays(day, 1)) {
    sum += hoursOn(day);
    before.set(addDays(day, 1), sum);
  }
  return (first, last) => (before.get(addDays(last, 1)) ?? sum) - (before.get(first) ?? sum);
}

/**
 * One stage of the programme in the LP format: least late days, then least cost, then whom one would choose first.
 * @param kept what the stages before reached, and this one may not exceed
 * @see the LP file format, as HiGHS reads it
 */
export function rosterLp({ columns, rows }: RosterModel, stage: RosterStage, kept: Partial<RosterValue>): string {
  const sumOf = (what: RosterStage): string =>
    columns.flatMap((column) => (column[what] > 0 ? [`+ ${column[what]} ${column.name}`] : [])).join(' ');
  const limits = ROSTER_STAGES.flatMap((what) => {
    const [sum, most] = [sumOf(what), kept[what]];
    return most === undefined || sum === '' ? [] : [`${sum} <= ${most}`];
  });
  return [
    'Minimize',
    ` value: ${sumOf(stage) || '0 none'}`,
    'Subject To',
    ...[...rows, ...limits].map((row, index) => ` r${index}: ${row}`),
    ' last: none <= 1',
    'Binary',
    ...columns.map(({ name }) => ` ${name}`),
    'End',
    '',
  ].join('\n');
}

/** The roster that a solver found. @param values of the programme's columns, by their names */
export const rosterIn = ({ columns }: RosterModel, values: Readonly<Record<string, number>>): Roster =>
  new Map(
    columns.flatMap(({ name, taskId, doer, end }) =>
      doer !== null && end !== null && (values[name] ?? 0) > 0.5 ? [[taskId, { doer, end }] as const] : [],
    ),
  );
