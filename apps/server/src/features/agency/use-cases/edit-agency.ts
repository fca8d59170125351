import type { AgencySettingsShape, EditAgencyBody } from '@zesting/contract';
import { fail, minorDigits, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { changesBetween, recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { replanSoon } from '../../planning/index.js';
import type { Agency } from '../entities/agency.entity.js';
import { agencyOf, EDITABLE, settingsOf } from '../queries/settings.js';
import { putList, type ListFailure } from './put-list.js';

/** What plans rest on. */
const PLANNED_BY = ['zone', 'region', 'weeklyMinutes', 'cutOff', 'tightDays'] as const;

export type EditFailure = { code: 'http.changed_meanwhile' | 'form.unknown' | 'currency.figures_differ' | ListFailure['code'] };

/** Changes what the agency sets. What is open is planned anew by a job where plans rest on it: nobody waits for all of it. */
export function editAgency(
  app: App,
  viewer: Viewer,
  body: EditAgencyBody,
  version: number,
): Promise<Result<AgencySettingsShape, EditFailure>> {
  return app.write<AgencySettingsShape, EditFailure>(async (tx, now) => {
    const agency = await agencyOf(tx, true);
    if (agency.version !== version) return fail({ code: 'http.changed_meanwhile' });
    const before = await settingsOf(tx);
    if (body.currency !== undefined && !(await mayBeIn(tx, agency.currency, body.currency)))
      return fail({ code: 'currency.figures_differ' });
    for (const key of EDITABLE) if (body[key] !== undefined) Object.assign(agency, { [key]: body[key] });
    if (body.mailFrom !== undefined) putMailFrom(agency, body.mailFrom);
    if (body.defaultFormId !== undefined) {
      if (!(await isAsked(tx, body.defaultFormId))) return fail({ code: 'form.unknown' });
      agency.defaultFormId = body.defaultFormId;
    }
    for (const list of ['formats', 'skills', 'markerKinds'] as const) {
      const wanted = body[list];
      const put = wanted ? await putList(tx, list, wanted, now) : ok(null);
      if (!put.ok) return put;
    }
    await tx.save(agency);
    const changes = changesBetween(before, await settingsOf(tx));
    if (Object.keys(changes).length === 0) return ok(before);
    agency.version += 1;
    await tx.save(agency);
    await recordActivity(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency.id,
      verb: 'agency.edited',
      actor: viewer.name,
      detail: changes,
      at: now,
    });
    if (PLANNED_BY.some((key) => key in changes)) await replanSoon(tx);
    return ok(await settingsOf(tx));
  });
}

/** Whether amounts that are agreed mean as much in another currency: its smallest unit is as small, or there are none. */
const mayBeIn = async (tx: Tx, from: string, to: string): Promise<boolean> =>
  minorDigits(from) === minorDigits(to) ||
  (await rowsOf(tx, "select 1 from fees where agreed <> '[]' union all select 1 from rates where agreed <> '[]' limit 1")).length === 0;

/** Another sender was not proved yet. */
function putMailFrom(agency: Agency, from: EditAgencyBody['mailFrom']): void {
  const [name, address] = [from?.name.trim() ?? null, from?.address ?? null];
  if (agency.mailName === name && agency.mailAddress === address) return;
  Object.assign(agency, { mailName: name, mailAddress: address, mailProvedAt: null });
}

/** Whether something is asked by a form, which nobody archives meanwhile; none is as well. */
const isAsked = async (tx: Tx, formId: string | null): Promise<boolean> =>
  formId === null ||
  (
    await rowsOf(tx, 'select 1 from intake_forms where id = $1 and published_version is not null and archived_at is null for share', [
      formId,
    ])
  ).length > 0;
