import { addDays, isMonth, mondayOf, nextMonth, parseDay, weekdayOf, weekFrom, weeksOf, type Day } from '@zesting/core';
import type { CalendarEntryShape, ClientShape } from '@zesting/contract';
import { monthWords } from '../../lib/format';
import { STAGE_WORDS } from '../../lib/words';

export const COLOURINGS = ['client', 'channel', 'pillar', 'stage'] as const;
export type Colouring = (typeof COLOURINGS)[number];

/** The weeks that lie ahead, a month, or one week. */
export type ViewKind = 'ahead' | 'month' | 'week';

/** So many weeks are ahead, this one among them. */
const WEEKS_AHEAD = 6;

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
  if (asked === 'week') return 'week';
  return asked === 'month' || isMonth(search.get('month') ?? '') ? 'month' : 'ahead';
}

/** Reads a view out of the address; what is missing or malformed is the present. */
export function viewOf(search: URLSearchParams, todayOn: Day): View {
  const kind = kindOf(search);
  const asked = search.get('month') ?? '';
  const monday = mondayOf(parseDay(search.get('week') ?? '') ?? todayOn);
  const month = kind !== 'month' ? monday.slice(0, 7) : isMonth(asked) ? asked : todayOn.slice(0, 7);
  const ahead = Array.from({ length: kind === 'week' ? 1 : WEEKS_AHEAD }, (_, index) => weekFrom(addDays(monday, 7 * index)));
  const weeks = kind === 'month' ? weeksOf(month) : ahead;
  const [from, to] = [weeks[0]?.[0] ?? todayOn, weeks.at(-1)?.[6] ?? todayOn];
  const colouring = COLOURINGS.find((one) => one === search.get('colour')) ?? 'client';
  const title = kind === 'month' ? monthWords(month) : weekWords(from, to);
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
  };
}

/** The address of the view `by` months or weeks on; null is the present. */
export function step(search: URLSearchParams, view: View, by: number | null): URLSearchParams {
  const next = new URLSearchParams(search);
  next.delete('placement');
  const key = view.kind === 'month' ? 'month' : 'week';
  if (by === null) next.delete(key);
  else next.set(key, view.kind === 'month' ? nextMonth(view.month, by) : addDays(view.from, 7 * by));
  if (view.kind === 'month') next.set('view', 'month');
  return next;
}

/** The address of another kind of view; what only the one before was of goes. */
export function withKind(search: URLSearchParams, kind: ViewKind): URLSearchParams {
  const next = new URLSearchParams(search);
  next.delete('placement');
  next.delete(kind === 'month' ? 'week' : 'month');
  if (kind === 'ahead') next.delete('view');
  else next.set('view', kind);
  return next;
}

export const isWeekend = (day: Day): boolean => weekdayOf(day) > 5;

/** How many entries stand on days that are not shown. */
export const hiddenCount = (entries: readonly CalendarEntryShape[], view: View): number =>
  view.weekends ? 0 : entries.filter((entry) => entry.on !== null && isWeekend(entry.on as Day)).length; // a day of the contract's

/** The colour step of an entry and the word that goes with it; the steps of one colouring do not repeat within twelve. */
export function colourOf(entry: CalendarEntryShape, client: ClientShape | undefined, colouring: Colouring): { step: number; word: string } {
  if (colouring === 'client' || !client) return { step: client?.colour ?? 0, word: client?.code ?? '' };
  if (colouring === 'channel') {
    const at = client.channels.findIndex((channel) => channel.id === entry.channelId);
    return { step: client.colour + at * 5, word: entry.channelName };
  }
  if (colouring === 'pillar') {
    const at = client.pillars.findIndex((pillar) => pillar.id === entry.pillarId);
    return { step: client.colour + at * 5, word: client.pillars[at]?.name ?? 'no pillar' };
  }
  return { step: Object.keys(STAGE_WORDS).indexOf(entry.stage) * 5, word: STAGE_WORDS[entry.stage] };
}
