import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** Ideas by their one line, those on the shelf before the others; an idea for no client yet is found by everybody who manages. */
export const findIdeas: FindSource = {
  order: 4,
  by: 'managers',
  find: (app, { patterns, clientIds, limit }) =>
    app.read<FoundShape>(
      `select 'idea' as kind, id, title, case state when 'open' then 'idea' when 'used' then 'became a piece' else 'dropped' end as note,
         '/plan/ideas?idea=' || id as path, client_id as "clientId"
       from ideas where (client_id = any($1) or client_id is null) and (${holdsEvery('title_plain', patterns, 2)})
       order by state <> 'open', created_at desc, id limit ${limit}`,
      [clientIds, ...patterns],
    ),
};
