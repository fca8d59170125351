import { ok, type Result } from '@zesting/core';
import type { UploadShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { askForSizes } from '../../../platform/files/pictures.js';
import type { StoredFile } from '../../../platform/files/files.js';
import { Asset } from '../entities/asset.entity.js';

export interface Upload {
  readonly name: string;
  readonly bytes: Buffer;
}

/** What a file belongs to: a client, maybe a piece of it, or an idea, or a guideline. */
export type FileOwner =
  { readonly clientId: string; readonly pieceId: string | null } | { readonly ideaId: string } | { readonly guidelineId: string };

/** Files a stored upload under what it belongs to. */
export async function addAsset(
  tx: Tx,
  file: StoredFile,
  where: FileOwner & { readonly name: string; readonly now: string },
): Promise<UploadShape> {
  const name = where.name.replace(/[\p{Cc}/\\]/gu, '').slice(-150) || 'file';
  const { hash, mime, bytes, width, height, durationMs } = file;
  const nobody = { clientId: null, pieceId: null, ideaId: null, guidelineId: null };
  const owner = { ...nobody, ...ownerIn(where) };
  const assetId = await insertRow(tx, Asset, { ...owner, hash, name, mime, bytes, width, height, durationMs, createdAt: where.now });
  if (mime.startsWith('image/')) await askForSizes(tx, assetId);
  return { assetId, name, hash, mime, bytes, width, height, durationMs };
}

function ownerIn(where: FileOwner): FileOwner {
  if ('ideaId' in where) return { ideaId: where.ideaId };
  return 'guidelineId' in where ? { guidelineId: where.guidelineId } : { clientId: where.clientId, pieceId: where.pieceId };
}

/** Adds a file to a piece. The bytes are stored first: a file without a row harms nobody. */
export async function addPieceFile(app: App, pieceId: string, upload: Upload): Promise<Result<UploadShape>> {
  const stored = await app.files.store(upload.bytes);
  if (!stored.ok) return stored;
  return app.write(async (tx, now) => {
    const [piece] = await rowsOf<{ client_id: string }>(tx, 'select client_id from pieces where id = $1', [pieceId]);
    if (!piece) throw new Error('the piece went away');
    return ok(await addAsset(tx, stored.value, { clientId: piece.client_id, pieceId, name: upload.name, now }));
  });
}

/** Gives files that came through a form to their request. False when one is not the client's, or belongs to something else already. */
export async function claimFiles(tx: Tx, ids: readonly string[], requestId: string, clientId: string): Promise<boolean> {
  const [, count] = (await tx.query(
    'update assets set request_id = $1 where id::text = any($2) and client_id = $3 and request_id is null and piece_id is null',
    [requestId, ids, clientId],
  )) as [unknown, number]; // TypeORM answers an update with rows and count
  return count === ids.length;
}

/** Gives a file that a contact brought to a piece of its client. False when it is not the client’s, or belongs to something already. */
export async function claimForPiece(tx: Tx, assetId: string, piece: { readonly id: string; readonly clientId: string }): Promise<boolean> {
  const [, count] = (await tx.query(
    'update assets set piece_id = $2 where id = $1 and client_id = $3 and piece_id is null and request_id is null and idea_id is null',
    [assetId, piece.id, piece.clientId],
  )) as [unknown, number]; // as above
  return count === 1;
}
