import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { FollowUpList } from './entities/follow-up-list.entity.js';
import { FollowUp } from './entities/follow-up.entity.js';
import { FollowUpsModule } from './index.js';

const policies = {
  'follow_up.do': { roles: { ...MANAGERS, staff: 'own' } },
  'follow_up.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  follow_up: 'select client_id, null::uuid as piece_id, null::uuid as request_id from follow_ups where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What is done by hand around what goes out: put into its channel before, and shared with a group two days later, answered, looked at. */
export const feature: Feature = {
  name: 'follow-ups',
  module: FollowUpsModule,
  entities: [FollowUpList, FollowUp],
  policies,
  owners,
};
