import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { PredictionWanted } from './entities/prediction-wanted.entity.js';
import { RouteVersion } from './entities/route-version.entity.js';
import { Route } from './entities/route.entity.js';
import { PlanningModule } from './index.js';

const policies = {
  'days_off.read': { roles: { ...MANAGERS, staff: 'own', freelance: 'own' } },
  'load.read': { roles: MANAGERS },
  'route.read': { roles: MANAGERS },
  'route.edit': { roles: LEADS },
} as const satisfies Record<string, Policy>;

const owners = {
  route: 'select null::uuid as client_id, null::uuid as piece_id, null::uuid as request_id from routes where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'planning',
  module: PlanningModule,
  entities: [Route, RouteVersion, PredictionWanted],
  derives: ['pieces', 'steps', 'placements'],
  policies,
  owners,
};
