import { LEADS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { ChannelLink } from './entities/channel-link.entity.js';
import { SendingStop } from './entities/sending-stop.entity.js';
import { Sending } from './entities/sending.entity.js';
import { SendingModule } from './index.js';

const policies = {
  'sending.read': { roles: { ...MANAGERS, staff: 'own' } },
  'sending.decide': { roles: MANAGERS },
  'sending.stop': { roles: MANAGERS },
  'sending.stop_all': { roles: LEADS },
  'channel_link.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
}

/** Going out by itself: how channels are reached, what is on its way to them, and what is stopped. */
export const feature: Feature = {
  name: 'sending',
  module: SendingModule,
  entities: [ChannelLink, Sending, SendingStop],
  policies,
};
