import { fail, ok, type Result } from '@zesting/core';
import type { EvergreenBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { lockPiece } from '../../production/index.js';
import { Evergreen } from '../entities/evergreen.entity.js';

type MarkFailure = { code: 'piece.shelved' | 'http.changed_meanwhile' };

/** Says of a piece that it lasts, and how it may go out again; said anew it holds from now on. */
export const markEvergreen = (
  app: App,
  viewer: Viewer,
  pieceId: string,
  body: EvergreenBody,
  version: number,
): Promise<Result<null, MarkFailure>> =>
  app.write<null, MarkFailure>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    if (piece.shelved) return fail({ code: 'piece.shelved' });
    const before = await tx.findOneBy(Evergreen, { pieceId });
    if ((before?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    const { restDays, timesMost, untilOn } = body;
    await tx.upsert(
      Evergreen,
      { pieceId, clientId: piece.clientId, restDays, timesMost, untilOn, markedBy: viewer.name, markedAt: now, version: version + 1 },
      ['pieceId'],
    );
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'piece.evergreen',
      actor: viewer.name,
      detail: { restDays, timesMost, untilOn },
      at: now,
    });
    return ok(null);
  });

/** Takes a piece out of the stock; what is placed stays. */
export const unmarkEvergreen = (app: App, viewer: Viewer, pieceId: string): Promise<Result<null>> =>
  app.write(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const { affected } = await tx.delete(Evergreen, { pieceId });
    if (affected)
      await recordActivity(tx, {
        clientId: piece.clientId,
        thing: 'piece',
        thingId: pieceId,
        verb: 'piece.evergreen_ended',
        actor: viewer.name,
        detail: {},
        at: now,
      });
    return ok(null);
  });
