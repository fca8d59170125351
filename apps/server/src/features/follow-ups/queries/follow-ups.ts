import { addDays, getDay } from '@zesting/core';
import type { FollowUpListShape, FollowUpShape, FollowUpsShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { clocksOf } from '../../calendar/index.js';

/** Open ones are shown so many days ahead; what was settled, today. */
const DAYS_AHEAD = 7;
const MOST = 200;

const COLUMNS = `f.id, f.words, f.due_on as "dueOn", f.state, f.settled_by as "settledBy", f.client_id as "clientId", p.id as "pieceId", p.title as "pieceTitle",
  h.name as "channelName", l.out_address as address`;
const FROM = `from follow_ups f join placements l on l.id = f.placement_id join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id`;

/** What is to be done after something went out: what is due by each client's own today and the next seven days, and what was settled today. */
export async function followUpsOf(app: App, clientIds: readonly string[], viewerZone: string): Promise<FollowUpsShape> {
  const clocks = await clocksOf(app, clientIds, viewerZone);
  const todays = Object.fromEntries(clocks.map(({ clientId, todayOn }) => [clientId, todayOn]));
  const last = addDays(getDay(Object.values(todays).sort().at(-1) ?? '1970-01-01'), DAYS_AHEAD);
  const open = await app.read<FollowUpShape & { total: number }>(
    `select ${COLUMNS}, count(*) over ()::int as total ${FROM}
     where f.client_id = any($1) and f.state = 'open' and f.due_on <= $2 order by f.due_on, p.number, f.position limit ${MOST}`,
    [clientIds, last],
  );
  const settled = await app.read<FollowUpShape>(
    `select ${COLUMNS} ${FROM} join clients c on c.id = f.client_id where f.client_id = any($1) and f.settled_at > $2::timestamptz - interval '1 day'
       and (f.settled_at at time zone c.zone)::date = ($2::timestamptz at time zone c.zone)::date order by f.settled_at desc, f.id limit ${MOST}`,
    [clientIds, app.clock.now()],
  );
  return {
    todays: clocks.map(({ clientId, todayOn }) => ({ clientId, todayOn })),
    open: open.map(({ total: _, ...row }) => row),
    hidden: (open[0]?.total ?? 0) - open.length,
    settled,
  };
}

/** What is done after something goes out on each of a client's channels. */
export const followUpListsOf = (app: App, clientId: string): Promise<FollowUpListShape[]> =>
  app.read<FollowUpListShape>('select channel_id as "channelId", items, version from follow_up_lists where client_id = $1', [clientId]);
