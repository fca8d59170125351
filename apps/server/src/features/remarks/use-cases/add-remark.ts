import { fail, ok, type InstantText, type Place, type Result } from '@zesting/core';
import type { RemarkBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { type Tx } from '../../../platform/database/transaction.js';
import { lockPiece } from '../../production/index.js';
import { Remark } from '../entities/remark.entity.js';
import { lookUpPlaces, type PlaceFailure } from '../look-up-place.js';
import { checkMentions, mayWriteTo, tellMentioned, type WriteFailure } from './mentions.js';

/** One thing that a contact wants changed, at a place in the version or about the whole. */
export interface Thing {
  readonly text: string;
  readonly place: Place | null;
}

/** Where and when a contact asked for it. */
export interface AskedIn {
  readonly clientId: string;
  readonly pieceId: string;
  readonly packetId: string;
  readonly contactId: string;
  readonly round: number;
}

/** Carries what a contact wants changed over as to-dos, in their order. */
export async function addRemarks(tx: Tx, asked: AskedIn, things: readonly Thing[], now: InstantText): Promise<void> {
  for (const [position, { text, place }] of things.entries())
    await tx.insert(Remark, { ...asked, position, text, place, audience: 'client', createdAt: now });
}

/** Something that one of the team says about the working copy. Who is mentioned hears of it in their round-up. */
export function addRemark(
  app: App,
  viewer: Viewer,
  pieceId: string,
  body: RemarkBody,
): Promise<Result<string, WriteFailure | PlaceFailure>> {
  return app.write<string, WriteFailure | PlaceFailure>(async (tx, now) => {
    if (!mayWriteTo(viewer, body.audience)) return fail({ code: 'remark.for_client_by_managers' });
    const piece = await lockPiece(tx, pieceId);
    const mentions = await checkMentions(tx, pieceId, body.mentionIds);
    if (!mentions.ok) return mentions;
    const places = await lookUpPlaces(tx, piece.content, [body.place ?? null]);
    if (!places.ok) return places;
    const remark = await tx.save(
      tx.create(Remark, {
        clientId: piece.clientId,
        pieceId,
        authorId: viewer.personId,
        audience: body.audience,
        round: piece.round,
        position: 0,
        text: body.text.trim(),
        place: places.value[0] ?? null,
        mentionIds: body.mentionIds,
        state: 'open',
        createdAt: now,
      }),
    );
    await recordActivity(tx, {
      clientId: piece.clientId,
      thing: 'piece',
      thingId: pieceId,
      verb: 'remark.made',
      actor: viewer.name,
      detail: { remark: remark.text },
      at: now,
    });
    await tellMentioned(app, tx, viewer, { piece, text: remark.text, mentionIds: body.mentionIds, key: remark.id });
    return ok(remark.id);
  });
}
