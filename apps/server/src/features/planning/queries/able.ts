import type { App } from '../../../platform/app.js';
import { isClientsStep } from '../piece-state.js';

/**
 * By each open step of a piece or of a person, who else could do it: whoever usually does it for the client first, then the client's own people,
 * the most skilled, those with least to do. Nobody who left or must not work for the client.
 */
export async function ableFor(app: App, of: { readonly pieceId: string } | { readonly doerId: string }): Promise<Record<string, string[]>> {
  const [which, id] = 'pieceId' in of ? ['s.piece_id = $1', of.pieceId] : ['s.doer_id = $1 and p.list is not null', of.doerId];
  const rows = await app.read<{ step_id: string; able: string[] }>(
    `select s.id as step_id, array(select d.id from people d left join client_people o on o.person_id = d.id and o.client_id = p.client_id
         left join client_team t on t.client_id = p.client_id and t.skill = s.skill and t.person_id = d.id
         where d.active and d.id is distinct from $2 and coalesce((d.skills ->> s.skill)::int, 0) > 0 and coalesce(o.relation, 'none') <> 'barred'
         order by (t.person_id is not null) desc, coalesce(o.relation = 'own', false) desc, (d.skills ->> s.skill)::int desc,
           (select coalesce(sum(coalesce(w.remaining_minutes, w.effort_minutes)), 0) from steps w where w.doer_id = d.id and w.finished_on is null), d.name) as able
     from steps s join pieces p on p.id = s.piece_id where ${which} and s.finished_on is null and not ${isClientsStep('s')}`,
    [id, 'doerId' in of ? of.doerId : null],
  );
  return Object.fromEntries(rows.map((row) => [row.step_id, row.able]));
}
