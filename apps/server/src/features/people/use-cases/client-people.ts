import { rowsOf, type Tx } from '../../../platform/database/transaction.js';

/** Makes these people the client's managers; leads need no entry. False when one of them is neither. */
export async function putManagers(tx: Tx, clientId: string, managerIds: readonly string[]): Promise<boolean> {
  const managers = await rowsOf<{ id: string }>(tx, "select id from people where id = any($1) and role = 'manager' and active", [
    managerIds,
  ]);
  if (managers.length !== managerIds.length) return false;
  await tx.query(
    `delete from client_people o using people p where o.client_id = $1 and p.id = o.person_id and p.role = 'manager' and o.relation = 'own' and p.id <> all($2)`,
    [clientId, managerIds],
  );
  for (const { id } of managers)
    await tx.query(
      `insert into client_people (client_id, person_id, relation) values ($1, $2, 'own')
       on conflict (client_id, person_id) do update set relation = 'own'`,
      [clientId, id],
    );
  return true;
}

/** Skills got other names, all at once, so that two that change places do not become one. */
export const renameSkillsOfPeople = (tx: Tx, from: readonly string[], to: readonly string[]): Promise<unknown> =>
  tx.query(
    `update people p set version = version + 1, skills = (
       select jsonb_object_agg(coalesce(n.new, e.name), e.level)
       from jsonb_each(p.skills) e (name, level) left join unnest($1::text[], $2::text[]) n (old, new) on n.old = e.name)
     where p.skills ?| $1::text[]`,
    [from, to],
  );
