import { fail, isOpenRequest, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { linkRequest } from '../../production/index.js';
import { Request } from '../entities/request.entity.js';
import { decide, lockRequest, lockRequests, mergedInto } from './decide-request.js';
import { tellRequester } from './tell-requester.js';
import { ANSWERS_FOR, WITH_CLIENT } from './sort-request.js';

type JoinFailure = { code: 'request.already_decided' | 'request.unknown' | 'piece.unknown' };

/**
 * Makes a request part of another of the same client: both briefs stay, what comes of the other answers this one too, and its requester hears.
 */
export function mergeRequest(app: App, viewer: Viewer, requestId: string, intoId: string): Promise<Result<null, JoinFailure>> {
  return app.write<null, JoinFailure>(async (tx, now) => {
    const locked = await lockRequests(tx, [requestId, intoId]);
    const [request, into] = [locked.get(requestId), locked.get(intoId)];
    if (!request || !into || requestId === intoId || into.clientId !== request.clientId) return fail({ code: 'request.unknown' });
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    if (!isOpenRequest(into.state) && into.state !== 'accepted') return fail({ code: 'request.unknown' });
    // what was merged into it before goes with it
    const all = [request, ...(await mergedInto(tx, requestId))];
    request.mergedInto = intoId;
    await decide(tx, request, 'merged', now);
    await tx.update(Request, { mergedInto: requestId }, { mergedInto: intoId });
    const pieces = await rowsOf<{ piece_id: string }>(tx, 'select piece_id from piece_requests where request_id = $1', [intoId]);
    for (const { piece_id: pieceId } of pieces) for (const one of all) await linkRequest(tx, pieceId, one.id);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.merged',
      actor: viewer.name,
      detail: { into: into.number, title: into.title },
      at: now,
    });
    await tellRequester(app, tx, request, (words, title) => words.merged(title));
    return ok(null);
  });
}

/** Accepts a request by putting it to a piece of the same client that is there already. */
export function attachRequest(app: App, viewer: Viewer, requestId: string, pieceId: string): Promise<Result<null, JoinFailure>> {
  return app.write<null, JoinFailure>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    if (!isOpenRequest(request.state)) return fail({ code: 'request.already_decided' });
    const [piece] = await rowsOf<{ title: string }>(
      tx,
      "select title from pieces where id = $1 and client_id = $2 and stage <> 'shelved' for share",
      [pieceId, request.clientId],
    );
    if (!piece) return fail({ code: 'piece.unknown' });
    const all = [request, ...(await mergedInto(tx, requestId))];
    for (const one of all) await linkRequest(tx, pieceId, one.id);
    await decide(tx, request, 'accepted', now);
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.attached',
      actor: viewer.name,
      detail: { pieceId, title: piece.title },
      at: now,
    });
    for (const one of all) await tellRequester(app, tx, one, (words, title) => words.joined(title));
    return ok(null);
  });
}

/** Says who answers for a request. */
export function setOwner(app: App, viewer: Viewer, requestId: string, ownerId: string): Promise<Result<null, { code: 'person.unknown' }>> {
  return app.write<null, { code: 'person.unknown' }>(async (tx, now) => {
    const request = await lockRequest(tx, requestId);
    const [person] = await rowsOf<{ name: string }>(tx, `select p.name from ${WITH_CLIENT} where p.id = $2 and ${ANSWERS_FOR}`, [
      request.clientId,
      ownerId,
    ]);
    if (!person) return fail({ code: 'person.unknown' });
    if (request.ownerId === ownerId) return ok(null);
    await tx.update(Request, { id: requestId }, { ownerId, version: request.version + 1 });
    await recordActivity(tx, {
      clientId: request.clientId,
      thing: 'request',
      thingId: requestId,
      verb: 'request.owner_set',
      actor: viewer.name,
      detail: { owner: person.name },
      at: now,
    });
    return ok(null);
  });
}
