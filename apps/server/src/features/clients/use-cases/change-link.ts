import { fail, ok, type Result } from '@zesting/core';
import type { ChangeLinkBody, ClientLinksShape, LinkKind } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { tellOutside } from '../../notices/index.js';

/** Where a kind of link is kept: raising the generation revokes every link given out before. The statements are made of these words alone. */
export interface KeptLink {
  readonly table: string;
  readonly generation: string;
  readonly open: string;
  /** `$1` is the client, `$2` the thing */
  readonly where: string;
  readonly name: string;
  /** of links that only their owners get: whose they are, by `$1`, and what the mail says */
  readonly mailed?: { readonly whose: string; readonly what: string; readonly text: string };
}

/** By kind; whichever feature keeps a kind says where. */
export const linksKept = new Map<LinkKind, KeptLink>([
  [
    'room',
    {
      table: 'contacts',
      generation: 'link_generation',
      open: 'link_open',
      where: 'client_id = $1 and id = $2 and archived_at is null',
      name: 'name',
      mailed: {
        whose: 'select x.name, x.email, a.name as agency from contacts x cross join agencies a where x.id = $1',
        what: 'all that waits for your word',
        text: 'Look and decide',
      },
    },
  ],
  ['feed', { table: 'clients', generation: 'feed_generation', open: 'feed_open', where: 'id = $1 and $2::uuid is null', name: 'name' }],
]);

/** Renews or closes a link: what was given out before opens nothing any more. Rooms and receipts are told by mail to whom they belong. */
export function changeLink(
  app: App,
  viewer: Viewer,
  clientId: string,
  { kind, id, change }: ChangeLinkBody,
): Promise<Result<null, { code: 'link.unknown' }>> {
  return app.write<null, { code: 'link.unknown' }>(async (tx, now) => {
    const kept = linksKept.get(kind);
    if (!kept) return fail({ code: 'link.unknown' });
    const { table, generation, open, where, name, mailed } = kept;
    const [changed] = await rowsOf<{ id: string; name: string; generation: number }>(
      tx,
      `with changed as (update ${table} set ${generation} = ${generation} + 1, ${open} = $3 where ${where} returning id, ${name} as name, ${generation} as generation)
       select * from changed`,
      [clientId, id ?? null, change === 'renew'],
    );
    if (!changed) return fail({ code: 'link.unknown' });
    if (mailed && (kind === 'room' || kind === 'receipt') && change === 'renew') {
      const { whose, what, text } = mailed;
      const [owner] = await rowsOf<{ name: string; email: string; agency: string }>(tx, whose, [changed.id]);
      if (owner)
        await tellOutside(
          tx,
          owner,
          `Your new link from ${owner.agency}`,
          [`Here is a new link to ${what}. The one that you had before is no longer valid.`],
          { text, address: app.links.address(kind, changed.id, changed.generation) },
        );
    }
    await recordActivity(tx, {
      clientId,
      thing: 'client',
      thingId: clientId,
      verb: change === 'renew' ? 'client.link_renewed' : 'client.link_closed',
      actor: viewer.name,
      detail: { link: kind, of: changed.name },
      at: now,
    });
    return ok(null);
  });
}

/** Whether somebody manages the client themselves: a lead, or one of its own managers. Who only covers for one may not carry links away. */
export async function managesOwn(app: App, viewer: Viewer, clientId: string): Promise<boolean> {
  if (viewer.role === 'lead') return true;
  const own = await app.read("select 1 from client_people where client_id = $1 and person_id = $2 and relation = 'own'", [
    clientId,
    viewer.personId,
  ]);
  return own.length > 0;
}

/** The links to hand out. Those of rooms are not among them: they go by mail to whom they belong. */
export async function linksOf(app: App, clientId: string): Promise<ClientLinksShape> {
  const forms = await app.read<{ id: string; form_id: string; title: string; label: string; link_generation: number; link_open: boolean }>(
    `select l.id, l.form_id, f.title, l.label, l.link_generation, l.link_open from form_links l join intake_forms f on f.id = l.form_id
     where l.client_id = $1 and f.archived_at is null order by f.title, l.made_at, l.id limit 200`,
    [clientId],
  );
  const rooms = await app.read<ClientLinksShape['rooms'][number]>(
    'select id as "contactId", name, email, link_open as "isOpen" from contacts where client_id = $1 and archived_at is null order by name',
    [clientId],
  );
  const [client] = await app.read<{ feed_generation: number; feed_open: boolean }>(
    'select feed_generation, feed_open from clients where id = $1',
    [clientId],
  );
  return {
    forms: forms.map((form) => ({
      linkId: form.id,
      formId: form.form_id,
      title: form.title,
      label: form.label,
      address: form.link_open ? app.links.address('ask', form.id, form.link_generation) : null,
    })),
    rooms,
    feed: client?.feed_open ? app.address(`/feeds/${app.links.token('feed', clientId, client.feed_generation)}.ics`) : null,
  };
}
