import 'reflect-metadata/lite'; // before any class of the contract
import './styles/base.css';
import 'react-image-crop/dist/ReactCrop.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { ApiProblem } from './lib/api';
import { loadAhead } from './lib/lazy-page';
import { routes } from './routes';
import { WheelPatterns } from './ui/wheel';

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (failures, error) => failures < 2 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
    },
  },
});
const root = document.getElementById('root');
if (!root) throw new Error('the page has no root');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <WheelPatterns />
      <RouterProvider router={createBrowserRouter(routes)} />
      {/* long enough to be read and undone by somebody who is not quick; what the pointer rests on stays */}
      <Toaster position="bottom-right" theme="system" closeButton duration={10_000} />
    </QueryClientProvider>
  </StrictMode>,
);
// where the pointer or the keyboard comes to a link, its page is got before it is followed
for (const coming of ['pointerover', 'focusin'])
  document.addEventListener(coming, ({ target }) => {
    const link = target instanceof Element ? target.closest<HTMLAnchorElement>('a[href]') : null;
    if (link?.origin === location.origin) loadAhead(routes, link.pathname);
  });
