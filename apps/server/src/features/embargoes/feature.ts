import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Embargo } from './entities/embargo.entity.js';
import { EmbargoesModule } from './index.js';

const policies = {
  'embargo.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** Between which days a piece may be out: what is under embargo, and what holds only until a day. */
export const feature: Feature = {
  name: 'embargoes',
  module: EmbargoesModule,
  entities: [Embargo],
  policies,
};
