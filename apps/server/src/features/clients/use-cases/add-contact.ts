import type { InstantText } from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { Contact } from '../entities/contact.entity.js';

/**
 * Adds somebody to a client's contacts, who may ask and nothing else, in the caller's transaction. Who is there already stays as they are.
 * @returns the contact
 */
export async function addContact(
  tx: Tx,
  clientId: string,
  { name, email, actor }: { readonly name: string; readonly email: string; readonly actor: string },
  now: InstantText,
): Promise<string> {
  // one at a time for a client, and no page of it is saved over this unseen
  await tx.query('update clients set version = version + 1 where id = $1', [clientId]);
  const [there] = await rowsOf<{ id: string }>(
    tx,
    'select id from contacts where client_id = $1 and lower(email) = lower($2) and archived_at is null',
    [clientId, email],
  );
  if (there) return there.id;
  const [last] = await rowsOf<{ position: number }>(
    tx,
    'select coalesce(max(position), -1) as position from contacts where client_id = $1 and archived_at is null',
    [clientId],
  );
  const made = await tx.save(
    tx.create(Contact, { clientId, name, email, canAsk: true, canView: false, canSignOff: false, position: (last?.position ?? -1) + 1 }),
  );
  await recordActivity(tx, {
    clientId,
    thing: 'client',
    thingId: clientId,
    verb: 'client.contact_added',
    actor,
    detail: { name, email },
    at: now,
  });
  return made.id;
}
