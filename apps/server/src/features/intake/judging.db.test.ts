import { randomUUID } from 'node:crypto';
import { getDay, getValue, toDayNumber, wordSimilarity } from '@zesting/core';
import type { EarliestShape, KnownShape, ReceiptShape, RequestPage, RequestRow, RequestShape, VerdictShape } from '@zesting/contract';
import { eventually } from '../../../test-support/eventually.js';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { takenHours } from '../planning/index.js';
import { assignStep, beginStep } from '../production/index.js';
import { submitRequest } from './index.js';

describe('judging by what is taken on', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    // only Fay writes, and has ten days of writing before her, from the first of March on
    const { freelance, lead } = scene.people;
    await scene.app.read("update people set skills = '{}' where id <> $1", [freelance.personId]);
    const stepId = await stepOf(scene, await makePiece(scene, scene.a, '2027-03-16'), 'write');
    getValue(await assignStep(scene.app, lead, stepId, freelance.personId));
    await scene.app.read('update steps set effort_minutes = 4800 where id = $1', [stepId]);
    await scene.app.read(`update formats set needs = '[]'`);
    // on a slow machine the first load is longer under way than anybody waits for it
    const monday = toDayNumber(getDay('2027-03-01'));
    await eventually(async () => (await takenHours(scene.app)).on(freelance.personId, monday) > 0, 100_000);
  });
  afterAll(() => scene.close());

  const ask = async (about: string, wish?: string, email = 'stranger@aaa.test') =>
    getValue(
      await submitRequest(
        scene.app,
        scene.a.linkId,
        { name: 'Ann', email, answers: { about, ...(wish ? { wish } : {}) }, version: 1 },
        randomUUID(),
      ),
    ).requestId;
  const post = (path: string, body: unknown = {}) => manager.call('POST', `/api/requests/${path}`, { body });
  const get = async (id: string) => (await manager.call('GET', `/api/requests/${id}`)).body as unknown as RequestShape;
  const list = async (query: string) => (await manager.call('GET', `/api/requests?${query}`)).body as unknown as RequestPage;
  const row = async (id: string): Promise<RequestRow | undefined> => (await list('shown=open')).items.find((one) => one.id === id);
  const verdict = async (id: string) => (await manager.call('GET', `/api/requests/${id}/verdict`)).body as unknown as VerdictShape;
  const piece = (title: string) => ({ title, routeId: scene.routeId, channelIds: [...scene.a.channelIds], wishOn: '2027-03-30' });
  const mails = (subject: string) =>
    scene.app.read<{ to: string }>("select payload ->> 'to' as to from graphile_worker._private_jobs where payload ->> 'subject' = $1", [
      subject,
    ]);

  it('comes after the hours that are taken, and says so to who asks without a name', async () => {
    const id = await ask('Figs on toast', '2027-03-12');
    const judged = await verdict(id);
    // ten days of writing stand before it: it is written on the eleventh
    expect(judged).toMatchObject({
      word: 'later',
      earliestOn: '2027-03-09',
      predictedOn: '2027-03-23',
      slackDays: -11,
      beginBy: '2027-03-04',
    });
    expect(judged.doers[0]).toEqual({ title: 'Write', name: 'Fay', isUsual: false, startOn: '2027-03-15', finishOn: '2027-03-15' });
    expect(judged.skills).toContainEqual({ skill: 'write', minutes: 60, freeMinutes: 0, people: 1 });
    expect(judged.helps).toContainEqual({ stepKey: 'design', title: 'Design', spanDays: 1, predictedOn: '2027-03-20' });
    expect(await row(id)).toMatchObject({ stands: 'later', slackDays: -11, beginBy: '2027-03-04' });

    const form = await callerByLink(scene, 'ask', scene.a.linkId);
    const { body } = await form.call('POST', `/api/ask/${scene.a.linkId}/earliest`, { body: { answers: {} } });
    expect(body as unknown as EarliestShape).toEqual({ earliestOn: '2027-03-23', pathOn: '2027-03-09', steps: 4, days: 7 });
    const feasible = await manager.call('GET', `/api/requests/${id}/feasibility/${scene.routeId}`);
    expect(feasible.body).toMatchObject({ earliestOn: '2027-03-09', predictedOn: '2027-03-23' });
  });

  it('stands in the order of when work must begin, then of who asks, then of how long it waits against its promise', async () => {
    await scene.app.read('update contacts set weight = 3 where id = $1', [scene.a.contactId]);
    const soon = await ask('Begin soon', '2027-03-20');
    const [usual, weighty] = [await ask('Begin later', '2027-04-20'), await ask('Begin later too', '2027-04-20', 'contact@aaa.test')];
    const undated = await ask('Whenever');
    const { items } = await list('order=danger&shown=open');
    const order = items.map(({ id }) => id).filter((id) => [soon, usual, weighty, undated].includes(id));
    expect(order).toEqual([soon, weighty, usual, undated]);
    expect(await row(weighty)).toMatchObject({ weight: 3, stands: null });
  });

  it('counts the days that it waits in working days, and not while the requester owes an answer', async () => {
    await scene.app.read(`update form_versions set content = content || '{"answerDays": 2}' where form_id = $1`, [scene.a.formId]);
    const [late, asked] = [await ask('Waits'), await ask('Asked back')];
    // both came on Tuesday the week before; one was asked about on the Wednesday
    await scene.app.read("update requests set received_at = '2027-02-23T10:00Z' where id = any($1)", [[late, asked]]);
    await scene.app.read(
      "insert into request_messages (request_id, author, name, text, at) values ($1, 'agency', 'Max', 'Who?', '2027-02-24T09:00Z')",
      [asked],
    );
    expect((await row(late))?.age).toEqual({ days: 4, promised: 2, dueOn: '2027-02-25', isLate: true });
    expect((await row(asked))?.age).toEqual({ days: 1, promised: 2, dueOn: null, isLate: false });
    const shown = (await list('stands=answer_late')).items;
    expect(shown.map(({ id }) => id)).toEqual([late]);
    expect((await list('stands=later')).items.map(({ title }) => title)).toContain('Figs on toast');
    expect((await manager.call('GET', '/api/requests?stands=nonsense')).status).toBe(400);
  });

  it('tells who asked by when they are answered, and then when it is expected out', async () => {
    const id = await ask('When?');
    const receipt = await callerByLink(scene, 'receipt', id);
    const look = async () => (await receipt.call('GET', `/api/receipts/${id}`)).body as unknown as ReceiptShape;
    // Monday; an answer within two working days was promised
    expect(await look()).toMatchObject({ answerBy: '2027-03-03', expected: [] });
    await scene.app.read("update requests set received_at = '2027-02-23T10:00Z' where id = $1", [id]);
    expect((await look()).answerBy).toBeNull(); // what was not kept is not promised
    await scene.app.read("update requests set received_at = '2027-03-01T09:00Z' where id = $1", [id]);
    await post(`${id}/ask-back`, { text: 'Who?' });
    expect((await look()).answerBy).toBeNull();
    const shelved = (await post(`${id}/accept`, piece('Not this one'))).body['pieceIds'];
    await post(`${id}/reopen`);
    const [pieceId] = (await post(`${id}/accept`, piece('This one'))).body['pieceIds'] as [string];
    expect(await look()).toMatchObject({ state: 'accepted', answerBy: null, progress: 'planned' });
    const placements = await scene.app.read<{ id: string; version: number; piece_id: string }>(
      'select id, version, piece_id from placements where piece_id = any($1) order by piece_id, id',
      [[pieceId, ...(shelved as string[])]],
    );
    for (const placement of placements)
      getValue(await movePlacement(scene.app, scene.people.lead, placement.id, { on: '2027-03-30', at: '08:00' }, placement.version));
    expect((await look()).expected).toEqual([
      { channelName: 'Photo feed', on: '2027-03-30', state: 'pencilled' },
      { channelName: 'Blog', on: '2027-03-30', state: 'pencilled' },
    ]);
    await scene.app.read('update clients set feed_pencilled = false where id = $1', [scene.a.id]);
    expect((await look()).expected).toEqual([]);
    await scene.app.read('update clients set feed_pencilled = true where id = $1', [scene.a.id]);
    // what was put on the shelf says nothing of how far it is
    getValue(await beginStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write')));
    expect((await look()).progress).toBe('in_production');
  });

  it('says how many wait by client, whatever is shown', async () => {
    const { counts } = await list('shown=ideas');
    const open = (await list('shown=open')).items;
    expect(counts).toEqual([
      {
        clientId: scene.a.id,
        open: open.length,
        asked: open.filter(({ state }) => state === 'asked_back').length,
        unread: open.filter(({ state, isRead }) => state === 'new' && !isRead).length,
      },
    ]);
  });

  it('is kept as an idea for later, told to its requester, and taken up again', async () => {
    const id = await ask('Some day');
    expect((await post(`${id}/idea`, { note: 'After the summer.' })).status).toBe(204);
    expect(await get(id)).toMatchObject({ state: 'idea', isRead: true });
    expect((await list('shown=ideas')).items.map((one) => one.id)).toEqual([id]);
    expect(await mails('Kept for later: Some day')).toHaveLength(1);
    expect((await post(`${id}/idea`, { note: '' })).body['code']).toBe('request.already_decided');
    const receipt = await callerByLink(scene, 'receipt', id);
    expect((await receipt.call('GET', `/api/receipts/${id}`)).body).toMatchObject({ state: 'idea', canWithdraw: false });
    expect((await post(`${id}/reopen`)).status).toBe(204);
    expect(await get(id)).toMatchObject({ state: 'new' });
  });

  it('is accepted and taken back until something is made: its pieces go on the shelf, and it leaves those that were there', async () => {
    const [id, merged] = [await ask('Too quick'), await ask('Too quick too', undefined, 'too@aaa.test')];
    await post(`${merged}/merge`, { intoId: id });
    const { body } = await post(`${id}/accept`, { ...piece('One'), also: [piece('Two')] });
    const pieceIds = body['pieceIds'] as string[];
    expect((await post(`${id}/reopen`)).status).toBe(204);
    const shelved = await scene.app.read<{ shelved: boolean }>('select shelved from pieces where id = any($1)', [pieceIds]);
    expect(shelved).toEqual([{ shelved: true }, { shelved: true }]);
    expect(await get(id)).toMatchObject({ state: 'new', pieces: [{ stage: 'shelved' }, { stage: 'shelved' }] });
    expect(await mails('Looked at again: Too quick too')).toEqual([{ to: 'too@aaa.test' }]);

    // two windows take it back at once: one is told, and the piece is put away once
    await post(`${id}/accept`, piece('At once'));
    const both = await Promise.all([post(`${id}/reopen`), post(`${id}/reopen`)]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);

    const there = await makePiece(scene, scene.a);
    await post(`${id}/attach`, { pieceId: there });
    expect((await post(`${id}/reopen`)).status).toBe(204);
    expect((await get(id)).pieces.map((one) => one.id)).not.toContain(there);
    expect(await scene.app.read('select shelved from pieces where id = $1', [there])).toEqual([{ shelved: false }]);

    // a piece that answers somebody else's request too is not put away
    const shared = String((await post(`${id}/accept`, piece('Shared'))).body['pieceIds']);
    const other = await ask('Counts on it', undefined, 'other@aaa.test');
    await post(`${other}/attach`, { pieceId: shared });
    expect((await post(`${id}/reopen`)).body).toMatchObject({ code: 'request.already_begun', title: 'Shared' });
    expect((await post(`${other}/reopen`)).status).toBe(204);
    expect((await post(`${id}/reopen`)).status).toBe(204);

    const again = (await post(`${id}/accept`, { ...piece('Three'), also: [piece('Four')] })).body['pieceIds'] as string[];
    getValue(await beginStep(scene.app, scene.people.lead, await stepOf(scene, String(again[1]), 'write')));
    expect((await post(`${id}/reopen`)).body).toMatchObject({ code: 'request.already_begun', title: 'Four' });
    expect(await get(id)).toMatchObject({ state: 'accepted' });
    expect(await scene.app.read('select 1 from pieces where id = any($1) and shelved', [again])).toEqual([]);
  });

  it('becomes pieces whose steps go to who is free first, one after the other; what nobody can do stays with nobody', async () => {
    const { manager: max, staff: sia } = scene.people;
    // an hour a day each, which a piece takes to write
    const writers = [max.personId, sia.personId];
    await scene.app.read(`update people set skills = '{"write": 1}', weekly_minutes = '{60,60,60,60,60,0,0}' where id = any($1)`, [
      writers,
    ]);
    const id = await ask('Given at once');
    const { body } = await post(`${id}/accept`, {
      ...piece('First given'),
      giveFirst: true,
      also: [{ ...piece('Next given'), giveFirst: true }, piece('Given to nobody')],
    });
    await scene.app.read("update people set skills = '{}' where id = any($1)", [writers]);
    const rows = await scene.app.read<{ key: string; doer: string | null }>(
      `select s.key, p.name as doer from steps s left join people p on p.id = s.doer_id
       where s.piece_id = any($1) order by array_position($1, s.piece_id), s.position`,
      [body['pieceIds']],
    );
    const others = ['design', 'check', 'sign_off'].map((key) => ({ key, doer: null }));
    expect(rows).toEqual(['Max', 'Sia', null].flatMap((doer) => [{ key: 'write', doer }, ...others]));
  });

  it('is counted against what a month includes', async () => {
    const [format] = await scene.app.read<{ id: string }>('select id from formats');
    const [version] = await scene.app.read<{ version: number }>('select version from clients where id = $1', [scene.a.id]);
    const allow = (formatId: string) =>
      manager.call('PATCH', `/api/clients/${scene.a.id}`, {
        body: { allowance: { hours: 12, formats: [{ formatId, pieces: 2 }] } },
        headers: { 'If-Match': `"${version?.version}"` },
      });
    expect((await allow(randomUUID())).body['code']).toBe('format.unknown');
    expect((await allow(format?.id ?? '')).status).toBe(200);
    const id = await ask('In August', '2027-08-12');
    expect((await verdict(id)).allowance).toEqual({
      month: '2027-08',
      lines: [
        { formatName: 'Still', included: 2, used: 0, left: 2, leftThen: 1 },
        { formatName: null, included: 12, used: 0, left: 12, leftThen: 8.8 },
      ],
    });
    await post(`${id}/accept`, { ...piece('August'), wishOn: '2027-08-12' });
    const other = await ask('In August too', '2027-08-20');
    expect((await verdict(other)).allowance.lines).toMatchObject([
      { used: 1, leftThen: 0 },
      { used: 3.3, leftThen: 5.5 },
    ]);
    // a month counts a piece by its first placement, wherever its wish was
    const [placed] = await scene.app.read<{ id: string }>("select id from pieces where title = 'August'");
    await scene.app.read(
      `update placements set on_day = '2027-09-01', at_time = '09:00', publish_at = '2027-09-01T08:00Z' where piece_id = $1`,
      [placed?.id],
    );
    expect((await verdict(other)).allowance.lines).toMatchObject([{ used: 0 }, { used: 0 }]);
  });

  it('finds what is alike by its text too, after what is by its title; of the same client, and not for a word or two', async () => {
    const written = async (client: typeof scene.a, title: string, copy: string) => {
      const id = await makePiece(scene, client);
      await scene.app.read(
        `update pieces set title = $2, content = jsonb_set(content, '{shared,copy}', to_jsonb($3::text)) where id = $1`,
        [id, title, copy],
      );
      return id;
    };
    const copy = 'This week we show how candied orange peel is made by hand, from the knife to the jar.';
    const found = await written(scene.a, 'Monday post', copy);
    await written(scene.b, 'Their post', 'Candied orange peel made by hand.');
    await written(scene.a, 'Other post', 'Oranges are made for peeling; by the way, our hands are full.');
    const said = await ask('Something sweet', '2027-09-01');
    await scene.app.read(
      `update requests set answers = answers || '{"aim": "People should learn that candied orange peel is made by hand."}' where id = $1`,
      [said],
    );
    const titled = await ask('Candied orange peel');
    const title = 'Candied orange peel made by hand';
    const { twins } = await verdict(await ask(title));
    expect(twins[0]).toMatchObject({ id: titled, isInText: false });
    expect(
      twins
        .slice(1)
        .map(({ id, isInText }) => `${id} ${isInText}`)
        .sort(),
    ).toEqual([`${found} true`, `${said} true`].sort());
    const byText = twins.find(({ id }) => id === found);
    expect(byText?.title).toBe('Monday post');
    expect(byText?.sharedWords).toEqual(expect.arrayContaining(['candied', 'orange', 'peel']));
    // the database scores texts as core does
    expect(byText?.likeness).toBeCloseTo(wordSimilarity(title, copy), 5);
    expect((await verdict(await ask('Peel'))).twins.filter(({ isInText }) => isInText)).toEqual([]);
  });

  it('tells a contact, by their own link, what is alike and what is left; who may not look hears of their own alone', async () => {
    const room = await callerByLink(scene, 'room', scene.a.contactId);
    const known = async (title: string) =>
      (await room.call('POST', `/api/room/${scene.a.contactId}/known`, { body: { title, on: null } })).body as unknown as KnownShape;
    await ask('Pickled lemons for winter');
    await ask('Pickled lemons in spring', undefined, 'contact@aaa.test');
    const { pieceIds } = (await post(`${await ask('Pickled lemons at the fair')}/accept`, piece('Inner working title'))).body as {
      pieceIds: string[];
    };
    await scene.app.read("update pieces set title = 'Pickled lemons, the making' where id = $1", [pieceIds[0]]);
    const told = await known('Pickled lemons');
    expect(told).toMatchObject({ name: 'Contact AAA', email: 'contact@aaa.test' });
    expect(told.alike.map(({ title, standing }) => [title, standing]).sort()).toEqual([
      ['Pickled lemons at the fair', 'planned'],
      ['Pickled lemons for winter', 'asked'],
      ['Pickled lemons in spring', 'asked'],
    ]);
    expect(told.allowance.lines.map(({ included }) => included)).toEqual([2, 12]);
    expect((await known('')).alike).toEqual([]);

    await scene.app.read('update contacts set can_view = false where id = $1', [scene.a.contactId]);
    expect((await known('Pickled lemons')).alike).toMatchObject([{ title: 'Pickled lemons in spring' }]);
    await scene.app.read('update contacts set can_ask = false where id = $1', [scene.a.contactId]);
    expect((await room.call('POST', `/api/room/${scene.a.contactId}/known`, { body: { title: '', on: null } })).status).toBe(403);
  });

  it('tells who asked in German what became of it in German', async () => {
    await scene.app.read(`update form_versions set content = content || '{"language": "de"}' where form_id = $1`, [scene.a.formId]);
    const id = await ask('Brot', undefined, 'gast@aaa.test');
    await post(`${id}/ask-back`, { text: 'Für wen?' });
    await post(`${id}/decline`, { reason: 'Nicht in diesem Jahr.' });
    await post(`${id}/reopen`);
    const told = await scene.app.read<{ subject: string; first: string }>(
      "select payload ->> 'subject' as subject, payload -> 'paragraphs' ->> 0 as first from graphile_worker._private_jobs where payload ->> 'to' = 'gast@aaa.test' order by id",
    );
    expect(told.map(({ subject }) => subject.replace(/\d+/, 'N'))).toEqual([
      'Ihre Anfrage Nr. N für Client AAA ist da',
      'Eine Frage zu Brot',
      'Nicht übernommen: Brot',
      'Wird noch einmal angesehen: Brot',
    ]);
    expect(told[1]?.first).toBe('Guten Tag Ann,');
  });
});
