import { isFeasible, propose, valueOf } from '@zesting/core';
import { toCase, type BestFillingShape, type PlanMonthShape } from '@zesting/contract';
import { bestFilling } from './queries/best-filling.js';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece, type Caller } from '../../../test-support/scene.js';

describe('what the plan is filled with', () => {
  let { scene, lead, manager, feed, blog, formatId, pillars, rule, of, add, month, fill, caught } = {} as PlanScene; // made before the first test
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
    ({ scene, lead, manager, feed, blog, formatId, pillars, rule, of, add, month, fill, caught } = plan);
  });
  afterAll(() => scene.close());
  beforeEach(() => plan.reset());

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

    it('says what the piece asks of people, as the slot wants it, and the month counts it', async () => {
      const asking = await add({ formatId, purpose: 'come' });
      const telling = await add({ formatId, purpose: 'know', at: '15:00' });
      const [one, other] = await fill({ ruleId: asking, on: '2027-03-16', title: 'A' }, { ruleId: telling, on: '2027-03-16', title: 'B' });
      const { body: piece } = await manager.call('GET', `/api/pieces/${one?.pieceId}`);
      expect([piece['purpose'], (await month()).slots[0]]).toEqual(['come', expect.objectContaining({ purpose: 'come' })]);
      const counts = async () => {
        const { asking: asks, askingOf } = (await month()) as unknown as PlanMonthShape; // as the contract has it
        return [asks, askingOf];
      };
      expect(await counts()).toEqual([1, 2]);
      const edit = { body: { purpose: null }, headers: { 'If-Match': `"${String(piece['version'])}"` } };
      expect((await manager.call('PATCH', `/api/pieces/${one?.pieceId}`, edit)).status).toBe(200);
      expect(await counts()).toEqual([0, 1]);
      expect(other?.problem).toBeNull();
      const { status, body } = await manager.call('POST', of('rhythm'), { body: rule({ purpose: 'dance' }) });
      expect([status, body['errors']]).toEqual([400, { purpose: ['isIn'] }]);
    });

    it('begins with the tags that the rhythm has for it, of one channel alone; with none once the set is put away', async () => {
      const [set] = await scene.app.read<{ id: string }>(
        "insert into tag_sets (client_id, name, tags, made_at) values ($1, 'Rye', '{rye,slowbread}', now()) returning id",
        [scene.a.id],
      );
      const tagged = await add({ formatId, tagSetId: set?.id });
      const tagsOf = async (on: string) => {
        const [filled] = await fill({ ruleId: tagged, on, title: on });
        const [row] = await scene.app.read<{ channels: object }>("select content -> 'channels' as channels from pieces where id = $1", [
          filled?.pieceId,
        ]);
        return row?.channels;
      };
      expect(await tagsOf('2027-03-16')).toEqual({ [plan.feed]: { copy: '', tags: ['rye', 'slowbread'], firstComment: '', link: '' } });
      await scene.app.read('update tag_sets set archived_at = now() where id = $1', [set?.id]);
      expect(await tagsOf('2027-03-18')).toMatchObject({ [plan.feed]: { tags: [] } });
      const refused = await manager.call('POST', of('rhythm'), { body: rule({ tagSetId: set?.id }) });
      expect(refused.body['code']).toBe('tag_set.unknown');
    });

    it('knows the season that a slot lies in, what speaks to it, and what is about the same subject', async () => {
      await add({ formatId });
      await scene.app.read(
        `insert into markers (client_id, kind, name, start_on, end_on) values ($1, 'season_busy', 'Sowing time', '2027-02-20', '2027-03-17')`,
        [scene.a.id],
      );
      const sow = await caught({ title: 'Sowing in the cold' });
      const [topic] = await scene.app.read<{ id: string }>(
        'insert into topics (client_id, pillar_id, name, position) values ($1, $2, $3, 0) returning id',
        [scene.a.id, plan.pillars[0]?.id, 'Beds'],
      );
      await scene.app.read('insert into topic_uses (client_id, topic_id, idea_id) values ($1, $2, $3)', [scene.a.id, topic?.id, sow]);
      const { slots, candidates } = (await month()) as unknown as PlanMonthShape;
      expect(slots.map(({ on, seasons }) => [on, ...seasons]).slice(4, 6)).toEqual([['2027-03-16', 'Sowing time'], ['2027-03-18']]);
      expect(candidates).toMatchObject([{ id: sow, seasons: ['Sowing time'], subjectId: topic?.id }]);
      const [filled] = await fill({ ruleId: slots[4]?.ruleId, on: '2027-03-16', ideaId: sow });
      const after = (await month()) as unknown as PlanMonthShape;
      expect(after.slots[4]?.planned).toMatchObject({ pieceId: filled?.pieceId, subjectId: topic?.id });
      await scene.app.read("delete from markers where kind = 'season_busy'");
    });

    it('prefers what a subject that has its turn this month says, also by the topic above it', async () => {
      await add({ formatId });
      const turned = await caught({ title: 'Oak, at last' });
      await caught({ title: 'Something else' });
      const { body: top } = await manager.call('POST', of('topics'), {
        body: { pillarId: pillars[0]?.id, parentId: null, names: ['Wood'] },
      });
      const [topicId = ''] = top['topicIds'] as string[];
      const below = { pillarId: pillars[0]?.id, parentId: topicId, names: ['Oak'] };
      const { body: sub } = await manager.call('POST', of('topics'), { body: below });
      await manager.call('PUT', `/api/ideas/${turned}/subject`, { body: { topicId: (sub['topicIds'] as string[])[0] } });
      const turns = async () =>
        ((await month()) as unknown as PlanMonthShape).candidates.filter(({ hasTurn }) => hasTurn).map(({ id }) => id);
      expect(await turns()).toEqual([]);
      const put = { body: { months: ['2027-03'] }, headers: { 'If-Match': '"1"' } };
      expect((await manager.call('PATCH', `/api/topics/${topicId}`, put)).status).toBe(204);
      expect(await turns()).toEqual([turned]);
      await scene.app.read('delete from topic_uses');
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

  describe('a production day', () => {
    const shoot = { kind: 'production_day', name: 'Filming', startOn: '2027-03-17', endOn: '2027-03-17' };
    const put = async (body: object) =>
      (await manager.call('POST', '/api/markers', { body: { clientId: scene.a.id, ...body } })).body['markerId'] as string;
    const day = async (id: string) => (await manager.call('GET', `/api/markers/${id}/production`)).body;
    const say = (id: string, body: object, version: number) =>
      manager.call('PUT', `/api/markers/${id}/production`, {
        body: { capacity: 2, skill: null, place: '', pieceIds: [], ...body },
        headers: { 'If-Match': `"${version}"` },
      });
    beforeEach(() => scene.app.read('delete from markers'));

    it('holds so many pieces of those that are still to be made, each with the day by which it has to be', async () => {
      const [first, second, third] = [
        await makePiece(scene, scene.a, '2027-03-30'),
        await makePiece(scene, scene.a, '2027-03-25'),
        await makePiece(scene, scene.a, null),
      ];
      const id = await put(shoot);
      expect(await day(id)).toMatchObject({ capacity: 4, version: 0, shortage: 0, blockedBy: [], makeUpOn: null });
      const said = await say(id, { skill: 'design', place: 'The yard', pieceIds: [first, second, third] }, 0);
      expect(said.body).toMatchObject({ capacity: 2, skill: 'design', place: 'The yard', version: 1, shortage: 1 });
      // the client signs two days, a check before that: the design of what is out on Thursday 25 is due on Friday 19;
      // of what is out on Tuesday 30, after Easter (Friday 26 and Monday 29 are holidays), on Monday 22
      expect((said.body['pieces'] as object[]).slice(0, 3)).toMatchObject([
        { pieceId: second, isChosen: true, needBy: '2027-03-19' },
        { pieceId: first, isChosen: true, needBy: '2027-03-22' },
        { pieceId: third, isChosen: true, needBy: null },
      ]);
      expect((await say(id, {}, 0)).body['code']).toBe('http.changed_meanwhile');
      expect((await say(id, { skill: 'juggling' }, 1)).body['code']).toBe('skill.unknown');
      expect((await say(id, { capacity: 0 }, 1)).status).toBe(400);
      expect((await manager.call('GET', `/api/markers/${await put({ ...shoot, kind: 'event' })}/production`)).body['code']).toBe(
        'production_day.other_kind',
      );
    });

    it('on which a conference falls is short of all, and is made up for on the nearest free day before the first piece needs it', async () => {
      const pieceId = await makePiece(scene, scene.a, '2027-03-25');
      const id = await put(shoot);
      await say(id, { skill: 'design', pieceIds: [pieceId] }, 0);
      await put({ kind: 'conference', name: 'Trade fair', startOn: '2027-03-16', endOn: '2027-03-17', leadDays: null });
      await put({ ...shoot, name: 'Another shoot', startOn: '2027-03-18', endOn: '2027-03-18' });
      expect(await day(id)).toMatchObject({ blockedBy: ['Trade fair'], shortage: 1, makeUpOn: '2027-03-15' }); // Monday: two days away, as Friday is, and earlier
      await put({ kind: 'blackout', name: 'Stocktaking', startOn: '2027-03-08', endOn: '2027-03-15' });
      expect(await day(id)).toMatchObject({ makeUpOn: '2027-03-19' }); // the very day by which it is needed
      await put({ kind: 'blackout', name: 'Closed', startOn: '2027-03-19', endOn: '2027-03-19' });
      expect(await day(id)).toMatchObject({ makeUpOn: '2027-03-05' });
      const sunday = await put({ ...shoot, startOn: '2027-03-21', endOn: '2027-03-21' });
      expect(await day(sunday)).toMatchObject({ isDayOff: true, blockedBy: [], shortage: 0 });
    });
  });

  describe('the best filling', () => {
    const best = async (month = '2027-03') => {
      const { status, body } = await manager.call('GET', of(`plan/best?month=${month}`));
      expect({ status, body }).toMatchObject({ status: 200 });
      return body as unknown as BestFillingShape; // as the contract has it
    };

    it('is proven, breaks no must, and is worth no less than the quick one', async () => {
      const ruleId = await add({ formatId });
      const [craft = '', people = ''] = plan.pillars.map(({ id }) => id);
      for (let number = 0; number < 14; number++)
        await caught({
          title: `Idea ${number}`,
          pillarId: number % 3 === 0 ? people : craft,
          merit: (number % 5) + 1,
          ...(number === 3 ? { notBeforeOn: '2027-03-25' } : {}),
          ...(number === 4 ? { freshUntilOn: '2027-03-12' } : {}),
        });
      const found = await best();
      expect(found.isProven).toBe(true);
      expect(found.value).toBeGreaterThanOrEqual(found.quickValue);
      const whole = toCase((await month()) as unknown as PlanMonthShape);
      const chosen = Object.fromEntries(found.lines.map(({ slotId, candidateId }) => [slotId, candidateId]));
      expect(isFeasible(whole, chosen)).toBe(true);
      expect(valueOf(whole, chosen)).toBe(found.value);
      expect(propose(whole).value).toBe(found.quickValue);
      expect(found.lines.length).toBeGreaterThan(4);
      expect(found.lines.every(({ slotId, reasons }) => slotId.startsWith(ruleId) && reasons.length > 0)).toBe(true);
    });

    it('of a month without slots is nothing, and nothing is changed by it', async () => {
      expect(await best()).toMatchObject({ lines: [], value: 0, quickValue: 0, isProven: true });
      expect(await scene.app.read('select 1 from pieces where not shelved')).toEqual([]);
    });

    it('is left when nobody waits for it', async () => {
      await add({ formatId });
      const waiting = new AbortController();
      const seeking = bestFilling(scene.app, scene.a.id, '2027-03', waiting.signal);
      waiting.abort();
      expect(await seeking).toEqual({ ok: false, failure: { code: 'slotting.not_found' } });
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
      expect(markers.at(-1)).toMatchObject({ name: 'Spring catalogue', leadDays: 90, isBound: true, version: 2 });
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
});
