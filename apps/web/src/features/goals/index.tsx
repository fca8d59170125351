import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const GoalsPage = lazyPage(() => import('./goals-page'), 'GoalsPage');

export const feature: WebFeature = {
  name: 'goals',
  routes: [{ path: 'plan/goals', element: <GoalsPage /> }],
  actions: (session) => (manages(session) ? [go('Goals and strategy', '/plan/goals', 'where a client is to get to')] : []),
  verbs: {
    'goal.added': 'set a goal',
    'goal.changed': 'changed a goal',
    'goal.archived': 'put a goal away',
    'goal.restored': 'took a goal up again',
    'goal.read': 'read the measure of a goal',
    'strategy.noted': 'noted something of the strategy',
    'strategy.changed': 'changed a note on the strategy',
    'strategy.taken_off': 'took a note off the strategy',
    'strategy.put_back': 'put a note on the strategy back',
  },
};
