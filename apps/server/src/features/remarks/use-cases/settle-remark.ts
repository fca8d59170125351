import { fail, ok, type Result } from '@zesting/core';
import type { SettleRemarkBody } from '@zesting/contract';
import { IsNull, Not } from 'typeorm';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { type Tx } from '../../../platform/database/transaction.js';
import { Remark } from '../entities/remark.entity.js';
import { lockRemark } from './reply.js';

type Failure = { code: 'remark.answer_missing' | 'note.removed' };

/** Ticks a remark off, answers it, or opens it again. The contact reads answers with the next version. */
export function settleRemark(app: App, viewer: Viewer, remarkId: string, body: SettleRemarkBody): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    const answer = body.answer?.trim() ?? '';
    if (body.state === 'answered' && answer === '') return fail({ code: 'remark.answer_missing' });
    const { remark } = await lockRemark(tx, remarkId);
    if (remark.removedAt !== null) return fail({ code: 'note.removed' });
    const isOpen = body.state === 'open';
    await tx.update(Remark, remarkId, {
      state: body.state,
      answer: body.state === 'answered' ? answer : '',
      settledBy: isOpen ? null : viewer.name,
      settledAt: isOpen ? null : now,
    });
    await recordActivity(tx, {
      clientId: remark.clientId,
      thing: 'piece',
      thingId: remark.pieceId,
      verb: `remark.${body.state}`,
      actor: viewer.name,
      detail: { remark: remark.text, state: { from: remark.state, to: body.state }, ...(answer ? { answer } : {}) },
      at: now,
    });
    return ok(null);
  });
}

/** How many of the client's remarks on a piece are neither settled nor answered. */
export function openRemarks(tx: Tx, pieceId: string): Promise<number> {
  return tx.countBy(Remark, { pieceId, state: 'open', contactId: Not(IsNull()) });
}
