import { dayIn, getDay } from '@zesting/core';
import type { KnownShape, KnownTwinShape, TwinShape } from '@zesting/contract';
import { Problem } from '../../../platform/http/problem.js';
import type { App } from '../../../platform/app.js';
import { allowanceOf } from './allowance.js';
import { twinsOf } from './look-alikes.js';

interface Contact {
  readonly client_id: string;
  readonly zone: string;
  readonly name: string;
  readonly email: string;
  readonly can_ask: boolean;
  readonly can_view: boolean;
}

/** Shorter titles are like everything. */
const LEAST_TITLE = 4;

/**
 * What a contact may know while they ask: who they are, what of their client is alike, what is left of the month. Who may not look is told of their own
 * requests alone; a piece is called by its title once it was sent to the client, and before by the request that it answers.
 */
export async function knownTo(app: App, contactId: string, title: string, on: string | null): Promise<KnownShape> {
  const [contact] = await app.read<Contact>(
    'select x.client_id, c.zone, x.name, x.email, x.can_ask, x.can_view from contacts x join clients c on c.id = x.client_id where x.id = $1',
    [contactId],
  );
  if (!contact?.can_ask) throw Problem.of('access.refused');
  const { client_id: clientId, zone, name, email } = contact;
  const twins = title.length < LEAST_TITLE ? [] : await twinsOf(app, { clientId, title, requestId: null, zone });
  return {
    name,
    email,
    alike: await shownTo(app, contactId, contact, twins),
    allowance: await allowanceOf(app, clientId, on === null ? dayIn(app.clock.now(), zone) : getDay(on), null),
  };
}

async function shownTo(
  app: App,
  contactId: string,
  { email, can_view: canView }: Contact,
  twins: readonly TwinShape[],
): Promise<KnownTwinShape[]> {
  const rows = await app.read<{ id: string; title: string | null; own: boolean }>(
    `select r.id, r.title, (r.contact_id = $2 or lower(r.requester_email) = lower($3)) as own from requests r where r.id = any($1)
     union all
     select p.id, case when exists (select 1 from packet_items i where i.piece_id = p.id) then p.title
         else (select r.title from piece_requests b join requests r on r.id = b.request_id where b.piece_id = p.id order by r.received_at, r.id limit 1) end,
       exists (select 1 from piece_requests b join requests r on r.id = b.request_id
         where b.piece_id = p.id and (r.contact_id = $2 or lower(r.requester_email) = lower($3)))
     from pieces p where p.id = any($1)`,
    [twins.map(({ id }) => id), contactId, email],
  );
  const shown = new Map(rows.map((row) => [row.id, row]));
  return twins.flatMap(({ id, kind, on, formatName, state }) => {
    const row = shown.get(id);
    if (!row || !(canView || row.own) || state === 'shelved' || state === 'declined') return [];
    return [{ title: row.title, formatName, on, standing: kind === 'request' ? 'asked' : state === 'published' ? 'out' : 'planned' }];
  });
}
