import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const WritingPage = lazyPage(() => import('./writing-page'), 'WritingPage');
const AgencyPage = lazyPage(() => import('./agency-page'), 'AgencyPage');

export const feature: WebFeature = {
  name: 'agency',
  routes: [
    { path: 'agency', element: <AgencyPage /> },
    { path: 'agency/writing', element: <WritingPage /> },
  ],
  setup: { name: 'Agency', path: '/agency', order: 0 },
  actions: (session) =>
    manages(session)
      ? [
          go('Agency: settings', '/agency'),
          go('What each format is written by', '/agency/writing', 'texts, outlines, subject line, script'),
        ]
      : [],
  verbs: {
    'agency.observance_added': 'added a day of note for every client',
    'agency.observance_removed': 'removed a day of note',
    'agency.set_up': 'set up the agency',
    'agency.writing_set': 'said what pieces of a format are written by',
    'agency.brief_set': 'said what a brief needs',
    'agency.edited': 'changed what the agency sets',
    'agency.stock_taken': 'took of the starting stock',
    'agency.mark_put': 'changed the mark',
    'agency.mark_taken_away': 'took the mark away',
  },
};
