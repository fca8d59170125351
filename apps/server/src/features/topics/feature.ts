import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { StoredTopic } from './entities/topic.entity.js';
import { TopicUse } from './entities/topic-use.entity.js';
import { Treatments } from './entities/treatments.entity.js';
import { TopicsModule } from './index.js';

const policies = {
  'topic.read': { roles: MANAGERS },
  'topic.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  topic: 'select client_id, null::uuid as piece_id, null::uuid as request_id from topics where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What a client's content is about: topics and subtopics of its pillars, and in which ways they were treated. */
export const feature: Feature = {
  name: 'topics',
  module: TopicsModule,
  entities: [StoredTopic, TopicUse, Treatments],
  policies,
  owners,
};
