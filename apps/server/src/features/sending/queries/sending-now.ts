import { ACCESS_WARNING_DAYS } from '@zesting/core';
import type { ChannelLinkShape, SendingNowShape, SendingStopShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

const LINK = `k.channel_id as "channelId", h.name as "channelName", k.client_id as "clientId", k.address, k.token <> '' as "hasToken",
  k.access_ends_on as "accessEndsOn", k.audience, k.daily_limit as "dailyLimit", k.minute_limit as "minuteLimit", k.late_minutes as "lateMinutes", k.version`;

/** What is stopped of some clients, which of their channels are reached by themselves, and whose access ends soon. */
export async function sendingNow(app: App, clientIds: readonly string[]): Promise<SendingNowShape> {
  const stops = await app.read<SendingStopShape>(
    `select t.client_id as "clientId", t.channel_id as "channelId", h.name as "channelName", t.why, t.stopped_by as by, t.stopped_at as at
     from sending_stops t left join channels h on h.id = t.channel_id where t.client_id is null or t.client_id = any($1)
     order by t.client_id nulls first, t.channel_id nulls first`,
    [clientIds],
  );
  const channels = await app.read<SendingNowShape['channels'][number] & { endsSoon: boolean }>(
    `select k.channel_id as "channelId", h.name as "channelName", k.client_id as "clientId", k.access_ends_on as "accessEndsOn",
       coalesce(k.access_ends_on - ($2::timestamptz at time zone c.zone)::date <= $3, false) as "endsSoon"
     from channel_links k join channels h on h.id = k.channel_id and h.archived_at is null join clients c on c.id = k.client_id
     where k.client_id = any($1) order by c.name, h.position`,
    [clientIds, app.clock.now(), ACCESS_WARNING_DAYS],
  );
  return { stops, channels };
}

/** How a client's channels are reached by themselves. */
export async function linksOfClient(app: App, clientId: string): Promise<ChannelLinkShape[]> {
  return app.read<ChannelLinkShape>(
    `select ${LINK} from channel_links k join channels h on h.id = k.channel_id where k.client_id = $1 order by h.position`,
    [clientId],
  );
}
