import type { NestExpressApplication } from '@nestjs/platform-express';
import { getValue } from '@zesting/core';
import { App } from '../src/platform/app.js';
import type { Viewer } from '../src/platform/access/access.js';
import type { Role } from '../src/platform/access/policies.js';
import { hashPassword } from '../src/features/identity/index.js';
import type { Feature } from '../src/platform/feature.js';
import { Jobs } from '../src/platform/jobs/jobs.js';
import { createServer } from '../src/server.js';
import { checkDescribed, describesItself } from './described.js';
import { makeTestDatabase } from './database.js';

export const PASSWORD = 'correct horse';
const WEEK = [480, 480, 480, 480, 480, 0, 0];

const STEPS = [
  { key: 'write', title: 'Write', kind: 'make', skill: 'write', spanDays: 1, effortMinutes: 60, after: [] },
  { key: 'design', title: 'Design', kind: 'make', skill: 'design', spanDays: 2, effortMinutes: 120, after: ['write'], reworkSpanDays: 1 },
  { key: 'check', title: 'Check', kind: 'check', skill: 'check', spanDays: 1, effortMinutes: 15, after: ['design'], reworkSpanDays: 1 },
  {
    key: 'sign_off',
    title: 'Client sign-off',
    kind: 'sign_off',
    skill: 'sign_off',
    spanDays: 2,
    effortMinutes: 0,
    after: ['check'],
    reworkSpanDays: 1,
  },
];
const ITEMS = [
  { key: 'about', kind: 'short', label: 'About', needed: true, serves: 'title' },
  { key: 'wish', kind: 'day', label: 'When', serves: 'wish_date' },
  { key: 'files', kind: 'files', label: 'Files' },
  { key: 'budget', kind: 'short', label: 'Budget', agencyOnly: true },
];

type Insert = (table: string, row: Record<string, unknown>) => Promise<string>;

/** Puts a form with its first version for a client, and a link to it. */
export async function insertForm(
  insert: Insert,
  content: { readonly title: string; readonly items: unknown; readonly routeId: string },
  clientId: string,
): Promise<{ formId: string; linkId: string }> {
  const formId = await insert('intake_forms', { title: content.title, published_version: 1 });
  const rest = { intro: '', language: 'en', rules: [], thanks: '', opensOn: null, closesOn: null, noticeDays: 0, answerDays: 0 };
  const at = '2026-01-01T00:00:00Z';
  await insert('form_versions', {
    form_id: formId,
    number: 1,
    content: JSON.stringify({ ...rest, ...content }),
    published_at: at,
    published_by: 'Lead',
  });
  await insert('form_clients', { form_id: formId, client_id: clientId });
  const linkId = await insert('form_links', { form_id: formId, client_id: clientId, label: content.title, made_at: at });
  return { formId, linkId };
}

export interface SceneClient {
  readonly id: string;
  readonly formId: string;
  readonly linkId: string;
  readonly channelIds: readonly string[];
  readonly contactId: string;
}

