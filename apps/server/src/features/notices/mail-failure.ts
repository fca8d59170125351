import { ok } from '@zesting/core';
import { recordActivity } from '../../platform/activity.js';
import type { App } from '../../platform/app.js';
import { rowsOf } from '../../platform/database/transaction.js';
import type { MailFailure } from '../../platform/mail/mail.js';
import { tell, tellManagers } from './tell.js';

interface Addressee {
  client_id: string;
  name: string;
  client_name: string;
}

/**
 * A mail did not arrive: the managers of the client whose contact or requester it was meant for hear of it and find it in the client's
 * record; where it was meant for one of the agency, the leads do.
 */
export async function tellMailFailure(app: App, failure: MailFailure): Promise<void> {
  const said = failure.isFinal ? 'It is not tried again.' : 'It is tried again by itself.';
  await app.write(async (tx, now) => {
    const outside = await rowsOf<Addressee>(
      tx,
      `select distinct on (c.id) c.id as client_id, x.name, c.name as client_name from clients c join (
         select client_id, name, email from contacts where archived_at is null
         union all select client_id, requester_name, requester_email from requests) x on x.client_id = c.id
       where lower(x.email) = lower($1) and c.archived_at is null order by c.id`,
      [failure.to],
    );
    for (const { client_id: clientId, name, client_name: clientName } of outside) {
      await tellManagers(app, tx, {
        clientId,
        heading: `Mail did not arrive: ${failure.subject}`,
        text: `A mail to ${name} of ${clientName} (${failure.to}) did not arrive: ${failure.reason}. ${said}`,
        path: `/clients/${clientId}?part=contacts`,
        key: `mail:${failure.to}`,
      });
      await recordActivity(tx, {
        clientId,
        thing: 'client',
        thingId: clientId,
        verb: 'client.mail_failed',
        actor: 'Zesting',
        detail: { to: failure.to, subject: failure.subject, reason: failure.reason },
        at: now,
      });
    }
    if (outside.length > 0) return ok(null);
    const leads = await rowsOf<{ id: string }>(tx, "select id from people where role = 'lead' and active and lower(email) <> lower($1)", [
      failure.to,
    ]);
    for (const { id } of leads)
      await tell(app, tx, id, {
        clientId: null,
        heading: `Mail did not arrive: ${failure.subject}`,
        text: `A mail to ${failure.to} did not arrive: ${failure.reason}. ${said}`,
        path: '/people',
        key: `mail:${failure.to}`,
      });
    return ok(null);
  });
}
