import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { SavedView } from './entities/saved-view.entity.js';
import { ViewsModule } from './index.js';

const policies = {
  'view.keep': { roles: { ...MANAGERS, staff: 'own', freelance: 'own' } },
} as const satisfies Record<string, Policy>;

const owners = {
  // whose it is, the use case asks: nobody lets go of another's
  savedView: 'select null::uuid as client_id, null::uuid as piece_id, null::uuid as request_id from saved_views where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Ways of looking at a page, kept under a name: one's own, and shared ones. */
export const feature: Feature = {
  name: 'views',
  module: ViewsModule,
  entities: [SavedView],
  policies,
  owners,
};
