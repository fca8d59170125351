import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const PlanPage = lazyPage(() => import('./plan-page'), 'PlanPage');
const YearPage = lazyPage(() => import('./year-page'), 'YearPage');
const RhythmPage = lazyPage(() => import('./rhythm-page'), 'RhythmPage');
const IdeasPage = lazyPage(() => import('./ideas-page'), 'IdeasPage');

export const feature: WebFeature = {
  name: 'plan',
  routes: [
    { path: 'plan', element: <PlanPage /> },
    { path: 'plan/year', element: <YearPage /> },
    { path: 'plan/rhythm', element: <RhythmPage /> },
    { path: 'plan/ideas', element: <IdeasPage /> },
  ],
  actions: (session) =>
    manages(session)
      ? [
          go('Catch an idea', '/plan/ideas', 'one line is enough'),
          go('Plan', '/plan'),
          go('Plan: the year', '/plan/year'),
          go('Rhythm', '/plan/rhythm'),
          go('Ideas', '/plan/ideas'),
        ]
      : [],
  verbs: {
    'plan.month_started': 'began to plan a month',
    'plan.month_unstarted': 'took back that a month was begun',
    'rhythm.added': 'added to the rhythm',
    'rhythm.changed': 'changed the rhythm',
    'rhythm.ended': 'ended a rule of the rhythm',
    'rhythm.audiences_set': 'said whom its channels reach',
    'rhythm.numbers_set': 'set how many pieces are wanted',
    'rhythm.slot_left_out': 'left a slot out',
    'rhythm.slot_taken_in': 'took a slot in again',
    'marker.run_up_added': 'added to the run-up',
    'marker.production_set': 'said what is made on a production day',
    'marker.run_up_removed': 'took off the run-up',
    'theme.set': 'set a theme',
    'theme.swapped': 'swapped two themes',
    'theme.cycle_set': 'set the cycle of themes',
    'idea.caught': 'caught an idea',
    'idea.changed': 'changed an idea',
    'idea.dropped': 'dropped an idea',
    'idea.taken_up': 'took an idea up again',
    'idea.combined': 'combined ideas',
    'idea.commented': 'wrote about an idea',
    'idea.file_removed': 'took a file off an idea',
    'idea.used': 'made a piece of an idea',
  },
};
