import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Agency } from './entities/agency.entity.js';
import { DemoLeft } from './entities/demo-left.entity.js';
import { Format } from './entities/format.entity.js';
import { OwnMarkerKind } from './entities/marker-kind.entity.js';
import { Skill } from './entities/skill.entity.js';
import { AgencyModule } from './index.js';

const policies = {
  'agency.read': { roles: MANAGERS },
  'agency.edit': { roles: LEADS },
  'format.read': { roles: MANAGERS },
  'format.set_needs': { roles: MANAGERS, right: 'forms' },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

export const feature: Feature = {
  name: 'agency',
  module: AgencyModule,
  entities: [Agency, Format, Skill, OwnMarkerKind, DemoLeft],
  policies,
};
