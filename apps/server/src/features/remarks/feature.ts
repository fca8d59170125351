import { MAKERS, MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { RemarkReply } from './entities/remark-reply.entity.js';
import { Remark } from './entities/remark.entity.js';
import { RemarksModule } from './index.js';

const policies = {
  'remark.write': { roles: MAKERS },
  'remark.settle': { roles: { ...MANAGERS, staff: 'assigned', freelance: 'assigned' } },
  'room.reply': { link: 'room' },
} as const satisfies Record<string, Policy>;

const owners = {
  remark: 'select client_id, piece_id, null::uuid as request_id from remarks where id = $1',
  reply: `select m.client_id, m.piece_id, null::uuid as request_id from remark_replies r join remarks m on m.id = r.remark_id where r.id = $1`,
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

export const feature: Feature = {
  name: 'remarks',
  module: RemarksModule,
  entities: [Remark, RemarkReply],
  policies,
  owners,
};
