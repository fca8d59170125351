import { MAKERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { TeamNote } from './entities/team-note.entity.js';
import { TeamNotesModule } from './index.js';

const policies = {
  'note.write': { roles: MAKERS },
} as const satisfies Record<string, Policy>;

const owners = {
  note: `select coalesce(n.client_id, i.client_id) as client_id, n.piece_id, null::uuid as request_id
    from team_notes n left join ideas i on i.id = n.idea_id where n.id = $1`,
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'team-notes',
  module: TeamNotesModule,
  entities: [TeamNote],
  policies,
  owners,
};
