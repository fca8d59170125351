import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { DutyMark } from './entities/duty-mark.entity.js';
import { Duty } from './entities/duty.entity.js';
import { DutiesModule } from './index.js';

const policies = {
  'duty.read': { roles: MANAGERS },
  'duty.edit': { roles: MANAGERS },
  'duty.give': { roles: LEADS },
  'duty.do': { roles: { ...MANAGERS, staff: 'own', freelance: 'own' } },
} as const satisfies Record<string, Policy>;

const owners = {
  duty: 'select client_id, null::uuid as piece_id, null::uuid as request_id from duties where id = $1',
  // who does a duty need not have the client otherwise: the use case asks whether they do it
  doneDuty: 'select null::uuid as client_id, null::uuid as piece_id, null::uuid as request_id from duties where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Work that is no step of a piece, and pieces that come again by rule. */
export const feature: Feature = {
  name: 'duties',
  module: DutiesModule,
  entities: [Duty, DutyMark],
  policies,
  owners,
};
