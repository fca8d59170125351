import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { InstantText } from '@zesting/core';
import { createServer } from '../../server.js';
import { makeTestDatabase } from '../../../test-support/database.js';
import { Caller, callerAs, makeScene, NOW, PASSWORD, type Scene } from '../../../test-support/scene.js';
import { countTry, lockMinutes } from './sign-in-guard.js';

describe('signing in', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
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

  describe('after failures in a row', () => {
    const tryAs = async (password: string, email = 'lead@agency.test') =>
      (await new Caller(scene.address).call('POST', '/api/session', { body: { email, password } })).status;
    const times = async (count: number, once: () => Promise<number>) => {
      const statuses = [];
      for (let attempt = 0; attempt < count; attempt++) statuses.push(await once());
      return [...new Set(statuses)];
    };
    const at = (now: InstantText) => scene.app.clock.set(now);
    beforeEach(async () => {
      at(NOW);
      await scene.app.read('delete from sign_in_failures');
    });

    it('an account waits from one address, longer after each further failure, and forgets it once the password fits', async () => {
      expect(await times(5, () => tryAs('wrong'))).toEqual([401]);
      expect(await tryAs(PASSWORD)).toBe(429); // not even with the right one
      expect(await tryAs(PASSWORD, 'manager@agency.test')).toBe(200); // somebody else beside
      at('2027-03-01T09:01:30Z'); // the clock goes on from there
      expect([await tryAs('wrong'), await tryAs(PASSWORD)]).toEqual([401, 429]);
      at('2027-03-01T09:02:45Z');
      expect(await tryAs(PASSWORD)).toBe(429); // two minutes now
      at('2027-03-01T09:04:30Z');
      expect(await tryAs(PASSWORD)).toBe(200);
      expect(await times(4, () => tryAs('wrong'))).toEqual([401]);
      expect(await tryAs(PASSWORD)).toBe(200);
    });

    it('counts tries that come at once, of accounts that do not exist too', async () => {
      const statuses = await Promise.all(Array.from({ length: 12 }, () => tryAs('wrong', 'nobody@agency.test')));
      expect(statuses.filter((status) => status === 401)).toHaveLength(5);
      expect(statuses.filter((status) => status === 429)).toHaveLength(7);
    });

    it('an address waits that tries many accounts, and what it did counts for an hour', async () => {
      let account = 0;
      expect(await times(30, () => tryAs('wrong', `a${account++}@agency.test`))).toEqual([401]);
      expect(await tryAs(PASSWORD)).toBe(429);
      at('2027-03-01T10:05:00Z');
      expect(await tryAs('wrong', 'one-more@agency.test')).toBe(401);
      expect(await tryAs(PASSWORD)).toBe(200);
      const kept = await scene.app.read('select 1 from sign_in_failures');
      expect(kept.length).toBeGreaterThan(1);
      at('2027-03-03T10:00:02Z');
      expect(await tryAs(PASSWORD)).toBe(200);
      expect(await scene.app.read('select kind, failures from sign_in_failures')).toEqual([{ kind: 'address', failures: 0 }]);
    });

    it('an account waits everywhere after a hundred failures from wherever they came', async () => {
      const count = async (address: string) => (await scene.app.write((tx, now) => countTry(tx, now, 'lead@agency.test', address))).ok;
      for (let attempt = 0; attempt < 100; attempt++) expect(await count(`198.51.100.${attempt}`)).toBe(true);
      expect([await count('203.0.113.1'), await tryAs(PASSWORD), await tryAs(PASSWORD, 'manager@agency.test')]).toEqual([false, 429, 200]);
    });

    it('doubles the wait up to an hour', () => {
      expect([4, 5, 6, 7, 10, 11, 500].map((failures) => lockMinutes(failures, 5))).toEqual([0, 1, 2, 4, 32, 60, 60]);
    });

    it('takes the first 64 bits of an IPv6 address for one caller', async () => {
      const count = async (address: string) => (await scene.app.write((tx, now) => countTry(tx, now, 'who@agency.test', address))).ok;
      const outcomes = [];
      for (const end of [':1', ':2', ':3', 'a:b:c:4', 'ffff:ffff:ffff:ffff', ':6']) outcomes.push(await count(`2001:db8:0:1:${end}`));
      expect(outcomes).toEqual([true, true, true, true, true, false]);
      expect([
        await count('2001:db8:0:2::1'),
        await count('::ffff:192.0.2.1'),
        await count('fe80::1%eth0'),
        await count('unknown'),
      ]).toEqual([true, true, true, true]);
    });
  });

  it('lets somebody back in by a command on the server: a new password, old sessions ended, no wait', async () => {
    const run = (email: string) =>
      promisify(execFile)(process.execPath, [join(__dirname, '../../../../../tools/let-in.mjs'), email], {
        env: { ...process.env, ZESTING_DATABASE_URL: scene.app.config.databaseUrl },
      }).then(
        ({ stdout }) => stdout,
        (error: { stderr: string }) => error.stderr,
      );
    const signIn = async (password: string) =>
      (await new Caller(scene.address).call('POST', '/api/session', { body: { email: 'lead@agency.test', password } })).status;
    const before = await callerAs(scene, 'lead');
    for (let attempt = 0; attempt < 6; attempt++) await signIn('wrong');
    expect(await signIn(PASSWORD)).toBe(429);
    const password = / and (\S+)\n/.exec(await run(' Lead@Agency.test '))?.[1] ?? '';
    expect(password).toMatch(/^([a-z2-9]{5}-){3}[a-z2-9]{5}$/);
    expect([await signIn(password), await signIn(PASSWORD)]).toEqual([200, 401]);
    expect((await before.call('GET', '/api/desk')).status).toBe(401);
    expect(await run('nobody@agency.test')).toBe('nobody who works here has the address nobody@agency.test\n');
  });

  it('is throttled: the eleventh try within a minute is refused', async () => {
    const database = await makeTestDatabase();
    const server = await createServer({ ...database.config, testing: false });
    await server.listen(0, '127.0.0.1');
    const caller = new Caller(await server.getUrl());
    const statuses = [];
    for (let attempt = 0; attempt < 11; attempt++)
      statuses.push((await caller.call('POST', '/api/session', { body: { email: `a${attempt}@b.test`, password: 'x' } })).status);
    expect(statuses).toEqual([...Array.from({ length: 10 }, () => 401), 429]);
    expect((await caller.call('PUT', '/api/clock', { body: { now: '' } })).status).toBe(404); // the clock is there for tests alone
    await server.close();
    await database.drop();
  });
});
