import pg from 'pg';
import { getValue, ok } from '@zesting/core';
import { eventually } from '../../test-support/eventually.js';
import { Caller, callerAs, makePiece, makeScene, type Scene } from '../../test-support/scene.js';
import { editPiece } from '../features/production/index.js';
import { addJob, Jobs } from './jobs/jobs.js';
import { HealthController } from '../features/identity/health.controller.js';

/** What happens while the database is away, and that all is as before afterwards without anybody's doing. */
describe('an outage of the database', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const name = () => new URL(scene.app.config.databaseUrl).pathname.slice(1);
  const maintain = async (...statements: string[]): Promise<Record<string, unknown>[]> => {
    const address = new URL(scene.app.config.databaseUrl);
    address.pathname = '/postgres';
    const client = new pg.Client(address.toString());
    await client.connect();
    let rows: Record<string, unknown>[] = [];
    for (const statement of statements) rows = (await client.query<Record<string, unknown>>(statement)).rows;
    await client.end();
    return rows;
  };
  /** Cuts every connection and lets no new one in, once no job is at work: one that is cut in the middle is tried again later. */
  const cut = async () => {
    await eventually(
      async () => (await scene.app.read('select 1 from graphile_worker.jobs where locked_by is not null or run_at <= now()')).length === 0,
    );
    return maintain(
      `alter database ${name()} with allow_connections false`,
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name()}'`,
    );
  };
  const restore = () => maintain(`alter database ${name()} with allow_connections true`);
  const connections = async () =>
    (
      await maintain(
        `select count(*) filter (where application_name like 'zesting %')::int as listening, count(*)::int as total from pg_stat_activity where datname = '${name()}'`,
      )
    )[0] as { listening: number; total: number };

  it('is answered with “try again”, and passes without a trace, as often as it comes', async () => {
    const lead = await callerAs(scene, 'lead');
    const stranger = new Caller(scene.address);
    const pieceId = await makePiece(scene, scene.a);
    const statusOf = async () => (await stranger.call('GET', '/api/health')).status;
    expect(await statusOf()).toBe(200);
    for (let outage = 0; outage < 2; outage++) {
      await cut();
      for (const path of ['/api/desk', '/api/session', `/api/pieces/${pieceId}`]) {
        const answer = await lead.call('GET', path);
        expect([path, answer.status, answer.body['code'], answer.headers.get('retry-after')]).toEqual([path, 503, 'http.try_again', '2']);
      }
      const health = await stranger.call('GET', '/api/health');
      expect([health.status, health.body['status'], health.body['database']]).toEqual([503, 'failing', false]);
      expect((await stranger.call('GET', '/api/health/ready')).status).toBe(503);
      await restore();
      await eventually(async () => (await statusOf()) === 200);
      await eventually(async () => (await connections()).listening === 1);
    }
    const { status } = await lead.call('GET', `/api/pieces/${pieceId}`);
    expect(status).toBe(200);
    expect((await connections()).total).toBeLessThan(30);
  });

  it('leaves live updates and jobs at work', async () => {
    const lead = await callerAs(scene, 'lead');
    const pieceId = await makePiece(scene, scene.a);
    const cookie = [...lead.cookies].map(([key, value]) => `${key}=${value}`).join('; ');
    const stream = await fetch(`${scene.address}/api/live`, { headers: { Cookie: cookie } });
    const reader = stream.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    const reading = (async () => {
      for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) heard += part.value;
    })();
    await cut();
    await restore();
    await eventually(async () => (await connections()).listening === 1);
    await eventually(() => heard.includes('event: changed')); // something may have been missed: everybody asks anew
    heard = '';
    const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [pieceId]);
    getValue(await editPiece(scene.app, scene.people.lead, pieceId, { notes: 'after the outage' }, row?.version ?? 0));
    await eventually(() => heard.includes('event: changed'));
    const waiting = () => scene.app.read("select 1 from graphile_worker.jobs where task_identifier = 'planning_predict'");
    await eventually(async () => (await waiting()).length === 0);
    await reader?.cancel();
    await reading;
  });

  it('frees the jobs of a server that was killed, and of no other', async () => {
    getValue(
      await scene.app.write(async (tx) => {
        for (const key of ['lost', 'held']) await addJob(tx, 'nobody_does_this', {}, { key });
        return ok(null);
      }),
    );
    const [own] = await scene.app.read<{ worker_id: string }>('select worker_id from job_workers limit 1');
    const lock = (key: string, workerId: string) =>
      scene.app.read("update graphile_worker._private_jobs set locked_by = $2, locked_at = now() - interval '1 minute' where key = $1", [
        key,
        workerId,
      ]);
    await lock('lost', 'worker-gone');
    await lock('held', own?.worker_id ?? '');
    expect(await scene.server.get(Jobs).freeLost()).toEqual(['worker-gone']);
    const left = await scene.app.read('select key from graphile_worker.jobs where locked_by is not null');
    expect(left).toEqual([{ key: 'held' }]);
    await scene.app.read('update graphile_worker._private_jobs set locked_by = null, locked_at = null');
  });

  it('is ready while it works, and says so no longer once it is told to stop', async () => {
    const ready = async () => (await new Caller(scene.address).call('GET', '/api/health/ready')).status;
    expect(await ready()).toBe(204);
    scene.server.get(HealthController, { strict: false }).onModuleDestroy();
    expect(await ready()).toBe(503);
  });
});
