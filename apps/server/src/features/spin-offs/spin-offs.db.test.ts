import { getValue } from '@zesting/core';
import type {
  AlongsShape,
  MakeSpinOffsBody,
  OutputBody,
  PieceShape,
  SpinOffPreviewShape,
  SpinOffsShape,
  SpinOffTreeShape,
  SpreadLineBody,
} from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { plainLine } from '../../../test-support/spread-line.js';
import { assignStep, editContent, editPiece, handIn } from '../production/index.js';

describe('pieces that are made from another', () => {
  let scene: Scene;
  let manager: Caller;
  let freelance: Caller;
  let feed: string;
  let blog: string;
  beforeAll(async () => {
    scene = await makeScene();
    [manager, freelance] = [await callerAs(scene, 'manager'), await callerAs(scene, 'freelance')];
    [feed = '', blog = ''] = scene.a.channelIds;
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  const line = (key: string, more: Partial<SpreadLineBody> = {}): SpreadLineBody =>
    plainLine(scene.routeId, {
      key,
      name: key,
      channelId: feed,
      offset: { count: 2, unit: 'working_days' },
      change: 'Cut it upright.',
      ...more,
    });
  const post = (path: string, body: object) => manager.call('POST', path, { body });
  const spreadWith = async (...lines: SpreadLineBody[]): Promise<string> => {
    const { body } = await post(`/api/clients/${scene.a.id}/spreads`, { name: 'Film', formatId: null, lines });
    return String(body['spreadId']);
  };
  /** A source on the blog that is published on 25 March, with copy, tags and a link. */
  const makeSource = async (copy = 'Eleven days.'): Promise<string> => {
    const id = await makePiece(scene, scene.a, null);
    const [placement] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [id, blog],
    );
    await manager.call('PUT', `/api/placements/${placement?.id}/date`, {
      body: { on: '2027-03-25', at: '08:00' },
      headers: { 'If-Match': `"${placement?.version}"` },
    });
    await write(id, copy);
    return id;
  };
  const write = async (id: string, copy: string, channelId = blog, isLaidOut?: boolean) => {
    const [row] = await scene.app.read<{ version: number }>('select content_version as version from pieces where id = $1', [id]);
    const channel = { channelId, copy: '', tags: ['wool'], firstComment: '', link: 'https://x.test/undyed' };
    const shared = { copy, disclosure: 'Advertisement', media: [], ...(isLaidOut === undefined ? {} : { isLaidOut }) };
    const body = { shared, channels: [channel] };
    getValue(await editContent(scene.app, scene.people.manager, id, body, row?.version ?? 0));
  };
  const output = (lineKey: string, more: Partial<OutputBody> = {}): OutputBody => ({
    lineKey,
    name: lineKey,
    on: '2027-03-31',
    fromSecond: null,
    toSecond: null,
    ...more,
  });
  const making = (spreadId: string, outputs: OutputBody[], more: Partial<MakeSpinOffsBody> = {}): MakeSpinOffsBody => ({
    spreadId,
    outputs,
    known: 0,
    giveFirst: false,
    ...more,
  });
  const make = async (sourceId: string, body: MakeSpinOffsBody): Promise<string[]> => {
    const made = await post(`/api/pieces/${sourceId}/spin-offs`, body);
    expect(made).toMatchObject({ status: 201 });
    return made.body['pieceIds'] as string[];
  };
  const pieceOf = async (id: string) => (await manager.call('GET', `/api/pieces/${id}`)).body as unknown as PieceShape;
  const relations = async (id: string, caller = manager) =>
    (await caller.call('GET', `/api/pieces/${id}/spin-offs`)).body as unknown as SpinOffsShape;
  const rowOf = async (id: string) =>
    (await scene.app.read<{ content: unknown }>('select title, purpose, content, content_version, version from pieces where id = $1', [id]))[0]; // prettier-ignore
  const stored = async (id: string) =>
    (await scene.app.read<{ stale: string[] }>('select stale from spin_offs where piece_id = $1', [id]))[0]?.stale;
  const stateOf = async (id: string) =>
    Object.fromEntries(((await relations(id)).source?.facts ?? []).map(({ fact, state }) => [fact, state]));
  const settle = async (id: string, facts: object[], mark?: string) =>
    post(`/api/pieces/${id}/spin-off/facts`, { facts, mark: mark ?? (await relations(id)).source?.mark ?? '' });
  const show = async (id: string) => {
    for (const key of ['write', 'design', 'check']) getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, id, key)));
  };

  it('are looked at with their dates and what is late before any is made', async () => {
    const sourceId = await makeSource();
    const lines = [
      line('clip', { obstacle: 'The sound' }),
      line('teaser', { offset: { count: -22, unit: 'days' } }),
      line('same', { offset: { count: 1, unit: 'days' } }),
    ];
    const spreadId = await spreadWith(...lines);
    const count = async () => (await scene.app.read('select 1 from pieces')).length;
    const before = await count();
    const look = async (outputs: OutputBody[]) =>
      (await post(`/api/pieces/${sourceId}/spin-offs/preview`, making(spreadId, outputs))).body as unknown as SpinOffPreviewShape;
    const proposed = await look([]);
    // 26 and 29 March are Good Friday and Easter Monday
    expect(proposed).toMatchObject({
      sourceOn: '2027-03-25',
      known: 0,
      outputs: [
        { title: 'A piece · clip', on: '2027-03-31', at: '09:00', standing: 'fine', obstacle: 'The sound', isThere: false },
        { title: 'A piece · teaser', on: '2027-03-03', standing: 'late' },
        { title: 'A piece · same', on: '2027-03-26' },
      ],
      days: [{ on: '2027-03-26', names: ['Good Friday'] }],
    });
    const asked = await look([
      output('clip', { name: 'Part 2', on: '2027-04-07', fromSecond: 10, toSecond: 40 }),
      output('clip', { on: null }),
    ]);
    expect(asked.outputs).toMatchObject([
      { title: 'A piece · Part 2', on: '2027-04-07' },
      { on: null, beginBy: null, standing: 'fine' },
    ]);
    expect(await count()).toBe(before);
  });

  it('begin with what the source hands on, on their day, with whom their line names, and refer to it', async () => {
    const sourceId = await makeSource();
    const guideline = await post('/api/guidelines', {
      title: 'Upright',
      text: 'Hold it upright.',
      clientId: scene.a.id,
      formatId: null,
      channelKind: 'podcast',
      skill: null,
    });
    const [kept] = await scene.app.read<{ id: string }>('select id from guidelines order by edited_at desc limit 1');
    expect(guideline.status).toBe(201);
    const doers = [{ skill: 'write', personId: scene.people.staff.personId }];
    const spreadId = await spreadWith(
      line('clip', { doers, callToAction: 'Come and see it.', guidelineId: kept?.id ?? null }),
      line('own', { needsCopy: true, channelId: null }),
    );
    const before = await rowOf(sourceId);
    const ids = await make(sourceId, making(spreadId, [output('clip', { fromSecond: 75, toSecond: 100 }), output('own', { name: '' })]));
    const [clip = '', own = ''] = ids;
    expect(await pieceOf(clip)).toMatchObject({
      title: 'A piece · clip',
      brief: { notes: 'Cut it upright.' },
      content: {
        shared: { copy: 'Eleven days.\n\nCome and see it.', disclosure: 'Advertisement' },
        channels: [{ channelId: feed, tags: ['wool'], link: 'https://x.test/undyed' }],
      },
      placements: [{ on: '2027-03-31', at: '09:00', state: 'pencilled' }],
      steps: [{ doerName: 'Sia' }, { doerName: null }, { doerName: null }, { doerName: 'the client' }],
      refersTo: [],
    });
    expect(await pieceOf(own)).toMatchObject({
      title: 'A piece',
      content: { shared: { copy: '' }, channels: [] },
      placements: [],
      wishOn: '2027-03-31',
    });
    expect(await relations(clip)).toMatchObject({
      source: { pieceId: sourceId, title: 'A piece', canOpen: true, name: 'clip', fromSecond: 75, toSecond: 100 },
    });
    expect(await relations(sourceId)).toMatchObject({
      source: null,
      outputs: [{ pieceId: clip, stale: [], placements: [{ channelName: 'Photo feed', on: '2027-03-31' }] }, { pieceId: own }],
      coverage: { covered: 2, chosen: 2, missing: [] },
    });
    const { body } = await manager.call('GET', `/api/pieces/${clip}/guidelines`);
    expect(body['guidelines']).toMatchObject([{ title: 'Upright' }]);
    expect(await rowOf(sourceId)).toEqual(before);
    expect((await pieceOf(sourceId)).usedIn).toEqual([]);
  });

  it('are all made or none, and none twice where two make them at once', async () => {
    const sourceId = await makeSource();
    const spreadId = await spreadWith(line('clip'));
    const code = async (body: MakeSpinOffsBody) => (await post(`/api/pieces/${sourceId}/spin-offs`, body)).body['code'];
    expect(await code(making(spreadId, []))).toBe('spin_off.nothing_chosen');
    expect(await code(making(spreadId, [output('clip'), output('gone')]))).toBe('spread.line_unknown');
    expect(await code(making(sourceId, [output('clip')]))).toBe('spread.unknown');
    expect(await code(making(spreadId, [output('clip', { fromSecond: 9, toSecond: 9 })]))).toBe('spin_off.stretch_backwards');
    expect(await code(making(spreadId, [output('clip', { fromSecond: 9 })]))).toBe('spin_off.stretch_backwards');
    expect(await code(making(spreadId, [output('clip'), output('clip', { on: '2027-02-26' })]))).toBe('placement.in_past');
    expect((await relations(sourceId)).outputs).toEqual([]);
    const both = await Promise.all([1, 2].map(() => post(`/api/pieces/${sourceId}/spin-offs`, making(spreadId, [output('clip')]))));
    expect(both.map(({ status }) => status).sort()).toEqual([201, 412]);
    expect((await relations(sourceId)).outputs).toHaveLength(1);
    await post(`/api/spreads/${spreadId}/archive`, { archived: true });
    expect(await code(making(spreadId, [output('clip')], { known: 1 }))).toBe('spread.archived');
  });

  it('follow their source in what is still its, and keep what was changed on them', async () => {
    const sourceId = await makeSource();
    const [follows = '', own = ''] = await make(sourceId, making(await spreadWith(line('a'), line('b')), [output('a'), output('b')]));
    await write(own, 'Nearly two weeks.', feed);
    await write(sourceId, 'Twelve days.');
    expect(await pieceOf(follows)).toMatchObject({ content: { shared: { copy: 'Twelve days.' } } });
    expect(await stateOf(follows)).toMatchObject({ copy: 'same', title: 'same' });
    expect(await pieceOf(own)).toMatchObject({ content: { shared: { copy: 'Nearly two weeks.' } } });
    expect(await stateOf(own)).toMatchObject({ copy: 'stale', tags: 'same' });
    const { version } = await pieceOf(sourceId);
    getValue(await editPiece(scene.app, scene.people.manager, sourceId, { title: 'Undyed' }, version));
    expect((await pieceOf(follows)).title).toBe('Undyed · a');
    const told = await scene.app.read<{ detail: object }>(
      "select detail from activities where thing_id = $1 and verb = 'spin_off.followed' order by id",
      [follows],
    );
    expect(told.map(({ detail }) => detail)).toEqual([
      { source: 'A piece', facts: ['copy'] },
      { source: 'Undyed', facts: ['title'] },
    ]);
  });

  it('are laid out as their source where their format is, and are told where nothing but that differs', async () => {
    const sourceId = await makeSource('');
    await write(sourceId, '# Grey\n\nShe *was*.', blog, true);
    const spreadId = await spreadWith(line('letter'));
    const layOut = (is: boolean) => scene.app.read("update formats set is_laid_out = $1 where name = 'Still'", [is]);
    await layOut(true);
    const [letter = ''] = await make(sourceId, making(spreadId, [output('letter')]));
    await layOut(false);
    const [words = ''] = await make(sourceId, making(spreadId, [output('letter')], { known: 1 }));
    expect([(await rowOf(letter))?.content, (await rowOf(words))?.content]).toMatchObject([
      { shared: { copy: '# Grey\n\nShe *was*.', isLaidOut: true } },
      { shared: { copy: 'Grey\n\nShe was.' } },
    ]);
    await show(letter);
    await write(sourceId, '## Grey\n\nShe *was*.', blog, true);
    const copyOf = async (id: string) => (await relations(id)).source?.facts.find(({ fact }) => fact === 'copy');
    expect(await copyOf(letter)).toMatchObject({ state: 'stale', output: '# Grey\n\nShe *was*.', source: '## Grey\n\nShe *was*.' });
    expect(await copyOf(words)).toMatchObject({ state: 'same', output: 'Grey\n\nShe was.' });
    await settle(letter, [{ fact: 'copy', choice: 'take' }]);
    expect(await copyOf(letter)).toMatchObject({ state: 'same' });
    expect((await rowOf(letter))?.content).toMatchObject({ shared: { copy: '## Grey\n\nShe *was*.', isLaidOut: true } });
  });

  it('stay as somebody was shown them, are said to be behind, and are settled field by field', async () => {
    const sourceId = await makeSource();
    const [one = '', two = ''] = await make(sourceId, making(await spreadWith(line('a'), line('b')), [output('a'), output('b')]));
    await show(one);
    await show(two);
    await write(sourceId, 'Twelve days.');
    expect([(await pieceOf(one)).content.shared.copy, await stored(one)]).toEqual(['Eleven days.', ['copy']]);
    expect((await relations(sourceId)).outputs.map(({ stale }) => stale)).toEqual([['copy'], ['copy']]);
    const before = await rowOf(sourceId);
    const { mark = '' } = (await relations(one)).source ?? {};
    expect((await settle(one, [{ fact: 'copy', choice: 'take' }])).status).toBe(204);
    expect([(await pieceOf(one)).content.shared.copy, await stored(one)]).toEqual(['Twelve days.', []]);
    expect((await settle(two, [{ fact: 'copy', choice: 'keep' }])).status).toBe(204);
    expect([(await pieceOf(two)).content.shared.copy, await stored(two), (await stateOf(two))['copy']]).toEqual([
      'Eleven days.',
      [],
      'own',
    ]);
    expect(await rowOf(sourceId)).toEqual(before);
    // what was looked at is not there any more
    await write(sourceId, 'Thirteen days.');
    expect((await settle(one, [{ fact: 'copy', choice: 'take' }], mark)).body['code']).toBe('http.changed_meanwhile');
    expect((await pieceOf(one)).content.shared.copy).toBe('Twelve days.');
    expect((await settle(sourceId, [{ fact: 'copy', choice: 'take' }], mark)).status).toBe(404);
  });

  it('hold what the source says when both are changed at once', async () => {
    const sourceId = await makeSource();
    const [one = ''] = await make(sourceId, making(await spreadWith(line('a')), [output('a')]));
    for (let turn = 0; turn < 8; turn++) {
      const { mark = '' } = (await relations(one)).source ?? {};
      await Promise.all([
        write(sourceId, `Turn ${turn}.`),
        settle(one, [{ fact: 'copy', choice: 'take' }], mark),
        post(`/api/pieces/${one}/placements`, { channelId: blog }),
      ]);
      expect([(await pieceOf(one)).content.shared.copy, await stored(one)]).toEqual([`Turn ${turn}.`, []]);
    }
  });

  it('hold stored what would be reckoned, after any order of edits', async () => {
    const sourceId = await makeSource();
    const ids = await make(sourceId, making(await spreadWith(line('a'), line('b'), line('c')), [output('a'), output('b'), output('c')]));
    const [deep = ''] = await make(ids[0] ?? '', making(await spreadWith(line('d')), [output('d')]));
    const all = [...ids, deep];
    let seed = 7;
    const draw = (most: number) => (seed = (seed * 48_271) % 2_147_483_647) % most;
    for (let turn = 0; turn < 40; turn++) {
      const of = all[draw(all.length)] ?? '';
      const before = await rowOf(sourceId);
      const kind = draw(6);
      if (kind < 2) await write(sourceId, `Source ${draw(3)}.`);
      else if (kind === 2) await write(of, `Output ${draw(3)}.`, feed);
      else if (kind === 3) await settle(of, [{ fact: 'copy', choice: draw(2) === 0 ? 'take' : 'keep' }]);
      else if (kind === 4)
        getValue(await editPiece(scene.app, scene.people.manager, of, { title: `T${draw(2)}` }, (await pieceOf(of)).version));
      else if (turn > 20 && draw(3) === 0) await show(of).catch(() => undefined); // handed in already
      if (kind >= 2) expect(await rowOf(sourceId)).toEqual(before);
      for (const id of all) {
        const facts = (await relations(id)).source?.facts ?? [];
        expect(await stored(id)).toEqual(facts.filter(({ state }) => state === 'stale').map(({ fact }) => fact));
      }
    }
  });

  it('are changed in how they are called and where a clip ends, and cut loose', async () => {
    const sourceId = await makeSource();
    const [one = ''] = await make(sourceId, making(await spreadWith(line('a')), [output('a')]));
    const put = (body: object) => manager.call('PUT', `/api/pieces/${one}/spin-off`, { body });
    expect((await put({ name: 'Part 3', callToAction: 'Come.', fromSecond: 5, toSecond: 3 })).body['code']).toBe(
      'spin_off.stretch_backwards',
    );
    expect((await put({ name: 'Part 3', callToAction: 'Come.', fromSecond: 3, toSecond: 5 })).status).toBe(204);
    expect(await pieceOf(one)).toMatchObject({ title: 'A piece · Part 3', content: { shared: { copy: 'Eleven days.\n\nCome.' } } });
    expect((await manager.call('DELETE', `/api/pieces/${one}/spin-off`)).status).toBe(204);
    await write(sourceId, 'Twelve days.');
    expect(await pieceOf(one)).toMatchObject({ content: { shared: { copy: 'Eleven days.\n\nCome.' } }, refersTo: [{ id: sourceId }] });
    expect(await relations(one)).toMatchObject({ source: null });
    expect((await put({ name: '', callToAction: '', fromSecond: null, toSecond: null })).status).toBe(404);
  });

  it('hold their source where they are under way: it is shelved after them', async () => {
    const sourceId = await makeSource();
    const [one = ''] = await make(sourceId, making(await spreadWith(line('a')), [output('a')]));
    const shelve = async (id: string) => editPiece(scene.app, scene.people.manager, id, { shelved: true }, (await pieceOf(id)).version);
    expect(await shelve(sourceId)).toMatchObject({ ok: false, failure: { code: 'piece.has_spin_offs' } });
    expect(await shelve(one)).toMatchObject({ ok: true });
    expect(await shelve(sourceId)).toMatchObject({ ok: true });
  });

  it('move along with their source where that is wanted; what is out stays', async () => {
    const sourceId = await makeSource();
    const spreadId = await spreadWith(line('a'), line('b', { channelId: blog }), line('c'));
    const [one = '', two = '', three = ''] = await make(
      sourceId,
      making(spreadId, [output('a'), output('b', { on: '2027-04-07' }), output('c', { on: '2027-03-02' })]),
    );
    await scene.app.read("update placements set out_at = '2027-03-02T09:00:00Z', state = 'out' where piece_id = $1", [three]);
    const [placement] = (await pieceOf(sourceId)).placements.filter(({ on }) => on !== null);
    const moved = await manager.call('PUT', `/api/placements/${placement?.id}/date`, {
      body: { on: '2027-03-30', at: '08:00' },
      headers: { 'If-Match': `"${placement?.version}"` },
    });
    expect(moved.body['spinOffs']).toEqual({ pieceId: sourceId, from: '2027-03-25', to: '2027-03-30', count: 2 });
    expect((await pieceOf(one)).placements[0]?.on).toBe('2027-03-31'); // nothing moved unasked
    const body = { from: '2027-03-25', to: '2027-03-30' };
    const { moves } = (await post(`/api/pieces/${sourceId}/spin-offs/along/preview`, body)).body as unknown as AlongsShape;
    expect(moves.map(({ pieceId, from, to, problem }) => [pieceId, from, to, problem])).toEqual([
      [three, '2027-03-02', null, 'out'],
      [one, '2027-03-31', '2027-04-01', null],
      [two, '2027-04-07', '2027-04-12', null],
    ]);
    const source = await rowOf(sourceId);
    expect((await post(`/api/pieces/${sourceId}/spin-offs/along`, body)).status).toBe(200);
    const days = await Promise.all([one, two, three].map(async (id) => (await pieceOf(id)).placements[0]?.on));
    expect(days).toEqual(['2027-04-01', '2027-04-12', '2027-03-02']);
    expect(await rowOf(sourceId)).toEqual(source);
  });

  it('are listed under their sources, with the channels that have nothing yet', async () => {
    await scene.app.read('delete from spin_offs');
    await scene.app.read('update pieces set list = null, shelved = true');
    const [format] = await scene.app.read<{ id: string }>('select id from formats');
    const made = await post(`/api/clients/${scene.a.id}/spreads`, {
      name: 'Film',
      formatId: format?.id,
      lines: [line('a'), line('b', { channelId: blog })],
    });
    const spreadId = String(made.body['spreadId']);
    await post(`/api/spreads/${spreadId}/use`, { isUsed: true });
    const sourceId = await makePiece(scene, { ...scene.a, channelIds: [] }, '2027-04-01');
    const tree = async () => (await manager.call('GET', `/api/spin-offs?clientId=${scene.a.id}`)).body as unknown as SpinOffTreeShape;
    expect(await tree()).toMatchObject({
      sources: [{ pieceId: sourceId, outputs: [], coverage: { covered: 0, chosen: 2, missing: ['Photo feed', 'Blog'] } }],
      next: null,
      stale: 0,
    });
    const [one = ''] = await make(sourceId, making(spreadId, [output('a')]));
    await write(one, 'Words.', feed);
    await show(one);
    const { version } = await pieceOf(sourceId);
    getValue(await editPiece(scene.app, scene.people.manager, sourceId, { title: 'Undyed' }, version));
    expect(await tree()).toMatchObject({
      sources: [{ title: 'Undyed', outputs: [{ pieceId: one, stale: ['title'] }], coverage: { covered: 1, chosen: 2, missing: ['Blog'] } }],
      stale: 1,
    });
  });

  it('show a freelancer the source of their piece, and no other piece', async () => {
    const sourceId = await makeSource();
    const [one = ''] = await make(sourceId, making(await spreadWith(line('a'), line('b')), [output('a'), output('b')]));
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, one, 'write'), scene.people.freelance.personId));
    expect((await relations(one, freelance)).source).toMatchObject({ title: 'A piece', canOpen: false });
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, sourceId, 'write'), scene.people.freelance.personId));
    expect((await relations(sourceId, freelance)).outputs.map(({ pieceId }) => pieceId)).toEqual([one]);
  });
});
