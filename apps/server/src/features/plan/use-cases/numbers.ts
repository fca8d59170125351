import { ok, type Result } from '@zesting/core';
import type { PlanNumbersBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { ClientPlan } from '../entities/client-plan.entity.js';
import { lockPlan } from './themes.js';

/** Says how many pieces a client wants out a week and a month. */
export function setNumbers(app: App, viewer: Viewer, clientId: string, { perWeek, perMonth }: PlanNumbersBody): Promise<Result<null>> {
  return app.write<null, never>(async (tx, now) => {
    const plan = await lockPlan(tx, clientId);
    if (plan.perWeek === perWeek && plan.perMonth === perMonth) return ok(null);
    await tx.update(ClientPlan, clientId, { perWeek, perMonth, version: plan.version + 1 });
    await noteOfClient(tx, viewer, clientId, 'rhythm.numbers_set', { perWeek, perMonth }, now);
    return ok(null);
  });
}
