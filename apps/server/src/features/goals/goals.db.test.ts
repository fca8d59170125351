import type { GoalsShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';
import { countedWeekly } from './queries/goals.js';

const day = (on: string) => on as never; // a day

describe('goals of a client', () => {
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    for (const table of ['goal_readings', 'goals', 'strategy_notes']) await plan.scene.app.read(`delete from ${table}`);
    await plan.reset();
  });

  const body = (more: object = {}) => ({
    name: 'More who come back',
    channelId: null,
    measure: 'reading',
    unit: 'members',
    startValue: 1000,
    target: 1520,
    startOn: '2027-01-04',
    byOn: '2028-01-03',
    pillarIds: [],
    steps: [{ text: 'Ask ten of them why', isDone: false }],
    ...more,
  });
  const all = async () => (await plan.manager.call('GET', plan.of('goals'))).body as unknown as GoalsShape; // as the contract has it
  const post = (path: string, sent: object = {}) => plan.manager.call('POST', path, { body: sent });
  const add = async (more: object = {}) => {
    const { status, body: made } = await post(plan.of('goals'), body(more));
    expect({ status, made }).toMatchObject({ status: 201 });
    return made['goalId'] as string;
  };
  const read = (id: string, on: string, value: number | null) =>
    plan.manager.call('PUT', `/api/goals/${id}/reading`, { body: { on, value } });
  const put = (path: string, version: number, sent: object) =>
    plan.manager.call('PUT', path, { body: sent, headers: { 'If-Match': `"${version}"` } });

  it('are read, and their pace is told', async () => {
    plan.scene.app.clock.set('2027-03-15T09:00:00Z');
    const id = await add();
    expect((await all()).goals[0]?.pace).toMatchObject({ standing: 'unknown', value: null, neededPerWeek: 10 });
    expect((await read(id, '2027-02-01', 1010.5)).status).toBe(204);
    expect((await read(id, '2027-03-15', 1050)).status).toBe(204);
    const [goal] = (await all()).goals;
    expect(goal?.readings).toEqual([
      { on: '2027-02-01', value: 1010.5 },
      { on: '2027-03-15', value: 1050 },
    ]);
    expect(goal?.pace).toMatchObject({ standing: 'behind', expected: 1100, realPerWeek: 5, value: 1050 });
    expect(goal?.quarters.map(({ year, quarter, value }) => [year, quarter, value])).toEqual([
      [2027, 1, 1050],
      [2027, 2, null],
      [2027, 3, null],
      [2027, 4, null],
      [2028, 1, null],
    ]);
    await read(id, '2027-03-15', 1100);
    expect((await all()).goals[0]?.pace.standing).toBe('on_pace');
    await read(id, '2027-03-15', null);
    expect((await all()).goals[0]?.pace.value).toBe(1010.5);
    for (const on of ['2027-01-04', '2027-03-16']) expect(await read(id, on, 5)).toMatchObject({ body: { code: 'goal.before_start' } });
  });

  it('that count pieces count what went out: each once, on the channel and of the pillars that they name', async () => {
    const [craft = '', people = ''] = plan.pillars.map(({ id }) => id);
    const out = async (on: string, pillarId: string, both: boolean) => {
      const pieceId = await makePiece(plan.scene, plan.scene.a);
      await plan.scene.app.read('update pieces set pillar_id = $2 where id = $1', [pieceId, pillarId]);
      await plan.scene.app.read(
        `update placements set state = 'out', out_at = now(), out_digests = '{}', on_day = $2::date, at_time = '09:00', publish_at = $2::date + time '09:00'
         where piece_id = $1 and ($3 or channel_id = $4)`,
        [pieceId, on, both, plan.feed],
      );
    };
    await out('2027-02-01', craft, true); // its first day does not count
    await out('2027-02-03', craft, true);
    await out('2027-02-10', people, false);
    await out('2027-02-24', craft, false);
    const counted = { measure: 'pieces', startValue: 7, unit: 'x', target: 12, startOn: '2027-02-01', byOn: '2027-12-31' };
    await add({ ...counted, name: 'A all' });
    await add({ ...counted, name: 'B blog', channelId: plan.blog });
    await add({ ...counted, name: 'C craft', pillarIds: [craft] });
    const { goals } = await all();
    expect(goals.map(({ name, readings, startValue, unit }) => [name, startValue, unit, readings.map(({ value }) => value)])).toEqual([
      ['A all', 0, '', [1, 2, 2, 3]],
      ['B blog', 0, '', [1, 1, 1, 1]],
      ['C craft', 0, '', [1, 1, 1, 2]],
    ]);
    expect(await read(goals[0]?.id ?? '', '2027-02-20', 5)).toMatchObject({ body: { code: 'goal.is_counted' } });
  });

  it('count no week that has not come, nor one after their end', () => {
    const goal = { channelId: null, pillarIds: [], startOn: '2027-02-01', byOn: '2027-02-17' };
    const row = (on: string) => ({ on: day(on), pieceId: on, channelId: 'c', pillarId: null });
    const rows = ['2027-02-02', '2027-02-08', '2027-02-17', '2027-02-18'].map(row);
    const readings = (todayOn: string) => countedWeekly(goal, rows, day(todayOn)).map(({ on, value }) => [on, value]);
    expect(readings('2027-02-01')).toEqual([]);
    expect(readings('2027-02-04')).toEqual([['2027-02-04', 1]]);
    expect(readings('2027-02-08')).toEqual([['2027-02-08', 2]]);
    expect(readings('2027-06-01')).toEqual([
      ['2027-02-08', 2],
      ['2027-02-15', 2],
      ['2027-02-17', 3],
    ]);
  });

  it('are fifty at most, many at once as well', async () => {
    const id = await add();
    await plan.scene.app.read(
      `insert into goals select (jsonb_populate_record(g, jsonb_build_object('id', gen_random_uuid()))).* from goals g, generate_series(1, 47) where g.id = $1`,
      [id],
    );
    const answers = await Promise.all([1, 2, 3, 4, 5, 6].map(() => post(plan.of('goals'), body())));
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(2);
    expect(answers.filter(({ body: { code } }) => code === 'goal.too_many')).toHaveLength(4);
  });

  it('say which pillars serve none', async () => {
    const [craft = '', people = ''] = plan.pillars.map(({ id }) => id);
    expect((await all()).pillarsWithout).toEqual([]);
    await add({ pillarIds: [people] });
    expect((await all()).pillarsWithout).toEqual([craft]);
  });

  it('are changed at the version that was seen, put away and taken up again', async () => {
    const id = await add();
    const steps = [{ text: 'Ask ten of them why', isDone: true }];
    expect((await put(`/api/goals/${id}`, 1, body({ steps, target: 900 }))).status).toBe(204);
    expect((await all()).goals[0]).toMatchObject({ steps, target: 900, version: 2 });
    expect((await put(`/api/goals/${id}`, 1, body())).status).toBe(412);
    await plan.manager.call('DELETE', `/api/goals/${id}`);
    expect(await all()).toMatchObject({ goals: [], archived: [{ id, name: 'More who come back' }] });
    await post(`/api/goals/${id}/restore`);
    expect((await all()).goals).toHaveLength(1);
  });

  it.each([
    [{ byOn: '2027-01-04' }, 422, 'goal.order_wrong'],
    [{ byOn: '2040-01-04' }, 422, 'goal.order_wrong'],
    [{ target: 1000 }, 422, 'goal.goes_nowhere'],
    [{ measure: 'pieces', target: -3 }, 422, 'goal.goes_nowhere'],
    [{ target: 1.234 }, 400, 'http.invalid'],
    [{ steps: [{ text: ' ', isDone: false }] }, 400, 'http.invalid'],
  ])('refuse %o', async (more, status, code) => {
    expect(await post(plan.of('goals'), body(more))).toMatchObject({ status, body: { code } });
  });

  it('have notes on the strategy beside them, which can be taken off and put back', async () => {
    const added = await post(plan.of('strategy'), {
      kind: 'admired',
      text: 'A shop that shows its mistakes',
      link: 'https://shop.test/mistakes',
    });
    const id = String(added.body['noteId']);
    await post(plan.of('strategy'), { kind: 'mission', text: 'That everybody can mend a chair' });
    expect((await all()).notes).toMatchObject([{ kind: 'admired', by: plan.scene.people.manager.name }, { kind: 'mission' }]);
    expect((await put(`/api/strategy/${id}`, 1, { kind: 'works', text: 'Mistakes' })).status).toBe(204);
    expect((await put(`/api/strategy/${id}`, 1, { kind: 'works', text: 'Other' })).status).toBe(412);
    await plan.manager.call('DELETE', `/api/strategy/${id}`);
    expect((await all()).notes).toMatchObject([{ kind: 'mission' }]);
    await post(`/api/strategy/${id}/restore`);
    expect((await all()).notes).toMatchObject([{ kind: 'works', text: 'Mistakes', link: null }, { kind: 'mission' }]);
    expect((await post(plan.of('strategy'), { kind: 'works', text: 'x', link: 'not a link' })).status).toBe(400);
  });
});
