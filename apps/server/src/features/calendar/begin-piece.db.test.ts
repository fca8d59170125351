import sharp from 'sharp';
import { getValue } from '@zesting/core';
import type { PieceShape } from '@zesting/contract';
import { callerAs, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { addPieceFile, assignStep, editContent } from '../production/index.js';

describe('a piece that is begun by hand', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

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

  it('from another has its words, pictures and parts, and what is done to the one changes nothing in the other', async () => {
    const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const first = String((await begin({ title: 'First' })).body['pieceId']);
    const { assetId } = getValue(await addPieceFile(scene.app, first, { name: 'a.png', bytes }));
    const [feed = '', blog = ''] = scene.a.channelIds;
    const part = (channelId: string, copy: string) => ({ channelId, copy, tags: ['one'], firstComment: '', link: '' });
    const shared = { copy: 'Words', disclosure: '', media: [{ assetId, alt: 'White' }] };
    getValue(await editContent(scene.app, scene.people.lead, first, { shared, channels: [part(feed, 'Feed'), part(blog, 'Blog')] }, 1));
    const again = String((await begin({ title: 'Again', channelIds: [blog], fromId: first })).body['pieceId']);
    const copyOf = async (id: string) => {
      const { content } = (await pieceOf(id)) as unknown as PieceShape;
      return [
        content.shared.copy,
        content.shared.media.map((medium) => [medium.assetId, medium.alt]),
        content.channels.map(({ copy }) => copy),
      ];
    };
    expect(await copyOf(again)).toEqual(['Words', [[assetId, 'White']], ['Blog']]);
    expect(await pieceOf(again)).toMatchObject({ title: 'Again', refersTo: [{ id: first, title: 'First' }], usedIn: [] });
    expect(await pieceOf(first)).toMatchObject({ refersTo: [], usedIn: [{ id: again, title: 'Again' }] });
    // who has a step of the new one alone sees the picture that came with it
    const freelance = await callerAs(scene, 'freelance');
    expect((await freelance.call('GET', `/api/files/${assetId}`)).status).toBe(404);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, again, 'write'), scene.people.freelance.personId));
    expect((await freelance.call('GET', `/api/files/${assetId}`)).status).toBe(200);
    expect((await freelance.call('GET', `/api/pieces/${first}`)).status).toBe(404);
    expect((await freelance.call('GET', `/api/pieces/${again}`)).body['refersTo']).toEqual([]);
    // it is saved with the picture of the other, and without touching the other
    getValue(await editContent(scene.app, scene.people.freelance, again, { shared: { ...shared, copy: 'New words' }, channels: [] }, 1));
    expect([(await copyOf(first))[0], (await copyOf(again))[0]]).toEqual(['Words', 'New words']);
    // one begun from the copy has the picture of the first, and is saved with it
    const third = String((await begin({ title: 'Third', channelIds: [], fromId: again })).body['pieceId']);
    getValue(await editContent(scene.app, scene.people.lead, third, { shared: { ...shared, copy: 'Third words' }, channels: [] }, 1));
    expect(await copyOf(third)).toEqual(['Third words', [[assetId, 'White']], []]);
    const strange = { fromId: first, channelIds: scene.b.channelIds };
    await scene.app.read('update clients set archived_at = null where id = $1', [scene.b.id]);
    expect((await begin(strange, scene.b.id, await callerAs(scene, 'lead'))).body['code']).toBe('piece.unknown');
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
