import { ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { MonthStart } from '../entities/month-start.entity.js';

/** Notes that somebody begins to plan a client's month; who was first stays so. */
export function startMonth(app: App, viewer: Viewer, clientId: string, month: string): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const made = await rowsOf(
      tx,
      'insert into month_starts (client_id, month, person_id, at) values ($1, $2, $3, $4) on conflict do nothing returning month',
      [clientId, month, viewer.personId, now],
    );
    if (made.length > 0) await noteOfClient(tx, viewer, clientId, 'plan.month_started', { month }, now);
    return ok(null);
  });
}

/** Takes it back: the month is to be started again. */
export function unstartMonth(app: App, viewer: Viewer, clientId: string, month: string): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const { affected } = await tx.delete(MonthStart, { clientId, month });
    if (affected) await noteOfClient(tx, viewer, clientId, 'plan.month_unstarted', { month }, now);
    return ok(null);
  });
}
