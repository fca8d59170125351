import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Fee } from './entities/fee.entity.js';
import { Rate } from './entities/rate.entity.js';
import { MoneyModule } from './index.js';

const policies = {
  'fee.read': { roles: MANAGERS },
  'fee.edit': { roles: MANAGERS },
  'rate.read': { roles: { ...LEADS, freelance: 'self' } },
  'rate.edit': { roles: LEADS },
  'money.read': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** What clients pay for a month, what an hour of somebody costs, and what a month's hours come to. */
export const feature: Feature = {
  name: 'money',
  module: MoneyModule,
  entities: [Fee, Rate],
  policies,
};
