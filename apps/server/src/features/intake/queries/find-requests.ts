import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** Requests by title or number, newest first. */
export const findRequests: FindSource = {
  order: 3,
  by: 'managers',
  find: (app, { patterns, clientIds, number, limit }) =>
    app.read<FoundShape>(
      `select 'request' as kind, r.id, r.title, 'request ' || r.number || ', ' || replace(r.state, '_', ' ') || ', ' || r.requester_name as note,
         '/requests/' || r.id as path, r.client_id as "clientId"
       from requests r where r.client_id = any($1) and (r.number = $2 or (${holdsEvery('r.title_plain', patterns, 3)}))
       order by r.received_at desc, r.id limit ${limit}`,
      [clientIds, number, ...patterns],
    ),
};
