import { createServer } from '../../server.js';
import { makeTestDatabase } from '../../../test-support/database.js';
import { Caller, callerAs, makeScene, PASSWORD, type Scene } from '../../../test-support/scene.js';

describe('signing in', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  }, 60_000);
  afterAll(() => scene.close());

  it('says the same of a wrong password and of nobody’s e-mail', async () => {
    const caller = new Caller(scene.address);
    const wrong = await caller.call('POST', '/api/session', { body: { email: 'lead@agency.test', password: 'wrong' } });
    const nobody = await caller.call('POST', '/api/session', { body: { email: 'nobody@agency.test', password: PASSWORD } });
    expect([wrong.status, wrong.body]).toEqual([401, nobody.body]);
    expect(wrong.body['code']).toBe('access.sign_in_failed');
  });

  it('lasts until signing out, and ends at once for who has left', async () => {
    const caller = await callerAs(scene, 'manager');
    expect((await caller.call('GET', '/api/session')).body).toMatchObject({ name: 'Max', role: 'manager', todayOn: '2027-03-01' });
    await caller.call('DELETE', '/api/session');
    expect((await caller.call('GET', '/api/desk')).status).toBe(401);
    const leaving = await callerAs(scene, 'staff');
    await scene.app.read("update people set active = false, left_at = now() where role = 'staff'");
    expect((await leaving.call('GET', '/api/steps/mine')).status).toBe(401);
  });

  it('stores argon2id and nothing that can be read back', async () => {
    const [row] = await scene.app.read<{ password_hash: string }>("select password_hash from people where role = 'lead'");
    expect(row?.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  it('is throttled: the eleventh try within a minute is refused', async () => {
    const database = await makeTestDatabase();
    const server = await createServer({ ...database.config, testing: false });
    await server.listen(0, '127.0.0.1');
    const caller = new Caller(await server.getUrl());
    const statuses = [];
    for (let attempt = 0; attempt < 11; attempt++)
      statuses.push((await caller.call('POST', '/api/session', { body: { email: 'a@b.test', password: 'x' } })).status);
    expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429]);
    expect((await caller.call('PUT', '/api/clock', { body: { now: '' } })).status).toBe(404); // the clock is there for tests alone
    await server.close();
    await database.drop();
  }, 60_000);
});
