import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { replan } from '../../planning/index.js';
import { Version } from '../entities/version.entity.js';
import { askForCuts, lockPiece, pieceChanged, setContent } from '../piece-store.js';

/**
 * Puts an earlier version into the working copy, as a new edit: what was there stays in its own versions, and what has the same digests as
 * something approved is approved again. Channels that the piece has taken on since keep their part; those that it has left stay left.
 * @param contentVersion of the working copy that it replaces
 */
export function bringBack(
  app: App,
  viewer: Viewer,
  pieceId: string,
  number: number,
  contentVersion: number,
): Promise<Result<null, { code: 'http.changed_meanwhile' | 'version.unknown' }>> {
  return app.write<null, { code: 'http.changed_meanwhile' | 'version.unknown' }>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    if (piece.contentVersion !== contentVersion) return fail({ code: 'http.changed_meanwhile' });
    const version = await tx.findOneBy(Version, { pieceId, number });
    if (!version) return fail({ code: 'version.unknown' });
    const { shared, channels } = version.content;
    const parts = Object.entries(piece.content.channels).map(([id, part]) => [id, channels[id] ?? part] as const);
    setContent(piece, { shared, channels: Object.fromEntries(parts) });
    await tx.save(piece);
    await askForCuts(tx, piece.content);
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'piece.version_brought_back',
      actor: viewer.name,
      detail: { version: String(number) },
      at: now,
    });
    await replan(tx, [pieceId], now);
    await pieceChanged.tell(tx, { id: pieceId, by: viewer }, now);
    return ok(null);
  });
}
