import ical, { ICalEventStatus } from 'ical-generator';
import { addDays } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { dayNear } from '../../../platform/time/day-near.js';

interface FeedRow {
  id: string;
  title: string;
  channel: string;
  state: string;
  publish_at: string;
  updated_at: string;
  version: number;
  out_address: string | null;
}

/** How long what is past stays in the feed. */
const KEPT_DAYS = 400;

/** How long an entry lasts in the feed: long enough to be seen in a day view. */
const ENTRY_MINUTES = 30;

/**
 * The client's calendar as iCalendar: every dated placement, pencilled ones TENTATIVE (when the client wants them), the rest
 * CONFIRMED. Times are UTC instants, so every reader shows the right hour whatever zone it knows. No notes, no people.
 * @see RFC 5545
 */
export async function feedOf(app: App, clientId: string): Promise<string> {
  const [client] = await app.read<{ name: string; code: string; feed_pencilled: boolean }>(
    'select name, code, feed_pencilled from clients where id = $1',
    [clientId],
  );
  if (!client) throw new Error('the client went away');
  const rows = await app.read<FeedRow>(
    `select l.id, p.title, h.name as channel, l.state, l.publish_at, l.updated_at, l.version, l.out_address
     from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id
     where l.client_id = $1 and l.on_day is not null and not l.cancelled and not p.shelved and (l.state <> 'pencilled' or $2)
       and l.on_day > $3
     order by l.publish_at, l.id`,
    [clientId, client.feed_pencilled, addDays(dayNear(app.clock.now()), -KEPT_DAYS)],
  );
  const calendar = ical({ name: `${client.code} content`, prodId: { company: 'Zesting', product: 'Calendar', language: 'EN' } });
  for (const row of rows) {
    const start = new Date(row.publish_at);
    calendar.createEvent({
      id: `${row.id}@zesting`,
      sequence: row.version,
      start,
      end: new Date(start.getTime() + ENTRY_MINUTES * 60_000),
      stamp: new Date(row.updated_at),
      summary: `${row.title} · ${row.channel}`,
      status: row.state === 'pencilled' || row.state === 'missed' ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
      ...(row.out_address ? { url: row.out_address } : {}),
    });
  }
  return calendar.toString();
}
