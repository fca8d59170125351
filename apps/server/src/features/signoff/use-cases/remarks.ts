import { fail, ok, type InstantText, type Result } from '@zesting/core';
import type { SettleRemarkBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { record } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { lockPiece } from '../../production/index.js';
import type { Packet, PacketItem } from '../entities/packet.entity.js';

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
    await tx.query(
      `insert into remarks (client_id, piece_id, packet_id, contact_id, round, position, text, created_at) values ($1, $2, $3, $4, $5, $6, $7, $8)`,
      [packet.clientId, item.pieceId, packet.id, contactId, item.round, position, text, now],
    );
}

type Failure = { code: 'remark.answer_missing' };

/** Ticks a remark off, answers it, or opens it again. The contact reads answers with the next version. */
export function settleRemark(app: App, viewer: Viewer, remarkId: string, body: SettleRemarkBody): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    const answer = body.answer?.trim() ?? '';
    if (body.state === 'answered' && answer === '') return fail({ code: 'remark.answer_missing' });
    const [before] = await rowsOf<{ piece_id: string; client_id: string; text: string }>(
      tx,
      'select piece_id, client_id, text from remarks where id = $1',
      [remarkId],
    );
    if (!before) throw new Error('the remark went away');
    await lockPiece(tx, before.piece_id);
    const [row] = await rowsOf<{ state: string }>(tx, 'select state from remarks where id = $1', [remarkId]);
    const isOpen = body.state === 'open';
    await tx.query('update remarks set state = $2, answer = $3, settled_by = $4, settled_at = $5 where id = $1', [
      remarkId,
      body.state,
      body.state === 'answered' ? answer : '',
      isOpen ? null : viewer.name,
      isOpen ? null : now,
    ]);
    await record(tx, {
      clientId: before.client_id,
      thing: 'piece',
      thingId: before.piece_id,
      verb: `remark.${body.state}`,
      actor: viewer.name,
      detail: { remark: before.text, state: { from: row?.state, to: body.state }, ...(answer ? { answer } : {}) },
      at: now,
    });
    return ok(null);
  });
}

/** How many remarks on a piece are neither settled nor answered. */
export async function openRemarks(tx: Tx, pieceId: string): Promise<number> {
  const [row] = await rowsOf<{ count: number }>(tx, "select count(*) from remarks where piece_id = $1 and state = 'open'", [pieceId]);
  return row?.count ?? 0;
}
