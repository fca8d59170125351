import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Guideline } from './entities/guideline.entity.js';
import { GuidelinesModule } from './index.js';

const policies = {
  'guideline.write': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  guideline: 'select client_id, null::uuid as piece_id, null::uuid as request_id from guidelines where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'guidelines',
  module: GuidelinesModule,
  entities: [Guideline],
  policies,
  owners,
};
