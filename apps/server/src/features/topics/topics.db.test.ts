import type { TopicsShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { makePiece } from '../../../test-support/scene.js';

describe('topics of a client', () => {
  let plan: PlanScene;
  let craft = '';
  let people = '';
  beforeAll(async () => {
    plan = await makePlanScene();
    [craft = '', people = ''] = plan.pillars.map(({ id }) => id);
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    for (const table of ['topic_uses', 'topics', 'treatments']) await plan.scene.app.read(`delete from ${table}`);
    await plan.reset();
  });

  const post = (path: string, body: object = {}) => plan.manager.call('POST', path, { body });
  const all = async () => (await plan.manager.call('GET', plan.of('topics'))).body as unknown as TopicsShape; // as the contract has it
  const add = async (names: string[], parentId: string | null = null, pillarId = craft) => {
    const { status, body } = await post(plan.of('topics'), { pillarId, parentId, names });
    expect({ status, body }).toMatchObject({ status: 201 });
    return body['topicIds'] as string[];
  };
  const treat = (names: string[], version: number) =>
    plan.manager.call('PUT', plan.of('treatments'), { body: { names }, headers: { 'If-Match': `"${version}"` } });
  const edit = (id: string, version: number, body: object) =>
    plan.manager.call('PATCH', `/api/topics/${id}`, { body, headers: { 'If-Match': `"${version}"` } });
  const names = ({ topics }: TopicsShape) => topics.map(({ name }) => name);

  it('stand as a tree in the order of the pillars, and its size is told', async () => {
    const [wood = '', metal = ''] = await add(['Wood', 'Metal']);
    await add(['Oak', 'Ash', 'Elm'], wood);
    await add(['Who rings'], null, people);
    expect((await treat(['How to', 'Story', 'Before and after'], 1)).status).toBe(204);
    await plan.add({ rule: 'FREQ=WEEKLY;BYDAY=TU' }); // twelve slots in twelve weeks: 4.35 a month
    const found = await all();
    expect(names(found)).toEqual(['Wood', 'Oak', 'Ash', 'Elm', 'Metal', 'Who rings']);
    expect(found.size).toMatchObject({ pillars: 2, topics: 3, subtopics: 3, leaves: 5, treatments: 3, cells: 15, free: 15 });
    expect(found.size.perMonth).toBeCloseTo(4.348, 3);
    expect(found.size.lastsMonths).toBeCloseTo(3.45, 2);
    expect(found.unused).toEqual([wood, metal, found.topics[5]?.id]);
  });

  it('know what was made of them: ideas, pieces of ideas, and pieces that were told', async () => {
    const [wood = ''] = await add(['Wood']);
    const [oak = '', ash = '', elm = ''] = await add(['Oak', 'Ash', 'Elm'], wood);
    await treat(['Story', 'How to'], 1);
    const { body } = await post(`/api/topics/${oak}/idea`, { treatment: 'story' });
    const ideaId = body['ideaId'] as string;
    expect((await all()).uses).toEqual([{ topicId: oak, treatment: 'Story', kind: 'idea', id: ideaId, title: 'Oak: Story', month: null }]);
    const [idea] = await plan.scene.app.read('select pillar_id, client_id, title from ideas where id = $1', [ideaId]);
    expect(idea).toEqual({ pillar_id: craft, client_id: plan.scene.a.id, title: 'Oak: Story' });
    // a dropped one is none
    const { body: other } = await post(`/api/topics/${oak}/idea`, { treatment: 'how to' });
    await plan.manager.call('POST', `/api/ideas/${other['ideaId'] as string}/state`, { body: { state: 'dropped' } });
    expect((await all()).uses.map(({ id }) => id)).toEqual([ideaId]);
    // the idea becomes a piece
    const ruleId = await plan.add({ formatId: plan.formatId });
    const [filled] = await plan.fill({ ruleId, on: '2027-03-16', ideaId });
    const pieceId = await makePiece(plan.scene, plan.scene.a);
    await plan.manager.call('PUT', `/api/pieces/${pieceId}/subject`, { body: { topicId: ash, treatment: 'How to' } });
    const found = await all();
    expect(found.uses).toEqual([
      { topicId: ash, treatment: 'How to', kind: 'piece', id: pieceId, title: 'A piece', month: '2027-03' },
      { topicId: oak, treatment: 'Story', kind: 'piece', id: filled?.pieceId, title: 'Oak: Story', month: '2027-03' },
    ]);
    expect(found.size).toMatchObject({ cells: 6, free: 4 });
    expect(found.unused).toEqual([elm]);
    // said otherwise, and taken away
    await plan.manager.call('PUT', `/api/pieces/${pieceId}/subject`, { body: { topicId: elm } });
    expect((await all()).uses.find(({ id }) => id === pieceId)).toMatchObject({ topicId: elm, treatment: '' });
    await plan.manager.call('PUT', `/api/pieces/${pieceId}/subject`, { body: { topicId: null } });
    expect((await all()).uses).toHaveLength(1);
  });

  it('that were used more than a year ago are unused again', async () => {
    const [wood = ''] = await add(['Wood']);
    const pieceId = await makePiece(plan.scene, plan.scene.a, '2027-03-20');
    await plan.manager.call('PUT', `/api/pieces/${pieceId}/subject`, { body: { topicId: wood } });
    expect((await all()).unused).toEqual([]);
    plan.scene.app.clock.set('2028-03-01T09:00:00Z');
    expect((await all()).unused).toEqual([]);
    plan.scene.app.clock.set('2028-04-05T09:00:00Z');
    expect((await all()).unused).toEqual([wood]);
  });

  it('are named anew and put into months, at the version that was seen', async () => {
    const [wood = '', metal = ''] = await add(['Wood', 'Metal']);
    expect((await edit(wood, 1, { months: ['2027-05', '2027-03'] })).status).toBe(204);
    expect((await all()).topics[0]).toMatchObject({ name: 'Wood', months: ['2027-03', '2027-05'], version: 2 });
    expect(await edit(wood, 1, { name: 'Timber' })).toMatchObject({ status: 412 });
    expect(await edit(metal, 1, { name: 'wóod' })).toMatchObject({ status: 422, body: { code: 'topic.name_taken' } });
    expect((await edit(metal, 1, { name: 'Iron' })).status).toBe(204);
    expect(await edit(metal, 2, { months: ['2027-13'] })).toMatchObject({ status: 400 });
  });

  it('are archived with what is below, and come back', async () => {
    const [wood = '', metal = ''] = await add(['Wood', 'Metal']);
    const [oak = ''] = await add(['Oak', 'Ash'], wood);
    await plan.manager.call('DELETE', `/api/topics/${wood}`);
    expect(names(await all())).toEqual(['Metal']);
    expect((await all()).archived.map(({ name }) => name).sort()).toEqual(['Ash', 'Oak', 'Wood']);
    expect(await post(`/api/topics/${oak}/idea`, { treatment: null })).toMatchObject({ body: { code: 'topic.unknown' } });
    // one of its subtopics brings it along, and the rest stays where it is
    expect((await post(`/api/topics/${oak}/restore`)).status).toBe(204);
    expect(names(await all())).toEqual(['Wood', 'Oak', 'Metal']);
    await plan.manager.call('DELETE', `/api/topics/${metal}`);
    await add(['Metal']);
    expect(await post(`/api/topics/${metal}/restore`)).toMatchObject({ body: { code: 'topic.name_taken' } });
  });

  it('refuse what is no branch: a third level, a name twice, another pillar, a treatment that is none', async () => {
    const [wood = ''] = await add(['Wood']);
    const [oak = ''] = await add(['Oak'], wood);
    const refused = async (body: object) => (await post(plan.of('topics'), body)).body['code'];
    expect(await refused({ pillarId: craft, parentId: oak, names: ['Bark'] })).toBe('topic.too_deep');
    expect(await refused({ pillarId: craft, parentId: wood, names: ['OAK'] })).toBe('topic.name_taken');
    expect(await refused({ pillarId: craft, parentId: null, names: ['Iron', 'iron'] })).toBe('topic.name_taken');
    expect(await refused({ pillarId: people, parentId: wood, names: ['Elm'] })).toBe('topic.unknown');
    expect(await post(`/api/topics/${oak}/idea`, { treatment: 'Sonnet' })).toMatchObject({ body: { code: 'treatment.unknown' } });
    expect(await treat(['Story', ' story'], 1)).toMatchObject({ status: 400 });
  });

  it('of two at once are both there, and treatments are not overwritten unseen', async () => {
    await Promise.all(['A', 'B', 'C', 'D'].map((letter) => add([`${letter}1`, `${letter}2`])));
    const found = await all();
    expect(found.topics).toHaveLength(8);
    const [{ many } = { many: 0 }] = await plan.scene.app.read<{ many: number }>('select count(distinct position) as many from topics');
    expect(many).toBe(8);
    const answers = await Promise.all([treat(['One'], found.treatmentsVersion), treat(['Two'], found.treatmentsVersion)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 412]);
  });
});
