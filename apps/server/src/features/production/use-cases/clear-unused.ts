import { rm } from 'node:fs/promises';
import { ok } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { In } from 'typeorm';
import { Upload } from '../entities/upload.entity.js';

/** How long a file that came through a form may wait for its request to be sent, and so many are cleared away at a time. */
const KEPT_HOURS = 48;
const BATCH = 100;

/** Clears away files that belong to nothing: begun in a form that was never sent, taken out of a brand sheet. Returns how many. */
export async function clearUnusedFiles(app: App): Promise<number> {
  let count = 0;
  for (;;) {
    const gone: string[] = [];
    await app.write(async (tx, now) => {
      const unused = await rowsOf<{ id: string }>(
        tx,
        `select a.id from assets a join clients c on c.id = a.client_id
         where a.request_id is null and a.piece_id is null and a.idea_id is null and a.created_at < $1::timestamptz - make_interval(hours => $2)
           and not coalesce(c.brand -> 'logos' @> to_jsonb(a.id::text), false) and not exists (select 1 from kept_files k where k.asset_id = a.id) limit $3 for update of a skip locked`,
        [now, KEPT_HOURS, BATCH],
      );
      const ids = unused.map((row) => row.id);
      gone.push(...(await dropAssets(tx, ids)));
      count += ids.length;
      return ok(null);
    });
    if (gone.length === 0) return count;
    await dropBytes(app, gone);
  }
}

/** Takes files away, in the caller's transaction. @returns the hashes whose bytes may be dropped once it is done */
export async function dropAssets(tx: Tx, ids: readonly string[]): Promise<string[]> {
  // sizes of them that are being written are waited for, and go with the others
  await tx.query('select 1 from assets where id = any($1) order by id for update', [ids]);
  const sizes = await rowsOf<{ hash: string }>(
    tx,
    'with gone as (delete from asset_sizes where asset_id = any($1) returning hash) select hash from gone',
    [ids],
  );
  await tx.delete(Upload, { assetId: In([...ids]) });
  const files = await rowsOf<{ hash: string }>(
    tx,
    'with gone as (delete from assets where id = any($1) returning hash) select hash from gone',
    [ids],
  );
  // what was cut out of bytes that no file has any more
  const cuts = await rowsOf<{ hash: string }>(
    tx,
    `with gone as (delete from picture_cuts c where hash = any($1) and not exists (select 1 from assets a where a.hash = c.hash) returning made_hash)
     select made_hash as hash from gone`,
    [files.map(({ hash }) => hash)],
  );
  return [...files, ...sizes, ...cuts].map(({ hash }) => hash);
}

/** Takes away the bytes of what was deleted, where nothing else has the same: they lie under their hash once, for all that share them. */
export async function dropBytes(app: App, hashes: readonly string[]): Promise<void> {
  const kept = await app.read<{ hash: string }>(
    `select hash from assets where hash = any($1) union select hash from asset_sizes where hash = any($1)
     union select made_hash from picture_cuts where made_hash = any($1) union select mark_hash from agencies where mark_hash = any($1) union select hash from incoming_mails where hash = any($1)`,
    [hashes],
  );
  const still = new Set(kept.map((row) => row.hash));
  for (const hash of new Set(hashes)) if (!still.has(hash)) await rm(app.files.pathOf(hash), { force: true });
}
