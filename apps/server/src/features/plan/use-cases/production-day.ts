import { fail, ok, type Result } from '@zesting/core';
import type { ProductionDayBody } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { StoredProductionDay } from '../entities/production-day.entity.js';

export type ProductionDayFailure = {
  code: 'production_day.other_kind' | 'piece.unknown' | 'skill.unknown' | 'http.changed_meanwhile';
};

/** Says what is made together on a production day. @param version 0: nothing was said yet */
export function putProductionDay(
  app: App,
  viewer: Viewer,
  markerId: string,
  body: ProductionDayBody,
  version: number,
): Promise<Result<null, ProductionDayFailure>> {
  return app.write<null, ProductionDayFailure>(async (tx, now) => {
    const [marker] = await rowsOf<{ kind: string; clientId: string | null; name: string }>(
      tx,
      'select kind, client_id as "clientId", name from markers where id = $1 for no key update',
      [markerId],
    );
    if (marker?.kind !== 'production_day' || marker.clientId === null) return fail({ code: 'production_day.other_kind' });
    const { clientId } = marker;
    const known = await tx.findOneBy(StoredProductionDay, { markerId });
    if ((known?.version ?? 0) !== version) return fail({ code: 'http.changed_meanwhile' });
    const pieces = await rowsOf(tx, 'select 1 from pieces where client_id = $1 and id = any($2)', [clientId, body.pieceIds]);
    if (pieces.length < body.pieceIds.length) return fail({ code: 'piece.unknown' });
    if (body.skill !== null && (await rowsOf(tx, 'select 1 from skills where name = $1', [body.skill])).length === 0)
      return fail({ code: 'skill.unknown' });
    const { capacity, skill, pieceIds } = body;
    const place = body.place.trim();
    await tx.save(StoredProductionDay, { markerId, clientId, capacity, skill, place, pieceIds, version: version + 1 });
    await recordActivity(tx, {
      clientId,
      thing: 'marker',
      thingId: markerId,
      verb: 'marker.production_set',
      actor: viewer.name,
      detail: { name: marker.name, capacity, pieces: pieceIds.length },
      at: now,
    });
    return ok(null);
  });
}
