import type { RouteObject } from 'react-router';
import { DeskPage } from './features/desk/desk-page';
import { lazyPage } from './lib/lazy-page';
import { NotFound, RouteFailure } from './shell/errors';
import { Frame } from './shell/frame';
import { InvitePage, ResetPage } from './shell/choose-password';
import { ForgottenPage } from './shell/forgotten';

const AgencyPage = lazyPage(() => import('./features/agency/agency-page'), 'AgencyPage');
const CalendarPage = lazyPage(() => import('./features/calendar/calendar-page'), 'CalendarPage');
const BrandPage = lazyPage(() => import('./features/clients/brand-page'), 'BrandPage');
const ClientPage = lazyPage(() => import('./features/clients/client-page'), 'ClientPage');
const RoomViewPage = lazyPage(() => import('./features/clients/room-view-page'), 'RoomViewPage');
const ClientsPage = lazyPage(() => import('./features/clients/clients-page'), 'ClientsPage');
const LinksPage = lazyPage(() => import('./features/links/links-page'), 'LinksPage');
const PeoplePage = lazyPage(() => import('./features/people/people-page'), 'PeoplePage');
const PersonPage = lazyPage(() => import('./features/people/person-page'), 'PersonPage');
const PiecePage = lazyPage(() => import('./features/production/piece-page'), 'PiecePage');
const ProductionPage = lazyPage(() => import('./features/production/production-page'), 'ProductionPage');
const RequestsPage = lazyPage(() => import('./features/requests/requests-page'), 'RequestsPage');
const RoutesPage = lazyPage(() => import('./features/routes/routes-page'), 'RoutesPage');
const SignOffPage = lazyPage(() => import('./features/sign-off/sign-off-page'), 'SignOffPage');

/** Every address of the agency's application. */
export const routes: RouteObject[] = [
  { path: '/invite/:token', element: <InvitePage />, errorElement: <RouteFailure /> },
  { path: '/reset/:token', element: <ResetPage />, errorElement: <RouteFailure /> },
  { path: '/forgotten', element: <ForgottenPage />, errorElement: <RouteFailure /> },
  {
    path: '/',
    element: <Frame />,
    errorElement: <RouteFailure />,
    children: [
      { index: true, element: <DeskPage /> },
      { path: 'requests', element: <RequestsPage /> },
      { path: 'requests/:requestId', element: <RequestsPage /> },
      { path: 'production', element: <ProductionPage /> },
      { path: 'pieces/:pieceId', element: <PiecePage /> },
      { path: 'sign-off', element: <SignOffPage /> },
      { path: 'calendar', element: <CalendarPage /> },
      { path: 'agency', element: <AgencyPage /> },
      { path: 'clients', element: <ClientsPage /> },
      { path: 'clients/:clientId', element: <ClientPage /> },
      { path: 'clients/:clientId/room/:contactId', element: <RoomViewPage /> },
      { path: 'brand/:clientId', element: <BrandPage /> },
      { path: 'people', element: <PeoplePage /> },
      { path: 'people/:personId', element: <PersonPage /> },
      { path: 'routes', element: <RoutesPage /> },
      { path: 'links', element: <LinksPage /> },
      { path: '*', element: <NotFound /> },
    ],
  },
];
