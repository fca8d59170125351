import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import { Suspense, type ReactNode } from 'react';
import { MemoryRouter } from 'react-router';

/** One call that a page made. */
export interface Made {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  /** what If-Match said, without its quotes */
  readonly version: string | undefined;
}

/** An answer of the server: a body, or what tells it from the call; `Refusal` for a problem. */
export type Answer = object | ((made: Made) => object | Promise<object>);

export class Refusal {
  constructor(
    readonly status: number,
    readonly body: object,
  ) {}
}

const CLIENT = {
  id: 'c1',
  code: 'AAA',
  name: 'Aaa & Sons',
  colour: 1,
  usualTime: '09:00',
  channels: [
    { id: 'blog', kind: 'blog', name: 'Blog' },
    { id: 'feed', kind: 'feed', name: 'Feed' },
  ],
  pillars: [{ id: 'p1', name: 'Know-how' }],
  contacts: [{ id: 'k1', name: 'Ann Other', email: 'ann@aaa.test' }],
};
/** What every page of somebody signed in asks for. */
const USUAL: Record<string, Answer> = {
  'GET /session': {
    personId: 'me',
    name: 'Max',
    role: 'manager',
    zone: 'Europe/London',
    todayOn: '2027-03-01',
    agency: { name: 'Agency', markerKinds: [] },
  },
  'GET /clients': [CLIENT, { ...CLIENT, id: 'c2', code: 'BBB', name: 'Bbb', contacts: [] }],
  'GET /routes': [
    { id: 'r1', name: 'Still', formatId: 'f1', formatName: 'Still', steps: [] },
    { id: 'r2', name: 'Clip', formatId: 'f2', formatName: 'Clip', steps: [] },
  ],
  'GET /people': [{ id: 'me', name: 'Max', role: 'manager', active: true }],
};

/**
 * Shows a part of the application over a server that answers as told, by `METHOD /path` without its query. What nobody told of is refused as not
 * found, which the part then says.
 * @returns the calls in their order, and a user to click
 */
export function showServed(
  part: ReactNode,
  answers: Record<string, Answer>,
  at = '/',
): { calls: Made[]; sent: (method: string) => Made[]; user: UserEvent } {
  const calls: Made[] = [];
  const all = { ...USUAL, ...answers };
  globalThis.fetch = async (url, init) => {
    const said = new Map(Object.entries((init?.headers ?? {}) as Record<string, string>)); // as `call` gives them
    const path = String(url).replace(/^\/api/, '');
    const made: Made = {
      method: init?.method ?? 'GET',
      path,
      body: typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
      version: said.get('If-Match')?.replaceAll('"', ''),
    };
    calls.push(made);
    const answer = all[`${made.method} ${path.split('?')[0]}`] ?? new Refusal(404, { code: 'http.not_found' });
    const found = typeof answer === 'function' ? await answer(made) : answer;
    const isRefused = found instanceof Refusal;
    return {
      ok: !isRefused,
      status: isRefused ? found.status : 200,
      headers: new Map(),
      json: () => Promise.resolve(isRefused ? found.body : found),
    } as unknown as Response; // as much of one as `call` looks at
  };
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, gcTime: Infinity } } });
  render(
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={[at]}>
        <Suspense fallback="…">{part}</Suspense>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { calls, sent: (method) => calls.filter((made) => made.method === method), user: userEvent.setup() };
}
