import { go, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const CalendarPage = lazyPage(() => import('./calendar-page'), 'CalendarPage');
const LookPage = lazyPage(() => import('./look-page'), 'LookPage');

export const feature: WebFeature = {
  name: 'calendar',
  routes: [
    { path: 'calendar', element: <CalendarPage /> },
    { path: 'calendar/look', element: <LookPage /> },
  ],
  actions: (session) =>
    session.role === 'freelance'
      ? []
      : [go('Calendar', '/calendar'), go('Calendar: this week', '/calendar?view=week'), go('As followers see a channel', '/calendar/look')],
  verbs: {
    'placement.added': 'added a channel',
    'placement.moved': 'moved it',
    'placement.out': 'marked it as out',
    'placement.address_corrected': 'corrected where it can be seen',
    'placement.cancelled': 'cancelled a placement',
    'placement.restored': 'brought a placement back',
    'placement.swapped': 'swapped dates',
    'placement.duplicated': 'placed it once more',
    'marker.added': 'put on the calendar',
    'marker.changed': 'changed on the calendar',
    'marker.removed': 'took off the calendar',
    'placement.pencilled': 'pencilled it',
  },
};
