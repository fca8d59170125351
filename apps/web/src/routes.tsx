import type { RouteObject } from 'react-router';
import { CalendarPage } from './features/calendar/calendar-page';
import { BrandPage } from './features/clients/brand-page';
import { ClientPage } from './features/clients/client-page';
import { RoomViewPage } from './features/clients/room-view-page';
import { ClientsPage } from './features/clients/clients-page';
import { DeskPage } from './features/desk/desk-page';
import { LinksPage } from './features/links/links-page';
import { PeoplePage } from './features/people/people-page';
import { PersonPage } from './features/people/person-page';
import { PiecePage } from './features/production/piece-page';
import { ProductionPage } from './features/production/production-page';
import { RequestsPage } from './features/requests/requests-page';
import { RoutesPage } from './features/routes/routes-page';
import { SignOffPage } from './features/sign-off/sign-off-page';
import { NotFound, RouteFailure } from './shell/errors';
import { Frame } from './shell/frame';
import { InvitePage } from './shell/invite';

/** Every address of the agency's application. */
export const routes: RouteObject[] = [
  { path: '/invite/:token', element: <InvitePage />, errorElement: <RouteFailure /> },
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
