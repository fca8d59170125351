import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { ClientClosure } from './entities/client-closure.entity.js';
import { Marker } from './entities/marker.entity.js';
import { Placement } from './entities/placement.entity.js';
import { CalendarModule } from './index.js';

const policies = {
  'calendar.read': { roles: { ...MANAGERS, staff: 'own' } },
  'piece.begin': { roles: MANAGERS },
  'marker.edit': { roles: MANAGERS },
  'placement.edit': { roles: MANAGERS },
  'feed.read': { open: true }, // the secret in the address is the key; the handler checks it
} as const satisfies Record<string, Policy>;

const owners = {
  placement: 'select client_id, piece_id, null::uuid as request_id from placements where id = $1',
  marker: `select client_id, null::uuid as piece_id, null::uuid as request_id from markers where id = $1
    union all select client_id, null, null from client_closures where id = $1`,
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'calendar',
  module: CalendarModule,
  entities: [Placement, Marker, ClientClosure],
  policies,
  owners,
};
