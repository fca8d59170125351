import { go, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const FilesPage = lazyPage(() => import('./files-page'), 'FilesPage');
const LibraryPage = lazyPage(() => import('./library-page'), 'LibraryPage');

export const feature: WebFeature = {
  name: 'library',
  routes: [
    { path: 'production/library', element: <LibraryPage /> },
    { path: 'production/library/files', element: <FilesPage /> },
  ],
  actions: (session) =>
    session.role === 'freelance'
      ? []
      : [
          go('Library', '/production/library', 'what was made before, by its words'),
          go('Kept files', '/production/library/files', 'product pictures, templates, other files'),
        ],
  verbs: {
    'kept_file.added': 'kept a file',
    'kept_file.edited': 'changed a kept file',
    'kept_file.renewed': 'put a newer file in the place of a kept one',
    'kept_file.archived': 'put a kept file away',
    'kept_file.restored': 'took a kept file back',
  },
};
