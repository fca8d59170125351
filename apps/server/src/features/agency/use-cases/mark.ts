import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { StoredFile } from '../../../platform/files/files.js';
import { agencyOf } from '../queries/settings.js';

/** Sets the agency's mark to a stored picture, or takes it away with null. `file.type_refused` for what is no picture. */
export async function putMark(
  app: App,
  viewer: Viewer,
  file: StoredFile | null,
  version: number,
): Promise<Result<null, { code: 'http.changed_meanwhile' | 'file.type_refused' }>> {
  return app.write<null, { code: 'http.changed_meanwhile' | 'file.type_refused' }>(async (tx, now) => {
    const agency = await agencyOf(tx, true);
    if (agency.version !== version) return fail({ code: 'http.changed_meanwhile' });
    if (file && !file.mime.startsWith('image/')) return fail({ code: 'file.type_refused' });
    Object.assign(agency, { markHash: file?.hash ?? null, markMime: file?.mime ?? null, version: agency.version + 1 });
    await tx.save(agency);
    const verb = file ? 'agency.mark_put' : 'agency.mark_taken_away';
    await recordActivity(tx, { clientId: null, thing: 'agency', thingId: agency.id, verb, actor: viewer.name, at: now });
    return ok(null);
  });
}
