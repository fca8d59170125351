import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { getValue } from '@zesting/core';
import { Caller, callerAs, callerByLink, filledIn, makeScene, NOW, type Scene } from '../../../test-support/scene.js';
import { clearUnusedFiles } from '../production/index.js';
import { acceptRequest, declineRequest, submitRequest } from './index.js';

describe('intake', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const submit = (title: string) =>
    submitRequest(scene.app, scene.a.linkId, { name: 'Ann', email: 'ann@aaa.test', answers: { about: title }, version: 1 }, randomUUID());
  const accept = (requestId: string, channelIds: readonly string[] = scene.a.channelIds) =>
    acceptRequest(scene.app, scene.people.manager, requestId, {
      title: 'T',
      routeId: scene.routeId,
      pillarId: null,
      channelIds: [...channelIds],
      wishOn: '2027-03-30',
    });

  it('takes fifty submissions at once with repeats: each request exactly once', async () => {
    const caller = await callerByLink(scene, 'ask', scene.a.linkId);
    const keys = Array.from({ length: 50 }, () => randomUUID());
    const send = (key: string) =>
      caller.call('POST', `/api/ask/${scene.a.linkId}/requests`, {
        body: filledIn(scene, scene.a.linkId, { about: `Many ${key}` }),
        headers: { 'Idempotency-Key': key },
      });
    const answers = await Promise.all([...keys, ...keys, ...keys.slice(0, 20)].map(send));
    expect(answers.map((answer) => answer.status)).toEqual(answers.map(() => 201));
    const rows = await scene.app.read<{ id: string; title: string }>("select id, title from requests where title like 'Many %'");
    expect(new Set(rows.map((row) => row.title)).size).toBe(50);
    expect(rows).toHaveLength(50);
    for (const [index, key] of keys.entries()) expect(answers[index]?.body).toEqual(answers[index + 50]?.body ?? key);
    const receipts = await scene.app.read<{ count: number }>(
      `select count(*) from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
       where t.identifier = 'mail_send' and j.payload::text like '%We have your request no. %'`,
    );
    expect(receipts[0]?.count).toBe(5); // to one address within an hour; none is sent, since nobody listens
    const notices = await scene.app.read<{ count: number }>(
      "select count(*) from notices where text like '%Many %' or heading like '%Many %'",
    );
    expect(notices[0]?.count).toBe(50); // for the manager, to go out in one round-up
  });

  it('refuses the same key for another request', async () => {
    const caller = await callerByLink(scene, 'ask', scene.a.linkId);
    const send = (about: string) =>
      caller.call('POST', `/api/ask/${scene.a.linkId}/requests`, {
        body: filledIn(scene, scene.a.linkId, { about }),
        headers: { 'Idempotency-Key': 'same' },
      });
    expect((await send('One')).status).toBe(201);
    expect((await send('Two')).body['code']).toBe('idempotency.other_body');
  });

  it('names every wrong field, and stores nothing', async () => {
    const caller = await callerByLink(scene, 'ask', scene.a.linkId);
    const answer = await caller.call('POST', `/api/ask/${scene.a.linkId}/requests`, {
      body: filledIn(scene, scene.a.linkId, { about: ' ', wish: '2027-02-30', files: [randomUUID()], nonsense: 'x' }),
      headers: { 'Idempotency-Key': randomUUID() },
    });
    expect([answer.status, answer.body['errors']]).toEqual([422, { about: 'required', wish: 'not_a_date', nonsense: 'unknown_field' }]);
    expect(
      (
        await caller.call('POST', `/api/ask/${scene.a.linkId}/requests`, {
          body: { name: '', email: 'no' },
          headers: { 'Idempotency-Key': 'k' },
        })
      ).body['errors'],
    ).toMatchObject({
      name: ['isNotBlank'],
      email: ['isEmail'],
      answers: ['isObject'],
    });
  });

  it('refuses files of another client, and files that are already part of a request', async () => {
    const other = await callerByLink(scene, 'ask', scene.b.linkId);
    const form = new FormData();
    form.append('file', new Blob(['plain text of client B']), 'notes.txt');
    const upload = await other.call('POST', `/api/ask/${scene.b.linkId}/files`, { body: form });
    expect(upload.body).toMatchObject({ mime: 'text/plain', name: 'notes.txt' });
    const steal = await submitRequest(
      scene.app,
      scene.a.linkId,
      { name: 'Ann', email: 'ann@aaa.test', answers: { about: 'X', files: [String(upload.body['assetId'])] }, version: 1 },
      randomUUID(),
    );
    expect(steal).toMatchObject({ ok: false, failure: { code: 'file.unknown' } });
  });

  it('tells types by content: a page or a script in a picture’s clothes is refused', async () => {
    const caller = await callerByLink(scene, 'ask', scene.a.linkId);
    for (const text of [
      '<!doctype html><script>alert(1)</script>',
      '<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>',
      '\u0000\u0001binary',
    ]) {
      const form = new FormData();
      form.append('file', new Blob([text], { type: 'image/png' }), 'picture.png');
      expect((await caller.call('POST', `/api/ask/${scene.a.linkId}/files`, { body: form })).body['code']).toBe('file.type_refused');
    }
  });

  it('refuses what is larger than the limit, and damaged pictures', async () => {
    const caller = await callerByLink(scene, 'ask', scene.a.linkId);
    const send = (bytes: Uint8Array<ArrayBuffer>) => {
      const form = new FormData();
      form.append('file', new Blob([bytes]), 'big.png');
      return caller.call('POST', `/api/ask/${scene.a.linkId}/files`, { body: form });
    };
    expect((await send(new Uint8Array(26 * 1024 * 1024))).body).toMatchObject({ status: 413, code: 'http.too_large' });
    const cut = new Uint8Array(64);
    cut.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52, 0, 0, 0, 8, 0, 0, 0, 8, 8, 2]);
    expect((await send(cut)).body['code']).toBe('file.broken');
  });

  it('accepts once: of two at the same time one is told that it was decided', async () => {
    const { requestId } = getValue(await submit('Race'));
    const results = await Promise.all([accept(requestId), accept(requestId)]);
    expect(results.map((result) => (result.ok ? 'accepted' : result.failure.code)).sort()).toEqual(['accepted', 'request.already_decided']);
    const pieces = await scene.app.read<{ stage: string; aim_on: string }>(
      'select stage, aim_on from pieces join piece_requests on piece_id = id where request_id = $1',
      [requestId],
    );
    expect(pieces).toEqual([{ stage: 'planned', aim_on: '2027-03-30' }]);
  });

  it('becomes one more piece when that is asked for, with the same brief, and the requester hears of it once', async () => {
    const { requestId } = getValue(await submit('Twice'));
    const manager = await callerAs(scene, 'manager');
    const add = (further: boolean, title: string) =>
      manager.call('POST', `/api/requests/${requestId}/accept`, {
        body: { title, routeId: scene.routeId, channelIds: scene.a.channelIds, wishOn: '2027-03-30', ...(further ? { further } : {}) },
      });
    const ids = ({ body }: { body: Record<string, unknown> }) => body['pieceIds'] as string[]; // AcceptedShape
    const first = await add(true, 'First'); // of one that is new it is simply the first
    const second = await add(true, 'Second');
    expect([first.status, second.status]).toEqual([201, 201]);
    expect((await add(false, 'Third')).body['code']).toBe('request.already_decided');
    expect((await manager.call('GET', `/api/requests/${requestId}`)).body['pieces']).toMatchObject([
      { id: ids(first)[0], title: 'First', stage: 'planned' },
      { id: ids(second)[0], title: 'Second', stage: 'planned' },
    ]);
    for (const answer of [first, second])
      expect((await manager.call('GET', `/api/pieces/${ids(answer)[0]}`)).body['brief']).toMatchObject({
        requests: [{ id: requestId, title: 'Twice', requesterName: 'Ann', answers: { about: 'Twice' } }],
      });
    expect(
      await scene.app.read(
        "select verb from activities where thing = 'request' and thing_id = $1 and verb <> 'request.received' order by id",
        [requestId],
      ),
    ).toEqual([{ verb: 'request.accepted' }, { verb: 'request.further_piece' }]);
    const mails = await scene.app.read<{ payload: { subject: string } }>(
      "select payload from graphile_worker._private_jobs where payload ->> 'subject' = 'Accepted: Twice'",
    );
    expect(mails).toHaveLength(1);
    // its sender sees how far the piece is that is least far
    const receipt = await callerByLink(scene, 'receipt', requestId);
    expect((await receipt.call('GET', `/api/receipts/${requestId}`)).body['progress']).toBe('planned');
    const other = getValue(await submit('Other'));
    expect((await manager.call('GET', `/api/requests/${other.requestId}`)).body['pieces']).toEqual([]);
  });

  it('refuses channels of another client, and leaves the request open', async () => {
    const { requestId } = getValue(await submit('Wrong channel'));
    expect(await accept(requestId, scene.b.channelIds)).toEqual({ ok: false, failure: { code: 'channel.unknown' } });
    const [row] = await scene.app.read<{ state: string }>('select state from requests where id = $1', [requestId]);
    expect(row?.state).toBe('new');
  });

  it('declines with a reason that the requester’s page shows; the page names nobody of the agency', async () => {
    const { requestId } = getValue(await submit('Not for us'));
    getValue(await declineRequest(scene.app, scene.people.manager, requestId, 'We have no room in March.'));
    const caller = await callerByLink(scene, 'receipt', requestId);
    const { body } = await caller.call('GET', `/api/receipts/${requestId}`);
    expect(body).toMatchObject({ state: 'declined', declineReason: 'We have no room in March.', progress: null });
    expect(JSON.stringify(body)).not.toMatch(/Max|Lea|Sia|Fay/);
  });

  it('does not mark as read by reading, only when told to', async () => {
    const { requestId } = getValue(await submit('Unread'));
    const manager = await callerAs(scene, 'manager');
    await manager.call('GET', `/api/requests/${requestId}`);
    expect((await manager.call('GET', `/api/requests/${requestId}`)).body['isRead']).toBe(false);
    await manager.call('POST', `/api/requests/${requestId}/read`);
    expect((await manager.call('GET', `/api/requests/${requestId}`)).body['isRead']).toBe(true);
  });

  it('pages through all requests without a gap or a repeat, unread first', async () => {
    const manager: Caller = await callerAs(scene, 'manager');
    const seen: string[] = [];
    let cursor: string | null = '';
    while (cursor !== null) {
      const { body } = await manager.call('GET', `/api/requests${cursor ? `?cursor=${cursor}` : ''}`);
      seen.push(...(body['items'] as { id: string }[]).map((item) => item.id)); // RequestPage
      cursor = body['nextCursor'] as string | null;
    }
    const [all] = await scene.app.read<{ count: number }>('select count(*) from requests where client_id = $1', [scene.a.id]);
    expect([seen.length, new Set(seen).size]).toEqual([all?.count, all?.count]);
  });

  it('takes so many requests through one link within an hour, says so clearly, and tells the manager once', async () => {
    const link = await callerByLink(scene, 'ask', scene.b.linkId);
    const send = () =>
      link.call('POST', `/api/ask/${scene.b.linkId}/requests`, {
        body: filledIn(scene, scene.b.linkId, { about: 'Flood' }),
        headers: { 'Idempotency-Key': randomUUID() },
      });
    const answers = await Promise.all(Array.from({ length: 70 }, send));
    const taken = answers.filter((answer) => answer.status === 201);
    expect(taken).toHaveLength(60);
    expect(answers.find((answer) => answer.status !== 201)).toMatchObject({ status: 429, body: { code: 'ask.too_much' } });
    const begin = (bytes: number) =>
      link.call('POST', `/api/ask/${scene.b.linkId}/uploads`, {
        headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': String(bytes), 'Upload-Metadata': `filename ${btoa('clip.mp4')}` },
      });
    const gigabytes = 1024 ** 3;
    await scene.app.read('update form_uses set bytes = 0, files = 0'); // what other tests sent
    const uploads = [];
    for (let count = 0; count < 7; count++) uploads.push((await begin(2 * gigabytes)).status);
    expect(uploads).toEqual([201, 201, 201, 201, 201, 429, 429]);
    const told = await scene.app.read("select 1 from notices where heading like 'Too much comes through a form%'");
    expect(told).toHaveLength(1); // client B has no manager: the lead
    scene.app.clock.set('2027-03-01T11:00:00Z');
    expect((await send()).status).toBe(201);
    scene.app.clock.set(NOW);
  });

  it('mails nothing that a stranger wrote to an address that nobody confirmed', async () => {
    const body = { name: 'Buy now', email: 'victim@x.test', answers: { about: 'Visit https://evil.test' }, version: 1 };
    getValue(await submitRequest(scene.app, scene.a.linkId, body, randomUUID()));
    const [mail] = await scene.app.read<{ text: string }>(
      "select payload::text as text from graphile_worker._private_jobs where payload ->> 'to' = 'victim@x.test'",
    );
    expect(mail?.text).toContain('We have your request no. ');
    expect(mail?.text).not.toMatch(/evil|Buy now|Visit/);
  });

  it('clears away files of forms that were never sent, and keeps those that something uses', async () => {
    const link = await callerByLink(scene, 'ask', scene.a.linkId);
    const upload = async (text: string) => {
      const file = new FormData();
      file.append('file', new Blob([text], { type: 'text/plain' }), 'note.txt');
      return String((await link.call('POST', `/api/ask/${scene.a.linkId}/files`, { body: file })).body['assetId']);
    };
    const [left, twin, used] = [await upload('nobody sent this'), await upload('shared words'), await upload('shared words')];
    const answers = { about: 'With a file', files: [used] };
    getValue(await submitRequest(scene.app, scene.a.linkId, { name: 'N', email: 'n@x.test', answers, version: 1 }, randomUUID()));
    const there = async () =>
      (await scene.app.read<{ id: string }>('select id from assets where id = any($1)', [[left, twin, used]])).map(({ id }) => id);
    expect(await clearUnusedFiles(scene.app)).toBe(0); // the form may still be sent
    scene.app.clock.set('2027-03-04T09:00:00Z');
    expect(await clearUnusedFiles(scene.app)).toBeGreaterThanOrEqual(2);
    expect(await there()).toEqual([used]);
    const [kept] = await scene.app.read<{ hash: string }>('select hash from assets where id = $1', [used]);
    expect(existsSync(scene.app.files.pathOf(kept?.hash ?? ''))).toBe(true);
    scene.app.clock.set(NOW);
  });
});
