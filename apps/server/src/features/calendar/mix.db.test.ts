import { getValue } from '@zesting/core';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { addMarker } from './index.js';

describe('what a day and a month of a client hold', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  it('is the mix of what is placed, each piece once, against the shares', async () => {
    const { app, a } = scene;
    const pillar = async (name: string, share: number, position: number) =>
      (
        await app.read<{ id: string }>('insert into pillars (client_id, name, share, position) values ($1, $2, $3, $4) returning id', [
          a.id,
          name,
          share,
          position,
        ])
      )[0]?.id;
    const [season, grow] = [await pillar('Season', 60, 0), await pillar('Grow', 40, 1)];
    const place = async (pillarId: string | undefined, on: string) => {
      const pieceId = await makePiece(scene, a);
      await app.read('update pieces set pillar_id = $2 where id = $1', [pieceId, pillarId ?? null]);
      await app.read("update placements set on_day = $2, at_time = '08:00', publish_at = $2::date + time '08:00' where piece_id = $1", [
        pieceId,
        on,
      ]);
      return pieceId;
    };
    for (const on of ['2027-03-01', '2027-03-31', '2027-03-15']) await place(season, on);
    await place(undefined, '2027-03-10');
    await place(grow, '2027-04-01'); // another month
    await app.read('update pieces set shelved = true where id = $1', [await place(grow, '2027-03-20')]);
    const { body } = await manager.call('GET', `/api/clients/${a.id}/mix?from=2027-03-01&to=2027-03-31`);
    expect(body).toEqual({
      total: 4,
      rows: [
        { pillarId: season, name: 'Season', share: 60, count: 3, actual: 75, owed: -1 },
        { pillarId: grow, name: 'Grow', share: 40, count: 0, actual: 0, owed: 2 },
        { pillarId: null, name: 'Without a pillar', share: 0, count: 1, actual: 25, owed: 0 },
      ],
    });
    expect((await manager.call('GET', `/api/clients/${a.id}/mix?from=2027-03-31&to=2027-03-01`)).status).toBe(400);
  });

  it('are blackouts and production days, of the client and of the agency, told when something is placed there and when a day is chosen', async () => {
    const { app, a, b, people } = scene;
    const mark = async (clientId: string | null, kind: 'blackout' | 'production_day' | 'launch', name: string) =>
      getValue(await addMarker(app, people.lead, { clientId, kind, name, startOn: '2027-03-18', endOn: '2027-03-19' }));
    await mark(a.id, 'blackout', 'Memorial');
    await mark(null, 'production_day', 'Shoot');
    await mark(a.id, 'launch', 'Launch');
    await mark(b.id, 'blackout', 'Elsewhere');
    const pieceId = await makePiece(scene, a);
    const [placement] = await app.read<{ id: string; version: number }>('select id, version from placements where piece_id = $1 limit 1', [
      pieceId,
    ]);
    const move = async (on: string, version: number) =>
      (
        await manager.call('PUT', `/api/placements/${placement?.id ?? ''}/date`, {
          body: { on, at: '10:00' },
          headers: { 'If-Match': `"${version}"` },
        })
      ).body['markers'];
    const both = [
      { kind: 'blackout', name: 'Memorial' },
      { kind: 'production_day', name: 'Shoot' },
    ];
    expect(await move('2027-03-19', placement?.version ?? 0)).toEqual(both);
    expect(await move('2027-03-20', (placement?.version ?? 0) + 1)).toEqual([]);
    const asked = await manager.call('GET', `/api/days-off?from=2027-03-01&to=2027-03-18&clientId=${a.id}`);
    expect(asked.body['marked']).toEqual(both.map((marker) => ({ ...marker, on: '2027-03-18' })));
  });

  it('are the days on which the client and a person are off, with the reason, for who may know', async () => {
    const { app, a, b, people } = scene;
    await app.read(
      "insert into client_closures (client_id, start_on, end_on, name) values ($1, '2027-02-20', '2027-03-02', 'Stocktaking')",
      [a.id],
    );
    await app.read("insert into time_off (person_id, start_on, end_on, note) values ($1, '2027-03-31', '2027-04-30', 'Secret')", [
      people.staff.personId,
    ]);
    await app.read('update people set weekly_minutes = $2 where id = $1', [people.staff.personId, [480, 480, 480, 480, 0, 0, 0]]);
    const ask = (query: string, caller = manager) => caller.call('GET', `/api/days-off?from=2027-03-01&to=2027-03-31&${query}`);
    const { body } = await ask(`clientId=${a.id}&personId=${people.staff.personId}`);
    // Good Friday of 2027 is 26 March, Easter Monday 29 March (both public holidays of England)
    expect(body['client']).toEqual({
      weekdaysOff: [6, 7],
      days: [
        { on: '2027-03-01', reason: 'Stocktaking' },
        { on: '2027-03-02', reason: 'Stocktaking' },
        { on: '2027-03-26', reason: 'Good Friday' },
        { on: '2027-03-29', reason: 'Easter Monday' },
      ],
    });
    expect(body['person']).toMatchObject({
      weekdaysOff: [5, 6, 7],
      days: [{ on: '2027-03-29' }, { on: '2027-03-31', reason: 'Time off' }],
    });
    expect((await ask(`clientId=${b.id}`)).body['code']).toBe('access.not_found');
    const staff = await callerAs(scene, 'staff');
    expect((await ask(`personId=${people.manager.personId}`, staff)).body['code']).toBe('access.refused');
    expect((await ask(`personId=${people.staff.personId}`, staff)).status).toBe(200);
    expect((await manager.call('GET', '/api/days-off?from=2027-03-01&to=2037-03-01')).status).toBe(400);
  });
});
