import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Agency, AgencyModule } from './index.js';

const policies = {
  'agency.read': { roles: MANAGERS },
  'agency.edit': { roles: LEADS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

export const feature: Feature = {
  name: 'agency',
  module: AgencyModule,
  entities: [Agency],
  tables: ['agencies', 'formats', 'skills', 'demo_left'],
  policies,
};
