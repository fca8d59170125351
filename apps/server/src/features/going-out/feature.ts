import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { PlacementCheck } from './entities/placement-check.entity.js';
import { GoingOutModule } from './index.js';

const policies = {
  'going_out.read': { roles: { ...MANAGERS, staff: 'own' } },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** What is published today and next: what speaks against it, who has looked at it, and what is copied out by hand. */
export const feature: Feature = {
  name: 'going-out',
  module: GoingOutModule,
  entities: [PlacementCheck],
  policies,
};
