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
