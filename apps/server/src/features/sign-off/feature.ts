import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Decision } from './entities/decision.entity.js';
import { Packet, PacketItem } from './entities/packet.entity.js';
import { SignOffModule } from './index.js';

const policies = {
  'packet.list': { roles: MANAGERS },
  'packet.read': { roles: MANAGERS },
  'packet.send': { roles: MANAGERS },
  'decision.record': { roles: MANAGERS },
  'room.read': { link: 'room' },
  'room.decide': { link: 'room' },
} as const satisfies Record<string, Policy>;

const owners = {
  packet: 'select client_id, null::uuid as piece_id, null::uuid as request_id from packets where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'sign-off',
  module: SignOffModule,
  entities: [Packet, PacketItem, Decision],
  derives: ['clients'],
  policies,
  owners,
};
