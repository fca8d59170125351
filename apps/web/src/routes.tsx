import type { RouteObject } from 'react-router';
import { CalendarPage } from './features/calendar/calendar-page';
import { DeskPage } from './features/desk/desk-page';
import { LinksPage } from './features/links/links-page';
import { PiecePage } from './features/production/piece-page';
import { ProductionPage } from './features/production/production-page';
import { RequestsPage } from './features/requests/requests-page';
import { SignOffPage } from './features/sign-off/sign-off-page';
import { NotFound, RouteFailure } from './shell/errors';
import { Frame } from './shell/frame';

/** Every address of the agency's application. */
export const routes: RouteObject[] = [
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
      { path: 'links', element: <LinksPage /> },
      { path: '*', element: <NotFound /> },
    ],
  },
];
