import { fail, ok, type Result } from '@zesting/core';
import type { PlacementCheckBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { Placement } from '../../calendar/index.js';
import { lockPiece } from '../../production/index.js';
import { PlacementCheck } from '../entities/placement-check.entity.js';
import { seenOf } from '../seen.js';

export type CheckFailure = { code: 'http.changed_meanwhile' | 'placement.out' | 'placement.cancelled' };

/** Says that a placement was looked at before it goes out, or takes that back. It counts for what was seen: not for what it became since. */
export function checkPlacement(
  app: App,
  viewer: Viewer,
  placementId: string,
  { isChecked, seen }: PlacementCheckBody,
): Promise<Result<null, CheckFailure>> {
  return app.write<null, CheckFailure>(async (tx, now) => {
    const { pieceId } = await tx.findOneByOrFail(Placement, { id: placementId });
    const piece = await lockPiece(tx, pieceId);
    const placement = await tx.findOneByOrFail(Placement, { id: placementId });
    if (placement.cancelled) return fail({ code: 'placement.cancelled' });
    if (placement.outAt !== null) return fail({ code: 'placement.out' });
    const { digests } = piece;
    if (seenOf({ digests, channelId: placement.channelId, on: placement.onDay, at: placement.atTime }) !== seen)
      return fail({ code: 'http.changed_meanwhile' });
    if (isChecked) await tx.save(tx.create(PlacementCheck, { placementId, personId: viewer.personId, checkedAt: now, seen }));
    else await tx.delete(PlacementCheck, { placementId });
    const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [placement.channelId]);
    await recordActivity(tx, {
      clientId: placement.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: isChecked ? 'placement.checked' : 'placement.unchecked',
      actor: viewer.name,
      detail: { channel: channel?.name, on: placement.onDay, at: placement.atTime?.slice(0, 5) },
      at: now,
    });
    return ok(null);
  });
}
