import type { NamedPersonShape, TeamLeadShape, TeamShape, TeamRoleShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { CAN_LEAD } from '../../notices/index.js';

/** Who usually does what for a client, skill by skill as the agency lists them, and who else could. */
export async function clientTeam(app: App, clientId: string): Promise<TeamShape> {
  const roles = await app.read<TeamRoleShape>(
    `select k.name as skill, t.person_id as "personId", d.name as "personName",
       case when t.person_id is null then null when not d.active then 'left' when o.relation = 'barred' then 'barred'
         when coalesce((d.skills ->> k.name)::int, 0) = 0 then 'unskilled' end as cannot,
       (select count(*) from routes r where r.archived_at is null and exists (select 1 from jsonb_array_elements(r.steps) e (step)
         where e.step ->> 'skill' = k.name and e.step ->> 'kind' not in ('deliver', 'sign_off'))) as routes,
       coalesce((select jsonb_agg(jsonb_build_object('personId', p.id, 'name', p.name, 'level', (p.skills ->> k.name)::int,
           'openSteps', w.steps, 'openMinutes', w.minutes) order by (p.skills ->> k.name)::int desc, w.minutes, p.name)
         from people p left join client_people b on b.person_id = p.id and b.client_id = $1
         cross join lateral (select count(*) as steps, coalesce(sum(coalesce(s.remaining_minutes, s.effort_minutes)), 0) as minutes
           from steps s where s.doer_id = p.id and s.finished_on is null) w
         where p.active and coalesce((p.skills ->> k.name)::int, 0) > 0 and b.relation is distinct from 'barred'), '[]') as able
     from skills k left join client_team t on t.client_id = $1 and t.skill = k.name left join people d on d.id = t.person_id
     left join client_people o on o.client_id = $1 and o.person_id = t.person_id
     where k.archived_at is null or t.person_id is not null order by k.position, k.name`,
    [clientId],
  );
  const [lead] = await app.read<TeamLeadShape>(
    'select p.id as "personId", p.name, not p.active as "hasLeft" from client_leads k join people p on p.id = k.person_id where k.client_id = $1',
    [clientId],
  );
  const couldLead = await app.read<NamedPersonShape>(`select p.id as "personId", p.name from people p where ${CAN_LEAD} order by p.name`, [
    clientId,
  ]);
  return { lead: lead ?? null, couldLead, roles };
}
