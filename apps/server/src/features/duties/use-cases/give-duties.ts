import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { wantPredictionOf } from '../../planning/index.js';
import { Duty } from '../entities/duty.entity.js';
import { lockDuty, noteDuty } from './duties.js';

/**
 * Gives all duties of somebody that still hold to somebody else, as lead or second person, as they were. Where that one is the other of the two
 * already, they do it alone from now on.
 * @returns how many
 */
export function giveDuties(app: App, viewer: Viewer, fromId: string, toId: string): Promise<Result<number, { code: 'person.unknown' }>> {
  return app.write<number, { code: 'person.unknown' }>(async (tx, now) => {
    const [to] = await rowsOf<{ name: string }>(tx, 'select name from people where id = $1 and active and id <> $2', [toId, fromId]);
    if (!to) return fail({ code: 'person.unknown' });
    const rows = await rowsOf<{ id: string }>(tx, 'select id from duties where lead_id = $1 or second_id = $1 order by id', [fromId]);
    let count = 0;
    for (const { id } of rows) {
      const { duty, todayOn } = await lockDuty(tx, id, now);
      if (duty.untilOn !== null && duty.untilOn < todayOn) continue;
      const leadId = duty.leadId === fromId ? toId : duty.leadId;
      const second = duty.secondId === fromId ? toId : duty.secondId;
      await tx.update(Duty, id, { leadId, secondId: second === leadId ? null : second, version: duty.version + 1 });
      await noteDuty(tx, viewer, duty, 'duty.given', { title: duty.title, to: to.name }, now);
      count += 1;
    }
    if (count > 0) await wantPredictionOf(tx, [fromId, toId]);
    return ok(count);
  });
}
