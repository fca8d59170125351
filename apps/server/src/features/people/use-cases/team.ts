import type { TeamLeadBody, TeamRoleBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import type { Viewer } from '../../../platform/access/access.js';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Tx } from '../../../platform/database/transaction.js';
import { canLead } from '../../notices/index.js';
import { ClientLead } from '../entities/client-lead.entity.js';
import { ClientTeam } from '../entities/client-team.entity.js';

type Failure = { code: 'skill.unknown' | 'person.unknown' | 'person.barred' | 'person.unskilled' | 'http.changed_meanwhile' };

/** Says who usually does the steps of a skill for a client. Pieces that began already stay as they are. */
export function putTeamRole(
  app: App,
  viewer: Viewer,
  clientId: string,
  { skill, personId, wasId }: TeamRoleBody,
): Promise<Result<null, Failure>> {
  return app.write<null, Failure>(async (tx, now) => {
    await tx.query('select 1 from clients where id = $1 for no key update', [clientId]);
    const known = await rowsOf(tx, 'select 1 from skills where name = $1', [skill]);
    if (known.length === 0) return fail({ code: 'skill.unknown' });
    const before = await tx.findOneBy(ClientTeam, { clientId, skill });
    if ((before?.personId ?? null) !== wasId) return fail({ code: 'http.changed_meanwhile' });
    if (personId === wasId) return ok(null);
    const [was] = await rowsOf<{ name: string }>(tx, 'select name from people where id = $1', [wasId]);
    const [person] = await rowsOf<{ name: string; able: boolean; barred: boolean }>(
      tx,
      `select p.name, coalesce((p.skills ->> $3)::int, 0) > 0 as able, coalesce(o.relation = 'barred', false) as barred
       from people p left join client_people o on o.person_id = p.id and o.client_id = $1 where p.id = $2 and p.active`,
      [clientId, personId, skill],
    );
    if (personId === null) await tx.delete(ClientTeam, { clientId, skill });
    else {
      if (!person) return fail({ code: 'person.unknown' });
      if (person.barred) return fail({ code: 'person.barred' });
      if (!person.able) return fail({ code: 'person.unskilled' });
      await tx.upsert(ClientTeam, { clientId, skill, personId }, ['clientId', 'skill']);
    }
    await recordActivity(tx, {
      clientId,
      thing: 'client',
      thingId: clientId,
      verb: 'client.team_set',
      actor: viewer.name,
      detail: { [skill]: { from: was?.name ?? null, to: personId === null ? null : (person?.name ?? null) } },
      at: now,
    });
    return ok(null);
  });
}

/** Says who answers for a client's pieces, but for those that somebody else was named for. */
export function putTeamLead(
  app: App,
  viewer: Viewer,
  clientId: string,
  { personId, wasId }: TeamLeadBody,
): Promise<Result<null, { code: 'person.unknown' | 'http.changed_meanwhile' }>> {
  return app.write<null, { code: 'person.unknown' | 'http.changed_meanwhile' }>(async (tx, now) => {
    await tx.query('select 1 from clients where id = $1 for no key update', [clientId]);
    const before = await tx.findOneBy(ClientLead, { clientId });
    if ((before?.personId ?? null) !== wasId) return fail({ code: 'http.changed_meanwhile' });
    if (personId === wasId) return ok(null);
    if (personId !== null && !(await canLead(tx, clientId, personId))) return fail({ code: 'person.unknown' });
    if (personId === null) await tx.delete(ClientLead, { clientId });
    else await tx.upsert(ClientLead, { clientId, personId }, ['clientId']);
    const names = await rowsOf<{ id: string; name: string }>(tx, 'select id, name from people where id = any($1)', [[wasId, personId]]);
    const nameOf = (id: string | null) => names.find((person) => person.id === id)?.name ?? null;
    await recordActivity(tx, {
      clientId,
      thing: 'client',
      thingId: clientId,
      verb: 'client.team_set',
      actor: viewer.name,
      detail: { lead: { from: nameOf(wasId), to: nameOf(personId) } },
      at: now,
    });
    return ok(null);
  });
}

/** Skills got other names, all at once, so that two that change places do not become one. */
export async function renameSkillsOfTeams(tx: Tx, from: readonly string[], to: readonly string[]): Promise<void> {
  const rows = await rowsOf<{ client_id: string; skill: string; person_id: string }>(
    tx,
    'with gone as (delete from client_team where skill = any($1) returning client_id, skill, person_id) select * from gone',
    [from],
  );
  for (const { client_id: clientId, skill, person_id: personId } of rows)
    await tx.insert(ClientTeam, { clientId, skill: to[from.indexOf(skill)] ?? skill, personId });
}
