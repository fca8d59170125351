import {
  addDays,
  dutyLoad,
  getDay,
  placementWorkDays,
  type Day,
  type InstantText,
  type LoadDay,
  type PlacementWorkKind,
} from '@zesting/core';
import { rowsOf, type Reader } from '../../platform/database/rows.js';
import { clientKey, firstToday, getDoer, type CalendarBook } from './calendars.js';
import { loadDutyHours } from './duties.js';

/** What is to be done around a placement, and is not done. */
export interface OpenPlacementWork {
  /** null: putting in follows from the placement's day, and nothing was said of it yet */
  readonly id: string | null;
  readonly kind: PlacementWorkKind;
  readonly itemKey: string;
  readonly position: number;
  readonly words: string;
  /** who does it; null: nobody in particular, or who did it has left */
  readonly personId: string | null;
  readonly minutes: number;
  readonly dueOn: Day;
  readonly placementId: string;
  readonly clientId: string;
  readonly pieceId: string;
  readonly channelId: string;
  /** the placement's time */
  readonly meantAt: InstantText;
  /** whether its content is signed: what is not is put nowhere */
  readonly isSigned: boolean;
}

interface StoredWorkRow extends Omit<OpenPlacementWork, 'dueOn'> {
  readonly onDay: string;
  readonly days: number;
  readonly isActive: boolean | null;
}

/** So far ahead what is done around placements takes hours. */
const LOAD_DAYS = 366;

const ENTERING = `select null::uuid as id, 'enter' as kind, i.item ->> 'key' as "itemKey", i.position::int - 1 as position, i.item ->> 'words' as words,
    w.id as "personId", w.active as "isActive", (i.item ->> 'minutes')::int as minutes, (i.item ->> 'days')::int as days, l.on_day as "onDay",
    l.id as "placementId", l.client_id as "clientId", l.piece_id as "pieceId", l.channel_id as "channelId", l.publish_at as "meantAt", l.state = 'scheduled' as "isSigned"
  from follow_up_lists x cross join lateral jsonb_array_elements(x.items) with ordinality as i (item, position)
    join placements l on l.channel_id = x.channel_id and l.client_id = x.client_id join pieces p on p.id = l.piece_id
    join clients c on c.id = l.client_id and c.archived_at is null left join people w on w.id = (i.item ->> 'personId')::uuid
  where i.item ->> 'kind' = 'enter' and l.state in ('pencilled', 'scheduled') and l.on_day between $1::date and $2::date and not p.shelved and ($3::uuid[] is null or l.client_id = any($3))
    and not exists (select 1 from follow_ups f where f.placement_id = l.id and f.item_key = (i.item ->> 'key')::uuid and f.kind = 'enter' and f.state <> 'open'
      and f.meant_at = l.publish_at and f.digests = array[p.digests ->> 'shared', coalesce(p.digests -> 'channels' ->> l.channel_id::text, '')])`;

const FOLLOWING = `select f.id, f.kind, f.item_key as "itemKey", f.position, f.words, w.id as "personId", w.active as "isActive", f.minutes, 0 as days, f.due_on as "onDay",
    l.id as "placementId", f.client_id as "clientId", l.piece_id as "pieceId", l.channel_id as "channelId", l.publish_at as "meantAt", true as "isSigned"
  from follow_ups f join placements l on l.id = f.placement_id join clients c on c.id = f.client_id and c.archived_at is null
    left join people w on w.id = f.person_id
  where f.kind = 'follow_up' and f.state = 'open' and f.due_on <= $1::date and ($2::uuid[] is null or f.client_id = any($2))`;

/** The days on which what is put in is looked for go so far beyond the day that is asked for: it is done some days before, and those may be days off. */
const AHEAD_DAYS = 60;

/**
 * What is to be done around placements and is due by a day, the first due first. What was not put in while there was time is a missed placement, and no longer here.
 * @param clientIds null: of all that are not archived
 */
export async function openPlacementWork(
  reader: Reader,
  book: CalendarBook,
  until: Day,
  clientIds: readonly string[] | null = null,
): Promise<OpenPlacementWork[]> {
  const since = addDays(firstToday(book), -1);
  const entering = await rowsOf<StoredWorkRow>(reader, ENTERING, [since, addDays(until, AHEAD_DAYS), clientIds]);
  const following = await rowsOf<StoredWorkRow>(reader, FOLLOWING, [until, clientIds]);
  const open = [...entering, ...following].map(({ onDay, days, isActive, ...row }): OpenPlacementWork => {
    const personId = isActive ? row.personId : null;
    const { calendar } = getDoer(book, personId ?? clientKey(row.clientId));
    const on = getDay(onDay);
    const [dueOn = on] = row.kind === 'enter' ? placementWorkDays({ kind: 'enter', days, forDays: 1 }, on, calendar) : [on];
    return { ...row, personId, dueOn };
  });
  return open.filter(({ dueOn }) => dueOn <= until).sort(byDue);
}

const byDue = (a: OpenPlacementWork, b: OpenPlacementWork): number =>
  compare(a.dueOn, b.dueOn) || compare(a.meantAt, b.meantAt) || compare(a.placementId, b.placementId) || a.position - b.position;

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** The minutes that duties and what is done around placements take of everybody's days, from each one's today on. */
export async function loadOtherHours(reader: Reader, book: CalendarBook): Promise<LoadDay[]> {
  const work = await openPlacementWork(reader, book, addDays(firstToday(book), LOAD_DAYS));
  const around = work.flatMap(({ personId, minutes, dueOn }) => {
    if (personId === null || minutes === 0) return [];
    const { calendar, todayOn } = getDoer(book, personId);
    return dutyLoad({ on: dueOn, startOn: dueOn, dueOn, doer: 'lead' }, minutes, personId, calendar, todayOn);
  });
  return [...(await loadDutyHours(reader, book)), ...around];
}
