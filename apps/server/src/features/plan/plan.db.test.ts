import type { CopyMonthShape, PlanMonthShape, MonthFrameShape, MonthsToStartShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';

describe('a client’s month and year', () => {
  let { scene, lead, manager, feed, blog, formatId, of, add, month, fill, caught } = {} as PlanScene; // made before the first test
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
    ({ scene, lead, manager, feed, blog, formatId, of, add, month, fill, caught } = plan);
  });
  afterAll(() => scene.close());
  beforeEach(() => plan.reset());

  describe('a month', () => {
    it('holds the slots of the rhythm with what stands in them, and what stands beside', async () => {
      await add();
      const pieceId = await makePiece(scene, scene.a);
      const [one] = await scene.app.read<{ id: string; version: number }>(
        'select id, version from placements where piece_id = $1 and channel_id = $2',
        [pieceId, feed],
      );
      const [two] = await scene.app.read<{ id: string; version: number }>(
        'select id, version from placements where piece_id = $1 and channel_id = $2',
        [pieceId, blog],
      );
      for (const placement of [one, two])
        await manager.call('PUT', `/api/placements/${placement?.id}/date`, {
          body: { on: '2027-03-16', at: '11:30' },
          headers: { 'If-Match': `"${placement?.version}"` },
        });
      const { slots, beside, longestRun, largestGapDays } = await month();
      expect(slots).toHaveLength(9);
      expect(slots.filter(({ planned }) => planned !== null)).toMatchObject([
        { on: '2027-03-16', planned: { title: 'A piece', state: 'pencilled', isOnTheme: null } },
      ]);
      expect(beside).toMatchObject([{ title: 'A piece', channelName: 'Blog' }]);
      expect([longestRun, largestGapDays]).toEqual([0, null]);
    });

    it('counts what goes out on several channels once, in the mix and in its flow', async () => {
      await add();
      const make = async (on: string, pillarId: string | undefined) => {
        const body = {
          routeId: (await scene.app.read<{ id: string }>('select id from routes'))[0]?.id,
          channelIds: [feed, blog],
          wishOn: on,
          pillarId,
          isPencilled: true,
        };
        expect((await manager.call('POST', of('pieces'), { body })).status).toBe(201);
      };
      await make('2027-03-16', plan.pillars[0]?.id);
      await make('2027-03-18', plan.pillars[1]?.id);
      const { mix, longestRun } = await month();
      expect(mix).toMatchObject([
        { name: 'Craft', count: 1, actual: 50 },
        { name: 'People', count: 1, actual: 50 },
      ]);
      expect(longestRun).toBe(1);
    });

    it('owes the pillars their shares of all that it will hold, in whole pieces', async () => {
      await add();
      const { mix } = await month();
      expect(mix).toMatchObject([
        { name: 'Craft', wanted: 5, count: 0, owed: 5 }, // 5.4 and 3.6 of nine
        { name: 'People', wanted: 4, count: 0, owed: 4 },
      ]);
    });

    it('shows blackouts, and what is over', async () => {
      await add();
      const marker = { clientId: scene.a.id, kind: 'blackout', name: 'Stocktaking', startOn: '2027-03-10', endOn: '2027-03-12' };
      const { markerId } = (await manager.call('POST', '/api/markers', { body: marker })).body;
      scene.app.clock.set('2027-03-04T10:00:00Z');
      const { slots, mix } = await month();
      expect(slots.filter(({ blackout }) => blackout !== null)).toMatchObject([{ on: '2027-03-11', blackout: 'Stocktaking' }]);
      expect(slots.filter(({ isPast }) => isPast).map(({ on }) => on)).toEqual(['2027-03-02', '2027-03-04']);
      expect(mix.map(({ wanted }) => wanted)).toEqual([4, 2]); // six can still be filled
      await manager.call('DELETE', `/api/markers/${String(markerId)}`);
    });

    it('refuses what is no month', async () => {
      for (const wrong of ['2027-13', '2027', '', 'March']) expect((await manager.call('GET', of(`plan?month=${wrong}`))).status).toBe(400);
    });
  });

  it('is told what its open slots ask to be made, and the hours that are left for it', async () => {
    await add({ formatId, untilOn: '2027-03-18' });
    await add({ channelId: blog, rule: 'FREQ=WEEKLY;BYDAY=MO', fromOn: '2027-03-08', untilOn: '2027-03-14' });
    scene.app.clock.set('2027-03-04T12:00:00Z');
    await scene.app.read(`update people set skills = case when role = 'manager' then '{"write": 2}'::jsonb else '{}' end`); // one who writes
    const cost = async (of_ = '2027-03') => (await lead.call('GET', of(`plan/cost?month=${of_}`))).body;
    expect(await cost()).toMatchObject({
      formats: [{ name: 'Still', count: 4 }], // 9, 11, 16 and 18 March
      ofAny: 1,
      skills: [
        { skill: 'design', minutes: 480, freeMinutes: 0 },
        { skill: 'write', minutes: 240, freeMinutes: 10 * 480 }, // Thursday 4 to Wednesday 17 March
        { skill: 'check', minutes: 60, freeMinutes: 0 },
      ],
      untilOn: '2027-03-18',
    });
    expect(await cost('2027-05')).toEqual({ formats: [], ofAny: 0, skills: [], untilOn: null });
    await scene.app.read('update people set active = true, skills = \'{"write": 2}\'');
  });

  describe('themes', () => {
    const set = (body: object) => manager.call('PUT', of('themes'), { body });
    const named = async (of_: string) => (await month(of_)).themes.map(({ name, from }) => `${name} (${from})`);

    it('are a week’s, a month’s, or the cycle’s; what is taken away lets the cycle show', async () => {
      await add();
      await manager.call('PUT', of('theme-cycle'), {
        body: { names: ['Plan', 'Sow', 'Plant', 'Grow', 'Cut', 'Keep'], fromMonth: '2027-01' },
      });
      expect(await named('2027-07')).toEqual(['Plan (cycle)']);
      expect(await named('2026-12')).toEqual([]);
      await set({ period: 'month', on: '2027-03-17', name: ' Spring fair ' });
      await set({ period: 'week', on: '2027-03-31', name: 'Easter' });
      expect(await named('2027-03')).toEqual(['Spring fair (month)', 'Easter (week)']);
      expect(await named('2027-04')).toEqual(['Grow (cycle)', 'Easter (week)']);
      expect((await month()).slots.map(({ theme }) => theme)).toEqual([...Array.from({ length: 8 }, () => 'Spring fair'), 'Easter']);
      await set({ period: 'month', on: '2027-03-01', name: '' });
      expect(await named('2027-03')).toEqual(['Plant (cycle)', 'Easter (week)']);
    });

    it('are swapped, also where the cycle says them', async () => {
      await manager.call('PUT', of('theme-cycle'), { body: { names: ['Plan', 'Sow'], fromMonth: '2027-01' } });
      await set({ period: 'month', on: '2027-03-01', name: 'Fair' });
      expect(
        (await manager.call('POST', of('themes/swap'), { body: { period: 'month', on: '2027-03-05', withOn: '2027-04-01' } })).status,
      ).toBe(204);
      expect([await named('2027-03'), await named('2027-04'), await named('2027-05')]).toEqual([
        ['Sow (month)'],
        ['Fair (month)'],
        ['Plan (cycle)'],
      ]);
      expect(
        (await manager.call('POST', of('themes/swap'), { body: { period: 'month', on: '2027-03-05', withOn: '2027-03-20' } })).status,
      ).toBe(400);
    });

    it('say what is off theme', async () => {
      await add();
      await set({ period: 'month', on: '2027-03-01', name: 'Garden tools' });
      const [on, off] = [await caught({ title: 'How to sharpen a tool', formatId }), await caught({ title: 'Meet the team', formatId })];
      const { slots } = await month();
      const at = (index: number) => ({ ruleId: slots[index]?.ruleId, on: slots[index]?.on });
      await fill({ ...at(6), ideaId: on }, { ...at(7), ideaId: off });
      expect((await month()).slots.slice(6, 8).map(({ planned }) => planned?.isOnTheme)).toEqual([true, false]);
    });
  });

  it('a year holds its months with theme and slots, and each marker once', async () => {
    await scene.app.read('delete from markers');
    const ruleId = await add({ formatId, untilOn: '2027-04-15' });
    await fill({ ruleId, on: '2027-04-06' });
    await manager.call('PUT', of('theme-cycle'), {
      body: { names: ['Plan', 'Sow', 'Plant', 'Grow', 'Cut', 'Keep'], fromMonth: '2027-01' },
    });
    await manager.call('PUT', of('themes'), { body: { period: 'week', on: '2027-04-07', name: 'Fair week' } });
    const marker = { clientId: scene.a.id, kind: 'blackout', name: 'Stocktaking', startOn: '2027-03-31', endOn: '2027-04-02' };
    await manager.call('POST', '/api/markers', { body: marker });
    const { body } = await manager.call('GET', of('year?month=2027-03'));
    const months = body['months'] as { month: string; slots: number; filled: number; theme: { name: string } | null; weekThemes: number }[];
    expect(months.map(({ month: name }) => name)).toEqual(
      Array.from({ length: 12 }, (_, index) => `${index < 10 ? 2027 : 2028}-${String(((index + 2) % 12) + 1).padStart(2, '0')}`),
    );
    expect(months.map(({ theme }) => theme?.name)).toEqual([
      'Plant',
      'Grow',
      'Cut',
      'Keep',
      'Plan',
      'Sow',
      'Plant',
      'Grow',
      'Cut',
      'Keep',
      'Plan',
      'Sow',
    ]);
    expect(months.slice(0, 3).map(({ slots, filled, weekThemes }) => [slots, filled, weekThemes])).toEqual([
      [9, 0, 0],
      [4, 1, 1], // 6, 8, 13 and 15 April: the first is closed
      [0, 0, 0],
    ]);
    expect((body['markers'] as { name: string }[]).filter(({ name }) => name === 'Stocktaking')).toHaveLength(1);
    expect((await manager.call('GET', of('year?month=2027'))).status).toBe(400);
  });

  describe('numbers', () => {
    it('are held against the pieces of whole weeks and of the month, each piece once', async () => {
      const { manager: by } = plan;
      expect((await by.call('PUT', of('plan/numbers'), { body: { perWeek: 2, perMonth: 8 } })).status).toBe(204);
      for (const on of ['2027-03-02', '2027-03-04', '2027-03-31', '2027-04-02']) await placed(on);
      const { numbers } = (await by.call('GET', of('plan?month=2027-03'))).body as unknown as PlanMonthShape;
      expect(numbers).toMatchObject({ perWeek: 2, perMonth: 8, count: 3 });
      expect(numbers.weeks.map(({ mondayOn, count }) => [mondayOn, count])).toEqual([
        ['2027-03-01', 2],
        ['2027-03-08', 0],
        ['2027-03-15', 0],
        ['2027-03-22', 0],
        ['2027-03-29', 2], // one of April
      ]);
      expect((await by.call('GET', of('rhythm'))).body).toMatchObject({ perWeek: 2, perMonth: 8 });
      expect((await by.call('PUT', of('plan/numbers'), { body: { perWeek: 0, perMonth: null } })).status).toBe(400);
    });
  });

  it('knows whom its channels reach, and how often each goes out in four weeks', async () => {
    await add(); // Tuesdays and Thursdays on the feed
    const rhythm = async () => (await manager.call('GET', of('rhythm'))).body;
    expect(await rhythm()).toMatchObject({ audiences: { channels: [], overlap: 30 }, slotsAhead: [{ channelId: feed, slots: 8 }] });
    const audiences = { channels: [{ channelId: feed, audience: 1200, seen: 25 }], overlap: 40 };
    expect((await manager.call('PUT', of('plan/audiences'), { body: audiences })).status).toBe(204);
    expect(await rhythm()).toMatchObject({ audiences });
    const twice = { ...audiences, channels: [...audiences.channels, ...audiences.channels] };
    expect((await manager.call('PUT', of('plan/audiences'), { body: twice })).status).toBe(400);
  });

  describe('a month that is copied', () => {
    const copy = async (to: string[], isPreview: boolean) =>
      (await manager.call('POST', of('plan/copy'), { body: { from: '2027-03', to, isPreview } })).body as unknown as CopyMonthShape;
    const told = ({ lines }: CopyMonthShape) => lines.map(({ fromOn, on, outcome }) => `${fromOn} → ${on ?? '–'} ${outcome}`);

    it('stands on the same weekdays of the other, less what has no such day, is closed or taken', async () => {
      await placed('2027-03-02', plan.pillars[0]?.id);
      await scene.app.read("update pieces set purpose = 'buy'");
      await placed('2027-03-16');
      await placed('2027-03-18');
      await placed('2027-03-23');
      await placed('2027-03-30'); // a fifth Tuesday: April has four
      await placed('2027-04-15'); // its third Thursday
      const closed = { clientId: scene.a.id, kind: 'blackout', name: 'Stocktaking', startOn: '2027-04-27', endOn: '2027-04-27' };
      await manager.call('POST', '/api/markers', { body: closed });
      const preview = await copy(['2027-04'], true);
      expect(told(preview)).toEqual([
        '2027-03-02 → 2027-04-06 copied',
        '2027-03-16 → 2027-04-20 copied',
        '2027-03-18 → 2027-04-15 taken',
        '2027-03-23 → 2027-04-27 closed',
        '2027-03-30 → – no_such_day',
      ]);
      expect((await month('2027-04')).mix).toMatchObject([{ count: 0 }, { count: 0 }, { name: 'Without a pillar', count: 1 }]);
      const copied = await copy(['2027-04', '2027-06'], false);
      expect(told(copied).slice(0, 5)).toEqual(told(preview));
      expect(told(copied)[9]).toBe('2027-03-30 → 2027-06-29 copied'); // June has a fifth
      const [first] = copied.lines;
      expect((await manager.call('GET', `/api/pieces/${first?.pieceId}`)).body).toMatchObject({
        title: 'Still for Tuesday 6 April 2027',
        pillarId: plan.pillars[0]?.id,
        purpose: 'buy',
        placements: [{ on: '2027-04-06', at: '11:00', state: 'pencilled' }],
      });
      const april = (await manager.call('GET', of('plan?month=2027-04'))).body as unknown as PlanMonthShape;
      expect(april.beside.map(({ on, isUntitled }) => [on, isUntitled])).toEqual([
        ['2027-04-06', true],
        ['2027-04-15', false],
        ['2027-04-20', true],
      ]);
      // once more: all of it stands there already
      expect(new Set((await copy(['2027-04', '2027-06'], false)).lines.map(({ outcome }) => outcome))).toEqual(
        new Set(['taken', 'closed', 'no_such_day']),
      );
    });

    it('fills no day twice when two copy at once, and nothing that is past', async () => {
      await placed('2027-03-16');
      const both = await Promise.all([copy(['2027-05'], false), copy(['2027-05'], false)]);
      expect(both.flatMap(({ lines }) => lines.map(({ outcome }) => outcome)).sort()).toEqual(['copied', 'taken']);
      scene.app.clock.set('2027-06-10T09:00:00Z');
      expect(told(await copy(['2027-05'], true))).toEqual(['2027-03-16 → 2027-05-18 past']);
    });
  });

  /** A piece on the feed at eleven on a day, put there whatever it lies before. */
  async function placed(on: string, pillarId: string | undefined = undefined): Promise<void> {
    const pieceId = await makePiece(scene, scene.a);
    await scene.app.read('update pieces set pillar_id = $2 where id = $1', [pieceId, pillarId ?? null]);
    await scene.app.read(
      `update placements set on_day = $2::date, at_time = '11:00', publish_at = $2::date + time '11:00' where piece_id = $1 and channel_id = $3`,
      [pieceId, on, feed],
    );
  }

  describe('a month that is started', () => {
    const frame = async (name: string) => (await manager.call('GET', of(`plan/frame?month=${name}`))).body as unknown as MonthFrameShape;
    const toStart = async () => ((await manager.call('GET', '/api/months-to-start')).body as unknown as MonthsToStartShape).months;
    const start = (name: string, by = manager) => by.call('POST', of('plan/start'), { body: { month: name } });

    it('shows its weeks by real dates, its rhythm, themes, what comes in it and what is carried over', async () => {
      await scene.app.read('delete from markers');
      await plan.add({ rule: 'FREQ=WEEKLY;BYDAY=TU', at: '10:00' });
      await placed('2027-03-16');
      await manager.call('PUT', of('themes'), { body: { period: 'month', on: '2027-03-01', name: 'Bells' } });
      await manager.call('PUT', of('themes'), { body: { period: 'week', on: '2027-03-16', name: 'Ropes' } });
      const mark = (name: string, startOn: string, endOn: string, kind = 'event') =>
        manager.call('POST', '/api/markers', { body: { clientId: scene.a.id, kind, name, startOn, endOn } });
      await mark('Fair', '2027-02-20', '2027-03-03');
      await mark('Show', '2027-03-10', '2027-03-11');
      await mark('Stocktaking', '2027-03-23', '2027-03-23', 'blackout');
      const found = await frame('2027-03');
      expect(found).toMatchObject({ name: 'AAA-2027-03', startedAt: null, startedBy: null });
      expect(found.weeks).toEqual([
        { number: 1, fromOn: '2027-03-01', toOn: '2027-03-07', slots: 1, filled: 0, theme: 'Bells' },
        { number: 2, fromOn: '2027-03-08', toOn: '2027-03-14', slots: 1, filled: 0, theme: 'Bells' },
        { number: 3, fromOn: '2027-03-15', toOn: '2027-03-21', slots: 1, filled: 1, theme: 'Ropes' },
        { number: 4, fromOn: '2027-03-22', toOn: '2027-03-28', slots: 0, filled: 0, theme: 'Bells' },
        { number: 5, fromOn: '2027-03-29', toOn: '2027-03-31', slots: 1, filled: 0, theme: 'Bells' },
      ]);
      expect(found.rules.map(({ channelName, at, slots }) => [channelName, at, slots])).toEqual([['Photo feed', '10:00', 5]]);
      expect(found.carried.map(({ name }) => name)).toEqual(['Fair']);
      expect(found.markers.filter(({ kind }) => kind !== 'holiday').map(({ name }) => name)).toEqual(['Show', 'Stocktaking']);
    });

    it('is told from those that should be under way; who was first stays so, of two at once', async () => {
      expect(await toStart()).toEqual([]); // without a rhythm there is nothing to plan
      await plan.add();
      scene.app.clock.set('2027-03-15T09:00:00Z');
      expect((await toStart()).map(({ name, hasBegun }) => [name, hasBegun])).toEqual([
        ['AAA-2027-03', true],
        ['AAA-2027-04', false],
      ]);
      await Promise.all([start('2027-04'), start('2027-04', plan.lead)]);
      const { startedBy } = await frame('2027-04');
      await start('2027-04', startedBy === 'Max' ? plan.lead : manager);
      expect((await frame('2027-04')).startedBy).toBe(startedBy);
      expect((await toStart()).map(({ month }) => month)).toEqual(['2027-03']);
      const back = () => manager.call('DELETE', `${of('plan/start')}?month=2027-04`);
      expect([(await back()).status, (await back()).status]).toEqual([204, 204]);
      expect((await toStart()).map(({ month }) => month)).toEqual(['2027-03', '2027-04']);
      const lines = await scene.app.read("select verb from activities where verb like 'plan.month%' order by id");
      expect(lines).toEqual([{ verb: 'plan.month_started' }, { verb: 'plan.month_unstarted' }]);
      expect((await start('2027-13')).status).toBe(400);
    });
  });
});
