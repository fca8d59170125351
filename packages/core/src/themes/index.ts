import { firstOfMonth, mondayOf, type Day } from '../time/index.js';

export const THEME_PERIODS = ['month', 'week'] as const;
export type ThemePeriod = (typeof THEME_PERIODS)[number];

/** The subject of one month, or of one week. */
export interface Theme {
  readonly period: ThemePeriod;
  /** the first of the month, or the Monday of the week */
  readonly startOn: Day;
  readonly name: string;
}

/** Themes that follow one another month by month, again and again. */
export interface ThemeCycle {
  readonly names: readonly string[];
  /** the month of the first, `YYYY-MM` */
  readonly fromMonth: string;
}

/** Where a day's theme comes from: what is said of its week counts before what is said of its month, and that before the cycle. */
export interface FoundTheme {
  readonly name: string;
  readonly from: 'week' | 'month' | 'cycle';
}

const monthNumber = (month: string): number => Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7)) - 1;

/** The theme that a cycle has for a month; undefined before it begins, and where it has none. Of six that begin in January, July's is January's. */
export function themeOfCycle({ names, fromMonth }: ThemeCycle, month: string): string | undefined {
  const since = monthNumber(month) - monthNumber(fromMonth);
  return since < 0 ? undefined : names[since % names.length];
}

/** The first day of the month or week in which a day lies. Weeks begin on Monday. */
export const periodStart = (day: Day, period: ThemePeriod): Day => (period === 'month' ? firstOfMonth(day.slice(0, 7)) : mondayOf(day));

/** The theme of a day; null where it has none. */
export function themeOn(day: Day, themes: readonly Theme[], cycle: ThemeCycle | null): FoundTheme | null {
  const own = (period: ThemePeriod) => themes.find((theme) => theme.period === period && theme.startOn === periodStart(day, period));
  for (const period of ['week', 'month'] as const) {
    const theme = own(period);
    if (theme) return { name: theme.name, from: period };
  }
  const name = cycle ? themeOfCycle(cycle, day.slice(0, 7)) : undefined;
  return name === undefined ? null : { name, from: 'cycle' };
}
