import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { FormClient, FormLink, FormUse, FormVersion, IntakeForm } from './entities/intake-form.entity.js';
import { IncomingMail, RequestMail } from './entities/incoming-mail.entity.js';
import { RequestMessage } from './entities/request-message.entity.js';
import { Request } from './entities/request.entity.js';
import { IntakeModule } from './index.js';
import { findRequests } from './queries/find-requests.js';

const policies = {
  'request.list': { roles: MANAGERS },
  'request.read': { roles: MANAGERS },
  'request.take_down': { roles: MANAGERS },
  'dates.put': { roles: MANAGERS },
  'request.decide': { roles: MANAGERS },
  'form.read': { roles: MANAGERS },
  'form.edit': { roles: MANAGERS, right: 'forms' },
  'mail.list': { roles: MANAGERS },
  'mail.read': { roles: MANAGERS },
  'mail.sort': { roles: MANAGERS },
  'schema.read': { open: true },
  'ask.fill_in': { link: 'ask' },
  'known.read': { link: 'room' },
  'receipt.read': { link: 'receipt' },
  'receipt.answer': { link: 'receipt' },
} as const satisfies Record<string, Policy>;

const owners = {
  request: 'select client_id, null::uuid as piece_id, id as request_id from requests where id = $1',
  form: `select c.client_id, null::uuid as piece_id, null::uuid as request_id
    from intake_forms f left join form_clients c on c.form_id = f.id where f.id = $1`,
  mail: 'select client_id, null::uuid as piece_id, request_id from incoming_mails where id = $1',
  formLink: 'select client_id, null::uuid as piece_id, null::uuid as request_id from form_links where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'intake',
  module: IntakeModule,
  entities: [Request, RequestMessage, IncomingMail, RequestMail, IntakeForm, FormVersion, FormClient, FormLink, FormUse],
  policies,
  finds: [findRequests],
  owners,
};
