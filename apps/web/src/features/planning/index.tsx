import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const RoutesPage = lazyPage(() => import('./routes-page'), 'RoutesPage');

export const feature: WebFeature = {
  name: 'planning',
  routes: [{ path: 'routes', element: <RoutesPage /> }],
  setup: { name: 'Routes', path: '/routes', order: 3 },
  actions: (session) => (manages(session) ? [go('Routes', '/routes')] : []),
  verbs: {
    'route.made': 'made the route',
    'route.edited': 'changed the route',
    'route.archived': 'archived the route',
    'route.restored': 'restored the route',
  },
};
