import type { LoadPersonShape, LoadStepShape } from '@zesting/contract';
import { addDays, getDay, mondayOf, type Day } from '@zesting/core';

/** One cell of the grid: a day, or a week. */
export interface Cell {
  readonly fromOn: Day;
  readonly toOn: Day;
  /** minutes that are worked, and minutes that are spoken for */
  readonly hours: number;
  readonly taken: number;
  /** the most minutes of work too much that are due on a day of it */
  readonly over: number;
}

/** The cells of a person: a day each, or, of a long time, a week. */
export function cellsOf({ hours, taken, overloads }: LoadPersonShape, fromOn: Day, byWeeks: boolean): Cell[] {
  const cells: Cell[] = [];
  hours.forEach((minutes, index) => {
    const day = addDays(fromOn, index);
    const over = Math.max(0, ...overloads.filter(({ dueOn }) => dueOn === day).map(({ overMinutes }) => overMinutes));
    const last = cells.at(-1);
    if (byWeeks && last && mondayOf(day) === mondayOf(last.fromOn))
      cells[cells.length - 1] = {
        ...last,
        toOn: day,
        hours: last.hours + minutes,
        taken: last.taken + (taken[index] ?? 0),
        over: Math.max(last.over, over),
      };
    else cells.push({ fromOn: day, toOn: day, hours: minutes, taken: taken[index] ?? 0, over });
  });
  return cells;
}

/** How full a cell is, in five steps: 0 nothing, 4 all of it. Null where nobody works. */
export function fullness({ hours, taken }: Pick<Cell, 'hours' | 'taken'>): 0 | 1 | 2 | 3 | 4 | null {
  if (hours === 0) return taken === 0 ? null : 4;
  const part = taken / hours;
  if (part === 0) return 0;
  if (part >= 0.97) return 4;
  return part < 0.34 ? 1 : part < 0.67 ? 2 : 3;
}

/** The steps that are predicted to be worked on within a stretch of days. */
export const stepsWithin = (steps: readonly LoadStepShape[], fromOn: Day, toOn: Day): LoadStepShape[] =>
  steps.filter(({ startOn, finishOn }) => startOn <= toOn && finishOn >= fromOn);

/** Hours in as few characters as a cell has room for. */
export const shortHours = (minutes: number): string => {
  const hours = Math.round(minutes / 30) / 2;
  return minutes > 0 && hours === 0 ? '½' : Number.isInteger(hours) ? String(hours) : hours < 1 ? '½' : `${Math.floor(hours)}½`;
};

/** Whether a step is among those that make days over-full: it neither can begin before them nor end after. */
export const isOfOverload = (
  { releasedOn, latestFinishOn }: LoadStepShape,
  { fromOn, dueOn }: LoadPersonShape['overloads'][number],
  todayOn: string,
): boolean =>
  // what could begin before today counts from today
  latestFinishOn !== null && latestFinishOn <= dueOn && (releasedOn >= fromOn || fromOn === todayOn);

/** The first days on which a person has too much, if any. */
export const worstOf = ({ overloads }: LoadPersonShape) =>
  overloads.reduce<LoadPersonShape['overloads'][number] | undefined>(
    (worst, one) => (one.overMinutes > (worst?.overMinutes ?? 0) ? one : worst),
    undefined,
  );

/** The day that an address names, as far as it lies within what is seen. */
export function seenDay(text: string | null, fromOn: Day, toOn: Day): Day | null {
  if (text === null || !/^\d{4}-\d{2}-\d{2}$/.test(text) || text < fromOn || text > toOn) return null;
  return getDay(text);
}
