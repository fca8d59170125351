import type { AgencySettingsShape, EditAgencyBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../platform/access/access.js';
import { changesBetween, record } from '../../platform/activity.js';
import type { App } from '../../platform/app.js';
import type { Tx } from '../../platform/database/transaction.js';
import { replanSoon } from '../planning/index.js';
import { Agency } from './agency.entity.js';

const EDITABLE = ['name', 'zone', 'region', 'weeklyMinutes', 'cutOff', 'tightDays', 'sessionDays', 'keepsPlaces'] as const;
/** What plans rest on. */
const PLANNED_BY = ['zone', 'region', 'weeklyMinutes', 'cutOff', 'tightDays'] as const;

const shapeOf = (agency: Agency): AgencySettingsShape => ({
  ...(Object.fromEntries(EDITABLE.map((key) => [key, agency[key]])) as Omit<AgencySettingsShape, 'version'>), // one for each
  version: agency.version,
});

const agencyOf = async (tx: Tx, isLocked: boolean): Promise<Agency> => {
  const [agency] = await tx.find(Agency, { take: 1, ...(isLocked ? { lock: { mode: 'pessimistic_write' } } : {}) });
  if (!agency) throw new Error('there is no agency');
  return agency;
};

export const readAgency = async (app: App): Promise<AgencySettingsShape> => shapeOf(await agencyOf(app.manager, false));

/** Changes what the agency sets. What is open is planned anew by a job where plans rest on it: nobody waits for all of it. */
export function editAgency(
  app: App,
  viewer: Viewer,
  body: EditAgencyBody,
  version: number,
): Promise<Result<AgencySettingsShape, { code: 'http.changed_meanwhile' }>> {
  return app.write<AgencySettingsShape, { code: 'http.changed_meanwhile' }>(async (tx, now) => {
    const agency = await agencyOf(tx, true);
    if (agency.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const before = shapeOf(agency);
    for (const key of EDITABLE) if (body[key] !== undefined) Object.assign(agency, { [key]: body[key] });
    const changes = changesBetween(before, shapeOf(agency));
    if (Object.keys(changes).length === 0) return ok(before);
    agency.version += 1;
    await tx.save(agency);
    await record(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency.id,
      verb: 'agency.edited',
      actor: viewer.name,
      detail: changes,
      at: now,
    });
    if (PLANNED_BY.some((key) => key in changes)) await replanSoon(tx);
    return ok(shapeOf(agency));
  });
}
