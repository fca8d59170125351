import { changedOn, fail, ok, type Result } from '@zesting/core';
import type { PiecesChangedShape, CopyChangeBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { Piece } from '../entities/piece.entity.js';
import { lockPiece } from '../piece-store.js';
import { saveContent } from './edit-content.js';

type Failure = { code: 'http.changed_meanwhile' | 'piece.unknown' | 'channel.unknown' };

/** Changes what goes out on channels of a client's pieces: each piece in a transaction of its own, all of its changes or none. */
export async function editCopies(
  app: App,
  viewer: Viewer,
  clientId: string,
  changes: readonly CopyChangeBody[],
): Promise<PiecesChangedShape> {
  const saved: string[] = [];
  const refused: PiecesChangedShape['refused'] = [];
  for (const pieceId of [...new Set(changes.map((change) => change.pieceId))].sort()) {
    const ofPiece = changes.filter((change) => change.pieceId === pieceId);
    const done = await editCopiesOf(app, viewer, clientId, pieceId, ofPiece);
    if (done.ok) saved.push(pieceId);
    else refused.push({ pieceId, code: done.failure.code });
  }
  return { saved, refused };
}

function editCopiesOf(
  app: App,
  viewer: Viewer,
  clientId: string,
  pieceId: string,
  changes: readonly CopyChangeBody[],
): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    if (!(await tx.existsBy(Piece, { id: pieceId, clientId }))) return fail({ code: 'piece.unknown' });
    const piece = await lockPiece(tx, pieceId);
    if (changes.some(({ contentVersion }) => contentVersion !== piece.contentVersion)) return fail({ code: 'http.changed_meanwhile' });
    if (changes.some(({ channelId }) => !(channelId in piece.content.channels))) return fail({ code: 'channel.unknown' });
    let content = piece.content;
    for (const { channelId, copy, tags, firstComment, link } of changes)
      content = changedOn(content, channelId, {
        ...(copy === undefined ? {} : { copy }),
        ...(tags === undefined ? {} : { tags }),
        ...(firstComment === undefined ? {} : { firstComment }),
        ...(link === undefined ? {} : { link }),
      });
    await saveContent(tx, viewer, piece, content, now);
    return ok(null);
  });
}
