import { getValue } from '@zesting/core';
import type { FollowUpListsShape, FollowUpsShape } from '@zesting/contract';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { markOut, movePlacement } from '../calendar/index.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { loadCalendars, loadOtherHours } from '../planning/index.js';

describe('what is done around what goes out', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager')];
  });
  beforeEach(() => scene.begin());
  afterAll(() => scene.close());

  const PLAIN = { kind: 'follow_up', days: 0, forDays: 1, personId: null, minutes: 0 };
  const put = (channelId: string, items: object[], version: number, by = manager) =>
    by.call('PUT', `/api/channels/${channelId}/follow-ups`, {
      body: { items: items.map((item) => ({ ...PLAIN, ...item })) },
      headers: { 'If-Match': `"${version}"` },
    });
  const all = async (by = manager, query = '') => (await by.call('GET', `/api/follow-ups${query}`)).body as unknown as FollowUpsShape;
  const settle = (id: string, state: string, by = manager) => by.call('PUT', `/api/follow-ups/${id}`, { body: { state } });

  it('comes due by the client’s days from the one on which it really went, by the list as it was then', async () => {
    const [channelId = '', other = ''] = scene.b.channelIds; // in Auckland: 1 March begins there at 11 in the morning of 28 February
    const items = [
      { words: ' Answer what people write ', days: 0 },
      { words: 'Share it with the group', days: 2 },
      { words: 'Look how it went', days: 30 },
    ];
    expect((await put(channelId, items, 0)).body).toMatchObject({ code: 'access.not_found' }); // not her client
    expect((await put(channelId, items, 0, lead)).status).toBe(204);
    expect((await put(channelId, items, 0, lead)).status).toBe(412);
    expect((await put(channelId, [{ words: ' ', days: -1 }], 1, lead)).status).toBe(400);
    const lists = (await lead.call('GET', `/api/clients/${scene.b.id}/follow-up-lists`)).body as unknown as FollowUpListsShape;
    expect(lists.lists).toMatchObject([
      {
        channelId,
        version: 1,
        items: [{ words: 'Answer what people write', days: 0, kind: 'follow_up', personName: null }, items[1], items[2]],
      },
    ]);
    expect(lists.people.map(({ name }) => name)).toEqual(['Lea']); // Max and Sia are with A alone, and Fay sees pieces by their steps

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
    expect((await put(channelId, [{ words: 'Something else', days: 1 }], 1, lead)).status).toBe(204); // what is out keeps its own
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

  describe('and before', () => {
    const way = () => signOffIn(scene);
    let [blog, pieceId, placementId] = ['', '', ''];
    const placement = async () =>
      (
        await scene.app.read<{ version: number; at: string }>('select version, publish_at as at from placements where id = $1', [
          placementId,
        ])
      )[0];
    const move = async (on: string) =>
      getValue(await movePlacement(scene.app, scene.people.lead, placementId, { on, at: '10:00' }, (await placement())?.version ?? 0));
    const mine = async (by: Caller) => (await all(by, '?mine=yes')).open.filter((row) => row.placementId === placementId);
    const enter = async (state: string, meantAt?: string, by = manager) => {
      const [item] = await scene.app.read<{ key: string }>(
        "select items -> 0 ->> 'key' as key from follow_up_lists where channel_id = $1",
        [blog],
      );
      const body = { itemKey: item?.key, meantAt: meantAt ?? (await placement())?.at, state };
      return by.call('PUT', `/api/placements/${placementId}/entering`, { body });
    };
    const sign = async () => getValue(await way().say(getValue(await way().send(scene.a, [pieceId])), pieceId, 'approve'));
    /** Minutes of Max's that are taken, by day. */
    const hours = async () => {
      const book = await loadCalendars(scene.app.manager, scene.app.clock.now());
      const load = await loadOtherHours(scene.app.manager, book);
      return Object.fromEntries(load.flatMap(({ doer, on, minutes }) => (doer === scene.people.manager.personId ? [[on, minutes]] : [])));
    };

    it('is put into its channel by its own day by somebody, which takes their hours, once it is signed', async () => {
      blog = scene.a.channelIds[1] ?? '';
      const item = { kind: 'enter', words: 'Put it into the site', days: 1, personId: scene.people.manager.personId, minutes: 40 };
      expect((await put(blog, [{ ...item, personId: scene.people.freelance.personId }], 0)).body).toMatchObject({
        code: 'follow_up.doer_unfit',
      });
      expect((await put(blog, [item, { words: 'Answer', forDays: 5, personId: item.personId, minutes: 15 }], 0)).status).toBe(204);
      pieceId = await way().ready(scene.a);
      [{ id: placementId } = { id: '' }] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 and channel_id = $2', [pieceId, blog]); // prettier-ignore
      await move('2027-03-09');
      const row = { id: null, kind: 'enter', words: item.words, dueOn: '2027-03-08', isSigned: false, personName: 'Max', minutes: 40 };
      expect(await mine(manager)).toMatchObject([row]);
      const staff = await callerAs(scene, 'staff');
      expect([await mine(staff), (await all(staff)).open.some((one) => one.placementId === placementId)]).toEqual([[], true]);
      expect(await hours()).toEqual({ '2027-03-08': 40 });
      expect((await enter('done')).body).toMatchObject({ code: 'follow_up.not_signed' });
      await sign();
      expect(await mine(manager)).toMatchObject([{ ...row, isSigned: true }]);
      expect((await enter('done', '2027-03-09T11:00:00Z')).status).toBe(412);
      expect((await enter('sung')).status).toBe(400);
      // two say it at once: one row, and the first one's name
      expect((await Promise.all([enter('done'), enter('done', undefined, lead)])).map(({ status }) => status)).toEqual([204, 204]);
      expect(await mine(manager)).toEqual([]);
      expect(await hours()).toEqual({});
      const entered = (await all()).settled.filter((one) => one.placementId === placementId);
      expect(entered).toMatchObject([{ kind: 'enter', words: item.words, state: 'done' }]);
    });

    it('is to be put in again at another time, with other content, or where it was taken back', async () => {
      await move('2027-03-08');
      expect(await mine(manager)).toMatchObject([{ dueOn: '2027-03-05', isSigned: true }]); // the Friday before
      expect((await enter('done')).status).toBe(204);
      await move('2027-03-09');
      expect(await mine(manager)).toEqual([]); // as it was put in at first
      const done = (await all()).settled.find((one) => one.placementId === placementId && one.dueOn === '2027-03-08');
      expect((await settle(done?.id ?? '', 'open')).status).toBe(204);
      expect(await mine(manager)).toMatchObject([{ id: null, dueOn: '2027-03-08' }]);
      expect((await enter('done')).status).toBe(204);
      await way().write(pieceId, 'Another copy');
      expect(await mine(manager)).toMatchObject([{ isSigned: false }]);
      await sign();
      expect(await mine(manager)).toMatchObject([{ isSigned: true, dueOn: '2027-03-08' }]);
      expect((await enter('left_out')).status).toBe(204);
      expect(await mine(manager)).toEqual([]);
      const rows = await scene.app.read("select 1 from follow_ups where placement_id = $1 and kind = 'enter'", [placementId]);
      expect(rows).toHaveLength(3); // for two times, and for two contents of the one
    });

    it('is followed up on the working days of who does it, and stays somebody’s where they leave', async () => {
      await move('2027-03-05'); // a Friday
      scene.app.clock.set('2027-03-05T10:01:00Z');
      getValue(await markOut(scene.app, scene.people.lead, placementId, { address: 'https://x.test/a' }));
      const answering = async () => (await mine(manager)).map(({ kind, dueOn }) => [kind, dueOn]);
      expect(await answering()).toEqual(['2027-03-05', '2027-03-08', '2027-03-09'].map((on) => ['follow_up', on]));
      expect(await hours()).toEqual({ '2027-03-05': 15, '2027-03-08': 15, '2027-03-09': 15 });
      await scene.app.read('update clients set archived_at = now() where id = $1', [scene.a.id]);
      expect(await hours()).toEqual({}); // an archived client's take nobody's hours
      await scene.app.read('update clients set archived_at = null where id = $1', [scene.a.id]);
      await scene.app.read('update people set active = false, left_at = now() where id = $1', [scene.people.manager.personId]);
      const left = (await all(lead)).open.filter((row) => row.placementId === placementId);
      expect(left.map(({ personId }) => personId)).toEqual([null, null, null]);
      expect(await hours()).toEqual({});
      await scene.app.read('update people set active = true, left_at = null where id = $1', [scene.people.manager.personId]);
    });

    it('wants the doer’s other work reckoned anew wherever a placement or its list is changed', async () => {
      const other = await way().ready(scene.a);
      [{ id: placementId } = { id: '' }] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 and channel_id = $2', [other, blog]); // prettier-ignore
      const wanted = async (change: () => Promise<unknown>) => {
        await scene.app.read('delete from predictions_wanted where person_id is not null');
        await change();
        const rows = await scene.app.read('select 1 from predictions_wanted where person_id = $1', [scene.people.manager.personId]);
        return rows.length > 0;
      };
      await scene.server.get(Jobs).beforeApplicationShutdown(); // nobody takes up what is wanted
      expect(await wanted(() => move('2027-03-18'))).toBe(true);
      const [list] = await scene.app.read<{ version: number }>('select version from follow_up_lists where channel_id = $1', [blog]);
      expect(await wanted(() => put(blog, [], list?.version ?? 0))).toBe(true);
      expect(await wanted(() => move('2027-03-19'))).toBe(false); // nobody enters it any more
    });
  });
});
