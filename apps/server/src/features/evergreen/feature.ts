import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Evergreen } from './entities/evergreen.entity.js';
import { EvergreenModule } from './index.js';

const policies = {
  'evergreen.read': { roles: MANAGERS },
  'evergreen.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** Pieces that last: what was out goes out again after a rest, where the rhythm asks for it. */
export const feature: Feature = {
  name: 'evergreen',
  module: EvergreenModule,
  entities: [Evergreen],
  policies,
};
