import { getValue } from '@zesting/core';
import type { EmbargoShape, GoingOutShape, PlanMonthShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { callerAs, makePiece, type Caller } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { markOut, movePlacement } from '../calendar/index.js';

describe('the days on which a piece may be out', () => {
  let { scene, manager, feed, add, month, fill, caught } = {} as PlanScene; // made before the first test
  let plan: PlanScene;
  let freelance: Caller;
  let pieceId: string;
  beforeAll(async () => {
    plan = await makePlanScene();
    ({ scene, manager, feed, add, month, fill, caught } = plan);
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.app.read('delete from embargoes');
    await plan.reset();
    pieceId = await makePiece(scene, scene.a, null);
  });

  const set = (body: object, { by = manager, version = 0, id = pieceId } = {}) =>
    by.call('PUT', `/api/pieces/${id}/embargo`, {
      body: { notBeforeOn: null, notAfterOn: null, why: '', ...body },
      headers: { 'If-Match': `"${version}"` },
    });
  const told = async (id = pieceId, by = manager) =>
    ((await by.call('GET', `/api/pieces/${id}/embargo`)).body as unknown as EmbargoShape).rule;
  const onFeed = async (id: string) => {
    const [row] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [id, feed],
    );
    return row ?? { id: '', version: 0 };
  };

  it('are said by who manages the client, changed and lifted; two who say them at once do not overwrite each other', async () => {
    expect(await told()).toBeNull();
    expect((await set({ notBeforeOn: '2027-02-30' })).status).toBe(400);
    expect((await set({})).body).toMatchObject({ code: 'embargo.empty' });
    expect((await set({ notBeforeOn: '2027-03-12', notAfterOn: '2027-03-11' })).body).toMatchObject({ code: 'embargo.order_wrong' });
    expect((await set({ notBeforeOn: '2027-03-12' }, { by: freelance })).status).toBe(403);
    const both = await Promise.all([1, 2, 3, 4].map(() => set({ notBeforeOn: '2027-03-12', why: ' The launch ' })));
    expect(both.map(({ status }) => status).sort()).toEqual([204, 412, 412, 412]);
    expect(await told()).toEqual({ notBeforeOn: '2027-03-12', notAfterOn: null, why: 'The launch', version: 1 });
    expect((await set({ notAfterOn: '2027-03-20' }, { version: 1 })).status).toBe(204);
    expect(await told()).toMatchObject({ notBeforeOn: null, notAfterOn: '2027-03-20', version: 2 });
    for (let times = 0; times < 2; times++) expect((await manager.call('DELETE', `/api/pieces/${pieceId}/embargo`)).status).toBe(204);
    expect(await told()).toBeNull();
    const noted = await scene.app.read<{ verb: string }>(
      "select verb from activities where thing_id = $1 and verb like 'piece.embargo%' order by id",
      [pieceId],
    );
    expect(noted.map(({ verb }) => verb)).toEqual(['piece.embargo', 'piece.embargo', 'piece.embargo_lifted']);
  });

  it('are told where it is placed outside, and stop it before it goes out until it stands inside', async () => {
    const { ready, send, say } = signOffIn(scene);
    const signed = await ready(scene.a);
    getValue(await say(getValue(await send(scene.a, [signed])), signed, 'approve'));
    await set({ notBeforeOn: '2027-03-05', notAfterOn: '2027-03-06' }, { id: signed });
    const move = async (on: string) => {
      const { id, version } = await onFeed(signed);
      return (
        await manager.call('PUT', `/api/placements/${id}/date`, { body: { on, at: '10:00' }, headers: { 'If-Match': `"${version}"` } })
      ).body;
    };
    const findings = async () => {
      const { rows } = (await manager.call('GET', '/api/going-out')).body as unknown as GoingOutShape;
      return rows.flatMap(({ pieceId: of, findings: found }) => (of === signed ? found : []));
    };
    expect(await move('2027-03-04')).toMatchObject({ markers: [{ kind: 'too_early', name: '2027-03-05' }] });
    expect(await findings()).toEqual([{ code: 'too_early', severity: 'must', place: 'date', what: '2027-03-05' }]);
    expect(await move('2027-03-07')).toMatchObject({ markers: [{ kind: 'too_late', name: '2027-03-06' }] });
    expect(await findings()).toMatchObject([{ code: 'too_late' }]);
    expect(await move('2027-03-06')).toMatchObject({ markers: [] });
    expect(await findings()).toEqual([]);
  });

  it('keep a piece out of the slots that lie outside, and go along from an idea into its piece', async () => {
    await set({ notBeforeOn: '2027-03-12', notAfterOn: '2027-03-20' });
    const { candidates } = (await month()) as unknown as PlanMonthShape;
    expect(candidates.filter((one) => one.pieceId === pieceId && one.channelIds?.[0] === feed)).toMatchObject([
      { notBeforeOn: '2027-03-12', expiresOn: '2027-03-20' },
    ]);
    const ruleId = await add({ formatId: plan.formatId });
    const ideaId = await caught({ title: 'The new press', notBeforeOn: '2027-03-18' });
    const [filled] = await fill({ ruleId, on: '2027-03-18', ideaId });
    expect(filled).toMatchObject({ problem: null });
    expect(await told(filled?.pieceId ?? '')).toMatchObject({ notBeforeOn: '2027-03-18', notAfterOn: null });
  });

  it('bind what lasts and goes out again as well', async () => {
    const { ready, send, say } = signOffIn(scene);
    const lasting = await ready(scene.a);
    getValue(await say(getValue(await send(scene.a, [lasting])), lasting, 'approve'));
    const { id, version } = await onFeed(lasting);
    getValue(await movePlacement(scene.app, scene.people.lead, id, { on: '2027-03-01', at: '10:00' }, version));
    scene.app.clock.set('2027-03-01T12:00:00Z');
    getValue(await markOut(scene.app, scene.people.lead, id, { address: null }));
    const body = { restDays: 7, timesMost: null, untilOn: '2027-03-25' };
    await manager.call('PUT', `/api/pieces/${lasting}/evergreen`, { body, headers: { 'If-Match': '"0"' } });
    const again = async () => {
      const { candidates } = (await month()) as unknown as PlanMonthShape;
      return candidates.flatMap((one) => (one.kind === 'again' ? [[one.notBeforeOn, one.expiresOn]] : []));
    };
    expect(await again()).toEqual([['2027-03-08', '2027-03-25']]);
    await set({ notBeforeOn: '2027-03-10', notAfterOn: '2027-03-20' }, { id: lasting });
    expect(await again()).toEqual([['2027-03-10', '2027-03-20']]);
  });

  it('are a day of the client’s, whatever the hour: what may be out today is not too early', async () => {
    const { id, version } = await onFeed(pieceId);
    await set({ notBeforeOn: '2027-03-01' });
    getValue(await movePlacement(scene.app, scene.people.lead, id, { on: '2027-03-01', at: '23:30' }, version));
    const { body } = await manager.call('GET', '/api/going-out');
    expect(JSON.stringify(body)).not.toContain('too_early');
  });
});
