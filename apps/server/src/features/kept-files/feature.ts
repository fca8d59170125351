import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { KeptFile, KeptFileUse, RenewedFile } from './entities/kept-file.entity.js';
import { KeptFilesModule } from './index.js';

const policies = {
  'kept_file.find': { roles: { ...MANAGERS, staff: 'own' } },
  'kept_file.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  kept_file: 'select client_id, null::uuid as piece_id, null::uuid as request_id from kept_files where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** Files that are kept for a client: taken into pieces, and renewed in time. */
export const feature: Feature = {
  name: 'kept-files',
  module: KeptFilesModule,
  entities: [KeptFile, KeptFileUse, RenewedFile],
  policies,
  owners,
};
