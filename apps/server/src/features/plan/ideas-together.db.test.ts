import type { IdeaPageShape, TeamNotesShape } from '@zesting/contract';
import { getValue, ok } from '@zesting/core';
import sharp from 'sharp';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { callerAs, type Caller } from '../../../test-support/scene.js';
import { addAsset, clearUnusedFiles } from '../production/index.js';

describe('ideas that people make together', () => {
  let plan: PlanScene;
  let staff: Caller;
  beforeAll(async () => {
    plan = await makePlanScene();
    staff = await callerAs(plan.scene, 'staff');
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    for (const table of ['team_notes', 'notices']) await plan.scene.app.read(`delete from ${table}`);
    // in one transaction: a job may be making a picture's sizes meanwhile
    await plan.scene.app.read('select from assets for update; delete from asset_sizes; delete from assets where idea_id is not null');
    await plan.reset();
  });

  const post = (path: string, body: object, by = plan.manager) => by.call('POST', `/api/ideas/${path}`, { body });
  const one = async (id: string) => (await plan.lead.call('GET', `/api/ideas/${id}`)).body as unknown as IdeaPageShape; // as the contract has it
  const combine = (id: string, ...ideaIds: string[]) => post(`${id}/combine`, { ideaIds });
  const file = async (ideaId: string, name = 'oven.png', colour = '#123') => {
    const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: colour } })
      .png()
      .toBuffer();
    const stored = getValue(await plan.scene.app.files.store(bytes));
    const added = await plan.scene.app.write(async (tx, now) => ok(await addAsset(tx, stored, { ideaId, name, now })));
    return getValue(added).assetId;
  };
  const open = async (by: Caller, assetId: string) => (await by.call('GET', `/api/files/${assetId}`)).status;

  describe('combined', () => {
    it('stand in the first, off the shelf, until they are taken out again', async () => {
      const [a, b, c] = [
        await plan.caught({ title: 'A' }),
        await plan.caught({ title: 'B', note: 'b', link: 'https://b.test/' }),
        await plan.caught({ title: 'C' }),
      ];
      expect((await combine(b, c)).status).toBe(204);
      expect((await combine(a, b)).status).toBe(204); // with what stands in it
      const found = await one(a);
      expect(found.parts).toBe(2);
      expect(found.combined).toEqual([
        { id: b, title: 'B', note: 'b', link: 'https://b.test/', by: 'Max' },
        { id: c, title: 'C', note: '', link: null, by: 'Max' },
      ]);
      const { body } = await plan.manager.call('GET', `/api/ideas?clientId=${plan.scene.a.id}`);
      expect((body['ideas'] as { title: string }[]).map(({ title }) => title)).toEqual(['A']);
      expect(body['counts']).toEqual({ open: 1, dropped: 0, used: 0 });
      expect((await post(`${b}/state`, { state: 'open' })).status).toBe(204);
      expect((await one(a)).combined.map(({ title }) => title)).toEqual(['C']);
      expect(await one(b)).toMatchObject({ state: 'open', parts: 0 });
    });

    it('are not changed, used or combined by themselves', async () => {
      const [a, b, c] = [await plan.caught({ title: 'A' }), await plan.caught({ title: 'B' }), await plan.caught({ title: 'C' })];
      await combine(a, b);
      const edited = await plan.manager.call('PATCH', `/api/ideas/${b}`, { body: { title: 'X' }, headers: { 'If-Match': '"2"' } });
      expect(edited.body['code']).toBe('idea.combined');
      const ruleId = await plan.add({ formatId: plan.formatId });
      expect((await plan.fill({ ruleId, on: '2027-03-16', ideaId: b }))[0]?.problem).toBe('idea.combined');
      expect((await combine(c, b)).body['code']).toBe('idea.combined');
      expect((await combine(b, c)).body['code']).toBe('idea.combined');
      expect((await combine(a, a)).body['code']).toBe('idea.unknown');
    });

    it('keep to one client; what is for none yet goes where the first is for', async () => {
      const mine = await plan.caught({ title: 'Mine' });
      const { body: free } = await plan.manager.call('POST', '/api/ideas', { body: { title: 'Free', clientId: null } });
      const { body: theirs } = await plan.lead.call('POST', '/api/ideas', { body: { title: 'Theirs', clientId: plan.scene.b.id } });
      expect((await combine(mine, theirs['ideaId'] as string)).body['code']).toBe('idea.unknown'); // the manager sees it not
      const byLead = await post(`${mine}/combine`, { ideaIds: [theirs['ideaId']] }, plan.lead);
      expect(byLead.body['code']).toBe('idea.other_client');
      expect((await combine(free['ideaId'] as string, mine)).body['code']).toBe('idea.other_client');
      expect((await combine(mine, free['ideaId'] as string)).status).toBe(204);
      expect(await one(free['ideaId'] as string)).toMatchObject({ clientId: plan.scene.a.id, state: 'combined' });
    });

    it('become one piece, whose notes hold what all of them say', async () => {
      const a = await plan.caught({ title: 'A', note: 'a', link: 'https://a.test/' });
      await combine(a, await plan.caught({ title: 'B', note: 'b' }));
      const ruleId = await plan.add({ formatId: plan.formatId });
      const [filled] = await plan.fill({ ruleId, on: '2027-03-16', ideaId: a });
      const [piece] = await plan.scene.app.read<{ title: string; notes: string }>('select title, notes from pieces where id = $1', [
        filled?.pieceId,
      ]);
      expect(piece).toEqual({ title: 'A', notes: 'a\n\nhttps://a.test/\n\nB\nb' });
    });

    it('are not combined in a ring by two at once', async () => {
      const [a, b] = [await plan.caught({ title: 'A' }), await plan.caught({ title: 'B' })];
      const both = await Promise.all([combine(a, b), combine(b, a)]);
      expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
      expect([(await one(a)).state, (await one(b)).state].sort()).toEqual(['combined', 'open']);
    });
  });

  describe('files', () => {
    it('go with the idea, also while it is for no client, and into the piece it becomes, to its makers', async () => {
      const { body } = await plan.manager.call('POST', '/api/ideas', { body: { title: 'Free', clientId: null } });
      const ideaId = body['ideaId'] as string;
      const assetId = await file(ideaId);
      expect(await one(ideaId)).toMatchObject({ files: 1, attached: [{ assetId, name: 'oven.png', width: 30, ideaId }] });
      expect([await open(plan.manager, assetId), await open(staff, assetId)]).toEqual([200, 200]);
      // given to a client that the manager does not have
      await plan.lead.call('PATCH', `/api/ideas/${ideaId}`, { body: { clientId: plan.scene.b.id }, headers: { 'If-Match': '"1"' } });
      expect([await open(plan.manager, assetId), await open(plan.lead, assetId)]).toEqual([404, 200]);
    });

    it('of a part reach who works on the piece that the whole became', async () => {
      const [a, b] = [await plan.caught({ title: 'A' }), await plan.caught({ title: 'B' })];
      const assetId = await file(b);
      await combine(a, b);
      const freelance = await callerAs(plan.scene, 'freelance');
      expect(await open(freelance, assetId)).toBe(404);
      const ruleId = await plan.add({ formatId: plan.formatId });
      const [filled] = await plan.fill({ ruleId, on: '2027-03-16', ideaId: a });
      await plan.scene.app.read("update steps set doer_id = $1 where piece_id = $2 and key = 'write'", [
        plan.scene.people.freelance.personId,
        filled?.pieceId,
      ]);
      expect(await open(freelance, assetId)).toBe(200);
    });

    it('are taken off for good, alone; nothing clears away what an idea holds', async () => {
      const ideaId = await plan.caught({ title: 'A' });
      const [first, second] = [await file(ideaId), await file(ideaId, 'other.png', '#456')];
      plan.scene.app.clock.set('2027-04-01T09:00:00Z');
      await clearUnusedFiles(plan.scene.app);
      expect((await one(ideaId)).files).toBe(2);
      const take = () => plan.manager.call('DELETE', `/api/ideas/${ideaId}/files/${first}`);
      expect((await take()).status).toBe(204);
      expect((await take()).body['code']).toBe('file.unknown');
      expect((await one(ideaId)).attached.map(({ assetId }) => assetId)).toEqual([second]);
      expect([await open(plan.manager, first), await open(plan.manager, second)]).toEqual([404, 200]);
    });
  });

  it('are talked over by those who manage the client, and whoever is told hears of it', async () => {
    const ideaId = await plan.caught({ title: 'A bell' });
    const { people } = plan.scene;
    const body = { kind: 'comment', text: 'Who has the bell?', assetIds: [], mentionIds: [people.lead.personId] };
    const { status, body: notes } = await post(`${ideaId}/notes`, body);
    expect(status).toBe(201);
    const { notes: said, team } = notes as unknown as TeamNotesShape;
    expect(said).toMatchObject([{ text: 'Who has the bell?', authorName: 'Max', mentioned: ['Lea'], kind: 'comment' }]);
    expect(team.map(({ name }) => name)).toEqual(['Lea']);
    expect((await one(ideaId)).notes).toBe(1);
    const [told] = await plan.scene.app.read('select heading, text, path from notices');
    expect(told).toEqual({ heading: 'Max on “A bell”', text: 'Max wrote: “Who has the bell?”', path: `/plan/ideas?idea=${ideaId}` });
    expect((await post(`${ideaId}/notes`, body, staff)).status).toBe(403);
    expect((await post(`${ideaId}/notes`, { ...body, mentionIds: [people.staff.personId] })).body['code']).toBe('person.unknown');
    const path = `/api/notes/${said[0]?.id}`;
    expect((await plan.lead.call('PATCH', path, { body: { text: 'X' }, headers: { 'If-Match': '"1"' } })).body['code']).toBe(
      'note.of_another',
    );
    expect((await plan.manager.call('DELETE', path)).status).toBe(204);
    expect((await one(ideaId)).notes).toBe(0);
    const [record] = await plan.scene.app.read("select thing, client_id from activities where verb = 'note.removed'");
    expect(record).toEqual({ thing: 'idea', client_id: plan.scene.a.id });
  });

  it('sent twice under one key are one, also at once; the key of another line is refused', async () => {
    const send = (title: string) =>
      plan.manager.call('POST', '/api/ideas', { body: { title, clientId: plan.scene.a.id }, headers: { 'Idempotency-Key': 'k1' } });
    const both = await Promise.all([send('Once'), send('Once')]);
    expect(new Set(both.map(({ body }) => body['ideaId'])).size).toBe(1);
    expect((await send('Other')).body['code']).toBe('idempotency.other_body');
    const rows = await plan.scene.app.read("select title from ideas where title in ('Once', 'Other')");
    expect(rows).toEqual([{ title: 'Once' }]);
  });
});
