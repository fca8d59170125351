import type { NestExpressApplication } from '@nestjs/platform-express';
import { ROUTE_STOCK, SKILL_STOCK } from '@zesting/core';
import { makeTestDatabase, type TestDatabase } from '../../../test-support/database.js';
import { Caller } from '../../../test-support/scene.js';
import { App } from '../../platform/app.js';
import type { Config } from '../../platform/config/config.js';
import { createServer } from '../../server.js';
import { replanOpenApart } from '../planning/index.js';
import { sendReminders, sendRoundUps } from '../notices/index.js';
import { setUpCode } from './use-cases/set-up.js';

const WEEK = [480, 480, 480, 480, 480, 0, 0];
const BODY = {
  agencyName: 'Harrow & Quince',
  zone: 'Europe/Dublin',
  region: 'IE',
  weeklyMinutes: WEEK,
  cutOff: '13:00',
  name: 'Orla Quince',
  email: 'orla@harrow.test',
  password: 'seven lanterns over the quay',
  withStock: true,
};

interface Running {
  readonly server: NestExpressApplication;
  readonly app: App;
  readonly address: string;
  readonly close: () => Promise<void>;
}

async function empty(change: Partial<Config> = {}): Promise<Running> {
  const database: TestDatabase = await makeTestDatabase();
  const server = await createServer({ ...database.config, ...change });
  await server.listen(0, '127.0.0.1');
  const close = async () => {
    await server.close();
    await database.drop();
  };
  return { server, app: server.get(App), address: await server.getUrl(), close };
}

