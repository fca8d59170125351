import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** People by name, those here first. */
export const findPeople: FindSource = {
  order: 4,
  by: 'managers',
  find: (app, { patterns, limit }) =>
    app.read<FoundShape>(
      `select 'person' as kind, id, name as title, role || case when active then '' else ', has left' end as note, '/people/' || id as path,
         null as "clientId"
       from people where ${holdsEvery('plain_letters(name)', patterns, 1)} order by active desc, name limit ${limit}`,
      patterns,
    ),
};
