import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const SignOffPage = lazyPage(() => import('./sign-off-page'), 'SignOffPage');

export const feature: WebFeature = {
  name: 'sign-off',
  routes: [{ path: 'sign-off', element: <SignOffPage /> }],
  actions: (session) => (manages(session) ? [go('Sign-off: send a packet, chase, record', '/sign-off')] : []),
  verbs: {
    'packet.chased': 'chased the contacts',
  },
};
