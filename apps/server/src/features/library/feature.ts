import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { PieceWords } from './entities/piece-words.entity.js';
import { Phrase, PhraseUse } from './entities/phrase.entity.js';
import { TagSet } from './entities/tag-set.entity.js';
import { LibraryModule } from './index.js';

const policies = {
  'tag_set.edit': { roles: MANAGERS },
  'phrase.edit': { roles: MANAGERS },
  'library.find': { roles: { ...MANAGERS, staff: 'own' } },
} as const satisfies Record<string, Policy>;

const owners = {
  tag_set: 'select client_id, null::uuid as piece_id, null::uuid as request_id from tag_sets where id = $1',
  phrase: 'select client_id, null::uuid as piece_id, null::uuid as request_id from phrases where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What is used again: tag sets, phrases, and pieces by what they say. */
export const feature: Feature = {
  name: 'library',
  module: LibraryModule,
  entities: [TagSet, PieceWords, Phrase, PhraseUse],
  policies,
  owners,
};
