import {
  compareInstants,
  EMPTY_CHANNEL_PART,
  fail,
  getDay,
  getTimeOfDay,
  ok,
  toInstant,
  type InstantText,
  type Result,
} from '@zesting/core';
import type { MovePlacementBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { record } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan, type PieceState } from '../../planning/index.js';
import { lockPiece, setContent, stepsOf } from '../../production/index.js';
import { Placement } from '../entities/placement.entity.js';

export interface Moved {
  readonly placementId: string;
  readonly state: PieceState;
  readonly lateSteps: readonly string[];
}

type Fixed = { code: 'placement.out' | 'placement.cancelled' };
type MoveFailure = Fixed | { code: 'http.changed_meanwhile' | 'time.in_gap' | 'placement.in_past' };

/** Loads a placement under the lock of its piece. */
async function lockPlacement(tx: Tx, placementId: string): Promise<Placement> {
  const { pieceId } = await tx.findOneByOrFail(Placement, { id: placementId });
  await lockPiece(tx, pieceId);
  return tx.findOneByOrFail(Placement, { id: placementId });
}

const fixed = (placement: Placement): Fixed | null =>
  placement.cancelled ? { code: 'placement.cancelled' } : placement.outAt !== null ? { code: 'placement.out' } : null;

/** Gives a placement a date, another one, or none. Its siblings stay; the piece's path is planned anew. */
export function movePlacement(
  app: App,
  viewer: Viewer,
  placementId: string,
  body: MovePlacementBody,
  version: number,
): Promise<Result<Moved, MoveFailure>> {
  return app.write<Moved, MoveFailure>(async (tx, now) => {
    const placement = await lockPlacement(tx, placementId);
    const refused = fixed(placement);
    if (refused) return fail(refused);
    if (placement.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const from = { on: placement.onDay, at: placement.atTime };
    if (body.on === null || body.on === undefined) Object.assign(placement, { onDay: null, atTime: null, publishAt: null });
    else {
      const at = getTimeOfDay(body.at ?? placement.atTime?.slice(0, 5) ?? (await usualTime(tx, placement)));
      const instant = toInstant(getDay(body.on), at, placement.zone);
      if (!instant.ok) return instant;
      if (compareInstants(instant.value, now) <= 0) return fail({ code: 'placement.in_past' });
      Object.assign(placement, { onDay: body.on, atTime: at, publishAt: instant.value });
    }
    return ok(
      await saveAndReplan(tx, viewer, placement, 'placement.moved', { from, to: { on: placement.onDay, at: placement.atTime } }, now),
    );
  });
}

async function usualTime(tx: Tx, placement: Placement): Promise<string> {
  const [row] = await rowsOf<{ time: string }>(
    tx,
    'select coalesce(h.usual_time, c.usual_time) as time from channels h join clients c on c.id = h.client_id where h.id = $1',
    [placement.channelId],
  );
  return row?.time ?? '09:00';
}

async function saveAndReplan(
  tx: Tx,
  viewer: Viewer,
  placement: Placement,
  verb: string,
  detail: Readonly<Record<string, unknown>>,
  now: InstantText,
): Promise<Moved> {
  placement.version += 1;
  placement.updatedAt = now;
  await tx.save(placement);
  const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [placement.channelId]);
  await record(tx, {
    clientId: placement.clientId,
    thing: 'piece',
    thingId: placement.pieceId,
    verb,
    actor: viewer.name,
    detail: { channel: channel?.name, ...detail },
    at: now,
  });
  const [state] = await replan(tx, [placement.pieceId], now);
  if (!state) throw new Error('the piece was not planned');
  const titles = new Map((await stepsOf(tx, placement.pieceId)).map((step) => [step.id, step.title]));
  const late = state.plan?.steps.filter((step) => step.slackDays !== null && step.slackDays < 0) ?? [];
  return { placementId: placement.id, state, lateSteps: late.map((step) => titles.get(step.id) ?? '') };
}

/** Marks a placement as out by hand, with the address where it can be seen. What is out keeps its version for good. */
export function markOut(
  app: App,
  viewer: Viewer,
  placementId: string,
  address: string,
): Promise<Result<Moved, Fixed | { code: 'placement.undated' | 'placement.not_signed_off' }>> {
  return app.write<Moved, Fixed | { code: 'placement.undated' | 'placement.not_signed_off' }>(async (tx, now) => {
    const placement = await lockPlacement(tx, placementId);
    const refused = fixed(placement);
    if (refused) return fail(refused);
    if (placement.onDay === null) return fail({ code: 'placement.undated' });
    const [state] = await replan(tx, [placement.pieceId], now);
    const signed = state?.signOff.shared === 'signed' && state.signOff.channels[placement.channelId] === 'signed';
    if (!signed) return fail({ code: 'placement.not_signed_off' });
    Object.assign(placement, { outAt: now, outAddress: address });
    return ok(await saveAndReplan(tx, viewer, placement, 'placement.out', { address }, now));
  });
}

/** Cancels a placement: it keeps its row and leaves the calendar. */
export function cancelPlacement(app: App, viewer: Viewer, placementId: string): Promise<Result<Moved, Fixed>> {
  return app.write<Moved, Fixed>(async (tx, now) => {
    const placement = await lockPlacement(tx, placementId);
    const refused = fixed(placement);
    if (refused) return fail(refused);
    placement.cancelled = true;
    return ok(await saveAndReplan(tx, viewer, placement, 'placement.cancelled', {}, now));
  });
}

/** Puts a piece on one more channel of its client, undated. The new channel part is empty: the shared copy goes out there. */
export function addPlacement(
  app: App,
  viewer: Viewer,
  pieceId: string,
  channelId: string,
): Promise<Result<string, { code: 'channel.unknown' | 'placement.exists' }>> {
  return app.write<string, { code: 'channel.unknown' | 'placement.exists' }>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const [channel] = await rowsOf<{ zone: string; name: string }>(
      tx,
      'select c.zone, h.name from channels h join clients c on c.id = h.client_id where h.id = $1 and h.client_id = $2 and h.archived_at is null',
      [channelId, piece.clientId],
    );
    if (!channel) return fail({ code: 'channel.unknown' });
    const live = await rowsOf(tx, 'select 1 from placements where piece_id = $1 and channel_id = $2 and not cancelled', [
      pieceId,
      channelId,
    ]);
    if (live.length > 0) return fail({ code: 'placement.exists' });
    if (!(channelId in piece.content.channels)) {
      setContent(piece, { ...piece.content, channels: { ...piece.content.channels, [channelId]: EMPTY_CHANNEL_PART } });
      await tx.save(piece);
    }
    const placement = await tx.save(
      tx.create(Placement, {
        pieceId,
        clientId: piece.clientId,
        channelId,
        onDay: null,
        atTime: null,
        zone: channel.zone,
        publishAt: null,
        outAt: null,
        outAddress: null,
        cancelled: false,
        version: 1,
        createdAt: now,
        updatedAt: now,
      }),
    );
    await record(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'placement.added',
      actor: viewer.name,
      detail: { channel: channel.name },
      at: now,
    });
    await replan(tx, [pieceId], now);
    return ok(placement.id);
  });
}
