import { fail, ok, type InstantText, type MaterialSort, type Result } from '@zesting/core';
import { MATERIAL_MOST, type BroughtBody, type MaterialBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { insertRow, rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { claimForPiece, lockPiece, type Piece } from '../../production/index.js';
import { Material } from '../entities/material.entity.js';

export type AddFailure = { code: 'material.not_one' | 'material.too_much' | 'file.unknown' };

/** Who puts something there: one of the team, or a contact for the step that waits for it. */
export type Adder = { readonly viewer: Viewer } | { readonly contactId: string; readonly name: string; readonly stepId: string };

/** Puts a file, an address or words beside the content of a piece. */
export function addMaterial(app: App, viewer: Viewer, pieceId: string, body: MaterialBody): Promise<Result<string, AddFailure>> {
  return app.write<string, AddFailure>(async (tx, now) => putMaterial(tx, await lockPiece(tx, pieceId), { viewer }, body, body.sort, now));
}

/** The same in the caller's transaction, where the piece is locked. */
export async function putMaterial(
  tx: Tx,
  piece: Piece,
  by: Adder,
  body: BroughtBody,
  sort: MaterialSort,
  now: InstantText,
): Promise<Result<string, AddFailure>> {
  const [assetId = null, url = null, words = null] = [body.assetId, body.url, body.text];
  if ([assetId, url, words].filter((one) => one !== null).length !== 1) return fail({ code: 'material.not_one' });
  const [count] = await rowsOf<{ count: number }>(
    tx,
    'select count(*)::int as count from materials where piece_id = $1 and removed_at is null',
    [piece.id],
  );
  if ((count?.count ?? 0) >= MATERIAL_MOST) return fail({ code: 'material.too_much' });
  if (assetId !== null && !(await claimFile(tx, piece, assetId, 'viewer' in by))) return fail({ code: 'file.unknown' });
  const text = words?.trim() ?? null;
  const label = body.label.trim();
  const of = 'viewer' in by ? { personId: by.viewer.personId } : { contactId: by.contactId, stepId: by.stepId };
  const id = await insertRow(tx, Material, {
    pieceId: piece.id,
    personId: null,
    contactId: null,
    stepId: null,
    ...of,
    sort,
    label,
    assetId,
    url,
    text,
    addedAt: now,
    removedAt: null,
  });
  const name = 'viewer' in by ? by.viewer.name : by.name;
  await noteMaterial(tx, piece, name, 'material.added', await nameOf(tx, { label, url, text, assetId }), now);
  return ok(id);
}

/** The file is the piece's, or came from a contact of its client and belongs to nothing yet: then it becomes the piece's. */
async function claimFile(tx: Tx, piece: Piece, assetId: string, isTeam: boolean): Promise<boolean> {
  if (!isTeam) return claimForPiece(tx, assetId, piece);
  return (await rowsOf(tx, 'select 1 from assets where id = $1 and piece_id = $2', [assetId, piece.id])).length > 0;
}

/** Takes material away, or puts it back. Its file stays with the piece: a version or the content may show it. */
export function setMaterialAway(app: App, viewer: Viewer, materialId: string, isAway: boolean): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const { pieceId } = await tx.findOneByOrFail(Material, { id: materialId });
    const piece = await lockPiece(tx, pieceId);
    await putAway(tx, piece, viewer.name, await tx.findOneByOrFail(Material, { id: materialId }), isAway, now);
    return ok(null);
  });
}

/** The same in the caller's transaction, where the piece is locked. */
export async function putAway(tx: Tx, piece: Piece, name: string, material: Material, isAway: boolean, now: InstantText): Promise<void> {
  if ((material.removedAt !== null) === isAway) return;
  await tx.update(Material, material.id, { removedAt: isAway ? now : null });
  await noteMaterial(tx, piece, name, isAway ? 'material.removed' : 'material.restored', await nameOf(tx, material), now);
}

/** What a piece of material is called: its label, else the file's name, the address, or how the words begin. */
async function nameOf(tx: Tx, { label, url, text, assetId }: Pick<Material, 'label' | 'url' | 'text' | 'assetId'>): Promise<string> {
  if (label !== '') return label;
  if (assetId === null) return url ?? (text ?? '').slice(0, 80);
  const [file] = await rowsOf<{ name: string }>(tx, 'select name from assets where id = $1', [assetId]);
  return file?.name ?? '';
}

/** Writes a line of the piece's record about its material. */
export const noteMaterial = (tx: Tx, piece: Piece, actor: string, verb: string, material: string, at: InstantText): Promise<void> =>
  recordActivity(tx, { clientId: piece.clientId, thing: 'piece', thingId: piece.id, verb, actor, detail: { material }, at });
