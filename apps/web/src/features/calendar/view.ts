import {
  addDays,
  firstOfMonth,
  isId,
  isMonth,
  lastOfMonth,
  mondayOf,
  nextMonth,
  parseDay,
  weekdayOf,
  weekFrom,
  weeksOf,
  type Day,
} from '@zesting/core';
import type { CalendarEntryShape, ClientShape } from '@zesting/contract';
import { monthWords } from '../../lib/format';
import { STAGE_WORDS } from '../../lib/words';

export const COLOURINGS = ['client', 'channel', 'pillar', 'format', 'campaign', 'stage'] as const;
export type Colouring = (typeof COLOURINGS)[number];

/** What can be asked for alone. */
export const FILTERS = ['pillar', 'channel', 'format', 'campaign', 'stage', 'theme'] as const;
export type FilterName = (typeof FILTERS)[number];
/** What is asked for; null: any. */
export type Filter = Readonly<Record<FilterName, string | null>>;

export const DAYS_TOLD = ['publish', 'due', 'both'] as const;
export type DaysTold = (typeof DAYS_TOLD)[number];

/** The weeks that lie ahead, a quarter of a year of them, a month, or one week. */
export type ViewKind = 'ahead' | 'month' | 'quarter' | 'year' | 'week';

/** So many weeks are seen, this one among them. */
const WEEKS = { week: 1, ahead: 6, quarter: 13 } as const;
/** So many months are a year. */
export const YEAR_MONTHS = 12;

/** How the calendar is looked at: all of it stands in the address. */
export interface View {
  readonly kind: ViewKind;
  /** `YYYY-MM`; of weeks, the month of their first Monday */
  readonly month: string;
  readonly weeks: readonly (readonly Day[])[];
  readonly from: Day;
  readonly to: Day;
  readonly title: string;
  readonly colouring: Colouring;
  readonly weekends: boolean;
  /** whether slots are shown in which nothing stands */
  readonly slots: boolean;
  /** which days are told: those on which things go out, those by which they have to be done, or both */
  readonly days: DaysTold;
  readonly filter: Filter;
}

const DAY_MONTH = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });
const dayMonth = (day: Day): string => DAY_MONTH.format(new Date(`${day}T00:00:00Z`));

/** "23 – 29 November 2026", "30 November – 6 December 2026", "28 December 2026 – 3 January 2027". */
function weekWords(from: Day, to: Day): string {
  const isOneMonth = from.slice(0, 7) === to.slice(0, 7);
  const year = from.slice(0, 4) === to.slice(0, 4) ? '' : ` ${from.slice(0, 4)}`;
  return `${isOneMonth ? Number(from.slice(8)) : dayMonth(from)}${year} – ${dayMonth(to)} ${to.slice(0, 4)}`;
}

/** A month in the address is one that is looked at, whatever else is missing. */
function kindOf(search: URLSearchParams): ViewKind {
  const asked = search.get('view');
  if (asked === 'week' || asked === 'quarter' || asked === 'year') return asked;
  return asked === 'month' || isMonth(search.get('month') ?? '') ? 'month' : 'ahead';
}

