import { MAKERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Obstacle } from './entities/obstacle.entity.js';
import { ObstaclesModule } from './index.js';

const policies = {
  'obstacle.say': { roles: MAKERS },
} as const satisfies Record<string, Policy>;

const owners = {
  obstacle: 'select client_id, piece_id, null::uuid as request_id from obstacles where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'obstacles',
  module: ObstaclesModule,
  entities: [Obstacle],
  policies,
  owners,
};
