import {
  addDays,
  compareInstants,
  daysBetween,
  EMPTY_CHANNEL_PART,
  fail,
  getDay,
  getTimeOfDay,
  ok,
  toInstant,
  type InstantText,
  type Result,
} from '@zesting/core';
import type { DuplicateBody, MarkOutBody, MovePlacementBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import { Event } from '../../../platform/events.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replan } from '../../planning/index.js';
import { freezeVersion, lockPiece, setContent, type Piece } from '../../production/index.js';
import { Placement } from '../entities/placement.entity.js';
import {
  fixed,
  lockPlacement,
  lockPlacements,
  saveAndReplan,
  setDate,
  usualTime,
  type DateFailure,
  type Fixed,
  type Moved,
} from './placement-store.js';
import { In } from 'typeorm';

export type { Moved } from './placement-store.js';

type Exists = { code: 'placement.exists' };
export type MoveFailure = Fixed | DateFailure | Exists | { code: 'http.changed_meanwhile' };

/**
 * Gives a placement a date, another one, or none. Its siblings stay, unless *all not yet out* are asked to move by as many days:
 * then all do or none does. The piece's path is planned anew.
 */
export const movePlacement = (
  app: App,
  viewer: Viewer,
  placementId: string,
  body: MovePlacementBody,
  version: number,
): Promise<Result<Moved, MoveFailure>> =>
  app.write<Moved, MoveFailure>((tx, now) => putPlacement(app, tx, viewer, placementId, body, version, now));

/** The same in the caller's transaction. @param version null: whatever it is now */
export async function putPlacement(
  app: App,
  tx: Tx,
  viewer: Viewer,
  placementId: string,
  body: MovePlacementBody,
  version: number | null,
  now: InstantText,
): Promise<Result<Moved, MoveFailure>> {
  const locked = await lockPlacement(tx, placementId);
  const { placement, piece, aimBefore } = locked;
  const refused = fixed(locked);
  if (refused) return fail(refused);
  if (version !== null && placement.version !== version) return fail({ code: 'http.changed_meanwhile' });
  const from = { on: placement.onDay, at: placement.atTime };
  const on = body.on ?? null;
  const at = on === null ? null : (body.at ?? placement.atTime ?? (await usualTime(tx, placement.channelId)));
  const put = setDate(placement, on, at, now);
  if (!put.ok) return put;
  const byDays = body.scope === 'all' && from.on !== null && on !== null ? daysBetween(getDay(from.on), getDay(on)) : 0;
  const siblings = byDays === 0 ? [] : await datedSiblings(tx, placement);
  for (const sibling of siblings) {
    const moved = setDate(sibling, addDays(getDay(sibling.onDay ?? ''), byDays), sibling.atTime, now);
    if (!moved.ok) return moved;
  }
  if (await momentTaken(tx, [placement, ...siblings])) return fail({ code: 'placement.exists' });
  if (siblings.length > 0) await makeRoom(tx, [placement, ...siblings]);
  const detail = { from, to: { on: placement.onDay, at: placement.atTime } };
  return ok(await saveAndReplan(app, tx, viewer, piece, aimBefore, [placement, ...siblings], { verb: 'placement.moved', detail }, now));
}

/** The other placements of the same piece that are dated, not yet out, and not on their way. The piece is locked. */
async function datedSiblings(tx: Tx, placement: Placement): Promise<Placement[]> {
  const all = await tx.findBy(Placement, { pieceId: placement.pieceId });
  const others = all.filter(({ id, cancelled, outAt, onDay }) => id !== placement.id && !cancelled && outAt === null && onDay !== null);
  const locked = await lockPlacements(
    tx,
    others.map(({ id }) => id),
  );
  return locked.filter((one) => fixed(one) === null).map((one) => one.placement);
}

/** Whether one of these would go out at the very moment at which the same piece goes out on the same channel already. */
async function momentTaken(tx: Tx, placements: readonly Placement[]): Promise<boolean> {
  const ids = placements.flatMap((placement) => placement.id ?? []); // a new one has none yet
  for (const { pieceId, channelId, publishAt } of placements) {
    const rows = await rowsOf(
      tx,
      'select 1 from placements where piece_id = $1 and channel_id = $2 and publish_at = $3 and not cancelled and id <> all($4)',
      [pieceId, channelId, publishAt, ids],
    );
    if (rows.length > 0) return true;
  }
  return false;
}

/** Takes the dates of placements that are about to change among themselves, so that none meets another on the way. */
const makeRoom = (tx: Tx, placements: readonly Placement[]): Promise<unknown> =>
  tx.update(Placement, { id: In(placements.map(({ id }) => id)) }, { onDay: null, atTime: null, publishAt: null });

type SwapFailure = Fixed | DateFailure | Exists | { code: 'placement.other_client' | 'placement.undated' };

/** Swaps date and time of two placements of one client; both pieces are planned anew. Swapping again undoes it. */
export function swapPlacements(app: App, viewer: Viewer, placementId: string, withId: string): Promise<Result<Moved, SwapFailure>> {
  return app.write<Moved, SwapFailure>(async (tx, now) => {
    if (placementId === withId) return fail({ code: 'placement.exists' });
    const [one, two] = await lockPlacements(tx, [placementId, withId]);
    if (!one || !two) throw new Error('a placement went away');
    if (one.placement.clientId !== two.placement.clientId) return fail({ code: 'placement.other_client' });
    const refused = fixed(one) ?? fixed(two);
    if (refused) return fail(refused);
    if (one.placement.onDay === null && two.placement.onDay === null) return fail({ code: 'placement.undated' });
    const dates = [one, two].map(({ placement }) => ({ on: placement.onDay, at: placement.atTime })) as [Dated, Dated]; // two of them
    const first = setDate(one.placement, dates[1].on, dates[1].at, now);
    if (!first.ok) return first;
    const second = setDate(two.placement, dates[0].on, dates[0].at, now);
    if (!second.ok) return second;
    if (await momentTaken(tx, [one.placement, two.placement])) return fail({ code: 'placement.exists' });
    await makeRoom(tx, [one.placement, two.placement]);
    const what = (from: Dated, to: Dated, other: Piece) => ({ verb: 'placement.swapped', detail: { from, to, with: other.title } });
    // two placements of one piece are one change of its plan
    if (one.piece.id === two.piece.id)
      return ok(
        await saveAndReplan(app, tx, viewer, one.piece, one.aimBefore, [one.placement, two.placement], what(...dates, two.piece), now),
      );
    const moved = await saveAndReplan(app, tx, viewer, one.piece, one.aimBefore, [one.placement], what(...dates, two.piece), now);
    await saveAndReplan(app, tx, viewer, two.piece, two.aimBefore, [two.placement], what(dates[1], dates[0], one.piece), now);
    return ok(moved);
  });
}

interface Dated {
  readonly on: string | null;
  readonly at: string | null;
}

export type OutTimeFailure = { code: 'time.in_gap' | 'placement.out_ahead' };

/**
 * The instant at which something really went out, by the client's clock; without a day and a time the one that is known. A day alone means
 * the time that was meant, a time alone the day.
 */
export function wentAt(
  { on, at }: MarkOutBody,
  placement: Placement,
  known: InstantText,
  now: InstantText,
): Result<InstantText, OutTimeFailure> {
  const [day, time] = [on ?? placement.onDay, at ?? placement.atTime];
  if ((!on && !at) || day === null || time === null) return ok(known);
  const instant = toInstant(getDay(day), getTimeOfDay(time.slice(0, 5)), placement.zone);
  if (!instant.ok) return instant;
  return compareInstants(instant.value, now) > 0 ? fail({ code: 'placement.out_ahead' }) : instant;
}

type OutFailure = Fixed | OutTimeFailure | { code: 'placement.undated' | 'placement.not_signed_off' };

/**
 * Marks a placement as out by hand, with the address where it can be seen if there is one, and the time at which it really went if that is
 * not now. What is out keeps its version for good.
 */
export function markOut(app: App, viewer: Viewer, placementId: string, body: MarkOutBody): Promise<Result<Moved, OutFailure>> {
  const address = body.address ?? null;
  return app.write<Moved, OutFailure>(async (tx, now) => {
    const locked = await lockPlacement(tx, placementId);
    const { placement, piece, aimBefore } = locked;
    const refused = fixed(locked);
    if (refused) return fail(refused);
    if (placement.onDay === null) return fail({ code: 'placement.undated' });
    const went = wentAt(body, placement, now, now);
    if (!went.ok) return went;
    const [state] = await replan(tx, [placement.pieceId], now);
    const signed = state?.signOff.shared === 'signed' && state.signOff.channels[placement.channelId] === 'signed';
    if (!signed) return fail({ code: 'placement.not_signed_off' });
    const sent = await freezeVersion(tx, piece, viewer.personId, now);
    const outDigests = [sent.digests.shared, sent.digests.channels[placement.channelId] ?? ''];
    Object.assign(placement, { outAt: went.value, outAddress: address, outVersionId: sent.id, outDigests });
    const moved = await saveAndReplan(app, tx, viewer, piece, aimBefore, [placement], { verb: 'placement.out', detail: { address } }, now);
    await tellOut(placement, tx, now);
    return ok(moved);
  });
}

/** A placement went out: it is, and stays so. */
export interface WentOutEvent {
  readonly placementId: string;
  readonly clientId: string;
  readonly channelId: string;
  /** of the client */
  readonly zone: string;
  readonly outAt: InstantText;
}
export const wentOut = new Event<WentOutEvent>();

const tellOut = ({ id: placementId, clientId, channelId, zone, outAt }: Placement, tx: Tx, now: InstantText): Promise<void> =>
  wentOut.tell(tx, { placementId, clientId, channelId, zone, outAt: outAt ?? now }, now);

/** What really went out, and where it is. */
export interface WentOut {
  readonly versionId: string;
  /** of the shared part and of the channel's */
  readonly digests: readonly string[];
  readonly at: InstantText;
  readonly address: string | null;
  /** what the record says of it */
  readonly detail: Readonly<Record<string, unknown>>;
}

/** Writes down that a placement is out: what its channel says, or somebody who looked. In the transaction of whoever knows, which holds the piece. */
export async function putOut(
  app: App,
  tx: Tx,
  viewer: Pick<Viewer, 'personId' | 'name'>,
  placementId: string,
  { versionId, digests, at, address, detail }: WentOut,
  now: InstantText,
): Promise<void> {
  const { placement, piece, aimBefore } = await lockPlacement(tx, placementId);
  Object.assign(placement, { outAt: at, outAddress: address, outVersionId: versionId, outDigests: [...digests] });
  await saveAndReplan(app, tx, viewer, piece, aimBefore, [placement], { verb: 'placement.out', detail: { address, ...detail } }, now);
  await tellOut(placement, tx, now);
}

type CorrectFailure = OutTimeFailure | { code: 'placement.not_out' | 'http.changed_meanwhile' };

/**
 * Corrects where what went out can be seen (null: nowhere that is known), and when it went if a day and a time are given. Nothing else of what
 * is out can be changed; the record keeps what was said before.
 */
export function correctOut(
  app: App,
  viewer: Viewer,
  placementId: string,
  body: MarkOutBody,
  version: number,
): Promise<Result<null, CorrectFailure>> {
  const address = body.address ?? null;
  return app.write<null, CorrectFailure>(async (tx, now) => {
    const { placement } = await lockPlacement(tx, placementId);
    if (placement.outAt === null) return fail({ code: 'placement.not_out' });
    if (placement.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const [channel] = await rowsOf<{ name: string }>(tx, 'select name from channels where id = $1', [placement.channelId]);
    const went = wentAt(body, placement, placement.outAt, now);
    if (!went.ok) return went;
    const isAnotherTime = compareInstants(went.value, placement.outAt) !== 0;
    const detail = {
      channel: channel?.name,
      ...(address === placement.outAddress ? {} : { address: { from: placement.outAddress, to: address } }),
      ...(isAnotherTime ? { outAt: { from: placement.outAt, to: went.value } } : {}),
    };
    Object.assign(placement, { outAddress: address, outAt: went.value, version: version + 1, updatedAt: now });
    await tx.save(placement);
    await recordActivity(tx, {
      clientId: placement.clientId,
      thing: 'piece',
      thingId: placement.pieceId,
      verb: isAnotherTime ? 'placement.out_corrected' : 'placement.address_corrected',
      actor: viewer.name,
      detail,
      at: now,
    });
    return ok(null);
  });
}

/** Cancels a placement: it keeps its row and leaves the calendar. */
export function cancelPlacement(app: App, viewer: Viewer, placementId: string): Promise<Result<Moved, Fixed>> {
  return app.write<Moved, Fixed>(async (tx, now) => {
    const locked = await lockPlacement(tx, placementId);
    const { placement, piece, aimBefore } = locked;
    const refused = fixed(locked);
    if (refused) return fail(refused);
    placement.cancelled = true;
    return ok(await saveAndReplan(app, tx, viewer, piece, aimBefore, [placement], { verb: 'placement.cancelled', detail: {} }, now));
  });
}

/** Brings a cancelled placement back as it was; one whose time has passed comes back as missed. */
export function restorePlacement(app: App, viewer: Viewer, placementId: string): Promise<Result<Moved, Exists>> {
  return app.write<Moved, Exists>(async (tx, now) => {
    const { placement, piece, aimBefore } = await lockPlacement(tx, placementId);
    if (await momentTaken(tx, [placement])) return fail({ code: 'placement.exists' });
    placement.cancelled = false;
    return ok(await saveAndReplan(app, tx, viewer, piece, aimBefore, [placement], { verb: 'placement.restored', detail: {} }, now));
  });
}

interface NewPlacement {
  readonly piece: Piece;
  readonly channel: { readonly id: string; readonly name: string; readonly zone: string };
}

/** The channel of the piece's client with that id; its part is added to the content where the piece was not on it yet. */
async function channelFor(tx: Tx, piece: Piece, channelId: string): Promise<NewPlacement['channel'] | undefined> {
  const [channel] = await rowsOf<NewPlacement['channel']>(
    tx,
    'select h.id, h.name, c.zone from channels h join clients c on c.id = h.client_id where h.id = $1 and h.client_id = $2 and h.archived_at is null',
    [channelId, piece.clientId],
  );
  if (channel && !(channelId in piece.content.channels)) {
    setContent(piece, { ...piece.content, channels: { ...piece.content.channels, [channelId]: EMPTY_CHANNEL_PART } });
    await tx.save(piece);
  }
  return channel;
}

const makePlacement = (tx: Tx, { piece, channel }: NewPlacement, now: InstantText): Placement =>
  tx.create(Placement, {
    pieceId: piece.id,
    clientId: piece.clientId,
    channelId: channel.id,
    onDay: null,
    atTime: null,
    zone: channel.zone,
    publishAt: null,
    outAt: null,
    outAddress: null,
    outVersionId: null,
    outDigests: null,
    cancelled: false,
    version: 1,
    createdAt: now,
    updatedAt: now,
  });

/** Puts a piece on one more channel of its client, undated. The new channel part is empty: the shared copy goes out there. */
export function addPlacement(
  app: App,
  viewer: Viewer,
  pieceId: string,
  channelId: string,
): Promise<Result<string, { code: 'channel.unknown' } | Exists>> {
  return app.write<string, { code: 'channel.unknown' } | Exists>(async (tx, now) => {
    const piece = await lockPiece(tx, pieceId);
    const live = await rowsOf(tx, 'select 1 from placements where piece_id = $1 and channel_id = $2 and not cancelled', [
      pieceId,
      channelId,
    ]);
    if (live.length > 0) return fail({ code: 'placement.exists' });
    const channel = await channelFor(tx, piece, channelId);
    if (!channel) return fail({ code: 'channel.unknown' });
    const placement = await tx.save(makePlacement(tx, { piece, channel }, now));
    await recordActivity(tx, {
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

export type AgainFailure = DateFailure | Exists | { code: 'channel.unknown' };

/** Places the piece of a placement once more: on the same channel another day, or on another of the client's channels. */
export const duplicatePlacement = (
  app: App,
  viewer: Viewer,
  placementId: string,
  body: DuplicateBody,
): Promise<Result<Moved, AgainFailure>> => app.write<Moved, AgainFailure>((tx, now) => putAgain(app, tx, viewer, placementId, body, now));

/** The same in the caller's transaction. */
export async function putAgain(
  app: App,
  tx: Tx,
  viewer: Viewer,
  placementId: string,
  body: DuplicateBody,
  now: InstantText,
): Promise<Result<Moved, AgainFailure>> {
  const { piece, aimBefore } = await lockPlacement(tx, placementId);
  const channel = await channelFor(tx, piece, body.channelId);
  if (!channel) return fail({ code: 'channel.unknown' });
  const copy = makePlacement(tx, { piece, channel }, now);
  const put = setDate(copy, body.on, body.at ?? (await usualTime(tx, channel.id)), now);
  if (!put.ok) return put;
  if (await momentTaken(tx, [copy])) return fail({ code: 'placement.exists' });
  const saved = await tx.save(copy);
  const detail = { to: { on: copy.onDay, at: copy.atTime } };
  return ok(await saveAndReplan(app, tx, viewer, piece, aimBefore, [saved], { verb: 'placement.duplicated', detail }, now));
}
