import { LEADS, MAKERS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { Channel } from './entities/channel.entity.js';
import { Client } from './entities/client.entity.js';
import { Contact } from './entities/contact.entity.js';
import { Pillar } from './entities/pillar.entity.js';
import { OwnYearlyDay } from './entities/yearly-day.entity.js';
import { ClientsModule } from './index.js';
import { findClients, findContacts } from './queries/find-clients.js';

const policies = {
  'client.list': { roles: MAKERS },
  'client.mark': { open: true },
  'client.read': { roles: MANAGERS },
  'client.links': { roles: MANAGERS },
  'client.make': { roles: LEADS },
  'client.edit': { roles: MANAGERS },
  'client.archive': { roles: LEADS },
  'observance.add': { roles: MANAGERS },
  'brand.read': { roles: { ...MANAGERS, staff: 'own', freelance: 'own' } },
} as const satisfies Record<string, Policy>;

const owners = {
  client: 'select id as client_id, null::uuid as piece_id, null::uuid as request_id from clients where id = $1',
  channel: 'select client_id, null::uuid as piece_id, null::uuid as request_id from channels where id = $1',
  observance: 'select client_id, null::uuid as piece_id, null::uuid as request_id from yearly_days where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'clients',
  module: ClientsModule,
  entities: [Client, Channel, Contact, Pillar, OwnYearlyDay],
  policies,
  finds: [findClients, findContacts],
  owners,
};