describe('an empty Zesting', () => {
  let running: Running;
  let lead: Caller;
  beforeAll(async () => {
    running = await empty();
    lead = new Caller(running.address);
  });
  afterAll(() => running.close());
  const setUp = (body: object = BODY, caller = lead) => caller.call('POST', '/api/start', { body });

  it('says so, lets nobody in, and its jobs have nothing to do', async () => {
    expect((await lead.call('GET', '/api/start')).body).toEqual({ state: 'empty', needsCode: false });
    expect((await lead.call('GET', '/api/desk')).body['code']).toBe('access.signed_out');
    expect(await sendReminders(running.app)).toBe(0);
    expect(await sendRoundUps(running.app)).toBe(0);
    expect(await replanOpenApart(running.app)).toBe(0);
  });

  it('refuses what is wrong, and stores nothing of it', async () => {
    for (const change of [{ agencyName: '' }, { zone: 'Mars/Base' }, { weeklyMinutes: [1] }, { email: 'orla' }, { cutOff: '24:00' }])
      expect([change, (await setUp({ ...BODY, ...change })).status]).toEqual([change, 400]);
    expect((await setUp({ ...BODY, password: 'Orla Quince 1' })).body['code']).toBe('password.easily_guessed');
    expect(await running.app.read('select 1 from people')).toEqual([]);
  });

  it('is set up once, by one of those who try at the same time', async () => {
    const answers = await Promise.all([1, 2, 3].map((n) => setUp({ ...BODY, email: `orla${n}@harrow.test` }, new Caller(running.address))));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409]);
    expect(await running.app.read('select name, zone, cut_off, is_demo from agencies')).toEqual([
      { name: BODY.agencyName, zone: BODY.zone, cut_off: '13:00', is_demo: false },
    ]);
    expect((await lead.call('GET', '/api/start')).body['state']).toBe('ready');
    const [person] = await running.app.read<{ email: string }>('select email from people');
    const signedIn = await lead.call('POST', '/api/session', { body: { email: person?.email, password: BODY.password } });
    expect(signedIn.body).toMatchObject({ name: BODY.name, role: 'lead', agency: { name: BODY.agencyName } });
  });

  it('has the whole starting stock, and takes none of it twice', async () => {
    const { body } = await lead.call('GET', '/api/routes/whole');
    const routes = body['routes'] as { name: string }[];
    expect(routes.map((route) => route.name).sort()).toEqual(ROUTE_STOCK.map((route) => route.name).sort());
    expect(body['skills']).toEqual(SKILL_STOCK);
    expect((await lead.call('POST', '/api/agency/stock')).body).toEqual({ formats: [], routes: [], skills: [], form: false });
  });

  it('brings back of the stock what is missing, but not what was taken out', async () => {
    await running.app.read("delete from routes where name = 'Story'");
    await running.app.read("update formats set archived_at = now() where name = 'Live session'");
    await running.app.read("delete from routes where name = 'Live session'");
    const { version } = (await lead.call('GET', '/api/agency')).body;
    expect((await lead.call('POST', '/api/agency/stock')).body).toEqual({ formats: [], routes: ['Story'], skills: [], form: false });
    // whoever has the lists open as they were saves nothing over what was added
    const stale = await lead.call('PATCH', '/api/agency', { body: { formats: [] }, headers: { 'If-Match': `"${String(version)}"` } });
    expect(stale.body['code']).toBe('http.changed_meanwhile');
  });

  it('tells what comes next, each as it is done', async () => {
    const done = async () => {
      const { body } = await lead.call('GET', '/api/agency/beginning');
      return (body['steps'] as { key: string; isDone: boolean }[]).filter((step) => step.isDone).map((step) => step.key);
    };
    expect(await done()).toEqual(['routes']);
    const client = {
      code: 'PLUM',
      name: 'Plum Row',
      colour: 1,
      zone: 'Europe/Dublin',
      region: 'IE',
      weeklyMinutes: WEEK,
      usualTime: '09:30',
    };
    const made = await lead.call('POST', '/api/clients', {
      body: { ...client, managerIds: [], channelKinds: ['photo_feed', 'newsletter'] },
    });
    const clientId = String(made.body['clientId']);
    expect(await done()).toEqual(['routes', 'clients', 'forms']);
    const page = (await lead.call('GET', `/api/clients/${clientId}`)).body;
    expect(page['channels']).toMatchObject([
      { kind: 'photo_feed', ratio: '4:5', copyLimit: 2200, tagLimit: 30, mediaLimit: 10 },
      { kind: 'newsletter', leadDays: 1 },
    ]);
    const links = (await lead.call('GET', `/api/clients/${clientId}/links`)).body;
    expect(links['forms']).toMatchObject([{ title: 'Ask for content' }]);
    const person = { name: 'Una', email: 'una@harrow.test', role: 'staff', zone: 'Europe/Dublin', region: 'IE', weeklyMinutes: WEEK };
    expect((await lead.call('POST', '/api/people', { body: { ...person, skills: { juggle: 2 } } })).body['code']).toBe('skill.unknown');
    expect((await lead.call('POST', '/api/people', { body: { ...person, skills: { write: 2 } } })).status).toBe(201);
    expect(await done()).toEqual(['routes', 'people', 'clients', 'forms']);
    await lead.call('POST', '/api/agency/beginning', { body: { hidden: true } });
    expect((await lead.call('GET', '/api/agency/beginning')).body['isHidden']).toBe(true);
  });

  it('is no demo that could be left', async () => {
    expect((await lead.call('POST', '/api/agency/leave-demo', { body: { name: BODY.agencyName } })).body['code']).toBe('agency.not_demo');
    expect(await running.app.read('select 1 from clients')).toHaveLength(1);
  });
});

describe('an empty Zesting on the internet', () => {
  it('is set up by whoever reads its log', async () => {
    const running = await empty({ publicAddress: 'https://zesting.test', trustedProxies: 'loopback' });
    try {
      const stranger = new Caller(running.address);
      const headers = { 'X-Forwarded-Proto': 'https' };
      expect((await stranger.call('GET', '/api/start')).body).toEqual({ state: 'empty', needsCode: true });
      for (const code of [undefined, '', '000-000-000-000'])
        expect((await stranger.call('POST', '/api/start', { body: { ...BODY, code }, headers })).body['code']).toBe('agency.code_wrong');
      const code = setUpCode(running.app.config);
      expect(code).toMatch(/^([0-9a-f]{3}-){3}[0-9a-f]{3}$/);
      expect((await stranger.call('POST', '/api/start', { body: { ...BODY, code: ` ${code.toUpperCase()} ` }, headers })).status).toBe(200);
    } finally {
      await running.close();
    }
  });
});
