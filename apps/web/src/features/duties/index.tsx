import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const DutiesPage = lazyPage(() => import('./duties-page'), 'DutiesPage');

export const feature: WebFeature = {
  name: 'duties',
  routes: [{ path: 'plan/duties', element: <DutiesPage /> }],
  actions: (session) => (manages(session) ? [go('Duties', '/plan/duties', 'work that comes again')] : []),
  verbs: {
    'duty.given': 'gave a duty to somebody else',
    'duty.added': 'added a duty',
    'duty.changed': 'changed a duty',
    'duty.ended': 'ended a duty',
    'duty.done': 'did a duty',
    'duty.left_out': 'left a duty out',
    'duty.reopened': 'took back what was said of a duty',
    'duty.missed_left_out': 'left out what was missed of a duty',
    'duty.piece_made': 'made the piece of a duty',
  },
};
