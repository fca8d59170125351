import type { OfferedTagSetsShape, TagSetBody, TagSetsShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

describe('tag sets of a client', () => {
  let scene: Scene;
  let manager: Caller;
  let craft: string;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    const [pillar] = await scene.app.read<{ id: string }>(
      "insert into pillars (client_id, name, share, position) values ($1, 'Craft', 60, 0) returning id",
      [scene.a.id],
    );
    craft = pillar?.id ?? '';
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from tag_sets');
  });

  const set = (more: Partial<TagSetBody> = {}): TagSetBody => ({
    name: 'Every day',
    tags: ['rye', 'bread'],
    pillarId: null,
    weekday: null,
    ...more,
  });
  const add = async (more: Partial<TagSetBody> = {}) => {
    const { status, body } = await manager.call('POST', `/api/clients/${scene.a.id}/tag-sets`, { body: set(more) });
    expect({ status, body }).toMatchObject({ status: 201 });
    return String(body['tagSetId']);
  };
  const all = async () => (await manager.call('GET', `/api/clients/${scene.a.id}/tag-sets`)).body as unknown as TagSetsShape;
  const edit = (id: string, version: number, more: Partial<TagSetBody>) =>
    manager.call('PUT', `/api/tag-sets/${id}`, { body: set(more), headers: { 'If-Match': `"${version}"` } });

  it('are kept with each tag once, changed at the version that was seen, put away and taken back', async () => {
    const id = await add({ name: ' Every day ', tags: ['rye', 'Bread', 'bread', 'slow'] });
    expect((await all()).tagSets).toMatchObject([
      { id, name: 'Every day', tags: ['rye', 'Bread', 'slow'], used: 0, lastOn: null, version: 1 },
    ]);
    expect((await edit(id, 1, { tags: ['late'], pillarId: craft, weekday: 2 })).status).toBe(204);
    expect((await edit(id, 1, { tags: ['early'] })).body).toMatchObject({ code: 'http.changed_meanwhile' });
    expect((await all()).tagSets).toMatchObject([{ tags: ['late'], pillarName: 'Craft', weekday: 2 }]);
    for (const archived of [true, true, false])
      expect((await manager.call('POST', `/api/tag-sets/${id}/archive`, { body: { archived } })).status).toBe(204);
    expect(await all()).toMatchObject({ tagSets: [{ id }], archived: [] });
    await manager.call('POST', `/api/tag-sets/${id}/archive`, { body: { archived: true } });
    expect(await all()).toMatchObject({ tagSets: [], archived: [{ id, name: 'Every day' }] });
    const told = await scene.app.read<{ verb: string }>("select verb from activities where verb like 'tag_set.%' order by id");
    expect(told.map(({ verb }) => verb)).toEqual([
      'tag_set.added',
      'tag_set.edited',
      'tag_set.archived',
      'tag_set.restored',
      'tag_set.archived',
    ]);
  });

  it('are refused where a tag is not whole, is none, or the pillar is another client’s', async () => {
    const refused = async (more: Partial<TagSetBody>) =>
      (await manager.call('POST', `/api/clients/${scene.a.id}/tag-sets`, { body: set(more) })).body;
    expect(await refused({ tags: ['don’t'] })).toMatchObject({ code: 'tag_set.tag_broken' });
    for (const tags of [[], ['two words'], ['#rye'], ['']]) expect(await refused({ tags })).toMatchObject({ code: 'http.invalid' });
    const [foreign] = await scene.app.read<{ id: string }>(
      "insert into pillars (client_id, name, share, position) values ($1, 'Craft', 60, 0) returning id",
      [scene.b.id],
    );
    expect(await refused({ pillarId: foreign?.id ?? '' })).toMatchObject({ code: 'pillar.unknown' });
    expect(await refused({ weekday: 8 })).toMatchObject({ code: 'http.invalid' });
    expect((await all()).tagSets).toEqual([]);
  });

  it('tell how often all of their tags went out together within a year, or will', async () => {
    const place = async (on: string, tags: string[], more = '') => {
      const pieceId = await makePiece(scene, scene.a);
      const [feed = ''] = scene.a.channelIds;
      await scene.app.read(`update pieces set content = jsonb_set(content, array['channels', $2, 'tags'], $3::jsonb) where id = $1`, [
        pieceId,
        feed,
        JSON.stringify(tags),
      ]);
      await scene.app.read(
        `update placements set on_day = $3, at_time = '10:00', publish_at = ($3::date + time '10:00') at time zone 'UTC'${more} where piece_id = $1 and channel_id = $2`,
        [pieceId, feed, on],
      );
    };
    await place('2027-03-09', ['Rye', 'slow', 'bread']);
    await place('2027-02-01', ['rye', 'bread']);
    await place('2027-04-06', ['rye']); // not all
    await place('2026-02-01', ['rye', 'bread']); // too long ago
    await place('2027-05-04', ['rye', 'bread'], ', cancelled = true');
    await add();
    expect((await all()).tagSets).toMatchObject([{ used: 2, lastOn: '2027-03-09' }]);
  });

  it('are offered for a piece by its pillar and the day on which it goes out', async () => {
    for (const [name, pillarId, weekday] of [
      ['any', null, null],
      ['craft', craft, null],
      ['on Tuesdays', null, 2],
      ['on Mondays', null, 1],
    ] as const)
      await add({ name, pillarId, weekday });
    const pieceId = await makePiece(scene, scene.a, '2027-03-30'); // a Tuesday
    const offered = async () =>
      ((await manager.call('GET', `/api/pieces/${pieceId}/tag-sets`)).body as unknown as OfferedTagSetsShape).tagSets.map(
        ({ name }) => name,
      );
    expect(await offered()).toEqual(['on Tuesdays', 'any', 'craft', 'on Mondays']);
    await scene.app.read('update pieces set pillar_id = $2 where id = $1', [pieceId, craft]);
    expect(await offered()).toEqual(['craft', 'on Tuesdays', 'any', 'on Mondays']);
    const other = await makePiece(scene, scene.b);
    const lead = await callerAs(scene, 'lead');
    expect((await lead.call('GET', `/api/pieces/${other}/tag-sets`)).body).toEqual({ tagSets: [] });
  });
});
