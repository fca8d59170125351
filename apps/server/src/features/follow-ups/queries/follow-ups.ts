import { addDays, getDay } from '@zesting/core';
import type { FollowUpListsShape, FollowUpShape, FollowUpsShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clocksOf } from '../../calendar/index.js';
import { loadCalendars, openPlacementWork } from '../../planning/index.js';
import { namedPeople, whoCould } from './who-could.js';

/** Open ones are shown so many days ahead; what was settled, today. */
const DAYS_AHEAD = 7;
const MOST = 200;

interface Told extends Pick<FollowUpShape, 'pieceTitle' | 'channelName' | 'address'> {
  readonly placementId: string;
}

/**
 * What is to be done around what goes out: what is due by each client's own today and the next seven days, and what was settled today.
 * @param doerId of one person alone
 */
export async function followUpsOf(
  app: App,
  clientIds: readonly string[],
  viewerZone: string,
  doerId: string | null = null,
): Promise<FollowUpsShape> {
  const now = app.clock.now();
  const [clocks, book] = [await clocksOf(app, clientIds, viewerZone), await loadCalendars(app.manager, now)];
  const todays = Object.fromEntries(clocks.map(({ clientId, todayOn }) => [clientId, todayOn]));
  const last = addDays(getDay(Object.values(todays).sort().at(-1) ?? '1970-01-01'), DAYS_AHEAD);
  const all = await openPlacementWork(app.manager, book, last, clientIds);
  const due = doerId === null ? all : all.filter(({ personId }) => personId === doerId);
  const shown = due.slice(0, MOST);
  const [told, names] = await Promise.all([
    app.read<Told>(
      `select l.id as "placementId", p.title as "pieceTitle", h.name as "channelName", l.out_address as address
       from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id where l.id = any($1)`,
      [[...new Set(shown.map(({ placementId }) => placementId))]],
    ),
    namedPeople(app),
  ]);
  const ofPlacement = new Map(told.map(({ placementId, ...rest }) => [placementId, rest]));
  const nameOf = new Map(names.map(({ personId, name }) => [personId, name]));
  const settled = await app.read<FollowUpShape>(
    `select f.id, f.kind, f.placement_id as "placementId", f.item_key as "itemKey", coalesce(f.meant_at, l.publish_at) as "meantAt", true as "isSigned",
       f.person_id as "personId", w.name as "personName", f.minutes, f.words, f.due_on as "dueOn", f.state, f.settled_by as "settledBy", f.client_id as "clientId",
       p.id as "pieceId", p.title as "pieceTitle", h.name as "channelName", l.out_address as address
     from follow_ups f join placements l on l.id = f.placement_id join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id
       join clients c on c.id = f.client_id left join people w on w.id = f.person_id
     where f.client_id = any($1) and f.settled_at > $2::timestamptz - interval '1 day' and ($3::uuid is null or f.person_id = $3)
       and (f.settled_at at time zone c.zone)::date = ($2::timestamptz at time zone c.zone)::date order by f.settled_at desc, f.id limit ${MOST}`,
    [clientIds, now, doerId],
  );
  return {
    todays: clocks.map(({ clientId, todayOn }) => ({ clientId, todayOn })),
    open: shown.flatMap(({ position: _, channelId: _channelId, ...row }) => {
      const rest = ofPlacement.get(row.placementId);
      const personName = row.personId === null ? null : (nameOf.get(row.personId) ?? null);
      return rest ? [{ ...row, ...rest, personName, state: 'open' as const, settledBy: null }] : [];
    }),
    hidden: due.length - shown.length,
    settled,
  };
}

/** What is done around everything that goes out on each of a client's channels, and who could do it. */
export async function followUpListsOf(app: App, clientId: string): Promise<FollowUpListsShape> {
  const [lists, people, names] = await Promise.all([
    app.read<FollowUpListsShape['lists'][number]>(
      'select channel_id as "channelId", items, version from follow_up_lists where client_id = $1',
      [clientId],
    ),
    whoCould(app.manager, clientId),
    namedPeople(app),
  ]);
  const nameOf = new Map(names.map(({ personId, name }) => [personId, name]));
  const named = (personId: string | null) => (personId === null ? null : (nameOf.get(personId) ?? null));
  return {
    lists: lists.map((list) => ({ ...list, items: list.items.map((item) => ({ ...item, personName: named(item.personId) })) })),
    people,
  };
}
