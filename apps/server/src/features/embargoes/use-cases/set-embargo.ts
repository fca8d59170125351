import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { EmbargoBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { lockPiece } from '../../production/index.js';
import { Embargo } from '../entities/embargo.entity.js';

type SetFailure = { code: 'piece.shelved' | 'http.changed_meanwhile' | 'embargo.empty' | 'embargo.order_wrong' };

/** Says between which days a piece may be out. What is placed outside stays, and is told before it goes out. */
export const setEmbargo = (
  app: App,
  viewer: Viewer,
  pieceId: string,
  body: EmbargoBody,
  version: number,
): Promise<Result<null, SetFailure>> =>
  app.write<null, SetFailure>(async (tx, now) => {
    const { notBeforeOn, notAfterOn } = body;
    if (notBeforeOn === null && notAfterOn === null) return fail({ code: 'embargo.empty' });
    if (notBeforeOn !== null && notAfterOn !== null && notAfterOn < notBeforeOn) return fail({ code: 'embargo.order_wrong' });
    const piece = await lockPiece(tx, pieceId);
    if (piece.shelved) return fail({ code: 'piece.shelved' });
    const before = await tx.findOneBy(Embargo, { pieceId });
    if ((before?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    await keepEmbargo(tx, viewer, piece, { ...body, why: body.why.trim() }, now, version + 1);
    return ok(null);
  });

/** Keeps a window of a piece that the caller has made or locked. */
export async function keepEmbargo(
  tx: Tx,
  viewer: Pick<Viewer, 'name'>,
  { id: pieceId, clientId }: { readonly id: string; readonly clientId: string },
  { notBeforeOn, notAfterOn, why }: EmbargoBody,
  now: InstantText,
  version = 1,
): Promise<void> {
  await tx.upsert(Embargo, { pieceId, clientId, notBeforeOn, notAfterOn, why, setBy: viewer.name, setAt: now, version }, ['pieceId']);
  await recordActivity(tx, {
    clientId,
    thing: 'piece',
    thingId: pieceId,
    verb: 'piece.embargo',
    actor: viewer.name,
    detail: { notBeforeOn, notAfterOn, why },
    at: now,
  });
}

/** Lets a piece be out on any day. */
export const liftEmbargo = (app: App, viewer: Viewer, pieceId: string): Promise<Result<null>> =>
  app.write(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const { affected } = await tx.delete(Embargo, { pieceId });
    if (affected)
      await recordActivity(tx, {
        clientId: piece.clientId,
        thing: 'piece',
        thingId: pieceId,
        verb: 'piece.embargo_lifted',
        actor: viewer.name,
        detail: {},
        at: now,
      });
    return ok(null);
  });
