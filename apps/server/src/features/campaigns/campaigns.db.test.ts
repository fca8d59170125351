import { ok } from '@zesting/core';
import type { CampaignMoveShape, CampaignPageShape, CampaignsShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';

describe('campaigns of a client', () => {
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    for (const table of ['campaign_markers', 'campaign_pieces', 'campaigns', 'markers']) await plan.scene.app.read(`delete from ${table}`);
    await plan.reset();
    await plan.scene.app.read("update placements set cancelled = true, state = 'cancelled'"); // what tests before dated
  });

  const body = (more: object = {}) => ({
    name: 'Spring in the yard',
    aim: 'That forty people come on the open day',
    fromOn: '2027-03-08',
    toOn: '2027-04-09',
    channelIds: [plan.feed],
    markerIds: [],
    ...more,
  });
  const post = (path: string, sent: object = {}) => plan.manager.call('POST', path, { body: sent });
  const put = (path: string, version: number, sent: object) =>
    plan.manager.call('PUT', path, { body: sent, headers: { 'If-Match': `"${version}"` } });
  const get = async <T>(path: string) => (await plan.manager.call('GET', path)).body as unknown as T; // as the contract has it
  const all = () => get<CampaignsShape>(`/api/campaigns?clientId=${plan.scene.a.id}`);
  const page = (id: string) => get<CampaignPageShape>(`/api/campaigns/${id}`);
  const preview = (id: string, from: string, to: string) => get<CampaignMoveShape>(`/api/campaigns/${id}/move?from=${from}&to=${to}`);
  const add = async (more: object = {}) => {
    const { status, body: made } = await post(plan.of('campaigns'), body(more));
    expect({ status, made }).toMatchObject({ status: 201 });
    return made['campaignId'] as string;
  };
  const marker = async (name: string, on: string) =>
    String((await post('/api/markers', { clientId: plan.scene.a.id, kind: 'event', name, startOn: on, endOn: on })).body['markerId']);
  /** A piece of the campaign, on the feed on a day; null: on none. */
  const piece = async (campaignId: string, on: string | null, isOut = false) => {
    const pieceId = await makePiece(plan.scene, plan.scene.a);
    expect((await plan.manager.call('PUT', `/api/pieces/${pieceId}/campaign`, { body: { campaignId } })).status).toBe(204);
    if (on !== null) await date(pieceId, on);
    if (isOut)
      await plan.scene.app.write(async (tx) => {
        await tx.query('select 1 from pieces where id = $1 for update', [pieceId]); // whoever plans it meanwhile does not set it back
        const out = "update placements set state = 'out', out_at = now(), out_digests = '{}' where piece_id = $1 and on_day is not null";
        return ok(await tx.query(out, [pieceId]));
      });
    return pieceId;
  };
  const date = async (pieceId: string, on: string) => {
    const [row] = await plan.scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2 and on_day is null limit 1',
      [pieceId, plan.feed],
    );
    expect((await put(`/api/placements/${row?.id}/date`, row?.version ?? 0, { on, at: '10:00' })).status).toBe(200);
  };
  const daysOf = async (id: string) => (await page(id)).pieces.map(({ placements }) => placements.map(({ on }) => on).filter(Boolean));

  it('tell how far their pieces are, what is in danger, and their dates', async () => {
    const open = await marker('Open day', '2027-04-03');
    const id = await add({ markerIds: [open] });
    const first = await piece(id, '2027-03-30');
    await piece(id, '2027-03-02'); // before it can be ready
    await piece(id, null);
    const [campaign] = (await all()).campaigns;
    expect(campaign).toMatchObject({
      name: 'Spring in the yard',
      stages: [{ stage: 'planned', count: 3 }],
      inDanger: 1,
      days: ['2027-03-02', '2027-03-30'],
      markers: [{ id: open, name: 'Open day', startOn: '2027-04-03' }],
    });
    const { pieces } = await page(id);
    expect(pieces.map(({ placements }) => placements[0]?.on)).toEqual(['2027-03-02', '2027-03-30', null]);
    // a piece is in one campaign at most
    const other = await add({ name: 'Other' });
    await plan.manager.call('PUT', `/api/pieces/${first}/campaign`, { body: { campaignId: other } });
    expect((await all()).campaigns.map(({ stages }) => stages)).toEqual([
      [{ stage: 'planned', count: 1 }],
      [{ stage: 'planned', count: 2 }],
    ]);
    await plan.manager.call('PUT', `/api/pieces/${first}/campaign`, { body: { campaignId: null } });
    expect((await page(other)).pieces).toEqual([]);
  });

  it('are told by the days that they touch, and how many others there are', async () => {
    await add({ name: 'March', fromOn: '2027-03-01', toOn: '2027-03-31' });
    await add({ name: 'Long', fromOn: '2027-01-01', toOn: '2027-12-31' });
    await add({ name: 'June', fromOn: '2027-06-01', toOn: '2027-06-30' });
    const of = async (from: string, to: string) => {
      const { campaigns, outside } = await get<CampaignsShape>(`/api/campaigns?clientId=${plan.scene.a.id}&from=${from}&to=${to}`);
      return [...campaigns.map(({ name }) => name), outside];
    };
    expect(await of('2027-03-31', '2027-05-31')).toEqual(['Long', 'March', 1]);
    expect(await of('2027-04-01', '2027-06-01')).toEqual(['Long', 'June', 1]);
    expect(await of('2028-01-01', '2028-06-01')).toEqual([3]);
    expect((await all()).outside).toBe(0);
  });

  it('say what a move would make of what they hold, and move it along: all that can, and nothing that is out', async () => {
    const open = await marker('Open day', '2027-04-03');
    const id = await add({ markerIds: [open] });
    await piece(id, '2027-03-09', true);
    await piece(id, '2027-03-16');
    await piece(id, '2027-04-06');
    await piece(id, null);
    const week = await preview(id, '2027-03-15', '2027-04-16');
    expect(week).toMatchObject({ byDays: 7, undated: 1 });
    expect(week.items.map(({ kind, to, outcome }) => [kind, to, outcome])).toEqual([
      ['placement', '2027-03-09', 'outside'], // it is out, and stays
      ['placement', '2027-03-23', 'fine'],
      ['placement', '2027-04-13', 'fine'],
      ['marker', '2027-04-10', 'fine'],
    ]);
    const earlier = await preview(id, '2027-03-02', '2027-04-03');
    expect(earlier.items.map(({ outcome }) => outcome)).toEqual(['fine', 'fine', 'fine', 'fine']);
    const early = await preview(id, '2027-02-22', '2027-03-26');
    expect(early.items.map(({ to, outcome }) => [to, outcome])).toEqual([
      ['2027-03-09', 'fine'],
      ['2027-03-02', 'out_of_reach'],
      ['2027-03-23', 'fine'],
      ['2027-03-20', 'fine'],
    ]);
    expect((await put(`/api/campaigns/${id}/period`, 1, { fromOn: '2027-03-15', toOn: '2027-04-16', isAlong: true })).status).toBe(204);
    expect(await daysOf(id)).toEqual([['2027-03-09'], ['2027-03-23'], ['2027-04-13'], []]);
    expect((await all()).campaigns[0]).toMatchObject({ fromOn: '2027-03-15', version: 2, markers: [{ startOn: '2027-04-10' }] });
    expect((await put(`/api/campaigns/${id}/period`, 1, { fromOn: '2027-03-15', toOn: '2027-04-16', isAlong: true })).status).toBe(412);
  });

  it('leave all where it is when they are made longer, or when nothing shall go along', async () => {
    const id = await add();
    await piece(id, '2027-03-16');
    await put(`/api/campaigns/${id}/period`, 1, { fromOn: '2027-03-08', toOn: '2027-05-01', isAlong: true });
    await put(`/api/campaigns/${id}/period`, 2, { fromOn: '2027-03-15', toOn: '2027-05-08', isAlong: false });
    expect(await daysOf(id)).toEqual([['2027-03-16']]);
    expect((await all()).campaigns[0]).toMatchObject({ fromOn: '2027-03-15', toOn: '2027-05-08' });
  });

  it('move as a whole or not at all: nothing where one thing would lie in the past', async () => {
    const id = await add();
    await piece(id, '2027-03-30');
    await piece(id, '2027-03-04');
    const answer = await put(`/api/campaigns/${id}/period`, 1, { fromOn: '2027-03-03', toOn: '2027-04-04', isAlong: true });
    expect(answer).toMatchObject({ status: 422, body: { code: 'placement.in_past' } });
    expect(await daysOf(id)).toEqual([['2027-03-04'], ['2027-03-30']]);
    expect((await all()).campaigns[0]).toMatchObject({ fromOn: '2027-03-08', version: 1 });
  });

  it('take along a piece that stands on one channel twice, a week apart, by a week', async () => {
    const id = await add();
    const pieceId = await piece(id, '2027-03-16');
    const [row] = await plan.scene.app.read<{ id: string }>('select id from placements where piece_id = $1 and on_day is not null', [
      pieceId,
    ]);
    expect(
      (await post(`/api/placements/${row?.id}/duplicate`, { channelId: plan.feed, on: '2027-03-23', at: '10:00' })).status,
    ).toBeLessThan(300);
    for (const [fromOn, toOn, version] of [
      ['2027-03-15', '2027-04-16', 1],
      ['2027-03-08', '2027-04-09', 2],
    ] as const)
      expect((await put(`/api/campaigns/${id}/period`, version, { fromOn, toOn, isAlong: true })).status).toBe(204);
    expect(await daysOf(id)).toEqual([['2027-03-16', '2027-03-23']]);
  });

  it('are changed at the version that was seen, put away, taken up again, and found', async () => {
    const id = await add();
    expect((await put(`/api/campaigns/${id}`, 1, body({ name: 'Spring' }))).status).toBe(204);
    expect((await put(`/api/campaigns/${id}`, 1, body())).status).toBe(412);
    const found = async () =>
      (await get<{ items: { title: string; note: string }[] }>('/api/find?q=spring')).items.map(({ title, note }) => [title, note]);
    expect(await found()).toContainEqual(['Spring', 'campaign']);
    await plan.manager.call('DELETE', `/api/campaigns/${id}`);
    expect(await all()).toMatchObject({ campaigns: [], archived: [{ id, name: 'Spring' }] });
    expect(await found()).toContainEqual(['Spring', 'campaign, put away']);
    await post(`/api/campaigns/${id}/restore`);
    expect((await all()).campaigns).toHaveLength(1);
  });

  it.each([
    [{ toOn: '2027-03-07' }, 422, 'campaign.order_wrong'],
    [{ toOn: '2029-03-10' }, 422, 'campaign.order_wrong'],
    [{ name: ' ' }, 400, 'http.invalid'],
  ])('refuse %o', async (more, status, code) => {
    expect(await post(plan.of('campaigns'), body(more))).toMatchObject({ status, body: { code } });
  });
});
