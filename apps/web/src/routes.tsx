import type { RouteObject } from 'react-router';
import { FEATURES } from './features';
import { InvitePage, ResetPage } from './shell/choose-password';
import { NotFound, RouteFailure } from './shell/errors';
import { ForgottenPage } from './shell/forgotten';
import { Frame } from './shell/frame';

/** Every address of the agency's application: those of the features under the frame, and those without a session. */
export const routes: RouteObject[] = [
  { path: '/invite/:token', element: <InvitePage />, errorElement: <RouteFailure /> },
  { path: '/reset/:token', element: <ResetPage />, errorElement: <RouteFailure /> },
  { path: '/forgotten', element: <ForgottenPage />, errorElement: <RouteFailure /> },
  {
    path: '/',
    element: <Frame />,
    errorElement: <RouteFailure />,
    children: [...FEATURES.flatMap((feature) => feature.routes), { path: '*', element: <NotFound /> }],
  },
];
