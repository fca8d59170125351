import {
  compareInstants,
  fail,
  getDay,
  getTimeOfDay,
  ok,
  sendingOfPlacement,
  toInstant,
  type InstantText,
  type Result,
  type SendingOfPlacement,
  type SendingState,
} from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan, type PieceState } from '../../planning/index.js';
import { storedAim, lockPiece, stepsOf, tellAimMoved, type Piece } from '../../production/index.js';
import { Placement } from '../entities/placement.entity.js';

export interface Moved {
  readonly placementId: string;
  readonly state: PieceState;
  readonly lateSteps: readonly string[];
  /** the piece's aim before */
  readonly aimBefore: string | null;
  /** how many siblings moved with it */
  readonly others: number;
}

export type Fixed = { code: 'placement.out' | 'placement.cancelled' | 'placement.sending' | 'placement.unsure' };
export type DateFailure = { code: 'time.in_gap' | 'placement.in_past' };

/** A placement under the lock of its piece. */
export interface Locked {
  readonly placement: Placement;
  readonly piece: Piece;
  readonly aimBefore: string | null;
  /** how its way to the channel stands */
  readonly sending: SendingOfPlacement | null;
}

/** Loads placements under the locks of their pieces, which are taken in the order of their ids. */
export async function lockPlacements(tx: Tx, ids: readonly string[]): Promise<Locked[]> {
  const owners = new Set<string>();
  for (const id of ids) owners.add((await tx.findOneByOrFail(Placement, { id })).pieceId);
  const pieces = new Map<string, Piece>();
  for (const pieceId of [...owners].sort()) pieces.set(pieceId, await lockPiece(tx, pieceId));
  const locked = [];
  for (const id of ids) {
    const placement = await tx.findOneByOrFail(Placement, { id });
    const piece = pieces.get(placement.pieceId);
    if (!piece) throw new Error('the piece went away');
    locked.push({ placement, piece, aimBefore: await storedAim(tx, piece.id), sending: await sendingOf(tx, id) });
  }
  return locked;
}

export async function lockPlacement(tx: Tx, id: string): Promise<Locked> {
  const [locked] = await lockPlacements(tx, [id]);
  if (!locked) throw new Error('the placement went away');
  return locked;
}

/** How the open sending of a placement stands; null: it is not on its way. */
async function sendingOf(tx: Tx, id: string): Promise<SendingOfPlacement | null> {
  const [row] = await rowsOf<{ state: SendingState }>(tx, 'select state from sendings where placement_id = $1 and settled_at is null', [
    id,
  ]);
  return sendingOfPlacement(row?.state ?? null);
}

/** Why a placement stays as it is: it is out or cancelled, or it is on its way and may be out. */
export function fixed({ placement, sending }: Pick<Locked, 'placement' | 'sending'>): Fixed | null {
  if (placement.cancelled) return { code: 'placement.cancelled' };
  if (placement.outAt !== null) return { code: 'placement.out' };
  if (sending === 'sending') return { code: 'placement.sending' };
  return sending === 'unsure' ? { code: 'placement.unsure' } : null;
}

/** Puts a placement on a day and time of its client's; none of it when that time does not exist or has passed. */
export function setDate(placement: Placement, on: string | null, at: string | null, now: InstantText): Result<null, DateFailure> {
  if (on === null || at === null) {
    Object.assign(placement, { onDay: null, atTime: null, publishAt: null });
    return ok(null);
  }
  const instant = toInstant(getDay(on), getTimeOfDay(at.slice(0, 5)), placement.zone);
  if (!instant.ok) return instant;
  if (compareInstants(instant.value, now) <= 0) return fail({ code: 'placement.in_past' });
  Object.assign(placement, { onDay: on, atTime: at.slice(0, 5), publishAt: instant.value });
  return ok(null);
}

/** The usual time on a placement's channel: the channel's own, else the client's. */
export async function usualTime(tx: Tx, channelId: string): Promise<string> {
  const [row] = await rowsOf<{ time: string }>(
    tx,
    'select coalesce(h.usual_time, c.usual_time) as time from channels h join clients c on c.id = h.client_id where h.id = $1',
    [channelId],
  );
  return (row?.time ?? '09:00').slice(0, 5);
}

/** Stores changed placements of one piece, writes the record, and plans the piece anew. The first is the one that was asked for. */
export async function saveAndReplan(
  app: App,
  tx: Tx,
  viewer: Pick<Viewer, 'personId' | 'name'>,
  piece: Piece,
  aimBefore: string | null,
  changed: readonly Placement[],
  what: { readonly verb: string; readonly detail: Readonly<Record<string, unknown>> },
  now: InstantText,
): Promise<Moved> {
  const [first] = changed;
  if (!first) throw new Error('nothing changed');
  for (const placement of changed) {
    placement.version += 1;
    placement.updatedAt = now;
    await tx.save(placement);
  }
  const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [first.channelId]);
  await recordActivity(tx, {
    clientId: piece.clientId,
    thing: 'piece',
    thingId: piece.id,
    verb: what.verb,
    actor: viewer.name,
    detail: { channel: channel?.name, ...what.detail, ...(changed.length > 1 ? { others: changed.length - 1 } : {}) },
    at: now,
  });
  const [state] = await replan(tx, [piece.id], now);
  if (!state) throw new Error('the piece was not planned');
  await tellAimMoved(app, tx, viewer, piece, aimBefore);
  const titles = new Map((await stepsOf(tx, piece.id)).map((step) => [step.id, step.title]));
  const late = state.plan?.steps.filter((step) => step.slackDays !== null && step.slackDays < 0) ?? [];
  return { placementId: first.id, state, lateSteps: late.map((step) => titles.get(step.id) ?? ''), others: changed.length - 1, aimBefore };
}

/** An undated placement on each channel of a new piece. */
export const placeUndated = (
  tx: Tx,
  { id, clientId, channelIds }: { readonly id: string; readonly clientId: string; readonly channelIds: readonly string[] },
  now: InstantText,
): Promise<void> =>
  tx.query(
    `insert into placements (piece_id, client_id, channel_id, zone, created_at, updated_at)
     select $1, $2, h.id, c.zone, $4, $4 from channels h join clients c on c.id = h.client_id where h.id = any($3)`,
    [id, clientId, channelIds, now],
  );
