import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const QuestionsPage = lazyPage(() => import('./questions-page'), 'QuestionsPage');

export const feature: WebFeature = {
  name: 'interviews',
  routes: [{ path: 'plan/questions', element: <QuestionsPage /> }],
  actions: (session) => (manages(session) ? [go('Questions', '/plan/questions', 'to contacts and experts')] : []),
  verbs: {
    'question_set.added': 'kept questions',
    'question_set.changed': 'changed kept questions',
    'question_set.archived': 'put questions away',
    'question_set.restored': 'took questions back',
    'interview.asked': 'asked who knows',
    'interview.changed': 'changed what was asked',
    'interview.closed': 'closed questions',
    'interview.opened': 'opened questions again',
    'interview.answered': 'answered a question',
  },
};
