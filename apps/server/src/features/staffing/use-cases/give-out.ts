import type { GiveOneBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { giveStep } from '../../production/index.js';

type Refused = { code: 'access.not_found' } | (Awaited<ReturnType<typeof giveStep>> & { ok: false })['failure'];

/** Gives steps to those who are chosen for them, all or none. Whoever can start hears it. */
export function giveOut(app: App, viewer: Viewer, gives: readonly GiveOneBody[]): Promise<Result<null, Refused>> {
  return app.write<null, Refused>(async (tx, now) => {
    const ids = [...new Set(gives.map(({ stepId }) => stepId))];
    const own = await rowsOf<{ id: string; piece_id: string }>(
      tx,
      'select s.id, s.piece_id from steps s join pieces p on p.id = s.piece_id where s.id = any($1) and p.client_id = any($2)',
      [ids, viewer.clientIds],
    );
    if (own.length < ids.length) return fail({ code: 'access.not_found' });
    // in one order, so that two who give out at once wait for each other and do not stand in each other's way
    const pieceOf = new Map(own.map((step) => [step.id, step.piece_id]));
    const inOrder = [...gives].sort((a, b) => ((pieceOf.get(a.stepId) ?? '') < (pieceOf.get(b.stepId) ?? '') ? -1 : 1));
    for (const give of inOrder) {
      const given = await giveStep(app, tx, viewer, give, now);
      if (!given.ok) return given;
    }
    return ok(null);
  });
}