/** A server on a database of its own with two clients, A and B, and one person of each role, all of them with client A. */
export interface Scene {
  readonly server: NestExpressApplication;
  readonly app: App;
  readonly address: string;
  readonly a: SceneClient;
  readonly b: SceneClient;
  readonly routeId: string;
  readonly people: Readonly<Record<Role, Viewer>>;
  /**
   * For before each test: the clock is back at `NOW`, once the plan of what tests before changed has been reckoned. A prediction that is still
   * under way would answer with the day that a test before had set, and wait for rows that the next test changes all at once.
   */
  readonly begin: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** 2027-03-01 is a Monday; London is on winter time, noon has not come. */
export const NOW = '2027-03-01T09:00:00Z';

/** @param more other features than the application's, with what their migrations would make; further surroundings of the server */
export async function makeScene(
  more: { features?: readonly Feature[]; schema?: string; env?: Readonly<Record<string, string>> } = {},
): Promise<Scene> {
  const database = await makeTestDatabase(more.env);
  const server = await createServer(database.config, more.features);
  await server.listen(0, '127.0.0.1');
  if (more.features) describesItself(await server.getUrl());
  const app = server.get(App);
  app.clock.set(NOW);
  if (more.schema) await app.read(more.schema);
  const insert: Insert = async (table, row) => {
    const names = Object.keys(row);
    const [made] = await app.read<{ id: string }>(
      `insert into ${table} (${names.join(', ')}) values (${names.map((_, index) => `$${index + 1}`).join(', ')}) returning *`,
      Object.values(row),
    );
    return made?.id ?? '';
  };
  await insert('agencies', { name: 'Agency', zone: 'Europe/London', region: 'GB-ENG', weekly_minutes: WEEK });
  for (const name of ['write', 'design', 'check']) await insert('skills', { name });
  const formatId = await insert('formats', { name: 'Still' });
  const routeId = await insert('routes', { name: 'Still', format_id: formatId, steps: JSON.stringify(STEPS) });
  const client = async (code: string, zone: string, region: string): Promise<SceneClient> => {
    const id = await insert('clients', {
      code,
      name: `Client ${code}`,
      colour: 0,
      zone,
      region,
      weekly_minutes: WEEK,
      policy: '{"kind":"any"}',
    });
    const channelIds = [
      await insert('channels', { client_id: id, kind: 'photo_feed', name: 'Photo feed' }),
      await insert('channels', { client_id: id, kind: 'blog', name: 'Blog', position: 1 }),
    ];
    const contactId = await insert('contacts', {
      client_id: id,
      name: `Contact ${code}`,
      email: `contact@${code.toLowerCase()}.test`,
      can_sign_off: true,
    });
    return { id, ...(await insertForm(insert, { title: 'Ask', items: ITEMS, routeId }, id)), channelIds, contactId };
  };
  const a = await client('AAA', 'Europe/London', 'GB-ENG');
  const b = await client('BBB', 'Pacific/Auckland', 'NZ-AUK');
  const hash = await hashPassword(PASSWORD);
  const person = async (role: Role, name: string): Promise<Viewer> => {
    const personId = await insert('people', {
      name,
      email: `${role}@agency.test`,
      password_hash: hash,
      role,
      zone: 'Europe/London',
      region: 'GB-ENG',
      weekly_minutes: WEEK,
      skills: '{"write":2}',
      may_edit_forms: role === 'manager',
    });
    if (role !== 'lead' && role !== 'freelance') await insert('client_people', { client_id: a.id, person_id: personId });
    return {
      personId,
      name,
      role,
      zone: 'Europe/London',
      clientIds: role === 'lead' ? [a.id, b.id] : [a.id],
      mayEditForms: role === 'lead' || role === 'manager',
    };
  };
  const people = {
    lead: await person('lead', 'Lea'),
    manager: await person('manager', 'Max'),
    staff: await person('staff', 'Sia'),
    freelance: await person('freelance', 'Fay'),
  };
  const begin = async () => {
    const isPlanning = "select 1 from graphile_worker.jobs where task_identifier like 'planning\\_%' and attempts < max_attempts";
    const jobs = server.get(Jobs); // stopped where a test asks for the plan itself
    while (jobs.isRunning() && (await app.read(isPlanning)).length > 0) await new Promise((resolve) => setTimeout(resolve, 20));
    app.clock.set(NOW);
  };
  const close = async () => {
    await server.close();
    await database.drop();
  };
  return { server, app, address: await server.getUrl(), a, b, routeId, people, begin, close };
}

/** Makes a piece of a client on both channels, straight through the use case. */
export async function makePiece(scene: Scene, client: SceneClient, wishOn: string | null = '2027-03-30'): Promise<string> {
  const { createPiece } = await import('../src/features/production/index.js');
  const wanted = {
    clientId: client.id,
    requestId: null,
    routeId: scene.routeId,
    pillarId: null,
    title: 'A piece',
    notes: '',
    wishOn,
    channelIds: client.channelIds,
    actor: 'test',
  };
  return getValue(await scene.app.write((tx, now) => createPiece(tx, wanted, now)));
}

/** The id of a piece's open step of that key. */
export async function stepOf(scene: Scene, pieceId: string, key: string): Promise<string> {
  const [row] = await scene.app.read<{ id: string }>(
    'select id from steps where piece_id = $1 and key = $2 and finished_on is null order by position limit 1',
    [pieceId, key],
  );
  if (!row) throw new Error(`no open step ${key}`);
  return row.id;
}

/** A cookie jar of one caller. */
export class Caller {
  readonly cookies = new Map<string, string>();
  constructor(private readonly address: string) {}

  async call(
    method: string,
    path: string,
    options: { body?: unknown; headers?: Record<string, string> } = {},
  ): Promise<{ status: number; body: Record<string, unknown>; headers: Headers }> {
    const isForm = options.body instanceof FormData;
    const response = await fetch(`${this.address}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        ...(options.body === undefined || isForm ? {} : { 'Content-Type': 'application/json' }),
        ...(this.cookies.size > 0 ? { Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ') } : {}),
        ...options.headers,
      },
      body: isForm ? (options.body as FormData) : options.body === undefined ? null : JSON.stringify(options.body),
    });
    for (const cookie of response.headers.getSetCookie()) {
      const [pair = ''] = cookie.split(';');
      const at = pair.indexOf('=');
      this.cookies.set(pair.slice(0, at), pair.slice(at + 1));
    }
    // a stream never ends by itself: that it opened is the answer
    if (response.headers.get('content-type')?.startsWith('text/event-stream')) {
      await response.body?.cancel();
      return { status: response.status, body: {}, headers: response.headers };
    }
    const text = await response.text();
    const isJson = response.headers.get('content-type')?.includes('json') ?? false;
    if (isJson && response.ok && path !== '/api/openapi.json')
      await checkDescribed(this.address, method, path, response.status, JSON.parse(text));
    return {
      status: response.status,
      headers: response.headers,
      body: isJson && text !== '' ? ((JSON.parse(text) as Record<string, unknown> | null) ?? {}) : { text },
    };
  }
}

/** A caller signed in as a role. */
export async function callerAs(scene: Scene, role: Role): Promise<Caller> {
  const caller = new Caller(scene.address);
  const { status } = await caller.call('POST', '/api/session', { body: { email: `${role}@agency.test`, password: PASSWORD } });
  if (status !== 200) throw new Error(`${role} cannot sign in: ${status}`);
  return caller;
}

/** A caller who opened a personal link. */
export async function callerByLink(scene: Scene, purpose: 'ask' | 'receipt' | 'room' | 'invite' | 'reset', id: string): Promise<Caller> {
  const caller = new Caller(scene.address);
  const path = {
    ask: '/api/ask/open',
    receipt: '/api/receipts/open',
    room: '/api/room/open',
    invite: '/api/invites/open',
    reset: '/api/resets/open',
  }[purpose];
  const { status } = await caller.call('POST', path, { body: { token: scene.app.links.token(purpose, id, 1) } });
  if (status !== 200) throw new Error(`the ${purpose} link does not open: ${status}`);
  return caller;
}

/** What the page of a form sends, of a form that was opened a while ago. */
export const filledIn = (scene: Scene, linkId: string, answers: Record<string, unknown>): Record<string, unknown> => ({
  name: 'Ann',
  email: 'ann@aaa.test',
  answers,
  version: 1,
  stamp: scene.app.links.stamp(linkId, new Date(Date.parse(scene.app.clock.now()) - 60_000).toISOString()),
});
