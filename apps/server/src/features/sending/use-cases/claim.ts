import { randomUUID } from 'node:crypto';
import { fail, isReadyByHand, ok, type InstantText, type Result, type SendingCode } from '@zesting/core';
import type { GoingOutRowShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { addJob } from '../../../platform/jobs/jobs.js';
import { tellClients } from '../../../platform/live/live.js';
import { lockPlacement, type Placement } from '../../calendar/index.js';
import { goingOutRow, seenOf } from '../../going-out/index.js';
import { replan } from '../../planning/index.js';
import { freezeVersion } from '../../production/index.js';
import { ChannelLink } from '../entities/channel-link.entity.js';
import { Sending } from '../entities/sending.entity.js';
import { isStopped } from '../queries/stops.js';
import { tellTrouble } from '../tell.js';

/** The task that brings what is due to its channels. */
export const SEND = 'sending_go';

export type ClaimFailure = {
  code:
    | 'placement.out'
    | 'placement.cancelled'
    | 'placement.undated'
    | 'placement.sending'
    | 'placement.unsure'
    | 'placement.not_signed_off'
    | 'sending.no_link'
    | 'sending.stopped'
    | 'sending.not_ready'
    | 'http.changed_meanwhile';
};

/** Findings that say nothing against going out now: that its time came is why it goes. */
const against = (row: GoingOutRowShape): GoingOutRowShape['findings'] => row.findings.filter(({ code }) => code !== 'time_passed');

/**
 * Takes a placement up to be sent: its parts are signed as they stand, and what is sent from now on is the version that they were then. What came
 * due and is not ready ends as failed, with what is the matter.
 * @param by who sends it now, whenever it was meant for; null: its time has come
 */
export async function claim(app: App, placementId: string, by: Viewer | null): Promise<Result<string, ClaimFailure>> {
  const row = await goingOutRow(app, placementId);
  return app.write<string, ClaimFailure>(async (tx, now) => {
    const { placement, piece, sending: underWay } = await lockPlacement(tx, placementId);
    if (placement.cancelled || piece.shelved) return fail({ code: 'placement.cancelled' });
    if (placement.outAt !== null) return fail({ code: 'placement.out' });
    if (underWay !== null) return fail({ code: underWay === 'unsure' ? 'placement.unsure' : 'placement.sending' });
    if (placement.publishAt === null) return fail({ code: 'placement.undated' });
    const link = await tx.findOneBy(ChannelLink, { channelId: placement.channelId });
    const [channel] = await rowsOf<{ name: string }>(
      tx,
      'select h.name from channels h join clients c on c.id = h.client_id where h.id = $1 and h.archived_at is null and c.archived_at is null',
      [placement.channelId],
    );
    if (!link || !channel) return fail({ code: 'sending.no_link' });
    if (await isStopped(tx, placement.channelId)) return fail({ code: 'sending.stopped' });
    const { digests } = piece;
    // what was looked through is what stands here under the lock
    if (seenOf({ digests, channelId: placement.channelId, on: placement.onDay, at: placement.atTime }) !== row.seen)
      return fail({ code: 'http.changed_meanwhile' });
    const [state] = await replan(tx, [piece.id], now);
    const isSigned = state?.signOff.shared === 'signed' && state.signOff.channels[placement.channelId] === 'signed';
    if (!isSigned) return fail({ code: 'placement.not_signed_off' });
    if (by === null && state.placements[placementId] !== 'scheduled') return fail({ code: 'placement.undated' });
    const musts = against(row).filter(({ severity }) => severity === 'must');
    if (musts.length > 0) return by === null ? ok(await giveUp(app, tx, placement, musts, now)) : fail({ code: 'sending.not_ready' });
    const version = await freezeVersion(tx, piece, by?.personId ?? null, now);
    const isComment = (piece.content.channels[placement.channelId]?.firstComment.trim() ?? '') !== '';
    const untilAt = new Date(Math.max(Date.parse(placement.publishAt), by ? Date.parse(now) : 0) + link.lateMinutes * 60_000).toISOString();
    const sending = await tx.save(
      tx.create(Sending, {
        ...begun(placement, now),
        versionId: version.id,
        digests: [digests.shared, digests.channels[placement.channelId] ?? ''],
        untilAt,
        state: 'claimed',
        askedBy: by?.name ?? null,
        nextAt: now,
        settledAt: null,
        commentState: isComment ? 'waiting' : 'none',
      }),
    );
    if (by)
      await recordActivity(tx, {
        clientId: placement.clientId,
        thing: 'piece',
        thingId: piece.id,
        verb: 'placement.sent_now',
        actor: by.name,
        detail: { channel: channel.name },
        at: now,
      });
    await replan(tx, [piece.id], now);
    await tellClients(tx, [piece.id], 'more');
    await addJob(tx, SEND, {}, { queue: SEND });
    return ok(sending.id);
  });
}

const begun = (placement: Placement, now: InstantText) => ({
  placementId: placement.id,
  clientId: placement.clientId,
  channelId: placement.channelId,
  publishAt: placement.publishAt ?? now,
  reference: randomUUID(),
  claimedAt: now,
});

/** Came due, and does not go out like this. */
async function giveUp(app: App, tx: Tx, placement: Placement, musts: GoingOutRowShape['findings'], now: InstantText): Promise<string> {
  const code: SendingCode = 'not_ready';
  const sending = await tx.save(
    tx.create(Sending, {
      ...begun(placement, now),
      versionId: null,
      digests: null,
      untilAt: now,
      state: 'failed',
      code,
      reason: isReadyByHand(musts) ? 'The channel could not be reached like this' : 'It did not pass the check before going out',
      settledAt: now,
      commentState: 'none',
    }),
  );
  await replan(tx, [placement.pieceId], now);
  await tellClients(tx, [placement.pieceId], 'more');
  await tellTrouble(app, tx, sending, 'failed');
  return sending.id;
}
