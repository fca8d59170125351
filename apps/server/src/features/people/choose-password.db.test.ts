import type { DeviceShape } from '@zesting/contract';
import { eventually } from '../../../test-support/eventually.js';
import { Caller, callerAs, makeScene, PASSWORD, type Scene } from '../../../test-support/scene.js';

const NEW = 'two kettles, one lamp';

describe('a forgotten password', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from password_resets');
    await scene.app.read("delete from graphile_worker._private_jobs where payload ->> 'subject' is not null");
  });

  const ask = (email: string) => new Caller(scene.address).call('POST', '/api/resets', { body: { email } });
  /** The mails that wait for an address: nothing takes them in these tests. */
  const mailsTo = (email: string) =>
    scene.app.read<{ payload: { subject: string; links: { address: string }[] } }>(
      "select payload from graphile_worker._private_jobs where payload ->> 'to' = $1 order by id",
      [email],
    );
  const tasksDone = () =>
    eventually(async () => {
      const waiting = await scene.app.read("select 1 from graphile_worker.jobs where task_identifier = 'answer_forgotten'");
      return waiting.length === 0;
    });
  const tokenFor = async (email: string): Promise<string> => {
    expect((await ask(email)).status).toBe(204);
    await tasksDone();
    return (await mailsTo(email.toLowerCase())).at(-1)?.payload.links[0]?.address.split('/reset/')[1] ?? '';
  };
  const open = async (token: string) => {
    const caller = new Caller(scene.address);
    const { status, body } = await caller.call('POST', '/api/resets/open', { body: { token } });
    return { caller, status, path: `/api/resets/${String(body['linkId'])}` };
  };
  const signIn = async (email: string, password: string) =>
    (await new Caller(scene.address).call('POST', '/api/session', { body: { email, password } })).status;

  it('is set anew by a link that opens once, ends every session and every wait, and is told', async () => {
    const before = await callerAs(scene, 'manager');
    for (let attempt = 0; attempt < 6; attempt++) await signIn('manager@agency.test', 'wrong');
    expect(await signIn('manager@agency.test', PASSWORD)).toBe(429);
    const [first, second] = [await tokenFor('Manager@Agency.test'), await tokenFor('manager@agency.test')];
    const { caller, path } = await open(second);
    expect((await caller.call('GET', path)).body).toEqual({ name: 'Max', email: 'manager@agency.test', agencyName: 'Agency' });
    const refused = async (password: string) => (await caller.call('POST', `${path}/password`, { body: { password } })).body['code'];
    expect([await refused('short'), await refused('password1234'), await refused('manager@agency.test')]).toEqual([
      'http.invalid',
      'password.easily_guessed',
      'password.easily_guessed',
    ]);
    expect((await caller.call('POST', `${path}/password`, { body: { password: NEW } })).status).toBe(204);
    expect([await signIn('manager@agency.test', NEW), await signIn('manager@agency.test', PASSWORD)]).toEqual([200, 401]);
    expect((await before.call('GET', '/api/desk')).status).toBe(401);
    expect((await caller.call('POST', `${path}/password`, { body: { password: `${NEW}!` } })).body['code']).toBe('access.link_not_open');
    expect((await open(first)).status).toBe(401); // what was sent before closes with it
    expect((await mailsTo('manager@agency.test')).at(-1)?.payload.subject).toBe('Your password was changed');
  });

  it('says the same to whoever asks for whom, and sends nothing to who is not here', async () => {
    const answers = [await ask('staff@agency.test'), await ask('nobody@agency.test')];
    expect(answers.map(({ status, body }) => [status, body])).toEqual([
      [204, { text: '' }],
      [204, { text: '' }],
    ]);
    await tasksDone();
    expect([(await mailsTo('staff@agency.test')).length, (await mailsTo('nobody@agency.test')).length]).toEqual([1, 0]);
    await scene.app.read("update people set active = false, left_at = now() where email = 'freelance@agency.test'");
    await ask('freelance@agency.test');
    await tasksDone();
    expect(await mailsTo('freelance@agency.test')).toEqual([]);
  });

  it('sends three links within an hour at most; a link opens for an hour', async () => {
    for (let times = 0; times < 5; times++) await tokenFor('staff@agency.test');
    expect(await mailsTo('staff@agency.test')).toHaveLength(3);
    const token = (await mailsTo('staff@agency.test'))[0]?.payload.links[0]?.address.split('/reset/')[1] ?? '';
    scene.app.clock.set('2027-03-01T09:59:00Z');
    const { caller, status, path } = await open(token);
    expect(status).toBe(200);
    scene.app.clock.set('2027-03-01T10:05:00Z');
    expect((await open(token)).status).toBe(401);
    expect((await caller.call('POST', `${path}/password`, { body: { password: NEW } })).body['code']).toBe('access.link_not_open');
    await tokenFor('staff@agency.test');
    expect(await mailsTo('staff@agency.test')).toHaveLength(4);
  });

  it('is set once by two who answer at once', async () => {
    const { caller, path } = await open(await tokenFor('staff@agency.test'));
    const answers = await Promise.all(
      ['three', 'four'].map((word) => caller.call('POST', `${path}/password`, { body: { password: `${word} kettles, one lamp` } })),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 401]);
  });
});

