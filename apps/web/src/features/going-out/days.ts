import type { ClientClockShape, GoingOutRowShape } from '@zesting/contract';
import { addDays, isReady, type Day } from '@zesting/core';

/** What of the list is shown. */
export const SHOWN = ['all', 'unready', 'unchecked'] as const;
export type Shown = (typeof SHOWN)[number];

const isWanted = (row: GoingOutRowShape, shown: Shown): boolean => {
  if (shown === 'all') return true;
  if (row.state === 'out') return false;
  return shown === 'unready' ? !isReady(row.findings) : row.check === null;
};

export interface GoingOutDay {
  readonly on: string;
  /** by the viewer's clock */
  readonly name: 'Today' | 'Tomorrow' | null;
  readonly rows: readonly GoingOutRowShape[];
  /** all of that day, also those that are not shown */
  readonly total: number;
  readonly out: number;
  readonly unready: number;
  readonly unchecked: number;
}

/** The list by its days, in their order; days of which nothing is shown are left out. */
export function daysOf(rows: readonly GoingOutRowShape[], shown: Shown, todayOn: string): GoingOutDay[] {
  const tomorrowOn = addDays(todayOn as Day, 1); // a day of the contract's
  const days = [...new Set(rows.flatMap(({ on }) => on ?? []))].sort();
  return days.flatMap((on) => {
    const all = rows.filter((row) => row.on === on);
    const wanted = all.filter((row) => isWanted(row, shown));
    const open = all.filter(({ state }) => state !== 'out');
    if (wanted.length === 0) return [];
    return {
      on,
      name: on === todayOn ? 'Today' : on === tomorrowOn ? 'Tomorrow' : null,
      rows: wanted,
      total: all.length,
      out: all.length - open.length,
      unready: open.filter(({ findings }) => !isReady(findings)).length,
      unchecked: open.filter(({ check }) => check === null).length,
    } satisfies GoingOutDay;
  });
}

/** What a client's clock calls the day of a row, where the viewer's calls it otherwise. */
export function dayThere(
  row: Pick<GoingOutRowShape, 'clientId' | 'on'>,
  clocks: readonly ClientClockShape[],
  todayOn: string,
): string | null {
  const there = clocks.find(({ clientId }) => clientId === row.clientId)?.todayOn;
  if (there === undefined || there === todayOn) return null;
  return row.on === there ? 'today there' : row.on === addDays(there as Day, 1) ? 'tomorrow there' : null;
}
