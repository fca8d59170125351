import { fail, ok, type Result } from '@zesting/core';
import type { SettleSendingBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { lockPlacement, putOut, wentAt, type OutTimeFailure } from '../../calendar/index.js';
import { untell } from '../../notices/index.js';
import { replan } from '../../planning/index.js';
import { Sending } from '../entities/sending.entity.js';

export type SettleFailure = OutTimeFailure | { code: 'placement.not_unsure' };

/** A person's word on what a channel does not say: it is out, with its address and time; or it is not, and may be sent again. */
export function settleSending(
  app: App,
  viewer: Viewer,
  placementId: string,
  body: SettleSendingBody,
): Promise<Result<null, SettleFailure>> {
  return app.write<null, SettleFailure>(async (tx, now) => {
    const { placement } = await lockPlacement(tx, placementId);
    const sending = await tx.findOne(Sending, { where: { placementId, state: 'unsure' }, lock: { mode: 'pessimistic_write' } });
    if (!sending || sending.versionId === null || sending.digests === null) return fail({ code: 'placement.not_unsure' });
    const { versionId, digests } = sending;
    const went = wentAt(body, placement, sending.postedAt ?? now, now);
    if (!went.ok) return went;
    Object.assign(sending, {
      state: body.isOut ? 'out' : 'not_out',
      code: body.isOut ? null : 'said_not_out',
      reason: null,
      settledAt: now,
      settledBy: viewer.name,
      nextAt: null,
      postedAt: body.isOut ? sending.postedAt : null,
      commentState: 'none', // whoever looked sees whether it is there, and puts it by hand
    });
    await tx.save(sending);
    await untell(tx, `sending:${placementId}`);
    if (body.isOut) {
      const address = body.address ?? null;
      await putOut(app, tx, viewer, placementId, { versionId, digests, at: went.value, address, detail: { wasUnsure: true } }, now);
      return ok(null);
    }
    const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [placement.channelId]);
    await recordActivity(tx, {
      clientId: placement.clientId,
      thing: 'piece',
      thingId: placement.pieceId,
      verb: 'placement.said_not_out',
      actor: viewer.name,
      detail: { channel: channel?.name },
      at: now,
    });
    await replan(tx, [placement.pieceId], now);
    return ok(null);
  });
}
