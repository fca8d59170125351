import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { StaffingModule } from './index.js';

const policies = {
  'staffing.propose': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** Who takes the steps of a period that nobody has: proposed for all of them together, taken whole or in part. */
export const feature: Feature = {
  name: 'staffing',
  module: StaffingModule,
  entities: [],
  policies,
};
