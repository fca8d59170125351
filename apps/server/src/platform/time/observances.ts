import { worldDaysIn, yearlyDaysIn, type Observance, type YearlyDay } from '@zesting/core';
import { observances } from './holidays.js';

export interface KnownObservance extends Observance {
  /** the region's, an international day, or one that the agency added */
  readonly from: 'region' | 'world' | 'own';
}

/**
 * Days of note over the years from `from` to `to`, both included, by date. Of days with one name on one date the region's stands, then what was
 * added, then the international one.
 * @param own those that were added by hand
 */
export function observancesIn(region: string, own: readonly YearlyDay[], from: number, to: number): KnownObservance[] {
  const all = new Map<string, KnownObservance>();
  const put = (days: readonly Observance[], source: KnownObservance['from']) => {
    for (const day of days) all.set(`${day.on} ${day.name}`, { ...day, from: source });
  };
  put(worldDaysIn(from, to), 'world');
  put(yearlyDaysIn(own, from, to), 'own');
  put(
    observances(region, from, to).map((day) => ({ ...day, subjects: [] })),
    'region',
  );
  return [...all.values()].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : a.name.localeCompare(b.name)));
}
