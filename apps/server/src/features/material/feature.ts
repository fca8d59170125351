import { MAKERS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Delivery } from './entities/delivery.entity.js';
import { Material } from './entities/material.entity.js';
import { MaterialModule } from './index.js';

const policies = {
  'material.read': { roles: MAKERS },
  'material.add': { roles: { ...MANAGERS, staff: 'assigned', freelance: 'assigned' } },
  'material.ask': { roles: MANAGERS },
  'material.bring': { link: 'room' },
} as const satisfies Record<string, Policy>;

const owners = {
  material:
    'select p.client_id, p.id as piece_id, null::uuid as request_id from materials m join pieces p on p.id = m.piece_id where m.id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What makers work from, and the steps in which the client brings it. */
export const feature: Feature = {
  name: 'material',
  module: MaterialModule,
  entities: [Material, Delivery],
  policies,
  owners,
};
