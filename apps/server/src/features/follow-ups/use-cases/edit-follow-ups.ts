import { fail, ok, type Result } from '@zesting/core';
import type { FollowUpListBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, noteOfClient, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { FollowUpList } from '../entities/follow-up-list.entity.js';
import { FollowUp, type FollowUpState } from '../entities/follow-up.entity.js';

/** Says what is done after something goes out on a channel. What is out already keeps what it was given. @param version 0 where there was none */
export function putFollowUpList(
  app: App,
  viewer: Pick<Viewer, 'name'>,
  channelId: string,
  { items }: FollowUpListBody,
  version: number,
): Promise<Result<null, { code: 'http.changed_meanwhile' }>> {
  return app.write<null, { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const [channel] = await rowsOf<{ clientId: string; name: string }>(
      tx,
      'select client_id as "clientId", name from channels where id = $1 for no key update',
      [channelId],
    );
    if (!channel) throw new Error('the channel went away');
    const list = await tx.findOneBy(FollowUpList, { channelId });
    if ((list?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    const kept = items.map(({ words, daysAfter }) => ({ words: words.trim(), daysAfter }));
    const detail = { channel: channel.name, ...changesBetween({ items: list?.items ?? [] }, { items: kept }) };
    await tx.save(tx.create(FollowUpList, { channelId, clientId: channel.clientId, items: kept, version: version + 1 }));
    await noteOfClient(tx, viewer, channel.clientId, 'channel.follow_ups_set', detail, now);
    return ok(null);
  });
}

/** Says that one is done or left out, or open again. Said twice, it stays with whoever said it first. */
export function settleFollowUp(app: App, viewer: Pick<Viewer, 'name'>, id: string, state: FollowUpState): Promise<Result<null, never>> {
  return app.write<null, never>(async (tx, now) => {
    const found = await tx.findOneOrFail(FollowUp, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (found.state === state) return ok(null);
    const isOpen = state === 'open';
    Object.assign(found, { state, settledBy: isOpen ? null : viewer.name, settledAt: isOpen ? null : now });
    await tx.save(found);
    const [placement] = await rowsOf<{ pieceId: string }>(tx, 'select piece_id as "pieceId" from placements where id = $1', [
      found.placementId,
    ]);
    await recordActivity(tx, {
      clientId: found.clientId,
      thing: 'piece',
      thingId: placement?.pieceId ?? '',
      verb: `follow_up.${state}`,
      actor: viewer.name,
      detail: { words: found.words },
      at: now,
    });
    return ok(null);
  });
}
