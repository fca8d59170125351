import { useSuspenseQuery } from '@tanstack/react-query';
import { Suspense, useEffect } from 'react';
import { Outlet, useLocation } from 'react-router';
import { sessionQuery, startQuery } from '../api/agency';
import { keepFor } from '../lib/kept';
import { lazyPage } from '../lib/lazy-page';
import { useLive } from '../lib/use-live';
import { AlongDialog } from '../parts/along-dialog';
import { Loading } from '../ui/page';
import { Band } from './band';
import { RouteBoundary } from './errors';
import { SignIn } from './sign-in';

const SetUpPage = lazyPage(() => import('./set-up'), 'SetUpPage');

/** The frame of every page: the band on top, the page below. Without a session, signing in takes the page's place. */
export function Frame() {
  return (
    <Suspense fallback={<Loading />}>
      <Framed />
    </Suspense>
  );
}

/** Nothing to see: keeps the screen up to date while somebody is signed in, and what is typed for them alone. */
function LiveUpdates({ personId }: { personId: string }) {
  useLive();
  useEffect(() => keepFor(personId), [personId]);
  return null;
}

/** Where nobody is signed in: an agency to sign in to, or an empty Zesting whose agency is to be set up. */
function Entry() {
  const { data: start } = useSuspenseQuery(startQuery);
  return start.state === 'empty' ? <SetUpPage /> : <SignIn />;
}

function Framed() {
  const { data: session } = useSuspenseQuery(sessionQuery);
  const { pathname } = useLocation();
  if (!session) return <Entry />;
  return (
    <>
      <LiveUpdates personId={session.personId} />
      <AlongDialog />
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-card focus:p-2">
        Skip to the page
      </a>
      <Band session={session} />
      <main id="page" tabIndex={-1} className="px-5 py-5 max-w-[1880px] mx-auto outline-none">
        <RouteBoundary name={pathname}>
          <Outlet />
        </RouteBoundary>
      </main>
    </>
  );
}
