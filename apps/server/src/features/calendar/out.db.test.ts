import { getValue } from '@zesting/core';
import { callerAs, makeScene, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { movePlacement } from './index.js';

describe('what is out', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  it('keeps of what went out the version, the time meant and the time real; only where it is seen can be corrected', async () => {
    const { ready, send, say, write } = signOffIn(scene);
    const pieceId = await ready(scene.a);
    getValue(await say(getValue(await send(scene.a, [pieceId])), pieceId, 'approve'));
    const [undated] = await scene.app.read<{ id: string; version: number }>(
      'select l.id, l.version from placements l join channels h on h.id = l.channel_id where l.piece_id = $1 order by h.position',
      [pieceId],
    );
    getValue(
      await movePlacement(scene.app, scene.people.lead, undated?.id ?? '', { on: '2027-03-08', at: '10:00' }, undated?.version ?? 0),
    );
    scene.app.clock.set('2027-03-08T10:04:00Z');
    const lead = await callerAs(scene, 'lead');
    const shown = async () =>
      ((await lead.call('GET', `/api/pieces/${pieceId}`)).body['placements'] as { id: string; version: number }[])[0];
    const correct = (version: number, address: string | null) =>
      lead.call('PATCH', `/api/placements/${placement?.id ?? ''}/address`, { body: { address }, headers: { 'If-Match': `"${version}"` } });
    let placement = await shown();
    expect((await correct(placement?.version ?? 0, 'https://aaa.test/1')).body['code']).toBe('placement.not_out');
    expect((await lead.call('POST', `/api/placements/${placement?.id ?? ''}/out`, { body: {} })).status).toBe(200);
    placement = await shown();
    expect(placement).toMatchObject({
      state: 'out',
      on: '2027-03-08',
      at: '10:00',
      outAt: expect.stringMatching(/^2027-03-08T10:04/) as string,
      outAddress: null,
      outNumber: 1,
      changedSince: false,
    });
    const { version = 0 } = placement ?? {};
    expect((await correct(version, 'https://aaa.test/1')).status).toBe(204);
    expect((await correct(version, 'https://aaa.test/2')).body).toMatchObject({
      code: 'http.changed_meanwhile',
      theirs: { outAddress: 'https://aaa.test/1' },
    });
    await write(pieceId, 'Another word', 'Feed');
    expect(await shown()).toMatchObject({ outAddress: 'https://aaa.test/1', outNumber: 1, changedSince: true });
    const [kept] = await scene.app.read<{ same: boolean }>(
      `select l.out_digests = array[v.digests ->> 'shared', v.digests -> 'channels' ->> l.channel_id::text] as same
       from placements l join versions v on v.id = l.out_version_id where l.id = $1`,
      [placement?.id],
    );
    expect(kept).toEqual({ same: true });
  });
});
