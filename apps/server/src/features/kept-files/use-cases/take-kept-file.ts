import type { TakeKeptFileBody, UploadShape } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { putMaterial } from '../../material/index.js';
import { addAsset, lockPiece, UPLOAD_COLUMNS } from '../../production/index.js';
import { KeptFileUse } from '../entities/kept-file.entity.js';

export type TakeFailure = { code: 'kept_file.unknown' | 'material.too_much' | 'material.not_one' | 'file.unknown' };

interface KeptRow {
  title: string;
  name: string;
  hash: string;
  mime: string;
  bytes: number;
  width: number | null;
  height: number | null;
  durationMs: number | null;
}

/**
 * Takes a kept file of its client into a piece: as a file of the piece's own, whose bytes lie there once. What was taken before is not taken twice.
 * @returns the piece's file: its content takes it in when that is saved
 */
export function takeKeptFile(
  app: App,
  viewer: Viewer,
  pieceId: string,
  keptFileId: string,
  { into }: TakeKeptFileBody,
): Promise<Result<UploadShape, TakeFailure>> {
  return app.write<UploadShape, TakeFailure>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const [kept] = await rowsOf<KeptRow>(
      tx,
      `select k.title, a.name, a.hash, a.mime, a.bytes::float8 as bytes, a.width, a.height, a.duration_ms as "durationMs"
       from kept_files k join assets a on a.id = k.asset_id where k.id = $1 and k.client_id = $2 and k.archived_at is null`,
      [keptFileId, piece.clientId],
    );
    if (!kept) return fail({ code: 'kept_file.unknown' });
    const { title, ...file } = kept;
    const taken =
      (await takenBefore(tx, pieceId, keptFileId, kept.hash)) ??
      (await addAsset(tx, file, { clientId: piece.clientId, pieceId, name: kept.name, now }));
    await tx.upsert(KeptFileUse, { keptFileId, pieceId, assetId: taken.assetId, usedAt: now }, ['keptFileId', 'pieceId']);
    if (into === 'content' || (await isMaterial(tx, pieceId, taken.assetId))) return ok(taken);
    const put = await putMaterial(tx, piece, { viewer }, { label: title, assetId: taken.assetId }, 'original', now);
    return put.ok ? ok(taken) : put;
  });
}

async function takenBefore(tx: Tx, pieceId: string, keptFileId: string, hash: string): Promise<UploadShape | undefined> {
  const [file] = await rowsOf<UploadShape>(
    tx,
    `select ${UPLOAD_COLUMNS} from assets where hash = $3 and id = (select asset_id from kept_file_uses where piece_id = $1 and kept_file_id = $2)`,
    [pieceId, keptFileId, hash],
  );
  return file;
}

const isMaterial = async (tx: Tx, pieceId: string, assetId: string): Promise<boolean> =>
  (await rowsOf(tx, 'select 1 from materials where piece_id = $1 and asset_id = $2 and removed_at is null', [pieceId, assetId])).length > 0;
