import type { NamedPersonShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { rowsOf, type Reader } from '../../../platform/database/rows.js';

/**
 * Who could do what is done around a client's placements: the leads, and managers and staff of the client. A freelance creator sees pieces by their steps
 * alone, and could not read what is to be put in.
 */
export const whoCould = (reader: Reader, clientId: string): Promise<NamedPersonShape[]> =>
  rowsOf<NamedPersonShape>(
    reader,
    `select p.id as "personId", p.name from people p where p.active and (p.role = 'lead' or (p.role in ('manager', 'staff')
       and exists (select 1 from client_people c where c.client_id = $1 and c.person_id = p.id and c.relation = 'own'))) order by p.name`,
    [clientId],
  );

/** Everybody who is with the agency, by name. */
export const namedPeople = (app: App): Promise<NamedPersonShape[]> =>
  app.read<NamedPersonShape>('select id as "personId", name from people where active order by name');
