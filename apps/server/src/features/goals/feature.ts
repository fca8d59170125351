import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { GoalReading } from './entities/goal-reading.entity.js';
import { Goal } from './entities/goal.entity.js';
import { StrategyNote } from './entities/strategy-note.entity.js';
import { GoalsModule } from './index.js';

const policies = {
  'goal.read': { roles: MANAGERS },
  'goal.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  goal: 'select client_id, null::uuid as piece_id, null::uuid as request_id from goals where id = $1',
  strategy: 'select client_id, null::uuid as piece_id, null::uuid as request_id from strategy_notes where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What a client is to get to, and what is known of its strategy. */
export const feature: Feature = {
  name: 'goals',
  module: GoalsModule,
  entities: [Goal, GoalReading, StrategyNote],
  policies,
  owners,
};
