import type { InstantText } from '@zesting/core';
import { coversToday } from '../../platform/access/viewers.js';
import { rowsOf, type Tx } from '../../platform/database/transaction.js';

export interface Manager {
  readonly id: string;
  readonly email: string;
  readonly name: string;
}

/**
 * Those who manage a client: its managers, where one is covered for today whoever covers, else the leads.
 * @param now whose date the cover goes by is the absent manager's
 */
export const managersOf = (tx: Tx, clientId: string, now: InstantText): Promise<Manager[]> =>
  rowsOf<Manager>(
    tx,
    `with own as (
       select distinct coalesce(u.id, p.id) as id from people p join client_people c on c.person_id = p.id
       left join covers v on v.manager_id = p.id and ${coversToday('v', 'p.zone', '$2')}
       left join people u on u.id = v.cover_id and u.active
       where c.client_id = $1 and c.relation = 'own' and p.role = 'manager' and p.active)
     select id, email, name from people where id in (select id from own) or (role = 'lead' and active and not exists (select 1 from own)) order by name`,
    [clientId, now],
  );

/**
 * SQL: the id of whoever answers for a piece: who was named for it, else for its client's, as long as they are with the agency; null where nobody is.
 * @param piece the name that its row has
 */
export const leadOf = (piece: string): string =>
  `coalesce((select l.id from people l where l.id = ${piece}.lead_id and l.active),
    (select l.id from client_leads k join people l on l.id = k.person_id and l.active where k.client_id = ${piece}.client_id))`;

/** Who is to hear of a piece: whoever answers for it, where they manage the client today; else all who do. */
export async function hearersOf(tx: Tx, clientId: string, pieceId: string | undefined, now: InstantText): Promise<Manager[]> {
  const managers = await managersOf(tx, clientId, now);
  if (pieceId === undefined) return managers;
  const [row] = await rowsOf<{ id: string | null }>(tx, `select ${leadOf('p')} as id from pieces p where p.id = $1`, [pieceId]);
  const lead = managers.filter(({ id }) => id === row?.id);
  return lead.length > 0 ? lead : managers;
}

/** SQL: whether somebody `p` may answer for pieces of the client `$1`. Freelance creators see only what they work on. */
export const CAN_LEAD = `p.active and p.role <> 'freelance' and not exists (select 1 from client_people b where b.person_id = p.id and b.client_id = $1 and b.relation = 'barred')`;

/** Whether somebody may answer for pieces of a client. */
export const canLead = async (tx: Tx, clientId: string, personId: string): Promise<boolean> =>
  (await rowsOf(tx, `select 1 from people p where p.id = $2 and ${CAN_LEAD}`, [clientId, personId])).length > 0;
