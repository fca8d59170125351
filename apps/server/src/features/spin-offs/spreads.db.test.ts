import type { SpreadBody, SpreadLineBody, SpreadOutlookShape, SpreadsShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { plainLine } from '../../../test-support/spread-line.js';

describe('spreads of a client', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from spreads');
  });

  const line = (more: Partial<SpreadLineBody> = {}): SpreadLineBody =>
    plainLine(scene.routeId, {
      name: 'Clip',
      channelId: scene.a.channelIds[0] ?? null,
      offset: { count: 2, unit: 'working_days' },
      change: 'Cut it upright.',
      ...more,
    });
  const spread = (lines = [line()], more: Partial<SpreadBody> = {}): SpreadBody => ({ name: 'Film', formatId: null, lines, ...more });
  const add = (body: SpreadBody = spread()) => manager.call('POST', `/api/clients/${scene.a.id}/spreads`, { body });
  const all = async () => (await manager.call('GET', `/api/clients/${scene.a.id}/spreads`)).body as unknown as SpreadsShape;
  const code = async (lines: SpreadLineBody[], more: Partial<SpreadBody> = {}) => (await add(spread(lines, more))).body['code'];

  it('are kept, changed at the version that was seen, put to use on the client’s day, put away and taken back', async () => {
    const id = String((await add()).body['spreadId']);
    expect((await all()).spreads).toMatchObject([
      {
        id,
        name: 'Film',
        usedSince: null,
        made: 0,
        version: 1,
        lines: [{ key: 'clip', channelName: 'Photo feed', routeName: 'Still', formatName: 'Still', change: 'Cut it upright.' }],
      },
    ]);
    const put = (version: number, name: string) =>
      manager.call('PUT', `/api/spreads/${id}`, { body: spread([line()], { name }), headers: { 'If-Match': `"${version}"` } });
    expect((await put(1, 'Long film')).status).toBe(204);
    expect((await put(1, 'Other')).body).toMatchObject({ code: 'http.changed_meanwhile' });
    for (const isUsed of [true, true]) await manager.call('POST', `/api/spreads/${id}/use`, { body: { isUsed } });
    expect((await all()).spreads).toMatchObject([{ name: 'Long film', usedSince: '2027-03-01' }]);
    await manager.call('POST', `/api/spreads/${id}/use`, { body: { isUsed: false } });
    await manager.call('POST', `/api/spreads/${id}/archive`, { body: { archived: true } });
    expect(await all()).toMatchObject({ spreads: [], archived: [{ id, name: 'Long film' }] });
    await manager.call('POST', `/api/spreads/${id}/archive`, { body: { archived: false } });
    expect(await all()).toMatchObject({ spreads: [{ id, usedSince: null }], archived: [] });
    const told = await scene.app.read<{ verb: string }>("select verb from activities where verb like 'spread.%' order by id");
    expect(told.map(({ verb }) => verb.slice(7))).toEqual(['added', 'edited', 'used', 'unused', 'archived', 'restored']);
  });

  it('name what is the client’s, and whom the client may have', async () => {
    const { lead, manager: max, staff } = scene.people;
    const doer = (personId: string, skill = 'write') => line({ doers: [{ skill, personId }] });
    expect(await code([line(), line()])).toBe('spread.line_twice');
    expect(await code([line({ channelId: scene.b.channelIds[0] ?? null })])).toBe('channel.unknown');
    expect(await code([line({ routeId: scene.a.id })])).toBe('route.unknown');
    expect(await code([line()], { formatId: scene.a.id })).toBe('format.unknown');
    expect(await code([line({ guidelineId: scene.a.id })])).toBe('guideline.unknown');
    expect(await code([doer(scene.a.id)])).toBe('person.unknown');
    expect(await code([doer(staff.personId, 'design')])).toBe('person.unskilled');
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'barred')", [
      scene.a.id,
      lead.personId,
    ]);
    expect(await code([doer(lead.personId)])).toBe('person.barred');
    await scene.app.read("delete from client_people where person_id = $1 and relation = 'barred'", [lead.personId]);
    expect(await code([doer(max.personId)])).toBeUndefined();
    expect(await code([])).toBe('http.invalid');
    expect((await all()).spreads).toHaveLength(1);
  });

  it('keep what was chosen before also where it is offered no more, and follow skills that are renamed', async () => {
    const doers = [{ skill: 'write', personId: scene.people.staff.personId }];
    const id = String((await add(spread([line({ doers })]))).body['spreadId']);
    await scene.app.read('update channels set archived_at = now() where id = $1', [scene.a.channelIds[0]]);
    await scene.app.read('update people set active = false, left_at = now() where id = $1', [scene.people.staff.personId]);
    const body = spread([line({ doers, name: 'Cut' })]);
    expect((await manager.call('PUT', `/api/spreads/${id}`, { body, headers: { 'If-Match': '"1"' } })).status).toBe(204);
    expect(await code([line()])).toBe('channel.unknown');
    await scene.app.read('update channels set archived_at = null');
    await scene.app.read('update people set active = true, left_at = null');
    const lead = await callerAs(scene, 'lead');
    const agency = (await lead.call('GET', '/api/agency')).body as unknown as { version: number; skills: { id: string; name: string }[] };
    const skills = agency.skills.map(({ id: skillId, name }) => ({ id: skillId, name: name === 'write' ? 'words' : name }));
    const renamed = await lead.call('PATCH', '/api/agency', { body: { skills }, headers: { 'If-Match': `"${agency.version}"` } });
    expect(renamed.status).toBe(200);
    expect((await all()).spreads[0]?.lines[0]?.doers).toMatchObject([{ skill: 'words', name: 'Sia' }]);
    await scene.app.read("update skills set name = 'write' where name = 'words'");
    await scene.app.read('update people set skills = \'{"write": 2}\'');
    await scene.app.read('update routes set steps = replace(steps::text, \'"words"\', \'"write"\')::jsonb');
  });

  it('tell what they would come to for a source on a day, per output and per skill', async () => {
    await makePiece(scene, scene.a);
    const lines = [line(), line({ key: 'early', name: 'Teaser', offset: { count: -1, unit: 'days' } })];
    const id = String((await add(spread(lines))).body['spreadId']);
    // 26 and 29 March are Good Friday and Easter Monday
    const { body } = await manager.call('GET', `/api/spreads/${id}/outlook?on=2027-03-25`);
    const outlook = body as unknown as SpreadOutlookShape;
    expect(outlook.outputs).toMatchObject([
      { title: 'A source · Clip', on: '2027-03-31', at: '09:00', standing: 'fine', channelName: 'Photo feed' },
      { title: 'A source · Teaser', on: '2027-03-24', standing: 'fine' },
    ]);
    expect(outlook.roles).toMatchObject([
      { skill: 'check', minutes: 30, people: [] },
      { skill: 'design', minutes: 240, people: [] },
      { skill: 'write', minutes: 120, people: ['Max', 'Sia', 'Fay', 'Lea'] },
    ]);
    expect(outlook.roles[2]?.beginBy).toBe(outlook.outputs[1]?.beginBy);
    expect(outlook.roles[2]?.freeMinutes).toBeGreaterThan(4 * 10 * 480);
    expect(outlook.perWeek).toBeCloseTo(1 / 12);
    const late = (await manager.call('GET', `/api/spreads/${id}/outlook?on=2027-03-02`)).body as unknown as SpreadOutlookShape;
    expect(late.outputs.map(({ standing }) => standing)).toEqual(['late', 'past']);
    expect((await manager.call('GET', `/api/spreads/${id}/outlook?on=soon`)).status).toBe(400);
  });
});
