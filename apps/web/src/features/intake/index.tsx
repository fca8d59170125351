import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const FormPage = lazyPage(() => import('./forms/form-page'), 'FormPage');
const FormsPage = lazyPage(() => import('./forms/forms-page'), 'FormsPage');
const MailsPage = lazyPage(() => import('./mails-page'), 'MailsPage');
const RequestsPage = lazyPage(() => import('./requests-page'), 'RequestsPage');

const TablePage = lazyPage(() => import('./table-page'), 'TablePage');

export const feature: WebFeature = {
  name: 'intake',
  routes: [
    { path: 'requests', element: <RequestsPage /> },
    { path: 'requests/mails', element: <MailsPage /> },
    { path: 'requests/table', element: <TablePage /> },
    { path: 'requests/:requestId', element: <RequestsPage /> },
    { path: 'forms', element: <FormsPage /> },
    { path: 'forms/:formId', element: <FormPage /> },
  ],
  setup: { name: 'Forms', path: '/forms', order: 4 },
  actions: (session) =>
    manages(session)
      ? [
          go('Requests', '/requests'),
          go('Mail set aside', '/requests/mails'),
          go('Requests from a table', '/requests/table'),
          go('Forms', '/forms'),
        ]
      : [],
  verbs: {
    'request.reopened': 'took the request up again',
    'request.received': 'asked for it',
    'request.accepted': 'accepted the request',
    'request.further_piece': 'began one more piece of the request',
    'request.declined': 'declined the request',
    'request.kept': 'kept the request as an idea for later',
    'request.asked_back': 'asked back',
    'request.answered': 'answered',
    'request.withdrawn': 'took the request back',
    'request.merged': 'merged the request with another',
    'request.attached': 'put the request to a piece',
    'request.owner_set': 'said who answers for the request',
    'request.taken_down': 'took the request down',
    'client.mail_waits': 'wrote a mail that waits',
    'client.mail_left': 'left a mail that is no request',
    'client.mail_waits_again': 'let a mail wait again',
    'form.made': 'began the form',
    'form.change_begun': 'began to change the form',
    'form.change_dropped': 'dropped what was changed of the form',
    'form.published': 'published the form',
    'form.clients_set': 'said whom the form is for',
    'form.archived': 'archived the form',
    'form.taken_back': 'took the form back',
    'form.link_made': 'made a link to the form',
    'form.link_edited': 'changed a link to the form',
    'form.link_renewed': 'renewed a link to the form',
    'form.link_closed': 'closed a link to the form',
  },
};