/** Reads a view out of the address; what is missing or malformed is the present. */
export function viewOf(search: URLSearchParams, todayOn: Day): View {
  const kind = kindOf(search);
  const asked = search.get('month') ?? '';
  const monday = mondayOf(parseDay(search.get('week') ?? '') ?? todayOn);
  const isByMonth = kind === 'month' || kind === 'year';
  const month = !isByMonth ? monday.slice(0, 7) : isMonth(asked) ? asked : todayOn.slice(0, 7);
  const ahead = Array.from({ length: isByMonth ? 0 : WEEKS[kind] }, (_, index) => weekFrom(addDays(monday, 7 * index)));
  const weeks = kind === 'month' ? weeksOf(month) : ahead;
  const [from, to] =
    kind === 'year'
      ? [firstOfMonth(month), lastOfMonth(nextMonth(month, YEAR_MONTHS - 1))]
      : [weeks[0]?.[0] ?? todayOn, weeks.at(-1)?.[6] ?? todayOn];
  const colouring = COLOURINGS.find((one) => one === search.get('colour')) ?? 'client';
  const title =
    kind === 'month'
      ? monthWords(month)
      : kind === 'year'
        ? `${monthWords(month)} – ${monthWords(nextMonth(month, YEAR_MONTHS - 1))}`
        : weekWords(from, to);
  const asksFor = (name: FilterName): string | null => {
    const value = search.get(name) ?? '';
    const isKnown = name === 'stage' ? value in STAGE_WORDS : name === 'theme' ? value === 'on' || value === 'off' : isId(value);
    return isKnown ? value : null;
  };
  return {
    kind,
    month,
    weeks,
    from,
    to,
    title,
    colouring,
    weekends: search.get('weekends') !== 'off',
    slots: search.get('slots') !== 'off',
    days: DAYS_TOLD.find((one) => one === search.get('days')) ?? 'publish',
    filter: Object.fromEntries(FILTERS.map((name) => [name, asksFor(name)])) as Filter, // one for each name
  };
}

/** What a filter asks the server, as the query of a call. */
export const filterQuery = (filter: Filter): string =>
  FILTERS.flatMap((name) => {
    const value = filter[name];
    return value === null ? [] : [`${name === 'stage' || name === 'theme' ? name : `${name}Id`}=${value}`];
  }).join('&');

/** The address of the view `by` months or weeks on; null is the present. */
export function step(search: URLSearchParams, view: View, by: number | null): URLSearchParams {
  const next = new URLSearchParams(search);
  next.delete('placement');
  const isByMonth = view.kind === 'month' || view.kind === 'year';
  const key = isByMonth ? 'month' : 'week';
  const weeks = view.kind === 'quarter' ? WEEKS.quarter : 1;
  const months = view.kind === 'year' ? YEAR_MONTHS : 1;
  if (by === null) next.delete(key);
  else next.set(key, isByMonth ? nextMonth(view.month, months * by) : addDays(view.from, 7 * weeks * by));
  if (isByMonth) next.set('view', view.kind);
  return next;
}

/** The address of another kind of view; what only the one before was of goes. */
export function withKind(search: URLSearchParams, kind: ViewKind): URLSearchParams {
  const next = new URLSearchParams(search);
  next.delete('placement');
  next.delete(kind === 'month' || kind === 'year' ? 'week' : 'month');
  if (kind === 'ahead') next.delete('view');
  else next.set('view', kind);
  return next;
}

export const isWeekend = (day: Day): boolean => weekdayOf(day) > 5;

/** How many entries stand on days that are not shown. */
export const hiddenCount = (entries: readonly CalendarEntryShape[], view: View): number =>
  view.weekends ? 0 : entries.filter((entry) => entry.on !== null && isWeekend(entry.on as Day)).length; // a day of the contract's

/** A step that is always the same for the same thing. */
const stepOf = (id: string): number => [...id].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 12, 0);

/** The colour step of an entry and the word that goes with it; the steps of one colouring do not repeat within twelve. */
export function colourOf(entry: CalendarEntryShape, client: ClientShape | undefined, colouring: Colouring): { step: number; word: string } {
  if (colouring === 'client' || !client) return { step: client?.colour ?? 0, word: client?.code ?? '' };
  if (colouring === 'channel') {
    const at = client.channels.findIndex((channel) => channel.id === entry.channelId);
    return { step: client.colour + at * 5, word: entry.channelName };
  }
  if (colouring === 'pillar') {
    const pillar = client.pillars.find(({ id }) => id === entry.pillarId);
    return { step: pillar?.colour ?? client.colour, word: pillar?.name ?? 'no pillar' };
  }
  if (colouring === 'format') return { step: stepOf(entry.formatId), word: entry.formatName };
  if (colouring === 'campaign')
    return { step: entry.campaignId === null ? 0 : stepOf(entry.campaignId), word: entry.campaignName ?? 'no campaign' };
  return { step: Object.keys(STAGE_WORDS).indexOf(entry.stage) * 5, word: STAGE_WORDS[entry.stage] };
}
