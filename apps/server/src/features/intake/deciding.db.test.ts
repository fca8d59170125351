import { randomUUID } from 'node:crypto';
import { getValue, ok } from '@zesting/core';
import type { ReceiptShape, RequestShape, VerdictShape } from '@zesting/contract';
import { eventually } from '../../../test-support/eventually.js';
import { callerAs, callerByLink, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { submitRequest } from './index.js';

describe('deciding', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());

  const ask = async (about: string, wish?: string, email = 'contact@aaa.test', linkId = scene.a.linkId) =>
    getValue(
      await submitRequest(
        scene.app,
        linkId,
        { name: 'Ann', email, answers: { about, ...(wish ? { wish } : {}) }, version: 1 },
        randomUUID(),
      ),
    ).requestId;
  const post = (path: string, body: unknown = {}) => manager.call('POST', `/api/requests/${path}`, { body });
  const get = async (id: string) => (await manager.call('GET', `/api/requests/${id}`)).body as unknown as RequestShape;
  const verdict = async (id: string, query = '') =>
    (await manager.call('GET', `/api/requests/${id}/verdict${query}`)).body as unknown as VerdictShape;
  const piece = (title: string) => ({ title, routeId: scene.routeId, channelIds: [...scene.a.channelIds], wishOn: '2027-03-30' });
  const mails = (subject: string) =>
    scene.app.read<{ to: string }>("select payload ->> 'to' as to from graphile_worker._private_jobs where payload ->> 'subject' = $1", [
      subject,
    ]);

  it('asks back by mail and page; the answer comes back unread, with files, and stands in the brief', async () => {
    const id = await ask('Half told');
    await post(`${id}/read`);
    expect((await post(`${id}/ask-back`, { text: ' ' })).status).toBe(400);
    expect((await post(`${id}/ask-back`, { text: 'Who is it for?' })).status).toBe(204);
    expect(await get(id)).toMatchObject({ state: 'asked_back', messages: [{ author: 'agency', name: 'Max', text: 'Who is it for?' }] });
    expect(await mails('A question about Half told')).toEqual([{ to: 'contact@aaa.test' }]);

    const receipt = await callerByLink(scene, 'receipt', id);
    const page = (await receipt.call('GET', `/api/receipts/${id}`)).body as unknown as ReceiptShape;
    expect(page).toMatchObject({ state: 'asked_back', canWithdraw: true, messages: [{ author: 'agency', text: 'Who is it for?' }] });
    expect(JSON.stringify(page)).not.toMatch(/Max|Lea/);
    const other = await callerByLink(scene, 'ask', scene.b.linkId);
    const form = new FormData();
    form.append('file', new Blob(['of another client']), 'notes.txt');
    const foreign = String((await other.call('POST', `/api/ask/${scene.b.linkId}/files`, { body: form })).body['assetId']);
    const say = (assetIds: string[]) =>
      receipt.call('POST', `/api/receipts/${id}/messages`, { body: { text: 'For the trade.', assetIds } });
    expect((await say([foreign])).body['code']).toBe('file.unknown');
    expect((await say([])).body).toMatchObject({ state: 'new', messages: [{}, { author: 'requester', text: 'For the trade.' }] });
    expect(await get(id)).toMatchObject({ state: 'new', isRead: false });

    const { body } = await post(`${id}/accept`, piece('Told'));
    const made = (await manager.call('GET', `/api/pieces/${String((body['pieceIds'] as string[])[0])}`)).body;
    expect(made['brief']).toMatchObject({ requests: [{ messages: [{ text: 'Who is it for?' }, { text: 'For the trade.' }] }] });
    expect((await post(`${id}/ask-back`, { text: 'Late' })).body['code']).toBe('request.already_decided');
  });

  it('is taken back by its requester until somebody decides, and of both at once one is told', async () => {
    const id = await ask('Never mind');
    const receipt = await callerByLink(scene, 'receipt', id);
    const both = await Promise.all([receipt.call('POST', `/api/receipts/${id}/withdraw`), post(`${id}/accept`, piece('N'))]);
    expect(both.filter(({ status }) => status < 300)).toHaveLength(1);
    expect(both.find(({ status }) => status >= 300)?.body['code']).toBe('request.already_decided');
    const other = await ask('Never mind either');
    const theirs = await callerByLink(scene, 'receipt', other);
    expect((await theirs.call('POST', `/api/receipts/${other}/withdraw`)).body).toMatchObject({ state: 'withdrawn', canWithdraw: false });
    expect((await post(`${other}/decline`, { reason: 'X' })).body['code']).toBe('request.already_decided');
  });

  it('becomes several pieces at once, each with the whole brief, or none where one is wrong', async () => {
    const id = await ask('A big one');
    const wrong = await post(`${id}/accept`, { ...piece('1'), also: [piece('2'), { ...piece('3'), channelIds: [...scene.b.channelIds] }] });
    expect(wrong.body['code']).toBe('channel.unknown');
    expect(await get(id)).toMatchObject({ state: 'new', pieces: [] });
    const { body } = await post(`${id}/accept`, {
      ...piece('Teaser'),
      purpose: 'come',
      also: [piece('Main'), { ...piece('Look back'), wishOn: '2027-04-06' }],
    });
    expect(body['pieceIds']).toHaveLength(3);
    expect((await get(id)).pieces.map(({ title }) => title)).toEqual(['Teaser', 'Main', 'Look back']);
    const purposes = await scene.app.read('select purpose from pieces where id = any($1) order by title', [body['pieceIds']]);
    expect(purposes).toEqual([{ purpose: null }, { purpose: null }, { purpose: 'come' }]);
    expect(await mails('Accepted: A big one')).toHaveLength(1);
  });

  it('is merged with another: both briefs stay, what comes of one answers both, and both requesters hear', async () => {
    const [first, second] = [await ask('Same thing', undefined, 'one@aaa.test'), await ask('Same thing too', undefined, 'two@aaa.test')];
    expect((await post(`${second}/merge`, { intoId: second })).body['code']).toBe('request.unknown');
    expect((await post(`${second}/merge`, { intoId: first })).status).toBe(204);
    expect(await mails('Taken together: Same thing too')).toEqual([{ to: 'two@aaa.test' }]);
    expect(await get(second)).toMatchObject({ state: 'merged', mergedInto: { id: first, title: 'Same thing' } });
    const { body } = await post(`${first}/accept`, piece('Both'));
    const [pieceId] = body['pieceIds'] as [string];
    const made = (await manager.call('GET', `/api/pieces/${pieceId}`)).body;
    expect(made['brief']).toMatchObject({ requests: [{ title: 'Same thing' }, { title: 'Same thing too' }] });
    // what comes later is put to the same pieces, with what was merged into it before
    const [third, fourth] = [await ask('Same thing late'), await ask('Same thing later')];
    await post(`${fourth}/merge`, { intoId: third });
    expect((await post(`${third}/merge`, { intoId: first })).status).toBe(204);
    for (const id of [third, fourth])
      expect(await get(id)).toMatchObject({ state: 'merged', mergedInto: { id: first }, pieces: [{ id: pieceId }] });
    // taken up again it stands alone
    expect((await post(`${second}/reopen`)).status).toBe(204);
    expect(await get(second)).toMatchObject({ state: 'new', mergedInto: null, pieces: [] });
    expect((await get(first)).pieces).toHaveLength(1);
  });

  it('carries along what was merged before: it follows the one that stands, hears of it, and stands alone when that one is taken back', async () => {
    const [one, two, three] = [
      await ask('Fair', undefined, 'f1@aaa.test'),
      await ask('Fair again', undefined, 'f2@aaa.test'),
      await ask('Fair once more', undefined, 'f3@aaa.test'),
    ];
    const receipt = async (id: string) =>
      (await (await callerByLink(scene, 'receipt', id)).call('GET', `/api/receipts/${id}`)).body as unknown as ReceiptShape;
    await post(`${one}/merge`, { intoId: two });
    await post(`${two}/merge`, { intoId: three });
    expect([(await get(one)).mergedInto?.id, (await get(two)).mergedInto?.id]).toEqual([three, three]);
    expect(await receipt(one)).toMatchObject({ isMerged: true, state: 'new', canWithdraw: false });

    // who asked first does not need it any more: the others still do
    const theirs = await callerByLink(scene, 'receipt', three);
    expect((await theirs.call('POST', `/api/receipts/${three}/withdraw`)).status).toBe(200);
    expect([(await get(one)).state, (await get(two)).state, (await get(two)).isRead]).toEqual(['new', 'new', false]);

    await post(`${one}/merge`, { intoId: two });
    await post(`${two}/decline`, { reason: 'No fair this year.' });
    expect(await receipt(one)).toMatchObject({ isMerged: true, state: 'declined', declineReason: 'No fair this year.' });
    expect(await mails('Not taken on: Fair')).toEqual([{ to: 'f1@aaa.test' }]);
  });

  it('one is taken up again while the other is accepted: what comes of that does not come back to it', async () => {
    for (let round = 0; round < 4; round += 1) {
      const [child, parent] = [await ask(`Child ${round}`), await ask(`Parent ${round}`)];
      await post(`${child}/merge`, { intoId: parent });
      const waiting = async (least: number) => {
        const waits = "select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'";
        await eventually(async () => (await scene.app.read(waits)).length >= least);
      };
      let both: Promise<{ status: number }[]> | undefined;
      getValue(
        await scene.app.write(async (tx) => {
          await tx.query('select 1 from requests where id = $1 for update', [child]);
          const reopened = post(`${child}/reopen`);
          await waiting(1); // the one is at the lock, the other comes behind it
          both = Promise.all([reopened, post(`${parent}/accept`, piece(`P ${round}`))]);
          await waiting(2);
          return ok(null);
        }),
      );
      expect((await both)?.map(({ status }) => status < 300)).toEqual([true, true]);
      const { state, pieces } = await get(child);
      expect([state, pieces.length]).toEqual(['new', 0]);
      expect((await get(parent)).pieces).toHaveLength(1);
    }
  });

  it('takes so much from one requester and no more', async () => {
    const id = await ask('Chatty');
    await scene.app.read(
      "insert into request_messages (request_id, author, name, text, at) select $1, 'requester', 'Ann', 'x', '2027-03-01' from generate_series(1, 100)",
      [id],
    );
    const receipt = await callerByLink(scene, 'receipt', id);
    expect((await receipt.call('POST', `/api/receipts/${id}/messages`, { body: { text: 'More', assetIds: [] } })).body['code']).toBe(
      'ask.too_much',
    );
  });

  it('two merged into each other at once end in one that stands', async () => {
    const [one, two] = [await ask('Ring one'), await ask('Ring two')];
    const both = await Promise.all([post(`${one}/merge`, { intoId: two }), post(`${two}/merge`, { intoId: one })]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 422]);
  });

  it('is put to a piece that is there, of the same client alone', async () => {
    const id = await ask('Already under way');
    const [own, other] = [await makePiece(scene, scene.a), await makePiece(scene, scene.b)];
    expect((await post(`${id}/attach`, { pieceId: other })).body['code']).toBe('piece.unknown');
    expect((await post(`${id}/attach`, { pieceId: own })).status).toBe(204);
    expect(await get(id)).toMatchObject({ state: 'accepted', pieces: [{ id: own }] });
  });

  it('has an owner, who manages the client', async () => {
    const id = await ask('Whose');
    const put = (ownerId: string) => manager.call('PUT', `/api/requests/${id}/owner`, { body: { ownerId } });
    expect((await get(id)).ownerId).toBe(scene.people.manager.personId);
    expect((await put(scene.people.staff.personId)).body['code']).toBe('person.unknown');
    expect((await put(scene.people.lead.personId)).status).toBe(204);
    const mine = (await manager.call('GET', `/api/requests?ownerId=${scene.people.lead.personId}`)).body['items'];
    expect(mine).toMatchObject([{ id, title: 'Whose' }]);
  });

  it('is taken down by telephone, also for somebody without an address', async () => {
    const down = (body: object, key: string = randomUUID()) =>
      manager.call('POST', `/api/requests/taken-down/${scene.a.id}`, {
        body: { formId: scene.a.formId, name: 'Old Joe', email: null, ...body },
        headers: { 'Idempotency-Key': key },
      });
    expect((await manager.call('GET', `/api/requests/taken-down/${scene.a.id}`)).body).toMatchObject([
      { formId: scene.a.formId, title: 'Ask' },
    ]);
    expect((await down({ answers: {} })).body).toMatchObject({ code: 'request.answers_wrong', errors: { about: 'required' } });
    expect((await down({ formId: scene.b.formId, answers: { about: 'X' } })).body['code']).toBe('form.unknown');
    const [first, again] = [
      await down({ answers: { about: 'By telephone' } }, 'phone'),
      await down({ answers: { about: 'By telephone' } }, 'phone'),
    ];
    const id = String(first.body['requestId']);
    expect(again.body['requestId']).toBe(id);
    expect(await get(id)).toMatchObject({ way: 'telephone', requesterEmail: null, isRead: true, state: 'new', formTitle: 'Ask' });
    expect((await post(`${id}/ask-back`, { text: 'Who?' })).body['code']).toBe('request.no_address');
    expect((await post(`${id}/decline`, { reason: 'No' })).status).toBe(204);
    // the same key for another client is another request
    expect(
      (await manager.call('POST', `/api/requests/taken-down/${scene.b.id}`, { body: {}, headers: { 'Idempotency-Key': 'phone' } })).status,
    ).toBe(404);
    const mailed = await down({ email: 'joe@aaa.test', answers: { about: 'With address' } });
    expect(mailed.status).toBe(201);
  });

  it('is judged: what is missing as one question, the day, the hours, what is alike and what stands in the way', async () => {
    await scene.app.read(`update formats set needs = '["about", "audience", "page"]'`);
    await makePiece(scene, scene.a); // “A piece”, on both channels
    await scene.app.read(
      "insert into markers (client_id, kind, name, start_on, end_on) values ($1, 'blackout', 'Stocktaking', '2027-05-14', '2027-05-14'), ($1, 'launch', 'Spring range', '2027-05-17', '2027-05-17')",
      [scene.a.id],
    );
    const id = await ask('Piece about figs', '2027-05-14');
    expect(await verdict(id)).toMatchObject({
      word: 'ask',
      missing: ['audience', 'page'],
      question: 'So that we can begin, please tell us who it is for first of all and the page that they should reach.',
      isLaunch: true,
      keepsNotice: false,
      noticeOn: '2027-05-30',
      clashes: [{ kind: 'blackout', name: 'Stocktaking' }],
    });
    await scene.app.read("update formats set needs = '[]'");
    expect((await verdict(id)).word).toBe('look');
    const soon = await ask('In no time', '2027-03-02');
    const judged = await verdict(soon);
    expect(judged).toMatchObject({ word: 'not_by_then', wishOn: '2027-03-02' });
    expect(judged.slackDays).toBeLessThan(0);
    expect(judged.skills.length).toBeGreaterThan(0);
    for (const { minutes, freeMinutes, people } of judged.skills)
      expect([minutes > 0, freeMinutes !== null, people >= 0]).toEqual([true, true, true]);
    const twin = await ask('Piece about figs in spring', '2027-06-10');
    expect((await verdict(twin)).twins[0]).toMatchObject({
      kind: 'request',
      title: 'Piece about figs',
      sharedWords: ['piece', 'about', 'figs'],
    });
    expect((await manager.call('GET', `/api/requests/${twin}/verdict?routeId=${randomUUID()}`)).body['code']).toBe('route.unknown');
    expect((await verdict(twin, `?routeId=${scene.routeId}`)).routeId).toBe(scene.routeId);
  });

  it('stands in the order of how long it can wait, those without a day last', async () => {
    const [later, soon, never] = [await ask('Later', '2027-07-01'), await ask('Soon', '2027-03-02'), await ask('Whenever')];
    const list = (await manager.call('GET', '/api/requests?shown=open&order=danger')).body['items'] as {
      id: string;
      slackDays: number | null;
    }[];
    const at = (id: string) => list.findIndex((row) => row.id === id);
    expect([at(soon) < at(later), at(later) < at(never)]).toEqual([true, true]);
    const slack = list.map(({ slackDays }) => slackDays ?? Infinity);
    expect(slack).toEqual([...slack].sort((a, b) => (a === b ? 0 : a - b)));
    expect(list[at(soon)]?.slackDays).toBeLessThan(0);
    expect(list[at(never)]?.slackDays).toBeNull();
  });

  it('judges nothing by what another client has', async () => {
    await ask('Plum jam for all', undefined, 'x@bbb.test', scene.b.linkId);
    const id = await ask('Plum jam for all');
    expect((await verdict(id)).twins).toEqual([]);
  });
});
