import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { SettleRemarkBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { type Tx } from '../../../platform/database/transaction.js';
import { lockPiece } from '../../production/index.js';
import type { Packet, PacketItem } from '../entities/packet.entity.js';
import { Remark } from '../entities/remark.entity.js';

/** The things asked for in a remark: a line each. */
export const thingsIn = (remark: string): string[] => remark.split('\n').flatMap((line) => line.trim() || []);

/** Carries a remark over as a to-do: one thing per line. */
export async function addRemarks(
  tx: Tx,
  packet: Packet,
  item: PacketItem,
  { contactId, remark }: { readonly contactId: string; readonly remark: string },
  now: InstantText,
): Promise<void> {
  for (const [position, text] of thingsIn(remark).entries())
    await tx.insert(Remark, {
      clientId: packet.clientId,
      pieceId: item.pieceId,
      packetId: packet.id,
      contactId,
      round: item.round,
      position,
      text,
      createdAt: now,
    });
}

type Failure = { code: 'remark.answer_missing' };

/** Ticks a remark off, answers it, or opens it again. The contact reads answers with the next version. */
export function settleRemark(app: App, viewer: Viewer, remarkId: string, body: SettleRemarkBody): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    const answer = body.answer?.trim() ?? '';
    if (body.state === 'answered' && answer === '') return fail({ code: 'remark.answer_missing' });
    const before = await tx.findOneByOrFail(Remark, { id: remarkId });
    await lockPiece(tx, before.pieceId);
    const row = await tx.findOneByOrFail(Remark, { id: remarkId });
    const isOpen = body.state === 'open';
    await tx.update(Remark, remarkId, {
      state: body.state,
      answer: body.state === 'answered' ? answer : '',
      settledBy: isOpen ? null : viewer.name,
      settledAt: isOpen ? null : now,
    });
    await recordActivity(tx, {
      clientId: before.clientId,
      thing: 'piece',
      thingId: before.pieceId,
      verb: `remark.${body.state}`,
      actor: viewer.name,
      detail: { remark: before.text, state: { from: row.state, to: body.state }, ...(answer ? { answer } : {}) },
      at: now,
    });
    return ok(null);
  });
}

/** How many remarks on a piece are neither settled nor answered. */
export function openRemarks(tx: Tx, pieceId: string): Promise<number> {
  return tx.countBy(Remark, { pieceId, state: 'open' });
}
