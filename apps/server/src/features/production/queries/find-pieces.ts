import type { FoundShape } from '@zesting/contract';
import { holdsEvery, type FindSource } from '../../../platform/feature.js';

/** Pieces by title or number, newest first; a freelancer's are those with an own step. */
export const findPieces: FindSource = {
  order: 2,
  by: 'everybody',
  find: (app, { viewer, patterns, clientIds, number, limit }) =>
    app.read<FoundShape>(
      `select 'piece' as kind, p.id, p.title, 'no. ' || p.number || ' · ' || replace(p.stage, '_', ' ') as note, '/pieces/' || p.id as path,
         p.client_id as "clientId"
       from pieces p where p.client_id = any($1) and $3::uuid is not null and (p.number = $2 or (${holdsEvery('p.title_plain', patterns, 4)}))
         ${viewer.role === 'freelance' ? 'and exists (select 1 from steps s where s.piece_id = p.id and (s.doer_id = $3 or s.with_id = $3))' : ''}
       order by p.created_at desc, p.id limit ${limit}`,
      [clientIds, number, viewer.personId, ...patterns],
    ),
};
