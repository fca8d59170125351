import { getValue } from '@zesting/core';
import { makeTestDatabase, type TestDatabase } from '../../test-support/database.js';
import { Caller } from '../../test-support/scene.js';
import { hashPassword } from '../features/identity/index.js';
import { makePerson } from '../features/people/index.js';
import { createServer } from '../server.js';
import { App } from './app.js';

const PUBLIC = 'https://zesting.example.test';

/** What a proxy that ends TLS in front of the application says of the caller, and what the browser says of its page. */
const through = (address: string, origin: string | null = PUBLIC): Record<string, string> => ({
  'X-Forwarded-Proto': 'https',
  'X-Forwarded-For': address,
  ...(origin === null ? {} : { Origin: origin }),
});

describe('behind a proxy that ends TLS', () => {
  let database: TestDatabase;
  let server: Awaited<ReturnType<typeof createServer>>;
  let address: string;
  const signIn = { email: 'lead@x.test', password: 'correct horse' };

  beforeAll(async () => {
    database = await makeTestDatabase();
    server = await createServer({ ...database.config, publicAddress: PUBLIC, trustedProxies: 'loopback', testing: false });
    await server.listen(0, '127.0.0.1');
    address = await server.getUrl();
    const app = server.get(App);
    await app.read("insert into agencies (name, zone, region, weekly_minutes) values ('A', 'Europe/London', 'GB-ENG', '{480}')");
    await app.read(
      `insert into people (name, email, password_hash, role, zone, region, weekly_minutes) values ('Lea', $1, $2, 'lead', 'Europe/London', 'GB-ENG', '{480}')`,
      [signIn.email, await hashPassword(signIn.password)],
    );
  });
  afterAll(async () => {
    await server.close();
    await database.drop();
  });

  it('signs in with a cookie that only goes over TLS, and takes writes from its own pages', async () => {
    const lead = new Caller(address);
    const answer = await lead.call('POST', '/api/session', { body: signIn, headers: through('203.0.113.7') });
    expect(answer.status).toBe(200);
    const [cookie = ''] = answer.headers.getSetCookie();
    expect(cookie).toMatch(/; Secure/);
    expect(cookie).toMatch(/; HttpOnly/);
    expect(answer.headers.get('strict-transport-security')).toMatch(/max-age=/);
    expect((await lead.call('GET', '/api/desk', { headers: through('203.0.113.7') })).status).toBe(200);
    expect((await lead.call('DELETE', '/api/session', { headers: through('203.0.113.7') })).status).toBe(204);
  });

  it('refuses writes from other pages, and what does not come over TLS, in words', async () => {
    const post = async (headers: Record<string, string>) =>
      (await new Caller(address).call('POST', '/api/session', { body: signIn, headers })).body['code'];
    expect(await post(through('203.0.113.8', 'https://elsewhere.test'))).toBe('access.wrong_origin');
    expect(await post(through('203.0.113.8', 'http://zesting.example.test'))).toBe('access.wrong_origin');
    expect(await post({ Origin: PUBLIC })).toBe('access.not_secure');
    expect(await post({})).toBe('access.not_secure');
  });

  it('counts tries by who calls, not by the proxy', async () => {
    const wrong = { body: { ...signIn, password: 'guess' } };
    const tries = async (from: string) => {
      const seen = [];
      for (let count = 0; count < 12; count++)
        seen.push((await new Caller(address).call('POST', '/api/session', { ...wrong, headers: through(from) })).status);
      return seen;
    };
    expect((await tries('198.51.100.1')).filter((status) => status === 429).length).toBeGreaterThan(0);
    const other = await new Caller(address).call('POST', '/api/session', { body: signIn, headers: through('198.51.100.2') });
    expect(other.status).toBe(200);
  });

  it('writes links with the public address', async () => {
    const app = server.get(App);
    const viewer = { personId: '', name: 'Lea', role: 'lead', zone: 'Europe/London', clientIds: [], mayEditForms: true } as const;
    const body = {
      name: 'New',
      email: 'new@x.test',
      role: 'staff',
      zone: 'Europe/London',
      region: 'GB-ENG',
      weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
      skills: {},
    } as const;
    getValue(await makePerson(app, viewer, { ...body, weeklyMinutes: [...body.weeklyMinutes] }));
    const [mail] = await app.read<{ text: string }>(
      "select payload::text as text from graphile_worker._private_jobs where payload ->> 'to' = 'new@x.test'",
    );
    expect(mail?.text).toContain(`${PUBLIC}/invite/`);
  });
});
