import { go, manages, type WebFeature } from '../../lib/feature';
import { lazyPage } from '../../lib/lazy-page';

const ClientsPage = lazyPage(() => import('./clients-page'), 'ClientsPage');
const ClientPage = lazyPage(() => import('./client-page'), 'ClientPage');
const RoomViewPage = lazyPage(() => import('./room-view-page'), 'RoomViewPage');
const BrandPage = lazyPage(() => import('./brand-page'), 'BrandPage');

export const feature: WebFeature = {
  name: 'clients',
  routes: [
    { path: 'clients', element: <ClientsPage /> },
    { path: 'clients/:clientId', element: <ClientPage /> },
    { path: 'clients/:clientId/room/:contactId', element: <RoomViewPage /> },
    { path: 'brand/:clientId', element: <BrandPage /> },
  ],
  setup: { name: 'Clients', path: '/clients', order: 1 },
  actions: (session) => (manages(session) ? [go('Clients', '/clients')] : []),
  verbs: {
    'client.observance_taken': 'put a day of note on the calendar',
    'client.observance_left': 'took a day of note off the calendar',
    'client.observance_added': 'added a day of note',
    'client.observance_removed': 'removed a day of note',
    'form.given': 'gave the client a form',
    'client.made': 'took on the client',
    'client.fee_agreed': 'agreed on the fee',
    'client.edited': 'changed the client',
    'client.contact_added': 'added a contact',
    'client.link_renewed': 'renewed a link',
    'client.link_closed': 'closed a link',
    'client.mail_failed': 'could not deliver a mail',
    'client.team_set': 'changed who usually does what',
    'phrase.added': 'kept a phrase',
    'phrase.edited': 'changed a phrase',
    'phrase.archived': 'put a phrase away',
    'phrase.restored': 'took a phrase back',
    'tag_set.added': 'kept a tag set',
    'tag_set.edited': 'changed a tag set',
    'tag_set.archived': 'put a tag set away',
    'tag_set.restored': 'took a tag set back',
    'channel.linked': 'lets a channel go out by itself',
    'channel.link_edited': 'changed how a channel goes out by itself',
    'channel.follow_ups_set': 'changed what is done around what goes out',
    'channel.unlinked': 'lets a channel be posted by hand',
    'client.archived': 'archived the client',
    'client.restored': 'restored the client',
  },
};
