import { getValue } from '@zesting/core';
import type { FollowUpListsShape, FollowUpsShape } from '@zesting/contract';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { markOut, movePlacement } from '../calendar/index.js';

describe('what is done after something went out', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager')];
  });
  beforeEach(() => scene.begin());
  afterAll(() => scene.close());

  const put = (channelId: string, items: object[], version: number, by = manager) =>
    by.call('PUT', `/api/channels/${channelId}/follow-ups`, { body: { items }, headers: { 'If-Match': `"${version}"` } });
  const all = async (by = manager, query = '') => (await by.call('GET', `/api/follow-ups${query}`)).body as unknown as FollowUpsShape;
  const settle = (id: string, state: string, by = manager) => by.call('PUT', `/api/follow-ups/${id}`, { body: { state } });

  it('comes due by the client’s days from the one on which it really went, by the list as it was then', async () => {
    const [channelId = '', other = ''] = scene.b.channelIds; // in Auckland: 1 March begins there at 11 in the morning of 28 February
    const items = [
      { words: ' Answer what people write ', daysAfter: 0 },
      { words: 'Share it with the group', daysAfter: 2 },
      { words: 'Look how it went', daysAfter: 30 },
    ];
    expect((await put(channelId, items, 0)).body).toMatchObject({ code: 'access.not_found' }); // not her client
    expect((await put(channelId, items, 0, lead)).status).toBe(204);
    expect((await put(channelId, items, 0, lead)).status).toBe(412);
    expect((await put(channelId, [{ words: ' ', daysAfter: -1 }], 1, lead)).status).toBe(400);
    const lists = (await lead.call('GET', `/api/clients/${scene.b.id}/follow-up-lists`)).body as unknown as FollowUpListsShape;
    expect(lists.lists).toEqual([
      { channelId, version: 1, items: [{ words: 'Answer what people write', daysAfter: 0 }, items[1], items[2]] },
    ]);

    const { ready, send, say } = signOffIn(scene);
    const pieceId = await ready(scene.b);
    getValue(await say(getValue(await send(scene.b, [pieceId])), pieceId, 'approve', { contactId: scene.b.contactId }));
    for (const id of [channelId, other]) {
      const [row] = await scene.app.read<{ id: string; version: number }>('select id, version from placements where piece_id = $1 and channel_id = $2', [pieceId, id]); // prettier-ignore
      getValue(await movePlacement(scene.app, scene.people.lead, row?.id ?? '', { on: '2027-03-02', at: '06:00' }, row?.version ?? 0));
      scene.app.clock.set('2027-03-01T17:01:00Z'); // 2 March there
      getValue(await markOut(scene.app, scene.people.lead, row?.id ?? '', { address: `https://x.test/${id}` }));
      await scene.begin();
    }
    expect((await put(channelId, [{ words: 'Something else', daysAfter: 1 }], 1, lead)).status).toBe(204); // what is out keeps its own
    const { open, todays, hidden, settled } = await all(lead);
    expect(open).toMatchObject([
      {
        words: 'Answer what people write',
        dueOn: '2027-03-02',
        clientId: scene.b.id,
        pieceId,
        channelName: 'Photo feed',
        address: `https://x.test/${channelId}`,
      },
      { words: 'Share it with the group', dueOn: '2027-03-04' },
    ]); // in 30 days is too far
    expect([hidden, settled, todays.length]).toEqual([0, [], 2]);
    expect((await all()).open).toEqual([]);
    expect((await all(lead, `?clientId=${scene.a.id}`)).open).toEqual([]);
    scene.app.clock.set('2027-04-01T09:00:00Z');
    expect((await all(lead)).open.map(({ words }) => words)).toEqual([
      'Answer what people write',
      'Share it with the group',
      'Look how it went',
    ]);
  });

  it('is done or left out by whoever says it first, and open again', async () => {
    const { open } = await all(lead);
    const [first, second] = open;
    expect((await settle(first?.id ?? '', 'done')).body).toMatchObject({ code: 'access.not_found' });
    expect((await settle(first?.id ?? '', 'sung', lead)).status).toBe(400);
    expect((await settle(first?.id ?? '', 'done', lead)).status).toBe(204);
    expect((await settle(first?.id ?? '', 'done', lead)).status).toBe(204);
    expect((await settle(second?.id ?? '', 'left_out', lead)).status).toBe(204);
    const now = await all(lead);
    expect(now.open).toEqual([]);
    expect(now.settled.map(({ words, state, settledBy }) => [words, state, settledBy]).sort()).toEqual([
      ['Answer what people write', 'done', 'Lea'],
      ['Share it with the group', 'left_out', 'Lea'],
    ]);
    const record = await scene.app.read("select verb from activities where verb like 'follow_up.%' order by id");
    expect(record).toEqual([{ verb: 'follow_up.done' }, { verb: 'follow_up.left_out' }]);
    expect((await settle(first?.id ?? '', 'open', lead)).status).toBe(204);
    expect((await all(lead)).open).toMatchObject([{ id: first?.id, settledBy: null }]);
    scene.app.clock.set('2027-03-02T09:00:00Z'); // what was settled yesterday is no longer shown
    await settle(first?.id ?? '', 'done', lead);
    scene.app.clock.set('2027-03-03T12:00:00Z');
    expect((await all(lead)).settled).toEqual([]);
  });
});
