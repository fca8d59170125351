import { MANAGERS, type NamesOf, type Policy } from '../../platform/access/policies.js';
import type { Feature } from '../../platform/feature.js';
import { ClientPlan } from './entities/client-plan.entity.js';
import { Idea } from './entities/idea.entity.js';
import { MonthStart } from './entities/month-start.entity.js';
import { StoredProductionDay } from './entities/production-day.entity.js';
import { RunUp } from './entities/run-up.entity.js';
import { StoredRule } from './entities/rhythm-rule.entity.js';
import { StoredTheme } from './entities/theme.entity.js';
import { PlanModule } from './index.js';
import { findIdeas } from './queries/find-ideas.js';

const policies = {
  'plan.read': { roles: MANAGERS },
  'plan.edit': { roles: MANAGERS },
} as const satisfies Record<string, Policy>;

const owners = {
  rule: 'select client_id, null::uuid as piece_id, null::uuid as request_id from rhythm_rules where id = $1',
  runUp: 'select client_id, null::uuid as piece_id, null::uuid as request_id from run_ups where id = $1',
  idea: 'select client_id, null::uuid as piece_id, null::uuid as request_id from ideas where id = $1',
} as const;

declare module '../../platform/access/policies.js' {
  interface PolicyNames extends NamesOf<typeof policies> {}
  interface ResourceKinds extends NamesOf<typeof owners> {}
}

/** What shall be made: a client's rhythm, its themes, ideas, and the month that is filled from them. */
export const feature: Feature = {
  name: 'plan',
  module: PlanModule,
  entities: [MonthStart, StoredRule, StoredTheme, ClientPlan, Idea, RunUp, StoredProductionDay],
  policies,
  owners,
  finds: [findIdeas],
};
