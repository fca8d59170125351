import type { RoomEntryShape, RoomRequestShape, RoomViewShape } from '@zesting/contract';
import { addDays, type Day } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { STATE_OUTSIDE } from '../../production/index.js';

/** So far ahead a contact looks, and so much is shown. */
const DAYS_AHEAD = 35;
const ENTRIES = 60;
const REQUESTS = 20;

/** Where a contact may ask for something new: the client's first link that is open. */
export async function askAddressOf(app: App, clientId: string): Promise<string | null> {
  const [form] = await app.read<{ id: string; link_generation: number }>(
    `select l.id, l.link_generation from form_links l join intake_forms f on f.id = l.form_id
     where l.client_id = $1 and l.link_open and f.archived_at is null and f.published_version is not null order by l.made_at, l.id limit 1`,
    [clientId],
  );
  return form ? app.links.address('ask', form.id, form.link_generation) : null;
}

/**
 * The weeks ahead, the contact's own requests, and after these what others of the client asked for. A title is shown once the piece was sent to the client; pencilled ones where the client's
 * feed has them too.
 */
export async function viewOf(app: App, clientId: string, email: string, hasPencilled: boolean, todayOn: Day): Promise<RoomViewShape> {
  const rows = await app.read<RoomEntryShape & { total: number }>(
    `select l.on_day as on, l.at_time as at, h.name as "channelName", ${STATE_OUTSIDE} as state, l.out_address as address,
       case when exists (select 1 from packet_items i where i.piece_id = p.id) then p.title end as title, count(*) over () as total
     from placements l join pieces p on p.id = l.piece_id join channels h on h.id = l.channel_id
     where l.client_id = $1 and l.on_day between $2 and $3 and not l.cancelled and not p.shelved
       and (l.state in ('scheduled', 'sending', 'unsure', 'out') or (l.state = 'pencilled' and $4))
     order by l.publish_at, h.position, l.id limit ${ENTRIES}`,
    [clientId, todayOn, addDays(todayOn, DAYS_AHEAD), hasPencilled],
  );
  const requests = await app.read<Omit<RoomRequestShape, 'address'> & { id: string; link_generation: number; link_open: boolean }>(
    `(select id, link_generation, link_open, number, title, received_at as "receivedAt", state, null as "askedBy" from requests
        where client_id = $1 and lower(requester_email) = lower($2) order by received_at desc limit ${REQUESTS})
     union all
     (select id, link_generation, false, number, title, received_at, state, requester_name from requests
        where client_id = $1 and lower(coalesce(requester_email, '')) <> lower($2) and state <> 'withdrawn' order by received_at desc limit ${REQUESTS})`,
    [clientId, email],
  );
  return {
    entries: rows.map(({ total: _, ...entry }) => entry),
    more: (rows[0]?.total ?? 0) - rows.length,
    requests: requests.map(({ id, link_generation, link_open, ...request }) => ({
      ...request,
      address: link_open ? app.links.address('receipt', id, link_generation) : null,
    })),
  };
}
