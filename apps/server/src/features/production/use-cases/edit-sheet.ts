import { fail, ok, type Result } from '@zesting/core';
import type { PiecesChangedShape, SheetChangeBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { Piece } from '../entities/piece.entity.js';
import { Step } from '../entities/step.entity.js';
import { lockPiece } from '../piece-store.js';
import { giveStep } from './assign-step.js';
import { changePiece } from './edit-piece.js';

/** Changes what stands around many pieces, and who has what is at hand: each piece in a transaction of its own, all of its changes or none. */
export async function editSheet(app: App, viewer: Viewer, changes: readonly SheetChangeBody[]): Promise<PiecesChangedShape> {
  const saved: string[] = [];
  const refused: PiecesChangedShape['refused'] = [];
  for (const change of [...changes].sort((one, other) => one.pieceId.localeCompare(other.pieceId))) {
    const done = await editLine(app, viewer, change);
    if (done.ok) saved.push(change.pieceId);
    else refused.push({ pieceId: change.pieceId, code: done.failure.code });
  }
  return { saved, refused };
}

function editLine(app: App, viewer: Viewer, change: SheetChangeBody): Promise<Result<null, { code: string }>> {
  const { pieceId, version, doer, ...body } = change;
  return app.write<null, { code: string }>(async (tx, now) => {
    const known = await tx.findOneBy(Piece, { id: pieceId });
    if (!known || !viewer.clientIds.includes(known.clientId)) return fail({ code: 'piece.unknown' });
    const piece = await lockPiece(tx, pieceId);
    if (piece.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (doer) {
      if (!(await tx.existsBy(Step, { id: doer.stepId, pieceId }))) return fail({ code: 'http.changed_meanwhile' });
      const given = await giveStep(app, tx, viewer, { stepId: doer.stepId, version: doer.version, personId: doer.personId ?? null }, now);
      if (!given.ok) return given;
    }
    if (Object.values(body).every((value) => value === undefined)) return ok(null);
    const changed = await changePiece(app, tx, viewer, { pieceId, body, version }, now);
    return changed.ok ? ok(null) : changed;
  });
}
