import type { EditKeptFileBody, KeptFileBody, NewKeptFileBody } from '@zesting/contract';
import { dayIn, fail, ok, type InstantText, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { KeptFile, RenewedFile } from '../entities/kept-file.entity.js';

type Unknown = { code: 'file.unknown' };
type Changed = { code: 'http.changed_meanwhile' };

/** Keeps a file that was just brought for a client. */
export function keepFile(
  app: App,
  viewer: Viewer,
  clientId: string,
  { assetId, ...body }: NewKeptFileBody,
): Promise<Result<string, Unknown>> {
  return app.write<string, Unknown>(async (tx, now) => {
    if (!(await isFree(tx, clientId, assetId))) return fail({ code: 'file.unknown' });
    const id = await insertRow(tx, KeptFile, { ...said(body), clientId, assetId, since: now, archivedAt: null, version: 1 });
    await note(tx, viewer, { clientId, title: body.title }, 'kept_file.added', now);
    return ok(id);
  });
}

/**
 * Changes what is said of a kept file, and puts a newer file in its place where one was brought. Pieces keep the one that was taken into them; it is
 * old from today on.
 */
export function editKeptFile(
  app: App,
  viewer: Viewer,
  id: string,
  { assetId, ...body }: EditKeptFileBody,
  version: number,
): Promise<Result<null, Unknown | Changed>> {
  return app.write<null, Unknown | Changed>(async (tx, now) => {
    const file = await lock(tx, id);
    if (file.version !== version) return fail({ code: 'http.changed_meanwhile' });
    Object.assign(file, said(body));
    if (assetId !== undefined) {
      if (!(await isFree(tx, file.clientId, assetId))) return fail({ code: 'file.unknown' });
      await letOld(tx, file, assetId, now);
      Object.assign(file, { assetId, since: now });
    }
    await tx.save(file);
    await note(tx, viewer, file, assetId === undefined ? 'kept_file.edited' : 'kept_file.renewed', now);
    return ok(null);
  });
}

/** What a kept file was is old from the client's today on; the same bytes brought once more are not, nor is what was old once and is brought again. */
async function letOld(tx: Tx, { clientId, assetId }: KeptFile, nextId: string, now: InstantText): Promise<void> {
  const [before] = await rowsOf<{ hash: string; next: string; zone: string }>(
    tx,
    'select a.hash, b.hash as next, c.zone from assets a, assets b, clients c where a.id = $1 and b.id = $2 and c.id = $3',
    [assetId, nextId, clientId],
  );
  if (!before) throw new Error('the file went away');
  if (before.hash !== before.next)
    await tx.upsert(RenewedFile, { clientId, hash: before.hash, onDay: dayIn(now, before.zone) }, ['clientId', 'hash']);
  await tx.delete(RenewedFile, { clientId, hash: before.next });
}

/** Puts a kept file away, or takes it back. */
export function archiveKeptFile(app: App, viewer: Viewer, id: string, archived: boolean): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    const file = await lock(tx, id);
    if ((file.archivedAt !== null) === archived) return ok(null);
    await tx.save(Object.assign(file, { archivedAt: archived ? now : null }));
    await note(tx, viewer, file, archived ? 'kept_file.archived' : 'kept_file.restored', now);
    return ok(null);
  });
}

const lock = (tx: Tx, id: string): Promise<KeptFile> => tx.findOneOrFail(KeptFile, { where: { id }, lock: { mode: 'pessimistic_write' } });

const said = ({ kind, title, about, renewBy }: KeptFileBody) => ({ kind, title: title.trim(), about: about.trim(), renewBy });

/**
 * Whether a file is the client's, and belongs to nothing yet. Its row is locked first, so that of two who keep it at once the second sees the first, and
 * who clears away what belongs to nothing waits until it is kept.
 */
async function isFree(tx: Tx, clientId: string, assetId: string): Promise<boolean> {
  const loose = await rowsOf(
    tx,
    `select 1 from assets a join clients c on c.id = a.client_id where a.id = $1 and a.client_id = $2 and a.piece_id is null and a.request_id is null
       and not coalesce(c.brand -> 'logos' @> to_jsonb(a.id::text), false) for no key update of a`,
    [assetId, clientId],
  );
  return loose.length > 0 && (await rowsOf(tx, 'select 1 from kept_files where asset_id = $1', [assetId])).length === 0;
}

const note = (
  tx: Tx,
  viewer: Viewer,
  { clientId, title }: Pick<KeptFile, 'clientId' | 'title'>,
  verb: string,
  at: InstantText,
): Promise<void> => recordActivity(tx, { clientId, thing: 'client', thingId: clientId, verb, actor: viewer.name, detail: { title }, at });
