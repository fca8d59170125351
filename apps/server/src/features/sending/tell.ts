import type { InstantText } from '@zesting/core';
import type { App } from '../../platform/app.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';
import { tellManagers } from '../notices/index.js';
import type { Sending } from './entities/sending.entity.js';

const HEADINGS = {
  failed: 'Did not go out',
  unsure: 'Nobody knows whether it is out',
  comment: 'First comment missing',
} as const;

const WORDS = {
  failed: (why: string) => `did not go out by itself${why}. Send it again, post it by hand, or give it a new time.`,
  unsure: (why: string) => `may be out or not: the channel does not say${why}. Look there, and say what became of it.`,
  comment: () => 'is out, but its first comment did not get there. Post it by hand.',
} as const;

/** Tells those who manage a client at once what the channel left open: it is the minute of publication, the next round-up may be too late. */
export async function tellTrouble(app: App, tx: Tx, sending: Sending, what: keyof typeof HEADINGS): Promise<void> {
  const [row] = await rowsOf<{ title: string; channel: string; pieceId: string }>(
    tx,
    `select p.title, h.name as channel, p.id as "pieceId" from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id
     where l.id = $1`,
    [sending.placementId],
  );
  if (!row) throw new Error('the placement went away');
  const why = sending.reason ? ` (${sending.reason})` : '';
  await tellManagers(
    app,
    tx,
    {
      clientId: sending.clientId,
      heading: `${HEADINGS[what]}: ${row.title}`,
      text: `“${row.title}” on ${row.channel} ${WORDS[what](why)}`,
      path: '/calendar/going-out',
      key: `sending:${sending.placementId}`,
    },
    { atOnce: true },
  );
}

/** SQL: whether access ends within so many days of the client's today. */
const ENDING_SOON = `(k.access_ends_on - ($1::timestamptz at time zone c.zone)::date) <= $2`;

/** Tells once of each end of access that is near. */
export async function tellEnding(app: App, tx: Tx, now: InstantText, days: number): Promise<number> {
  const ending = await rowsOf<{ channelId: string; clientId: string; channel: string; on: string }>(
    tx,
    `with told as (update channel_links k set told_ends_on = k.access_ends_on from channels h join clients c on c.id = h.client_id
     where h.id = k.channel_id and k.access_ends_on is not null and k.told_ends_on is distinct from k.access_ends_on and ${ENDING_SOON}
     returning k.channel_id as "channelId", k.client_id as "clientId", h.name as channel, to_char(k.access_ends_on, 'YYYY-MM-DD') as on)
     select * from told`,
    [now, days],
  );
  for (const { channelId, clientId, channel, on } of ending)
    await tellManagers(app, tx, {
      clientId,
      heading: `Access ends: ${channel}`,
      text: `Access to ${channel} ends on ${on}: what is meant for a later day does not go out by itself until it is renewed.`,
      path: `/clients/${clientId}?part=channels`,
      key: `access:${channelId}`,
    });
  return ending.length;
}