describe('the devices of a person', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const devicesOf = async (caller: Caller) => (await caller.call('GET', '/api/session/devices')).body as unknown as DeviceShape[]; // the contract's shape
  const isIn = async (caller: Caller) => (await caller.call('GET', '/api/steps/mine')).status === 200;
  const phone = async (email = 'staff@agency.test') => {
    const caller = new Caller(scene.address);
    await caller.call('POST', '/api/session', {
      body: { email, password: PASSWORD },
      headers: { 'User-Agent': 'Mozilla/5.0 (Android 14; Mobile; rv:128.0) Gecko/128.0 Firefox/128.0' },
    });
    return caller;
  };

  it('are listed with where they are and when they were seen, without what would let anybody in', async () => {
    const [first, second] = [await callerAs(scene, 'staff'), await phone()];
    scene.app.clock.set('2027-03-01T09:30:00Z');
    await second.call('GET', '/api/session');
    const found = await devicesOf(first);
    expect(found.map(({ program, isThis, address }) => [program, isThis, address])).toEqual([
      ['', true, '127.0.0.1'],
      ['Firefox on Android', false, '127.0.0.1'],
    ]);
    expect(found[0]?.seenAt).toBeNull();
    expect(found[1]?.seenAt).toMatch(/^2027-03-01T09:30:0/);
    for (const caller of [first, second])
      for (const cookie of caller.cookies.values()) {
        const [sessionId = ''] = decodeURIComponent(cookie).replace(/^s:/, '').split('.');
        expect(sessionId.length).toBeGreaterThan(20);
        expect(JSON.stringify(found)).not.toContain(sessionId);
      }
  });

  it('are ended one by one or all others at once, one’s own alone', async () => {
    const [here, there, third, somebody] = [
      await callerAs(scene, 'staff'),
      await phone(),
      await phone(),
      await phone('manager@agency.test'),
    ];
    const thirds = (await devicesOf(third)).find(({ isThis }) => isThis);
    expect((await somebody.call('DELETE', `/api/session/devices/${thirds?.id}`)).status).toBe(404);
    expect(await isIn(third)).toBe(true);
    expect((await here.call('DELETE', `/api/session/devices/${thirds?.id}`)).status).toBe(204);
    expect([await isIn(third), await isIn(there)]).toEqual([false, true]);
    expect((await here.call('DELETE', '/api/session/devices')).status).toBe(204);
    expect([await isIn(here), await isIn(there), await isIn(somebody)]).toEqual([true, false, true]);
    expect(await devicesOf(here)).toHaveLength(1);
  });

  it('never come back by a request that was under way when they were ended', async () => {
    const [here, there] = [await callerAs(scene, 'staff'), await phone()];
    scene.app.clock.set('2027-03-01T12:00:00Z');
    await Promise.all([
      ...Array.from({ length: 5 }, () => there.call('GET', '/api/session')),
      here.call('DELETE', '/api/session/devices'),
      ...Array.from({ length: 5 }, () => there.call('GET', '/api/session')),
    ]);
    expect(await isIn(there)).toBe(false);
  });
});
