import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { SpinOff } from './entities/spin-off.entity.js';
import { Spread } from './entities/spread.entity.js';
import { SpinOffsModule } from './index.js';

const policies = {
  'spread.edit': { roles: MANAGERS },
  'spin_off.list': { roles: MANAGERS },
  'spin_off.make': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  spread: 'select client_id, null::uuid as piece_id, null::uuid as request_id from spreads where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Pieces that are made from others: what each source of a kind is made into, and how what was made stands to its source. */
export const feature: Feature = { name: 'spin-offs', module: SpinOffsModule, entities: [Spread, SpinOff], policies, owners };
