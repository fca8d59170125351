import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';

describe('a client’s rhythm', () => {
  let { scene, lead, manager, feed, blog, formatId, pillars, rule, of, add, rules, month, fill, caught } = {} as PlanScene; // made before the first test
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
    ({ scene, lead, manager, feed, blog, formatId, pillars, rule, of, add, rules, month, fill, caught } = plan);
  });
  afterAll(() => scene.close());
  beforeEach(() => plan.reset());

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

    it('that is changed keeps every slot up to yesterday, and has its new ones from today', async () => {
      const id = await add();
      scene.app.clock.set('2027-03-11T12:00:00Z'); // a Thursday: its own slot of today is over, and goes with the old rule
      const body = rule({ rule: 'FREQ=WEEKLY;BYDAY=WE,TH,FR', at: '18:00' });
      expect((await manager.call('PUT', `/api/rhythm/${id}`, { body, headers: { 'If-Match': '"1"' } })).status).toBe(200);
      expect((await month()).slots.slice(0, 6).map(({ on, at }) => `${on} ${at}`)).toEqual([
        '2027-03-02 10:00',
        '2027-03-04 10:00',
        '2027-03-09 10:00',
        '2027-03-11 18:00',
        '2027-03-12 18:00',
        '2027-03-17 18:00',
      ]);
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
});
