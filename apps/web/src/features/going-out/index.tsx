import { go, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const GoingOutPage = lazyPage(() => import('./going-out-page'), 'GoingOutPage');

export const feature: WebFeature = {
  name: 'going-out',
  routes: [{ path: 'calendar/going-out', element: <GoingOutPage /> }],
  actions: (session) => (session.role === 'freelance' ? [] : [go('Going out', '/calendar/going-out', 'today and the next seven days')]),
  verbs: {
    'placement.checked': 'looked at what goes out',
    'placement.unchecked': 'took back that it was looked at',
    'placement.out_corrected': 'corrected when it went out',
  },
};
