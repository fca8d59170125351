import { Controller, Get, Module } from '@nestjs/common';
import { makeTestDatabase, type TestDatabase } from '../test-support/database.js';
import { callerAs, Caller, makeScene, type Scene } from '../test-support/scene.js';
import { feature as mottos, SCHEMA } from '../test-support/toy/feature.js';
import { FEATURES } from './features.js';
import { Piece } from './features/production/index.js';
import type { Feature } from './platform/feature.js';
import { createServer } from './server.js';

describe('a feature that is added', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene({ features: [...FEATURES, mottos], schema: SCHEMA });
  });
  afterAll(() => scene.close());

  const add = (caller: Caller, clientId: string, words: unknown) =>
    caller.call('POST', `/api/clients/${clientId}/mottos`, { body: { words } });

  it('is there by its declaration alone: its routes, who may call them, whose its things are', async () => {
    const [manager, staff, freelance] = [
      await callerAs(scene, 'manager'),
      await callerAs(scene, 'staff'),
      await callerAs(scene, 'freelance'),
    ];
    const made = await add(manager, scene.a.id, 'Sow late');
    expect(made).toMatchObject({ status: 201, body: { clientId: scene.a.id, words: 'Sow late' } });
    const address = `/api/mottos/${String(made.body['id'])}`;
    expect((await staff.call('GET', address)).body).toEqual(made.body);
    expect((await freelance.call('GET', address)).body['code']).toBe('access.refused');
    expect((await add(staff, scene.a.id, 'Mine')).body['code']).toBe('access.refused');
    expect((await add(manager, scene.b.id, 'Theirs')).body['code']).toBe('access.not_found');
    expect((await new Caller(scene.address).call('GET', address)).body['code']).toBe('access.signed_out');
    const lead = await callerAs(scene, 'lead');
    const other = await add(lead, scene.b.id, 'Of the other');
    expect((await manager.call('GET', `/api/mottos/${String(other.body['id'])}`)).body['code']).toBe('access.not_found');
  });

  it('is checked, recorded, described and found as any other', async () => {
    const manager = await callerAs(scene, 'manager');
    expect((await add(manager, scene.a.id, '')).body).toMatchObject({ code: 'http.invalid', errors: { words: ['isNotEmpty'] } });
    expect(await scene.app.read("select 1 from activities where verb = 'motto.added'")).toHaveLength(2);
    expect(JSON.stringify((await manager.call('GET', '/api/openapi.json')).body['paths'])).toContain('/api/clients/{clientId}/mottos');
    expect((await manager.call('GET', '/api/find?q=sow%20LATE')).body).toMatchObject({ items: [{ title: 'Sow late', note: 'motto' }] });
    expect((await manager.call('GET', '/api/find?q=other')).body).toEqual({ items: [] });
  });
});

describe('a feature that is declared wrongly', () => {
  let database: TestDatabase;
  beforeAll(async () => {
    database = await makeTestDatabase();
  });
  afterAll(() => database.drop());
  /** An application with one more feature, never started. */
  const start = async (change: Partial<Feature>): Promise<void> =>
    (await createServer(database.config, [...FEATURES, { ...mottos, ...change }])).close();

  it('stops the start: a policy that nobody has, an owner that nobody tells, a name that is taken', async () => {
    await expect(start({ policies: {} })).rejects.toThrow('MottosController.add names the policy motto.write, which no feature has');
    await expect(start({ owners: {} })).rejects.toThrow('MottosController.show names a motto, whose owner nobody tells');
    await expect(start({ entities: [Piece] })).rejects.toThrow('mottos declares the table pieces, which another feature has');
    await expect(start({ policies: { ...mottos.policies, 'piece.read': { open: true } } })).rejects.toThrow(
      'declares the policy piece.read',
    );
  });

  it('stops the start: a route that names no policy', async () => {
    @Controller('loose')
    class LooseController {
      @Get()
      show(): string {
        return 'open to all by accident';
      }
    }
    @Module({ controllers: [LooseController] })
    class LooseModule {}
    await expect(start({ module: LooseModule })).rejects.toThrow('LooseController.show names no policy');
  });
});
