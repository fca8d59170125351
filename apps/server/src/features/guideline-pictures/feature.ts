import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { GuidelinePicturesModule } from './index.js';

const policies = {
  // whoever works for the client sees how its things are made
  'guideline.look': { roles: { ...MANAGERS, staff: 'own', freelance: 'own' } },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** Pictures that show how a thing is made. Beside the guidelines, since files are production's, and production asks what holds for a step. */
export const feature: Feature = {
  name: 'guideline-pictures',
  module: GuidelinePicturesModule,
  entities: [],
  policies,
};
