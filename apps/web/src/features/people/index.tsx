import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const PeoplePage = lazyPage(() => import('./people-page'), 'PeoplePage');
const PersonPage = lazyPage(() => import('./person-page'), 'PersonPage');

export const feature: WebFeature = {
  name: 'people',
  routes: [
    { path: 'people', element: <PeoplePage /> },
    { path: 'people/:personId', element: <PersonPage /> },
  ],
  setup: { name: 'People', path: '/people', order: 2 },
  actions: (session) => [
    ...(manages(session) ? [go('People', '/people')] : []),
    go('Your page: hours, time off, round-ups', `/people/${session.personId}`),
  ],
  verbs: {
    'time_off.added': 'added time off',
    'time_off.removed': 'took time off away',
    'time_off.imported': 'took time off over from a calendar',
    'cover.added': 'arranged cover',
    'cover.removed': 'ended cover',
    'person.rate_said': 'said what an hour costs of',
    'person.made': 'took on',
    'person.edited': 'changed',
    'person.invited': 'sent an invitation',
    'person.invitation_taken_back': 'took an invitation back',
    'person.password_set': 'set a password',
    'person.left': 'noted the leaving of',
    'person.came_back': 'took back',
  },
};
