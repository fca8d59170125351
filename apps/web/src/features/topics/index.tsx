import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const TopicsPage = lazyPage(() => import('./topics-page'), 'TopicsPage');

export const feature: WebFeature = {
  name: 'topics',
  routes: [{ path: 'plan/pillars', element: <TopicsPage /> }],
  actions: (session) => (manages(session) ? [go('Pillars and topics', '/plan/pillars', 'what it is all about')] : []),
  verbs: {
    'topic.added': 'added topics',
    'topic.changed': 'changed a topic',
    'topic.archived': 'archived a topic',
    'topic.restored': 'took a topic back',
    'topic.treatments_set': 'set the treatments',
    'topic.subject_set': 'said what something is about',
  },
};
