import { SELVES, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { SignInFailure } from './entities/sign-in-failure.entity.js';
import { IdentityModule } from './index.js';

const policies = {
  open: { open: true },
  'own.session': { roles: SELVES },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

export const feature: Feature = {
  name: 'identity',
  module: IdentityModule,
  entities: [SignInFailure],
  policies,
};
