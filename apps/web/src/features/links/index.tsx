import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const LinksPage = lazyPage(() => import('./links-page'), 'LinksPage');

export const feature: WebFeature = {
  name: 'links',
  routes: [{ path: 'links', element: <LinksPage /> }],
  setup: { name: 'Links to hand out', path: '/links', order: 5 },
  actions: (session) => (manages(session) ? [go('Links to hand out', '/links')] : []),
};
