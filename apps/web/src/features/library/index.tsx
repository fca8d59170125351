import { go, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const LibraryPage = lazyPage(() => import('./library-page'), 'LibraryPage');

export const feature: WebFeature = {
  name: 'library',
  routes: [{ path: 'production/library', element: <LibraryPage /> }],
  actions: (session) => (session.role === 'freelance' ? [] : [go('Library', '/production/library', 'what was made before, by its words')]),
};
