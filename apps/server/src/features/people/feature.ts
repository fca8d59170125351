import { LEADS, MANAGERS, SELVES, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { ClientPerson } from './entities/client-person.entity.js';
import { ClientLead } from './entities/client-lead.entity.js';
import { ClientTeam } from './entities/client-team.entity.js';
import { Cover } from './entities/cover.entity.js';
import { PasswordReset } from './entities/password-reset.entity.js';
import { Person } from './entities/person.entity.js';
import { TimeOff } from './entities/time-off.entity.js';
import { PeopleModule } from './index.js';
import { findPeople } from './queries/find-people.js';

const policies = {
  'person.list': { roles: MANAGERS },
  'person.read': { roles: { ...MANAGERS, staff: 'self', freelance: 'self' } },
  'person.edit': { roles: LEADS },
  'time_off.edit': { roles: { ...LEADS, manager: 'self', staff: 'self', freelance: 'self' } },
  'cover.edit': { roles: { ...LEADS, manager: 'self' } },
  'team.edit': { roles: MANAGERS },
  'round_up.edit': { roles: SELVES },
  'invite.answer': { link: 'invite' },
  'reset.answer': { link: 'reset' },
} as const satisfies Record<string, Policy>;

const owners = {
  person: 'select null::uuid as client_id, null::uuid as piece_id, null::uuid as request_id from people where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'people',
  module: PeopleModule,
  entities: [Person, TimeOff, Cover, PasswordReset, ClientPerson, ClientLead, ClientTeam],
  policies,
  finds: [findPeople],
  owners,
};
