import { fail, isOpenRequest, ok, type InstantText, type Result } from '@zesting/core';
import type { AcceptRequestBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Tx } from '../../../platform/database/transaction.js';
import { Outlooks } from '../../planning/index.js';
import { createPiece, giveFirst, linkRequest, putAway, unlinkMerged } from '../../production/index.js';
import { Request } from '../entities/request.entity.js';
import { IsNull } from 'typeorm';
import { tellRequester } from './tell-requester.js';

type Decided = { code: 'request.already_decided' };
type AcceptFailure =
  | Decided
  | { code: 'route.unknown' }
  | { code: 'channel.unknown' }
  | { code: 'pillar.unknown' | 'piece.unknown' }
  | { code: 'step.not_optional' };

/** A request under lock; a missing one is a bug, since access was checked. */
export const lockRequest = (tx: Tx, id: string): Promise<Request> =>
  tx.findOneOrFail(Request, { where: { id }, lock: { mode: 'pessimistic_write' } });

/** Several requests under lock, by id, in the order of their ids: who else locks some of them waits for none that waits for theirs. */
export async function lockRequests(tx: Tx, ids: readonly string[]): Promise<Map<string, Request>> {
  const locked = new Map<string, Request>();
  for (const id of [...new Set(ids)].sort()) {
    const request = await tx.findOne(Request, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (request) locked.set(id, request);
  }
  return locked;
}

/** The requests that were merged into one: what is decided about it is told to their requesters too. The one must be locked. */
export const mergedInto = (tx: Tx, requestId: string): Promise<Request[]> =>
  tx.find(Request, { where: { mergedInto: requestId }, order: { id: 'ASC' } });

/** Writes what was decided about a request. */
export async function decide(
  tx: Tx,
  request: Request,
  state: 'accepted' | 'declined' | 'idea' | 'merged',
  now: InstantText,
): Promise<void> {
  request.state = state;
  request.decidedAt = now;
  request.readAt ??= now;
  request.version += 1;
  await tx.save(request);
}

/** Marks a request as read, the first time somebody opens it. */
export function markRead(app: App, requestId: string): Promise<Result<null>> {
  return app.write(async (tx, now) => {
    await tx.update(Request, { id: requestId, readAt: IsNull() }, { readAt: now });
    return ok(null);
  });
}

/**
 * Accepts a request: it becomes a piece with a planned path, or several at once, each with the whole brief. The requester hears by mail. One that is
 * accepted already becomes further pieces, unheard.
 * @returns the ids of the pieces, in the order asked for
 */
export async function acceptRequest(
  app: App,
  viewer: Viewer,
  requestId: string,
  body: AcceptRequestBody,
): Promise<Result<string[], AcceptFailure>> {
  const all = [body, ...(body.also ?? [])];
  const outlooks = all.some((wanted) => wanted.giveFirst) ? await Outlooks.load(app) : null;
  return app.write<string[], AcceptFailure>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    const isFurther = request.state === 'accepted' && body.further === true;
    if (!isOpenRequest(request.state) && !isFurther) return fail({ code: 'request.already_decided' });
    const pieceIds: string[] = [];
    for (const wanted of all) {
      const piece = await createPiece(
        tx,
        {
          clientId: request.clientId,
          requestId,
          routeId: wanted.routeId,
          pillarId: wanted.pillarId ?? null,
          purpose: wanted.purpose ?? null,
          title: wanted.title,
          notes: wanted.notes ?? '',
          wishOn: wanted.wishOn ?? null,
          channelIds: wanted.channelIds,
          leaveOut: wanted.leaveOut ?? [],
          actor: viewer.name,
        },
        now,
      );
      if (!piece.ok) return piece;
      pieceIds.push(piece.value);
      if (outlooks && wanted.giveFirst) await giveFirst(app, tx, viewer, { id: piece.value, clientId: request.clientId }, outlooks, now);
    }
    if (!isFurther) await decide(tx, request, 'accepted', now);
    // what was merged into it is answered by the same pieces
    const merged = await mergedInto(tx, requestId);
    for (const other of merged) for (const pieceId of pieceIds) await linkRequest(tx, pieceId, other.id);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: isFurther ? 'request.further_piece' : 'request.accepted',
      actor: viewer.name,
      detail: { pieceId: pieceIds[0], pieces: pieceIds.length },
      at: now,
    });
    if (!isFurther) for (const one of [request, ...merged]) await tellRequester(app, tx, one, (words, title) => words.accepted(title));
    return ok(pieceIds);
  });
}

/** Declines a request with a reason. The requester hears it by mail, and who asked for the same. */
export function declineRequest(app: App, viewer: Viewer, requestId: string, reason: string): Promise<Result<null, Decided>> {
  return app.write<null, Decided>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    request.declineReason = reason;
    await decide(tx, request, 'declined', now);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.declined',
      actor: viewer.name,
      detail: { reason },
      at: now,
    });
    for (const one of [request, ...(await mergedInto(tx, requestId))])
      await tellRequester(app, tx, one, (words, title) => words.declined(title, reason));
    return ok(null);
  });
}

/** Keeps a request on the idea list, for later. The requester hears it by mail, and who asked for the same. */
export function keepAsIdea(app: App, viewer: Viewer, requestId: string, note: string): Promise<Result<null, Decided>> {
  return app.write<null, Decided>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    await decide(tx, request, 'idea', now);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.kept',
      actor: viewer.name,
      detail: note === '' ? {} : { note },
      at: now,
    });
    for (const one of [request, ...(await mergedInto(tx, requestId))])
      await tellRequester(app, tx, one, (words, title) => words.kept(title, note));
    return ok(null);
  });
}

type ReopenFailure = { code: 'request.not_declined' } | { code: 'request.already_begun'; detail: { title: string } };

/**
 * Takes up again what was declined, kept as an idea, merged, or accepted while nothing was made of it: what was begun for it goes on the shelf. The
 * requester hears it by mail.
 */
export function reopenRequest(app: App, viewer: Viewer, requestId: string): Promise<Result<null, ReopenFailure>> {
  return app.write<null, ReopenFailure>(async (tx, now) => {
    const known = await tx.findOneByOrFail(Request, { id: requestId });
    // first the one it was merged into, as whoever decides about that does: what is being made of it does not come back to this one
    if (known.mergedInto !== null) await lockRequest(tx, known.mergedInto);
    const request = await lockRequest(tx, requestId);
    if (isOpenRequest(request.state) || request.state === 'withdrawn') return fail({ code: 'request.not_declined' });
    if (request.mergedInto !== known.mergedInto) return fail({ code: 'request.not_declined' });
    const detail = { state: { from: request.state, to: 'new' }, reason: { from: request.declineReason, to: null } };
    if (request.mergedInto !== null) await unlinkMerged(tx, requestId, request.mergedInto);
    const merged = await mergedInto(tx, requestId);
    if (request.state === 'accepted') {
      const also = merged.map(({ id }) => id);
      const begun = await putAway(tx, requestId, also, viewer.name, now);
      if (begun) return fail({ code: 'request.already_begun', detail: { title: begun.title } });
    }
    Object.assign(request, { state: 'new', declineReason: null, mergedInto: null, decidedAt: null, version: request.version + 1 });
    await tx.save(request);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.reopened',
      actor: viewer.name,
      detail,
      at: now,
    });
    for (const one of [request, ...merged]) await tellRequester(app, tx, one, (words, title) => words.reopened(title));
    return ok(null);
  });
}
