import { callerAs, makeScene, NOW, type Caller, type Scene } from '../../../test-support/scene.js';

describe('a piece that is begun by hand', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  }, 60_000);
  afterAll(() => scene.close());
  beforeEach(() => scene.app.clock.set(NOW));

  const begin = (body: object, clientId = scene.a.id, caller = manager) =>
    caller.call('POST', `/api/clients/${clientId}/pieces`, {
      body: { routeId: scene.routeId, channelIds: scene.a.channelIds, isPencilled: false, ...body },
    });
  const pieceOf = async (id: unknown) => (await manager.call('GET', `/api/pieces/${String(id)}`)).body;

  it('has its path planned to the day, its brief, and no request', async () => {
    const made = await begin({ title: ' Window seat ', wishOn: '2027-03-16', notes: 'For the ones who wait' });
    expect(made.status).toBe(201);
    expect(await pieceOf(made.body['pieceId'])).toMatchObject({
      title: 'Window seat',
      aimOn: '2027-03-16',
      brief: { requests: [], notes: 'For the ones who wait' },
      placements: [{ state: 'undated' }, { state: 'undated' }],
    });
  });

  it('without a title is called by its format and day', async () => {
    const titleOf = async (body: object) => (await pieceOf((await begin(body)).body['pieceId']))['title'];
    expect(await titleOf({ wishOn: '2027-03-16' })).toBe('Still for Tuesday 16 March 2027');
    expect(await titleOf({ title: '  ' })).toBe('Still without a title');
  });

  it('stands on its channels on the day, each at its usual time, or on none', async () => {
    await scene.app.read("update channels set usual_time = '07:45' where id = $1", [scene.a.channelIds[1]]);
    const made = await begin({ wishOn: '2027-03-16', isPencilled: true });
    expect((await pieceOf(made.body['pieceId']))['placements']).toMatchObject([
      { on: '2027-03-16', at: '09:00', state: 'pencilled' },
      { on: '2027-03-16', at: '07:45', state: 'pencilled' },
    ]);
    const none = await begin({ channelIds: [], wishOn: '2027-03-16', isPencilled: true });
    expect(await pieceOf(none.body['pieceId'])).toMatchObject({ placements: [], aimOn: '2027-03-16' });
  });

  it('is refused whole where something is wrong', async () => {
    const count = async () => (await scene.app.read('select 1 from pieces')).length;
    const before = await count();
    // clocks in London jump from 01:00 to 02:00 on 28 March 2027
    await scene.app.read("update channels set usual_time = '01:30' where id = $1", [scene.a.channelIds[0]]);
    expect((await begin({ wishOn: '2027-03-28', isPencilled: true })).body['code']).toBe('time.in_gap');
    expect((await begin({ wishOn: '2027-02-26', isPencilled: true })).body['code']).toBe('placement.in_past');
    expect((await begin({ channelIds: scene.b.channelIds })).body['code']).toBe('channel.unknown');
    expect((await begin({ routeId: scene.a.id })).body['code']).toBe('route.unknown');
    expect((await begin({ leaveOut: ['check'] })).body['code']).toBe('step.not_optional');
    expect((await begin({}, scene.b.id)).body['code']).toBe('access.not_found');
    await scene.app.read('update routes set archived_at = now()');
    expect((await begin({})).body['code']).toBe('route.archived');
    await scene.app.read('update routes set archived_at = null');
    await scene.app.read('update clients set archived_at = now() where id = $1', [scene.b.id]);
    const lead = await callerAs(scene, 'lead');
    expect((await begin({ channelIds: scene.b.channelIds }, scene.b.id, lead)).body['code']).toBe('client.archived');
    expect(await count()).toBe(before);
  });

  it('is told what its route would allow', async () => {
    const { body } = await manager.call('GET', `/api/clients/${scene.a.id}/feasibility/${scene.routeId}`);
    // Monday: write; Tuesday and Wednesday: design; Thursday: check; Friday and Monday: sign-off; out the day after
    expect(body).toEqual({
      routeId: scene.routeId,
      earliestOn: '2027-03-09',
      predictedOn: '2027-03-09',
      effortMinutes: 195,
      doers: [{ title: 'Write', name: 'Max', isUsual: false, startOn: '2027-03-01', finishOn: '2027-03-01' }],
    });
  });
});
