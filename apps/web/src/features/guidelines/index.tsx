import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const GuidelinesPage = lazyPage(() => import('./guidelines-page'), 'GuidelinesPage');

export const feature: WebFeature = {
  name: 'guidelines',
  routes: [{ path: 'guidelines', element: <GuidelinesPage /> }],
  setup: { name: 'Guidelines', path: '/guidelines', order: 3.5 },
  actions: (session) => (manages(session) ? [go('Guidelines', '/guidelines', 'how we make things')] : []),
  verbs: {
    'guideline.added': 'wrote a guideline',
    'guideline.picture_added': 'put a picture to a guideline',
    'guideline.picture_removed': 'took a picture off a guideline',
    'guideline.edited': 'changed a guideline',
    'guideline.archived': 'put a guideline away',
    'guideline.restored': 'took a guideline back',
  },
};
