import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { replanWhere } from '../../planning/index.js';
import { endSessions } from './choose-password.js';
import { hasOtherLead, lockPerson, recordPerson } from './edit-person.js';

type LeaveFailure = { code: 'person.last_lead' | 'person.has_left' };

/**
 * Somebody leaves: access ends with this transaction, sessions and invitation with it. Their open steps keep their name until they
 * are given to others, and count as nobody's everywhere.
 */
export function leave(app: App, viewer: Viewer, personId: string): Promise<Result<null, LeaveFailure>> {
  return app.write<null, LeaveFailure>(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    if (!person.active) return fail({ code: 'person.has_left' });
    if (person.role === 'lead' && !(await hasOtherLead(tx, personId))) return fail({ code: 'person.last_lead' });
    Object.assign(person, { active: false, leftAt: now, linkGeneration: person.linkGeneration + 1, version: person.version + 1 });
    await tx.save(person);
    await endSessions(tx, personId);
    await recordPerson(tx, viewer, personId, 'person.left', {}, now);
    await replanWhere(tx, { personId }, now);
    return ok(null);
  });
}

/** Somebody who left is here again, with the password and the steps they still have. */
export function comeBack(app: App, viewer: Viewer, personId: string): Promise<Result<null, { code: 'person.is_here' }>> {
  return app.write<null, { code: 'person.is_here' }>(async (tx, now) => {
    const person = await lockPerson(tx, personId);
    if (person.active) return fail({ code: 'person.is_here' });
    Object.assign(person, { active: true, leftAt: null, version: person.version + 1 });
    await tx.save(person);
    await recordPerson(tx, viewer, personId, 'person.came_back', {}, now);
    await replanWhere(tx, { personId }, now);
    return ok(null);
  });
}
