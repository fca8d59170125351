import { fail, ok, type Result } from '@zesting/core';
import type { UploadShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { UPLOAD_COLUMNS } from '../queries/uploads.js';
import { addAsset, type FileOwner } from './add-file.js';
import { Upload } from '../entities/upload.entity.js';

type Failure = { code: 'file.type_refused' | 'file.broken' | 'file.too_many_pixels' | 'file.not_arrived' };

/**
 * Files an upload that came in parts under what it belongs to. The bytes are stored first: a file without a row harms nobody.
 * @param collection the address that the upload was begun at
 */
export async function takeUpload(app: App, collection: string, uploadId: string, where: FileOwner): Promise<Result<UploadShape, Failure>> {
  const arrived = await app.resumable.find(collection, uploadId);
  const before = await takenBefore(app.manager, uploadId, where);
  if (before) return ok(before);
  if (!arrived) return fail({ code: 'file.not_arrived' });
  const stored = await app.files.storeFile(arrived.path).catch(async (error: unknown) => {
    // another call took it at the same moment, and has cleared it away since
    const other = await takenBefore(app.manager, uploadId, where);
    if (other) return other;
    throw error;
  });
  if ('assetId' in stored) return ok(stored);
  if (!stored.ok) {
    await app.resumable.forget(uploadId);
    return stored;
  }
  const taken = await app.write<UploadShape, Failure>(async (tx, now) => {
    await tx.query('select pg_advisory_xact_lock(hashtext($1))', [uploadId]); // two that ask at once get one file
    const other = await takenBefore(tx, uploadId, where);
    if (other) return ok(other);
    const file = await addAsset(tx, stored.value, { ...where, name: arrived.name, now });
    await tx.insert(Upload, { id: uploadId, assetId: file.assetId, takenAt: now });
    return ok(file);
  });
  await app.resumable.forget(uploadId);
  return taken;
}

async function takenBefore(tx: Tx, uploadId: string, where: FileOwner): Promise<UploadShape | undefined> {
  const [file] = await rowsOf<UploadShape>(
    tx,
    `select ${UPLOAD_COLUMNS} from assets where (client_id = $2 or idea_id = $3) and id = (select asset_id from uploads where id = $1)`,
    [uploadId, 'clientId' in where ? where.clientId : null, 'ideaId' in where ? where.ideaId : null],
  );
  return file;
}
