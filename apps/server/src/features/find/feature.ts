import { MAKERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { FindModule } from './index.js';

const policies = {
  find: { roles: MAKERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

export const feature: Feature = {
  name: 'find',
  module: FindModule,
  entities: [],
  policies,
};
