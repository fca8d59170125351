import { fail, ok, type Result } from '@zesting/core';
import type { AudiencesBody, PlanNumbersBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { noteOfClient } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
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

/** Says whom a client's channels reach. */
export function setAudiences(
  app: App,
  viewer: Viewer,
  clientId: string,
  { channels, overlap }: AudiencesBody,
): Promise<Result<null, { code: 'channel.unknown' }>> {
  return app.write<null, { code: 'channel.unknown' }>(async (tx, now) => {
    const plan = await lockPlan(tx, clientId);
    const ids = channels.map(({ channelId }) => channelId);
    const known = await rowsOf(tx, 'select 1 from channels where id = any($1) and client_id = $2', [ids, clientId]);
    if (known.length < ids.length) return fail({ code: 'channel.unknown' });
    const audiences = channels.map(({ channelId, audience, seen }) => ({ channelId, audience, seen }));
    await tx.update(ClientPlan, clientId, { audiences, overlap, version: plan.version + 1 });
    await noteOfClient(tx, viewer, clientId, 'rhythm.audiences_set', { audiences, overlap }, now);
    return ok(null);
  });
}
