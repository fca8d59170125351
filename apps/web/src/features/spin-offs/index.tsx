import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const SourcesPage = lazyPage(() => import('./sources-page'), 'SourcesPage');

export const feature: WebFeature = {
  name: 'spin-offs',
  routes: [{ path: 'production/sources', element: <SourcesPage /> }],
  actions: (session) =>
    manages(session) ? [go('Sources and their spin-offs', '/production/sources', 'spreads, what is behind, coverage')] : [],
  verbs: {
    'spread.added': 'kept a spread',
    'spread.edited': 'changed a spread',
    'spread.used': 'put a spread to use',
    'spread.unused': 'stopped using a spread',
    'spread.archived': 'put a spread away',
    'spread.restored': 'took a spread up again',
    'piece.spun_off': 'made spin-offs from it',
    'spin_off.followed': 'changed its source, which it follows in',
    'spin_off.settled': 'settled in what it was behind its source',
    'spin_off.edited': 'changed how it is made from its source',
    'spin_off.cut_loose': 'cut it loose from its source',
  },
};
