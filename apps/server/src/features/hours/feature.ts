import { MANAGERS, SELVES, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Worked } from './entities/worked.entity.js';
import { HoursModule } from './index.js';

const policies = {
  'hours.own': { roles: SELVES },
  'hours.write': { roles: { ...MANAGERS, staff: 'assigned', freelance: 'assigned' } },
} as const satisfies Record<string, Policy>;

const owners = {
  worked: 'select client_id, piece_id, null::uuid as request_id from worked where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'hours',
  module: HoursModule,
  entities: [Worked],
  policies,
  owners,
};
