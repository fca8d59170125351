import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** Clients by code or name. */
export const findClients: FindSource = {
  order: 1,
  by: 'managers',
  find: (app, { viewer, patterns, limit }) =>
    app.read<FoundShape>(
      `select 'client' as kind, id, name as title, code as note, '/clients/' || id as path, id as "clientId"
       from clients where id = any($1) and ${holdsEvery("plain_letters(code || ' ' || name)", patterns, 2)} order by name limit ${limit}`,
      [viewer.clientIds, ...patterns],
    ),
};

/** Contacts by name or address. */
export const findContacts: FindSource = {
  order: 5,
  by: 'managers',
  find: (app, { patterns, clientIds, limit }) =>
    app.read<FoundShape>(
      `select 'contact' as kind, x.id, x.name as title, x.email || ', ' || c.name as note,
         '/clients/' || x.client_id || '?part=contacts' as path, x.client_id as "clientId"
       from contacts x join clients c on c.id = x.client_id
       where x.client_id = any($1) and x.archived_at is null and (${holdsEvery("plain_letters(x.name || ' ' || x.email)", patterns, 2)})
       order by x.name limit ${limit}`,
      [clientIds, ...patterns],
    ),
};
