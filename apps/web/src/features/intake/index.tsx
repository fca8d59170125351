import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const RequestsPage = lazyPage(() => import('./requests-page'), 'RequestsPage');

export const feature: WebFeature = {
  name: 'intake',
  routes: [
    { path: 'requests', element: <RequestsPage /> },
    { path: 'requests/:requestId', element: <RequestsPage /> },
  ],
  actions: (session) => (manages(session) ? [go('Requests', '/requests')] : []),
  verbs: {
    'request.reopened': 'took the request up again',
    'request.received': 'asked for it',
    'request.accepted': 'accepted the request',
    'request.further_piece': 'began one more piece of the request',
    'request.declined': 'declined the request',
  },
};
