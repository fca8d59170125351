import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { RemarkReplyBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { tellManagers, untell } from '../../notices/index.js';
import { lockPiece } from '../../production/index.js';
import { RemarkReply } from '../entities/remark-reply.entity.js';
import { Remark } from '../entities/remark.entity.js';
import { checkMentions, mayWriteTo, noticeKey, tellMentioned, type WriteFailure } from './mentions.js';

type ReplyFailure = WriteFailure | { code: 'note.removed' | 'remark.of_team' };

/** Says something to a remark. What the client reads can only be said to what the client reads. */
export function replyToRemark(app: App, viewer: Viewer, remarkId: string, body: RemarkReplyBody): Promise<Result<string, ReplyFailure>> {
  return app.write<string, ReplyFailure>(async (tx, now) => {
    if (!mayWriteTo(viewer, body.audience)) return fail({ code: 'remark.for_client_by_managers' });
    const { remark, piece } = await lockRemark(tx, remarkId);
    if (remark.removedAt !== null) return fail({ code: 'note.removed' });
    if (body.audience === 'client' && remark.audience === 'team') return fail({ code: 'remark.of_team' });
    const mentions = await checkMentions(tx, piece.id, body.mentionIds);
    if (!mentions.ok) return mentions;
    const { audience, mentionIds } = body;
    const text = body.text.trim();
    const reply = await tx.save(
      tx.create(RemarkReply, { remarkId, authorId: viewer.personId, audience, text, mentionIds, createdAt: now }),
    );
    await recordReply(tx, remark, 'remark.replied', viewer.name, text, now);
    await tellMentioned(app, tx, viewer, { piece, text, mentionIds, key: reply.id });
    return ok(reply.id);
  });
}

/** A contact says something to what the agency wrote or to what was asked for before. Who manages the client hears of it. */
export function replyFromRoom(
  app: App,
  contact: { readonly id: string; readonly name: string },
  remarkId: string,
  words: string,
): Promise<Result<string, { code: 'access.not_found' }>> {
  return app.write<string, { code: 'access.not_found' }>(async (tx, now) => {
    const { remark, piece } = await lockRemark(tx, remarkId);
    if (remark.removedAt !== null || remark.audience !== 'client') return fail({ code: 'access.not_found' });
    const text = words.trim();
    const reply = await tx.save(tx.create(RemarkReply, { remarkId, contactId: contact.id, audience: 'client', text, createdAt: now }));
    await recordReply(tx, remark, 'remark.replied', contact.name, text, now);
    await tellManagers(app, tx, {
      clientId: piece.clientId,
      pieceId: piece.id,
      heading: `${contact.name} on “${piece.title}”`,
      text: `${contact.name} answers: “${text}”`,
      path: `/pieces/${piece.id}/remarks`,
      key: noticeKey(reply.id),
    });
    return ok(reply.id);
  });
}

/** Takes back a remark of the team: one's own, or as a manager anybody's. A contact's word stays. Its text stays in the record. */
export function removeRemark(app: App, viewer: Viewer, remarkId: string): Promise<Result<null, { code: 'note.of_another' }>> {
  return app.write<null, { code: 'note.of_another' }>(async (tx, now) => {
    const { remark } = await lockRemark(tx, remarkId);
    if (!mayRemove(viewer, remark)) return fail({ code: 'note.of_another' });
    if (remark.removedAt !== null) return ok(null);
    await tx.update(Remark, remarkId, { removedAt: now });
    const replies = await rowsOf<{ id: string }>(tx, 'select id from remark_replies where remark_id = $1', [remarkId]);
    for (const { id } of [remark, ...replies]) await untell(tx, noticeKey(id));
    await recordReply(tx, remark, 'remark.removed', viewer.name, remark.text, now);
    return ok(null);
  });
}

/** Takes back a reply of the team, in the same way. */
export function removeReply(app: App, viewer: Viewer, replyId: string): Promise<Result<null, { code: 'note.of_another' }>> {
  return app.write<null, { code: 'note.of_another' }>(async (tx, now) => {
    const { remarkId } = await tx.findOneByOrFail(RemarkReply, { id: replyId });
    const { remark } = await lockRemark(tx, remarkId);
    const reply = await tx.findOneByOrFail(RemarkReply, { id: replyId });
    if (!mayRemove(viewer, reply)) return fail({ code: 'note.of_another' });
    if (reply.removedAt !== null) return ok(null);
    await tx.update(RemarkReply, replyId, { removedAt: now });
    await untell(tx, noticeKey(replyId));
    await recordReply(tx, remark, 'remark.removed', viewer.name, reply.text, now);
    return ok(null);
  });
}

const mayRemove = (viewer: Viewer, { authorId }: { readonly authorId: string | null }): boolean =>
  authorId !== null && (authorId === viewer.personId || mayWriteTo(viewer, 'client'));

/** A remark, read once its piece is locked: whatever is said on a piece is said in turn. */
export async function lockRemark(tx: Tx, remarkId: string) {
  const { pieceId } = await tx.findOneByOrFail(Remark, { id: remarkId });
  const piece = await lockPiece(tx, pieceId);
  return { piece, remark: await tx.findOneByOrFail(Remark, { id: remarkId }) };
}

const recordReply = (tx: Tx, remark: Remark, verb: string, actor: string, text: string, at: InstantText): Promise<void> =>
  recordActivity(tx, { clientId: remark.clientId, thing: 'piece', thingId: remark.pieceId, verb, actor, detail: { remark: text }, at });
