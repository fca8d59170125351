import { fail, ok, type Result } from '@zesting/core';
import type { UploadShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import type { StoredFile } from '../../../platform/files/files.js';
import { lockGuideline, mayWriteGuideline, noteGuideline } from '../../guidelines/index.js';
import { addAsset, dropAssets, dropBytes } from '../../production/index.js';

/** A guideline has no more pictures than one looks through. */
const MOST = 20;

type Refused = { code: 'guideline.of_agency' };
export type PictureRefused = Refused | { code: 'file.type_refused' | 'guideline.pictures_many' };

/** Puts a picture that is stored already to a guideline. */
export async function addGuidelinePicture(
  app: App,
  viewer: Viewer,
  guidelineId: string,
  file: { readonly name: string; readonly stored: StoredFile },
): Promise<Result<UploadShape, PictureRefused>> {
  if (!file.stored.mime.startsWith('image/')) return fail({ code: 'file.type_refused' });
  return app.write<UploadShape, PictureRefused>(async (tx, now) => {
    const guideline = await lockGuideline(tx, guidelineId);
    if (!mayWriteGuideline(viewer, guideline.clientId)) return fail({ code: 'guideline.of_agency' });
    const [known] = await rowsOf<{ count: number }>(tx, 'select count(*)::int as count from assets where guideline_id = $1', [guidelineId]);
    if ((known?.count ?? 0) >= MOST) return fail({ code: 'guideline.pictures_many' });
    const added = await addAsset(tx, file.stored, { guidelineId, name: file.name, now });
    await noteGuideline(tx, viewer, guideline, 'guideline.picture_added', now);
    return ok(added);
  });
}

/** Takes a picture off a guideline. */
export async function removeGuidelinePicture(
  app: App,
  viewer: Viewer,
  guidelineId: string,
  assetId: string,
): Promise<Result<null, Refused | { code: 'file.unknown' }>> {
  let hashes: string[] = [];
  const removed = await app.write<null, Refused | { code: 'file.unknown' }>(async (tx, now) => {
    const guideline = await lockGuideline(tx, guidelineId);
    if (!mayWriteGuideline(viewer, guideline.clientId)) return fail({ code: 'guideline.of_agency' });
    if (!(await isPictureOf(tx, guidelineId, assetId))) return fail({ code: 'file.unknown' });
    hashes = await dropAssets(tx, [assetId]);
    await noteGuideline(tx, viewer, guideline, 'guideline.picture_removed', now);
    return ok(null);
  });
  if (removed.ok) await dropBytes(app, hashes);
  return removed;
}

export const isPictureOf = async (tx: Tx, guidelineId: string, assetId: string): Promise<boolean> =>
  (await rowsOf(tx, 'select 1 from assets where id = $1 and guideline_id = $2', [assetId, guidelineId])).length > 0;
