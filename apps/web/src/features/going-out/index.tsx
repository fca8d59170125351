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
    'placement.sent_now': 'had it sent at once',
    'placement.failed': 'could not send it',
    'placement.unsure': 'does not know whether it is out',
    'placement.said_not_out': 'looked, and it is not out',
    'follow_up.done': 'did what is done around it',
    'follow_up.left_out': 'left out what is done around it',
    'follow_up.open': 'took back what is done around it',
    'sending.stopped': 'stopped what goes out by itself',
    'sending.resumed': 'let things go out by themselves again',
    'placement.out_corrected': 'corrected when it went out',
  },
};
