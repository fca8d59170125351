import { fail, ok, type BriefFact, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { Format } from '../entities/format.entity.js';
import { agencyOf } from '../queries/settings.js';

/** Says which facts the brief of a format needs. */
export function setFormatNeeds(
  app: App,
  viewer: Viewer,
  formatId: string,
  needs: readonly BriefFact[],
): Promise<Result<null, { code: 'format.unknown' }>> {
  return app.write<null, { code: 'format.unknown' }>(async (tx, now) => {
    const format = await tx.findOne(Format, { where: { id: formatId }, lock: { mode: 'pessimistic_write' } });
    if (!format) return fail({ code: 'format.unknown' });
    const before = format.needs;
    await tx.update(Format, { id: formatId }, { needs: [...needs] });
    const agency = await agencyOf(tx, false);
    await recordActivity(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency.id,
      verb: 'agency.brief_set',
      actor: viewer.name,
      detail: { format: format.name, needs: { from: before, to: [...needs] } },
      at: now,
    });
    return ok(null);
  });
}
