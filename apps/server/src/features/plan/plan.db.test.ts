import { callerAs, makePiece, makeScene, NOW, type Caller, type Scene } from '../../../test-support/scene.js';

describe('what shall be made', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let feed = '';
  let blog = '';
  let formatId = '';
  let pillars: { id: string; name: string }[] = [];

  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    manager = await callerAs(scene, 'manager');
    [feed = '', blog = ''] = scene.a.channelIds;
    formatId = (await scene.app.read<{ id: string }>('select id from formats'))[0]?.id ?? '';
    pillars = await scene.app.read(
      `insert into pillars (client_id, name, share, position) values ($1, 'Craft', 60, 0), ($1, 'People', 40, 1) returning id, name`,
      [scene.a.id],
    );
  }, 60_000);
  afterAll(() => scene.close());
  beforeEach(async () => {
    scene.app.clock.set(NOW);
    await scene.app.read('delete from rhythm_rules');
    await scene.app.read('delete from themes');
    await scene.app.read('delete from client_plans');
    await scene.app.read('delete from ideas');
    await scene.app.read('update pieces set shelved = true'); // what tests before made
  });

  const rule = (body: object = {}) => ({
    channelId: feed,
    rule: 'FREQ=WEEKLY;BYDAY=TU,TH',
    at: '10:00',
    fromOn: '2027-03-01',
    untilOn: null,
    skipsHolidays: false,
    pillarId: null,
    formatId: null,
    ...body,
  });
  const of = (path: string) => `/api/clients/${scene.a.id}/${path}`;
  const add = async (body: object = {}) => (await manager.call('POST', of('rhythm'), { body: rule(body) })).body['ruleId'] as string;
  type Rule = { id: string; rule: string; fromOn: string; anchorOn: string; nextOn: string[]; exceptOn: string[]; version: number };
  const rules = async () => (await manager.call('GET', of('rhythm'))).body as unknown as { todayOn: string; ended: number; rules: Rule[] };
  type Slot = {
    ruleId: string;
    on: string;
    at: string;
    theme: string | null;
    blackout: string | null;
    isPast: boolean;
    planned: { pieceId: string; title: string; state: string; isOnTheme: boolean | null } | null;
  };
  type Month = {
    slots: Slot[];
    beside: { title: string }[];
    themes: { name: string; from: string; period: string }[];
    mix: { name: string; wanted: number; count: number; owed: number }[];
    candidates: { kind: string; id: string; title: string; themes: string[]; readyOn: string | null; worth: number }[];
    routes: { readyOn: string | null }[];
    longestRun: number;
    largestGapDays: number | null;
  };
  const month = async (of_ = '2027-03') => (await manager.call('GET', of(`plan?month=${of_}`))).body as unknown as Month;
  const fill = async (...slots: object[]) =>
    (await manager.call('POST', of('plan'), { body: { slots } })).body['slots'] as { pieceId: string | null; problem: string | null }[];
  const caught = async (body: object) =>
    (await manager.call('POST', '/api/ideas', { body: { clientId: scene.a.id, ...body } })).body['ideaId'] as string;

  describe('a rhythm', () => {
    it('is told with the days that come next', async () => {
      await add();
      await add({ rule: 'rrule:freq=monthly;byday=-1fr', channelId: blog, at: '08:15', fromOn: '2027-03-08' });
      expect(await rules()).toMatchObject({
        todayOn: '2027-03-01',
        ended: 0,
        rules: [
          { rule: 'FREQ=WEEKLY;BYDAY=TU,TH', nextOn: ['2027-03-02', '2027-03-04', '2027-03-09', '2027-03-11', '2027-03-16'] },
          { rule: 'FREQ=MONTHLY;BYDAY=-1FR', at: '08:15', nextOn: ['2027-03-26', '2027-04-30', '2027-05-28', '2027-06-25', '2027-07-30'] },
        ],
      });
    });

    it.each<[object, string]>([
      [{ rule: 'every Tuesday' }, 'rhythm.rule_wrong'],
      [{ rule: 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30' }, 'rhythm.no_day'],
      [{ fromOn: '2027-02-28' }, 'rhythm.in_past'],
      [{ untilOn: '2027-02-28' }, 'rhythm.order_wrong'],
      [{ channelId: '6b1f7a52-5a8c-4c55-9a38-0d4e8d1f0f00' }, 'channel.unknown'],
      [{ pillarId: '6b1f7a52-5a8c-4c55-9a38-0d4e8d1f0f00' }, 'pillar.unknown'],
      [{ formatId: '6b1f7a52-5a8c-4c55-9a38-0d4e8d1f0f00' }, 'format.unknown'],
    ])('refuses %j', async (body, code) => {
      expect((await manager.call('POST', of('rhythm'), { body: rule(body) })).body['code']).toBe(code);
    });

    it('has at most fifty rules at a time', async () => {
      await scene.app.read(
        `insert into rhythm_rules (client_id, channel_id, rule, at_time, anchor_on, from_on, until_on, skips_holidays)
         select $1, $2, 'FREQ=DAILY', '09:00', '2026-01-01', '2026-01-01', case when n = 1 then '2026-02-01'::date end, false from generate_series(1, 50) n`,
        [scene.a.id, feed],
      );
      expect(await add()).toBeDefined(); // one of them has ended
      expect((await manager.call('POST', of('rhythm'), { body: rule() })).body['code']).toBe('rhythm.too_many');
    });

    it('begins by the client’s day, not by the agency’s', async () => {
      scene.app.clock.set('2027-03-01T20:00:00Z'); // already Tuesday in Auckland
      const body = { ...rule(), channelId: scene.b.channelIds[0] };
      const put = async (fromOn: string) =>
        (await lead.call('POST', `/api/clients/${scene.b.id}/rhythm`, { body: { ...body, fromOn } })).body;
      expect((await put('2027-03-01'))['code']).toBe('rhythm.in_past');
      expect((await put('2027-03-02'))['ruleId']).toBeDefined();
    });

    it('that is changed keeps its past: the old rule ends yesterday, the new one is counted as before', async () => {
      const id = await add({ rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU' }); // 2, 16, 30 March
      scene.app.clock.set('2027-03-10T09:00:00Z');
      const before = (await month()).slots.map(({ on }) => on);
      const changed = await manager.call('PUT', `/api/rhythm/${id}`, {
        body: rule({ rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU', at: '18:00' }),
        headers: { 'If-Match': '"1"' },
      });
      expect(changed.status).toBe(200);
      expect(changed.body['ruleId']).not.toBe(id);
      const { slots } = await month();
      expect(slots.map(({ on }) => on)).toEqual(before);
      expect(slots.map(({ at }) => at)).toEqual(['10:00', '18:00', '18:00']);
      expect(await rules()).toMatchObject({ ended: 1, rules: [{ fromOn: '2027-03-10', anchorOn: '2027-03-01', version: 2 }] });
      const stale = await manager.call('PUT', `/api/rhythm/${id}`, { body: rule(), headers: { 'If-Match': '"1"' } });
      expect(stale.body['code']).toBe('http.changed_meanwhile');
      const ended = await manager.call('PUT', `/api/rhythm/${id}`, { body: rule(), headers: { 'If-Match': '"2"' } });
      expect(ended.body['code']).toBe('rhythm.ended');
    });

    it('that has not begun is changed as it is, and moved to another first day is counted from there', async () => {
      const id = await add({ fromOn: '2027-03-08' });
      const body = rule({ fromOn: '2027-03-15', rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' });
      const changed = await manager.call('PUT', `/api/rhythm/${id}`, { body, headers: { 'If-Match': '"1"' } });
      expect(changed.body['ruleId']).toBe(id);
      expect((await rules()).rules).toMatchObject([
        { fromOn: '2027-03-15', anchorOn: '2027-03-15', nextOn: ['2027-03-15', '2027-03-29', '2027-04-12', '2027-04-26', '2027-05-10'] },
      ]);
    });

    it('is ended from today on, and gone where it never began', async () => {
      const [begun, later] = [await add(), await add({ fromOn: '2027-03-20' })];
      scene.app.clock.set('2027-03-10T09:00:00Z');
      for (const id of [begun, later, begun]) {
        const { status } = await manager.call('DELETE', `/api/rhythm/${id}`);
        expect([204, 404]).toContain(status);
      }
      expect(await rules()).toMatchObject({ ended: 1, rules: [] });
      expect((await month()).slots.map(({ on }) => on)).toEqual(['2027-03-02', '2027-03-04', '2027-03-09']);
    });

    it('leaves a slot out and takes it in again, but none that is over and none that is none', async () => {
      const id = await add();
      const except = async (on: string, isLeftOut = true) =>
        (await manager.call('PUT', `/api/rhythm/${id}/exception`, { body: { on, isLeftOut } })).body['code'];
      expect(await except('2027-03-09')).toBeUndefined();
      expect((await month()).slots.slice(0, 4).map(({ on }) => on)).toEqual(['2027-03-02', '2027-03-04', '2027-03-11', '2027-03-16']);
      expect((await rules()).rules[0]?.exceptOn).toEqual(['2027-03-09']);
      expect(await except('2027-03-09', false)).toBeUndefined();
      expect((await month()).slots[2]?.on).toBe('2027-03-09');
      expect(await except('2027-03-10')).toBe('slot.unknown');
      scene.app.clock.set('2027-03-05T09:00:00Z');
      expect(await except('2027-03-04')).toBe('rhythm.in_past');
    });

    it('two who leave out different slots at once both have their way', async () => {
      const id = await add();
      const days = ['2027-03-04', '2027-03-09', '2027-03-11', '2027-03-16', '2027-03-18', '2027-03-23'];
      await Promise.all(days.map((on) => manager.call('PUT', `/api/rhythm/${id}/exception`, { body: { on, isLeftOut: true } })));
      expect((await rules()).rules[0]?.exceptOn).toEqual(days);
    });

    it('is no more where its channel is archived', async () => {
      await add();
      await scene.app.read("update channels set archived_at = '2027-01-01' where id = $1", [feed]);
      expect((await month()).slots).toEqual([]);
      await scene.app.read('update channels set archived_at = null where id = $1', [feed]);
    });
  });

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

  describe('filling slots', () => {
    it('makes a planned piece of an idea, which leaves the shelf and stays linked', async () => {
      const ruleId = await add({ formatId, pillarId: pillars[0]?.id });
      const ideaId = await caught({ title: 'Seven knots', note: 'With a diagram', link: 'https://knots.test/seven' });
      const [filled] = await fill({ ruleId, on: '2027-03-16', ideaId });
      expect(filled).toMatchObject({ problem: null });
      const { body: piece } = await manager.call('GET', `/api/pieces/${filled?.pieceId}`);
      expect(piece).toMatchObject({
        title: 'Seven knots',
        pillarId: pillars[0]?.id,
        aimOn: '2027-03-16',
        brief: { notes: 'With a diagram\n\nhttps://knots.test/seven' },
        placements: [{ channelId: feed, on: '2027-03-16', at: '10:00', state: 'pencilled' }],
      });
      const { body: idea } = await manager.call('GET', `/api/ideas/${ideaId}`);
      expect(idea).toMatchObject({ state: 'used', pieceId: filled?.pieceId, pieceTitle: 'Seven knots' });
      expect((await month()).slots.find(({ on }) => on === '2027-03-16')?.planned?.title).toBe('Seven knots');
    });

    it('gives a piece without a day its day, and plans one that is still to be thought of', async () => {
      const ruleId = await add({ formatId });
      const pieceId = await makePiece(scene, scene.a);
      const [{ id } = { id: '' }] = await scene.app.read<{ id: string }>(
        'select id from placements where piece_id = $1 and channel_id = $2',
        [pieceId, feed],
      );
      const [{ id: elsewhere } = { id: '' }] = await scene.app.read<{ id: string }>(
        'select id from placements where piece_id = $1 and channel_id = $2',
        [pieceId, blog],
      );
      expect(
        await fill(
          { ruleId, on: '2027-03-18', placementId: elsewhere },
          { ruleId, on: '2027-03-18', placementId: id },
          { ruleId, on: '2027-03-23' },
        ),
      ).toMatchObject([{ problem: 'slot.other_channel' }, { pieceId, problem: null }, { problem: null }]);
      expect((await month()).slots.filter(({ planned }) => planned).map(({ on, planned }) => [on, planned?.title])).toEqual([
        ['2027-03-18', 'A piece'],
        ['2027-03-23', 'Still for Tuesday 23 March 2027'],
      ]);
      expect(await fill({ ruleId, on: '2027-03-25', placementId: id })).toMatchObject([{ problem: 'placement.dated' }]);
    });

    it('fills none that is taken, over, closed, or none at all, and says why line by line', async () => {
      const ruleId = await add({ formatId });
      const without = await add({ channelId: blog, rule: 'FREQ=WEEKLY;BYDAY=WE' });
      const marker = { clientId: scene.a.id, kind: 'blackout', name: 'Stocktaking', startOn: '2027-03-11', endOn: '2027-03-11' };
      const { markerId } = (await manager.call('POST', '/api/markers', { body: marker })).body;
      const ideaId = await caught({ title: 'Once' });
      const dropped = await caught({ title: 'Dropped' });
      await manager.call('POST', `/api/ideas/${dropped}/state`, { body: { state: 'dropped' } });
      const others = (await lead.call('POST', '/api/ideas', { body: { title: 'Theirs', clientId: scene.b.id } })).body['ideaId'];
      scene.app.clock.set('2027-03-03T09:00:00Z');
      const said = await fill(
        { ruleId, on: '2027-03-16', ideaId },
        { ruleId, on: '2027-03-16' },
        { ruleId, on: '2027-03-18', ideaId },
        { ruleId, on: '2027-03-18', ideaId: dropped },
        { ruleId, on: '2027-03-18', ideaId: others },
        { ruleId, on: '2027-03-02' },
        { ruleId, on: '2027-03-11' },
        { ruleId, on: '2027-03-17' },
        { ruleId: without, on: '2027-03-17' },
        { ruleId: without, on: '2027-03-17', routeId: scene.routeId },
      );
      expect(said.map(({ problem }) => problem)).toEqual([
        null,
        'slot.taken',
        'idea.used',
        'idea.dropped',
        'idea.unknown',
        'placement.in_past',
        'slot.blacked_out',
        'slot.unknown',
        'slot.no_route',
        null,
      ]);
      await manager.call('DELETE', `/api/markers/${String(markerId)}`);
    });

    it('another client’s rule, placement or idea fills nothing', async () => {
      const theirs = (
        await lead.call('POST', `/api/clients/${scene.b.id}/rhythm`, { body: { ...rule(), channelId: scene.b.channelIds[0], formatId } })
      ).body['ruleId'];
      const ruleId = await add({ formatId });
      const pieceId = await makePiece(scene, scene.b);
      const [{ id } = { id: '' }] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1', [pieceId]);
      expect(await fill({ ruleId: theirs, on: '2027-03-16' }, { ruleId, on: '2027-03-16', placementId: id })).toMatchObject([
        { problem: 'slot.unknown' },
        { problem: 'piece.unknown' },
      ]);
    });

    it('is done once, however many do it at once, and an idea is used once', async () => {
      const ruleId = await add({ formatId });
      const two = await add({ formatId, channelId: blog });
      const same = await Promise.all([1, 2, 3].map(() => fill({ ruleId, on: '2027-03-16' })));
      expect(
        same
          .flat()
          .map(({ problem }) => problem)
          .sort(),
      ).toEqual([null, 'slot.taken', 'slot.taken'].sort());
      const ideaId = await caught({ title: 'Wanted twice' });
      const both = await Promise.all([fill({ ruleId, on: '2027-03-18', ideaId }), fill({ ruleId: two, on: '2027-03-18', ideaId })]);
      expect(
        both
          .flat()
          .map(({ problem }) => problem)
          .sort(),
      ).toEqual([null, 'idea.used'].sort());
    });

    it('is told what could stand there: ideas by their worth, pieces without a day, with the themes they speak to and when they can be out', async () => {
      await add();
      await manager.call('PUT', of('themes'), { body: { period: 'month', on: '2027-03-01', name: 'Garden tools' } });
      await caught({ title: 'Plain' });
      await caught({ title: 'A tool for life', merit: 5, ease: 4, chance: 4 });
      await manager.call('POST', '/api/ideas', { body: { title: 'For anybody' } });
      await caught({ title: 'Too old', freshUntilOn: '2027-02-27' });
      await caught({ title: 'Not this month', notBeforeOn: '2027-04-01' });
      await makePiece(scene, scene.a);
      const { candidates, routes } = await month();
      const ideas = candidates.filter(({ kind }) => kind === 'idea');
      expect(ideas.map(({ title }) => title)).toEqual(['A tool for life', 'For anybody', 'Plain']);
      expect(ideas[0]).toMatchObject({ themes: ['Garden tools'], worth: (3 * 1 + 2 * 0.75 + 0.75) / 6 });
      expect(candidates.find(({ kind }) => kind === 'piece')).toMatchObject({
        title: 'A piece',
        readyOn: expect.stringMatching(/^2027-03/) as string,
      });
      expect(routes).toMatchObject([{ readyOn: '2027-03-09' }]); // today, two for design, a check, two of the client's: the day after Monday 8
    });
  });

  describe('a marker', () => {
    const launch = { kind: 'launch', name: 'Spring catalogue', startOn: '2027-03-25', endOn: '2027-03-26', leadDays: 90 };
    const put = async (body: object = {}) =>
      (await manager.call('POST', '/api/markers', { body: { clientId: scene.a.id, ...launch, ...body } })).body['markerId'] as string;
    const runUp = async (markerId: string, by = manager) =>
      (await by.call('GET', `/api/markers/${markerId}/run-up`)).body as unknown as {
        id: string;
        on: string;
        standing: string;
        pieceId: string | null;
        pieceOn: string | null;
      }[];
    const line = (offsetDays: number, more: object = {}) => ({
      offsetDays,
      title: `Day ${offsetDays}`,
      channelId: feed,
      routeId: scene.routeId,
      ...more,
    });
    beforeEach(() => scene.app.read('delete from markers'));

    it('is prepared from so many days before it, and stands as what can still be made allows', async () => {
      const id = await put();
      await put({ name: 'Too soon', startOn: '2027-03-05', endOn: '2027-03-05' });
      await put({ name: 'Later', startOn: '2027-06-20', endOn: '2027-06-20', leadDays: 30 });
      await put({ name: 'Nothing to prepare', leadDays: null });
      const { preparing } = (await manager.call('GET', of('plan?month=2027-03'))).body as unknown as { preparing: object[] };
      expect(preparing).toMatchObject([
        { name: 'Too soon', prepareOn: '2026-12-05', standing: 'too_late' },
        { name: 'Spring catalogue', id, prepareOn: '2026-12-25', standing: 'now', runUps: 0, made: 0 },
      ]);
      const may = (await manager.call('GET', of('plan?month=2027-05'))).body as unknown as {
        preparing: { name: string; standing: string }[];
      };
      expect(may.preparing.at(-1)).toMatchObject({ name: 'Later', standing: 'ahead' });
    });

    it('has a run-up in the order of its days; each piece is made once, pencilled on its day', async () => {
      const id = await put();
      for (const body of [line(0), line(-3), line(-20)])
        expect((await manager.call('POST', `/api/markers/${id}/run-up`, { body })).status).toBe(201);
      const before = await runUp(id);
      expect(before.map(({ on, standing }) => [on, standing])).toEqual([
        ['2027-03-05', 'too_late'],
        ['2027-03-22', 'ahead'],
        ['2027-03-25', 'ahead'],
      ]);
      const teaser = before[1]?.id;
      const made = await Promise.all([1, 2].map(() => manager.call('POST', `/api/run-ups/${teaser}/piece`)));
      expect(made.map(({ status }) => status).sort()).toEqual([201, 409]);
      const pieceId = made.find(({ status }) => status === 201)?.body['pieceId'];
      expect((await manager.call('GET', `/api/pieces/${String(pieceId)}`)).body).toMatchObject({
        title: 'Day -3',
        brief: { notes: 'For “Spring catalogue”.' },
        placements: [{ on: '2027-03-22', at: '09:00', state: 'pencilled' }],
      });
      // the marker is moved: what is made stays, and that is told
      const moved = { clientId: scene.a.id, ...launch, startOn: '2027-03-26' };
      expect((await manager.call('PUT', `/api/markers/${id}`, { body: moved, headers: { 'If-Match': '"1"' } })).status).toBe(204);
      expect(await runUp(id)).toMatchObject([
        {},
        { on: '2027-03-23', pieceId, pieceOn: '2027-03-22' },
        { on: '2027-03-26', pieceId: null },
      ]);
      expect((await manager.call('PUT', `/api/markers/${id}`, { body: moved, headers: { 'If-Match': '"1"' } })).body['code']).toBe(
        'http.changed_meanwhile',
      );
      expect((await manager.call('DELETE', `/api/run-ups/${before[0]?.id}`)).status).toBe(204);
      expect(await runUp(id)).toHaveLength(2);
      const { markers } = (await manager.call('GET', `/api/calendar?from=2027-03-26&to=2027-03-26&clientId=${scene.a.id}`))
        .body as unknown as { markers: object[] };
      expect(markers.at(-1)).toMatchObject({ name: 'Spring catalogue', leadDays: 90, runUps: 2, version: 2 });
    });

    it('of the agency has none, and is a lead’s to change; one with a client stays with it', async () => {
      const { markerId } = (await lead.call('POST', '/api/markers', { body: { clientId: null, ...launch } })).body;
      expect((await manager.call('POST', `/api/markers/${String(markerId)}/run-up`, { body: line(0) })).body['code']).toBe(
        'run_up.of_agency',
      );
      const edit = (by: Caller, body: object) =>
        by.call('PUT', `/api/markers/${String(markerId)}`, {
          body: { clientId: null, ...launch, ...body },
          headers: { 'If-Match': '"1"' },
        });
      expect((await edit(manager, {})).body['code']).toBe('access.refused');
      expect((await edit(lead, { clientId: scene.a.id })).body['code']).toBe('marker.client_fixed');
      expect((await edit(lead, { kind: 'closure' })).body['code']).toBe('marker.client_fixed');
      expect((await edit(lead, { endOn: '2027-03-01' })).body['code']).toBe('marker.order_wrong');
      expect((await edit(lead, { leadDays: 401 })).status).toBe(400);
      expect((await edit(lead, { leadDays: null, kind: 'conference' })).status).toBe(204);
    });
  });

  describe('ideas', () => {
    const list = async (query = '') =>
      (await manager.call('GET', `/api/ideas?clientId=${scene.a.id}${query}`)).body as unknown as {
        ideas: { id: string; title: string; freshness: string; version: number }[];
        counts: object;
        supply: { name: string; ideas: number; weeks: number | null }[];
        next: string | null;
      };

    it('stand on the shelf, the best first; stale ones last; dropped ones elsewhere', async () => {
      await caught({ title: 'So so' });
      await caught({ title: 'Good', merit: 5 });
      await caught({ title: 'Was good', merit: 5, freshUntilOn: '2027-02-28' });
      await caught({ title: 'Soon gone', merit: 1, freshUntilOn: '2027-03-03' });
      const gone = await caught({ title: 'Gone' });
      expect((await manager.call('POST', `/api/ideas/${gone}/state`, { body: { state: 'dropped' } })).status).toBe(204);
      const { ideas, counts } = await list();
      expect(ideas.map(({ title, freshness }) => [title, freshness])).toEqual([
        ['Good', 'lasting'],
        ['So so', 'lasting'],
        ['Soon gone', 'fading'],
        ['Was good', 'stale'],
      ]);
      expect(counts).toEqual({ open: 4, dropped: 1, used: 0 });
      expect((await list('&idea=dropped')).ideas.map(({ title }) => title)).toEqual(['Gone']);
      await manager.call('POST', `/api/ideas/${gone}/state`, { body: { state: 'open' } });
      expect((await list('&idea=dropped')).ideas).toEqual([]);
    });

    it('come a page at a time', async () => {
      await scene.app.read(
        `insert into ideas (client_id, title, author_id, created_at) select $1, 'Idea ' || n, $2, '2027-02-01'::timestamptz + n * interval '1 minute' from generate_series(1, 120) n`,
        [scene.a.id, scene.people.manager.personId],
      );
      const pages = [await list(), await list('&after=50'), await list('&after=100')];
      expect(pages.map(({ ideas, next }) => [ideas.length, next])).toEqual([
        [50, '50'],
        [50, '100'],
        [20, null],
      ]);
      expect(new Set(pages.flatMap(({ ideas }) => ideas.map(({ id }) => id))).size).toBe(120);
    });

    it('are told what is much like them already, and what in the same format comes soon', async () => {
      const pieceId = await makePiece(scene, scene.a, '2027-04-20');
      await scene.app.read("update pieces set title = 'How to tie seven knots' where id = $1", [pieceId]);
      await caught({ title: 'Tying seven useful knots' });
      const { body } = await manager.call('POST', '/api/ideas', { body: { title: 'Seven knots to tie', clientId: scene.a.id, formatId } });
      expect(body['covered']).toMatchObject([
        { kind: 'piece', title: 'How to tie seven knots', words: ['seven', 'knots', 'tie'], isSoon: true },
        { kind: 'idea', title: 'Tying seven useful knots', words: ['seven', 'knots'], isSoon: false },
      ]);
      expect((await manager.call('POST', '/api/ideas', { body: { title: 'Seven knots to tie' } })).body['covered']).toEqual([]); // of no client
    });

    it('feed the rhythm for so many weeks, pillar by pillar', async () => {
      await add({ pillarId: pillars[0]?.id }); // two a week
      await add({ channelId: blog, rule: 'FREQ=WEEKLY;BYDAY=MO' }); // one a week, shared out
      for (const title of ['One', 'Two', 'Three']) await caught({ title, pillarId: pillars[0]?.id });
      await caught({ title: 'Old', pillarId: pillars[0]?.id, freshUntilOn: '2027-02-01' });
      expect((await list()).supply).toMatchObject([
        { name: 'Craft', ideas: 3, perWeek: 2.6, weeks: 3 / 2.6 },
        { name: 'People', ideas: 0, perWeek: 0.4, weeks: 0 },
        { name: 'Without a pillar', perWeek: 0, weeks: null },
      ]);
    });

    it('are changed by one at a time, and may be given to a client once', async () => {
      const { ideaId } = (await manager.call('POST', '/api/ideas', { body: { title: 'For whom' } })).body;
      const edit = (body: object, version: number, by = manager) =>
        by.call('PATCH', `/api/ideas/${String(ideaId)}`, { body, headers: { 'If-Match': `"${version}"` } });
      expect((await edit({ merit: 4, clientId: scene.a.id, pillarId: pillars[1]?.id }, 1)).body).toMatchObject({
        merit: 4,
        clientId: scene.a.id,
        version: 2,
      });
      expect((await edit({ title: 'Mine' }, 1)).body).toMatchObject({ code: 'http.changed_meanwhile', theirs: { merit: 4 } });
      expect((await edit({ clientId: scene.b.id }, 2, lead)).body['code']).toBe('idea.has_client');
      expect((await edit({ merit: 6 }, 2)).status).toBe(400);
      expect((await edit({ link: 'not a link' }, 2)).status).toBe(400);
      expect((await edit({ merit: null, note: 'More' }, 2)).body).toMatchObject({
        merit: null,
        note: 'More',
        pillarId: pillars[1]?.id,
        version: 3,
      });
    });

    it('are found by name', async () => {
      await caught({ title: 'Überraschung im Garten' });
      const { body } = await manager.call('GET', '/api/find?q=uberraschung');
      expect(body['items']).toMatchObject([{ kind: 'idea', title: 'Überraschung im Garten', note: 'idea' }]);
    });
  });

  describe('the runway', () => {
    const runway = async (by = manager) =>
      (await by.call('GET', '/api/runway')).body['rows'] as {
        clientId: string;
        days: number | null;
        hasRhythm: boolean;
        cells: string[];
        holes: number;
      }[];

    it('is days to the first hole, and none to tell without a rhythm', async () => {
      expect(await runway()).toMatchObject([{ clientId: scene.a.id, hasRhythm: false, days: null, holes: 0 }]);
      const ruleId = await add({ formatId });
      expect(await runway()).toMatchObject([{ hasRhythm: true, days: 1, holes: 4 }]);
      await fill({ ruleId, on: '2027-03-02' });
      const [row] = await runway();
      expect(row).toMatchObject({ days: 1, holes: 3 }); // pencilled is not signed
      expect(row?.cells.slice(0, 4)).toEqual(['none', 'pencilled', 'none', 'hole']);
      expect(row?.cells).toHaveLength(42);
    });

    it('counts each client’s days by its own clock', async () => {
      scene.app.clock.set('2027-03-01T20:00:00Z'); // Tuesday morning in Auckland
      await lead.call('POST', `/api/clients/${scene.b.id}/rhythm`, {
        body: { ...rule(), channelId: scene.b.channelIds[0], fromOn: '2027-03-02' },
      });
      await add();
      expect((await runway(lead)).map(({ days }) => days)).toEqual([1, 0]);
    });

    it('of the calendar’s days tells which slots are free', async () => {
      const ruleId = await add({ formatId });
      await fill({ ruleId, on: '2027-03-04' });
      const { body } = await manager.call('GET', '/api/slots?from=2027-03-01&to=2027-03-10');
      expect(body['slots']).toMatchObject([{ on: '2027-03-02', channelName: 'Photo feed', formatId }, { on: '2027-03-09' }]);
      for (const wrong of ['from=2027-03-10&to=2027-03-01', 'from=2027-03-01&to=2028-03-01', 'from=2027-03-01'])
        expect((await manager.call('GET', `/api/slots?${wrong}`)).status).toBe(400);
    });
  });
});
