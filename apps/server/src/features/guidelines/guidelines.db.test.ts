import type { GuidelinesShape, MyStepsShape, PieceGuidelinesShape } from '@zesting/contract';
import { getValue } from '@zesting/core';
import sharp from 'sharp';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep } from '../production/index.js';

describe('how we make this kind of thing', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    manager = await callerAs(scene, 'manager');
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from guidelines');
  });

  const plain = { text: 'Short words', clientId: null, formatId: null, channelKind: null, skill: null };
  const add = async (caller: Caller, title: string, more: object = {}) => {
    const { status, body } = await caller.call('POST', '/api/guidelines', { body: { ...plain, title, ...more } });
    return status === 201 ? String(body['guidelineId']) : String(body['code']);
  };
  const all = async (caller: Caller, query = '') =>
    (await caller.call('GET', `/api/guidelines${query}`)).body as unknown as GuidelinesShape;
  const titles = async (caller: Caller, pieceId: string) =>
    ((await caller.call('GET', `/api/pieces/${pieceId}/guidelines`)).body as unknown as PieceGuidelinesShape).guidelines.map(
      ({ title }) => title,
    );

  it('is written for every client by a lead alone, for one by who manages it', async () => {
    expect(await add(manager, 'For all')).toBe('guideline.of_agency');
    const general = await add(lead, 'For all');
    await add(manager, 'For A', { clientId: scene.a.id });
    expect(await add(manager, 'For B', { clientId: scene.b.id })).toBe('access.not_found');
    expect(await add(lead, 'X', { formatId: '00000000-0000-4000-8000-000000000000' })).toBe('format.unknown');
    expect(await add(lead, 'X', { skill: 'sing' })).toBe('skill.unknown');
    expect(await add(lead, 'X', { channelKind: 'telegraph' })).toBe('http.invalid');
    expect(await add(lead, '  ')).toBe('http.invalid');
    await add(lead, 'For B', { clientId: scene.b.id });
    expect((await all(manager)).guidelines.map(({ title, canEdit, editedBy }) => [title, canEdit, editedBy])).toEqual([
      ['For all', false, 'Lea'],
      ['For A', true, 'Max'],
    ]);
    expect((await all(lead, `?clientId=${scene.b.id}`)).guidelines.map(({ title }) => title)).toEqual(['For all', 'For B']);
    expect((await manager.call('POST', `/api/guidelines/${general}/archive`, { body: { archived: true } })).body['code']).toBe(
      'guideline.of_agency',
    );
    const edit = (caller: Caller, body: object, version: number) =>
      caller.call('PUT', `/api/guidelines/${general}`, {
        body: { ...plain, title: 'For all', ...body },
        headers: { 'If-Match': `"${version}"` },
      });
    expect((await edit(manager, {}, 1)).body['code']).toBe('guideline.of_agency');
    expect((await edit(lead, { text: 'Other words' }, 1)).status).toBe(204);
    expect((await edit(lead, { text: 'Lost' }, 1)).body['code']).toBe('http.changed_meanwhile');
    // one that is handed to a client by a manager would be taken from all others
    expect((await edit(manager, { clientId: scene.a.id }, 2)).body['code']).toBe('guideline.of_agency');
  });

  it('reaches a piece by its client, format, channels and steps, the narrowest first', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const [other] = await scene.app.read<{ id: string }>("insert into formats (name) values ('Clip') returning id");
    const [format] = await scene.app.read<{ id: string }>("select id from formats where name = 'Still'");
    await add(lead, 'For all');
    await add(lead, 'Stills', { formatId: format?.id });
    await add(lead, 'Stills of A, writing', { clientId: scene.a.id, formatId: format?.id, skill: 'write' });
    await add(lead, 'Blogs', { channelKind: 'blog' });
    await add(lead, 'Clips', { formatId: other?.id });
    await add(lead, 'Of B', { clientId: scene.b.id });
    await add(lead, 'Podcasts', { channelKind: 'podcast' });
    await scene.app.read("insert into skills (name) values ('sing')");
    await add(lead, 'Singing', { skill: 'sing' });
    expect(await titles(manager, pieceId)).toEqual(['Stills of A, writing', 'Blogs', 'Stills', 'For all']);
    // what the piece does not go to any more does not matter
    await scene.app.read(
      "update placements set cancelled = true, state = 'cancelled' where piece_id = $1 and channel_id in (select id from channels where kind = 'blog')",
      [pieceId],
    );
    expect(await titles(manager, pieceId)).toEqual(['Stills of A, writing', 'Stills', 'For all']);
    // a freelancer reads those of what they work on, and hears at the step how many there are
    expect((await freelance.call('GET', `/api/pieces/${pieceId}/guidelines`)).status).toBe(404);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'design'), scene.people.freelance.personId));
    expect(await titles(freelance, pieceId)).toHaveLength(3);
    const mine = (await freelance.call('GET', '/api/steps/mine')).body as unknown as MyStepsShape;
    expect(mine.rows.find((row) => row.pieceId === pieceId)?.guidelines).toBe(2); // not the one for who writes
    expect((await freelance.call('GET', '/api/guidelines')).status).toBe(403);
  });

  it('is put away and taken back, and follows a skill to its new name', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const id = await add(manager, 'Writing', { clientId: scene.a.id, skill: 'write' });
    const away = (archived: boolean) => manager.call('POST', `/api/guidelines/${id}/archive`, { body: { archived } });
    expect((await away(true)).status).toBe(204);
    expect([await titles(manager, pieceId), (await all(manager)).archived]).toEqual([[], [{ id, title: 'Writing' }]]);
    expect((await away(false)).status).toBe(204);
    expect(await titles(manager, pieceId)).toEqual(['Writing']);
    const agency = (await lead.call('GET', '/api/agency')).body as unknown as { version: number; skills: { id: string; name: string }[] };
    const skills = agency.skills.map((skill) => ({ ...skill, name: skill.name === 'write' ? 'words' : skill.name }));
    const changed = await lead.call('PATCH', '/api/agency', {
      body: { skills: skills.map(({ id: skillId, name }) => ({ id: skillId, name })) },
      headers: { 'If-Match': `"${agency.version}"` },
    });
    expect(changed.status).toBe(200);
    expect((await all(manager)).guidelines).toMatchObject([{ skill: 'words' }]);
    expect(await titles(manager, pieceId)).toEqual(['Writing']);
    const verbs = await scene.app.read<{ verb: string }>(
      "select verb from activities where verb like 'guideline.%' and client_id = $1 order by id",
      [scene.a.id],
    );
    expect(verbs.map(({ verb }) => verb).slice(-3)).toEqual(['guideline.added', 'guideline.archived', 'guideline.restored']);
  });

  it('shows by pictures how it is made, to whoever works for its client and to nobody else', async () => {
    const bytes = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#456' } })
      .png()
      .toBuffer();
    const bring = (caller: Caller, id: string, file = bytes, name = 'grain.png') => {
      const form = new FormData();
      form.append('file', new Blob([new Uint8Array(file)]), name);
      return caller.call('POST', `/api/guidelines/${id}/pictures`, { body: form });
    };
    const [ofAll, ofA, ofB] = [
      await add(lead, 'All'),
      await add(lead, 'A', { clientId: scene.a.id }),
      await add(lead, 'B', { clientId: scene.b.id }),
    ];
    expect((await bring(manager, ofAll)).body).toMatchObject({ code: 'guideline.of_agency' });
    expect((await bring(manager, ofB)).status).toBe(404);
    expect((await bring(lead, ofA, Buffer.from('RIFF....WAVEfmt '), 'a.wav')).status).toBe(415);
    const idOf = async (answer: ReturnType<typeof bring>) => String((await answer).body['assetId']);
    const [everyone, a, b] = [await idOf(bring(lead, ofAll)), await idOf(bring(manager, ofA)), await idOf(bring(lead, ofB))];
    const shown = (await all(manager)).guidelines.find(({ title }) => title === 'A');
    expect(shown?.pictures).toEqual([{ assetId: a, name: 'grain.png' }]);
    const look = async (caller: Caller, id: string, assetId: string) =>
      (await caller.call('GET', `/api/guidelines/${id}/pictures/${assetId}`)).status;
    const pieceId = await makePiece(scene, scene.a); // Fay works for A, and has nothing to do with B
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    expect([await look(freelance, ofA, a), await look(freelance, ofAll, everyone), await look(freelance, ofB, b)]).toEqual([200, 200, 404]);
    expect([await look(manager, ofA, b), await look(manager, ofB, b), await look(lead, ofB, b)]).toEqual([422, 404, 200]);
    // nor by the way that leads to files of pieces
    const asFile = async (caller: Caller, assetId: string) => (await caller.call('GET', `/api/files/${assetId}`)).status;
    expect([await asFile(manager, b), await asFile(manager, a), await asFile(freelance, b)]).toEqual([404, 200, 404]);
    expect((await manager.call('DELETE', `/api/guidelines/${ofA}/pictures/${b}`)).body).toMatchObject({ code: 'file.unknown' });
    expect((await manager.call('DELETE', `/api/guidelines/${ofA}/pictures/${a}`)).status).toBe(204);
    expect([await look(lead, ofA, a), (await all(manager)).guidelines.find(({ title }) => title === 'A')?.pictures]).toEqual([422, []]);
    for (let count = 0; count < 20; count++)
      await scene.app.read(
        "insert into assets (guideline_id, hash, name, mime, bytes, created_at) values ($1, $2, 'x.png', 'image/png', 1, now())",
        [ofA, String(count).padStart(64, '0')],
      );
    expect((await bring(lead, ofA)).body).toMatchObject({ code: 'guideline.pictures_many' });
    // sizes may be in the making: they are waited for
    await scene.app.read(
      `select from assets where guideline_id is not null for update;
       delete from asset_sizes where asset_id in (select id from assets where guideline_id is not null);
       delete from assets where guideline_id is not null`,
    );
  });
});
