import { getValue } from '@zesting/core';
import type { AskMaterialShape, DeskShape, MaterialOfPieceShape, PieceShape, RoomShape } from '@zesting/contract';
import sharp from 'sharp';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { sendReminders } from '../notices/index.js';
import { assignStep, changePiecePath } from '../production/index.js';

describe('material', () => {
  let scene: Scene;
  let manager: Caller;
  let contact: Caller;
  let pieceId = '';
  let stepId = '';
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    contact = await callerByLink(scene, 'room', scene.a.contactId);
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    scene.app.clock.set('2027-03-01T09:00:00Z');
    for (const table of ['materials', 'deliveries', 'notices', 'reminders', 'activities']) await scene.app.read(`delete from ${table}`);
    await scene.app.read("delete from graphile_worker._private_jobs where payload::text like '%mail.zesting%'");
    pieceId = await makePiece(scene, scene.a);
    stepId = await withDelivery(pieceId);
  });
  afterEach(() => scene.app.read("update pieces set shelved = true, list = null, stage = 'shelved'"));

  /** The client brings the pictures before anything is written. */
  async function withDelivery(id: string): Promise<string> {
    const beside = await stepOf(scene, id, 'write');
    const add = {
      kind: 'add',
      does: 'deliver',
      title: 'Pictures',
      skill: 'deliver',
      spanDays: 3,
      effortMinutes: 0,
      place: 'before',
    } as const;
    getValue(await changePiecePath(scene.app, scene.people.lead, id, [{ ...add, stepId: beside }]));
    const [row] = await scene.app.read<{ id: string }>("select id from steps where piece_id = $1 and kind = 'deliver'", [id]);
    return row?.id ?? '';
  }
  const ask = (body: object = {}, of = stepId) =>
    manager.call('POST', `/api/steps/${of}/asking`, {
      body: { contactId: scene.a.contactId, words: 'Three of the bakery, wide', dueOn: '2027-03-05', alsoIds: [], ...body },
    });
  const asking = async () => (await manager.call('GET', `/api/steps/${stepId}/asking`)).body as unknown as AskMaterialShape;
  const list = async (by = manager) => (await by.call('GET', `/api/pieces/${pieceId}/material`)).body as unknown as MaterialOfPieceShape;
  const piece = async () => (await manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
  const listOf = async () => (await scene.app.read<{ list: string }>('select list from pieces where id = $1', [pieceId]))[0]?.list;
  const room = `/api/room/`;
  const inRoom = async () => ((await contact.call('GET', `${room}${scene.a.contactId}`)).body as unknown as RoomShape).deliveries;
  const bring = (path: string, body: object, by = contact, of = scene.a.contactId) =>
    by.call('POST', `${room}${of}/deliveries/${stepId}/${path}`, { body });
  const mails = async () =>
    (
      await scene.app.read<{ subject: string }>(
        "select payload ->> 'subject' as subject from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id where t.identifier = 'mail_send' and payload ->> 'to' = 'contact@aaa.test' order by j.id",
      )
    ).map(({ subject }) => subject);
  const told = async () =>
    (await scene.app.read<{ heading: string }>('select heading from notices order by id')).map(({ heading }) => heading);
  const picture = () =>
    sharp({ create: { width: 8, height: 6, channels: 3, background: '#c80' } })
      .png()
      .toBuffer();

  it('is asked of the client, brought bit by bit, and lets the work begin', async () => {
    // what comes after it has nobody yet: that is no hurry before the client has been asked
    expect(await listOf()).toBe('to_be_asked');
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.staff.personId));
    // the client works on Monday to Friday, and the plan leaves a day for it
    const before = await asking();
    expect(before).toMatchObject({ contactId: scene.a.contactId, words: '', others: [] });
    const path = (await piece()).steps.find(({ id }) => id === stepId);
    expect(path).toMatchObject({
      kind: 'deliver',
      skill: 'deliver',
      doerName: 'the client',
      latestFinishOn: before.dueOn,
      effortMinutes: 0,
    });
    expect((await manager.call('POST', `/api/steps/${stepId}/hand-in`)).body).toMatchObject({ code: 'step.client_decides' });
    expect((await ask()).status).toBe(204);
    expect(await mails()).toEqual(['We need something from you: Pictures: A piece']);
    expect(await listOf()).not.toBe('to_be_asked');
    expect(await inRoom()).toMatchObject([
      { stepId, title: 'Pictures', pieceTitle: 'A piece', words: 'Three of the bakery, wide', dueOn: '2027-03-05', brought: [] },
    ]);

    expect((await bring('done', { words: ' ' })).body).toMatchObject({ code: 'material.nothing_yet' });
    // what was taken out again is nothing
    const mistake = await bring('material', { label: '', text: 'Wrong' });
    await contact.call('DELETE', `${room}${scene.a.contactId}/deliveries/${stepId}/material/${String(mistake.body['materialId'])}`);
    expect((await bring('done', { words: '' })).body).toMatchObject({ code: 'material.nothing_yet' });
    expect((await bring('material', { label: 'Folder', url: 'https://files.test/x' })).status).toBe(201);
    const second = await bring('material', { label: '', text: ' The left one is the owner. ' });
    expect((await inRoom())[0]?.brought).toMatchObject([
      { label: 'Folder', url: 'https://files.test/x' },
      { text: 'The left one is the owner.' },
    ]);
    const gone = `${room}${scene.a.contactId}/deliveries/${stepId}/material/${String(second.body['materialId'])}`;
    expect((await contact.call('DELETE', gone)).status).toBe(204);
    expect((await inRoom())[0]?.brought).toHaveLength(1);
    expect((await bring('done', { words: 'More next week' })).status).toBe(204);
    expect((await bring('done', { words: 'again' })).body).toMatchObject({ code: 'step.already_finished' });
    expect((await contact.call('DELETE', gone.replace(/[^/]+$/, String((await inRoom())[0]?.brought[0]?.id)))).body).toMatchObject({
      code: 'step.already_finished',
    });

    expect(await list()).toMatchObject({
      material: [{ sort: 'original', label: 'Folder', by: 'Contact AAA', isFromClient: true, stepId }],
      deliveries: [
        {
          stepTitle: 'Pictures',
          contactName: 'Contact AAA',
          askedBy: 'Max',
          times: 1,
          broughtBy: 'Contact AAA',
          broughtWords: 'More next week',
        },
      ],
    });
    const after = (await piece()).steps;
    expect(after.find(({ id }) => id === stepId)?.finishedOn).toBe('2027-03-01');
    expect(after.find(({ title }) => title === 'Write')?.atHand).toBe(true);
    expect(await told()).toEqual(expect.arrayContaining(['Write: A piece', 'It has come: Pictures, A piece']));
    // what is brought later is kept, and told
    expect((await bring('material', { label: 'One more', text: 'x' })).status).toBe(201);
    expect(await told()).toContain('More has come: A piece');
  });

  it('comes as files that were uploaded to the room, once each, and never from another client’s', async () => {
    const upload = async (by: Caller, contactId: string): Promise<string> => {
      const bytes = await picture();
      const begun = await by.call('POST', `${room}${contactId}/uploads`, {
        headers: {
          'Tus-Resumable': '1.0.0',
          'Upload-Length': String(bytes.length),
          'Upload-Metadata': `filename ${Buffer.from('bakery.png').toString('base64')}`,
        },
      });
      if (begun.status !== 201) return String(begun.status);
      const where = new URL(begun.headers.get('location') ?? '', scene.address).pathname;
      await fetch(`${scene.address}${where}`, {
        method: 'PATCH',
        headers: {
          'Tus-Resumable': '1.0.0',
          'Upload-Offset': '0',
          'Content-Type': 'application/offset+octet-stream',
          Cookie: [...by.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
        },
        body: new Uint8Array(bytes),
      });
      return String((await by.call('POST', `${where}/file`)).body['assetId']);
    };
    expect(await upload(contact, scene.a.contactId)).toBe('404'); // nothing was asked of them
    await ask();
    const assetId = await upload(contact, scene.a.contactId);
    expect((await bring('material', { label: '', assetId })).status).toBe(201);
    expect((await bring('material', { label: '', assetId })).body).toMatchObject({ code: 'file.unknown' });
    expect((await list()).material).toMatchObject([
      { file: { assetId, name: 'bakery.png', mime: 'image/png', width: 8 }, isInContent: false },
    ]);
    // the makers open it as it is: it is nothing that the client is to approve
    const opened = await manager.call('GET', `/api/files/${assetId}`);
    expect([opened.status, opened.headers.get('content-type')]).toEqual([200, 'image/png']);
    const other = await callerByLink(scene, 'room', scene.b.contactId);
    expect((await bring('material', { label: '', text: 'x' }, other, scene.b.contactId)).status).toBe(404);
    expect((await bring('done', { words: 'x' }, other, scene.b.contactId)).status).toBe(404);
  });

  it('is asked for in one mail with what else the client can bring, and again where it was not enough', async () => {
    const second = await makePiece(scene, scene.a);
    const also = await withDelivery(second);
    expect((await asking()).others).toMatchObject([{ stepId: also, stepTitle: 'Pictures', pieceTitle: 'A piece' }]);
    expect((await ask({ alsoIds: [also] })).status).toBe(204);
    expect(await mails()).toEqual(['We need 2 things from you']);
    expect((await inRoom()).map((one) => one.words).sort()).toEqual(['', 'Three of the bakery, wide']);
    expect((await manager.call('POST', `/api/steps/${stepId}/brought`, { body: { words: 'By mail' } })).status).toBe(204);
    expect((await ask({ words: 'They are too small', dueOn: '2027-03-08' })).status).toBe(204);
    expect((await piece()).steps.find(({ id }) => id === stepId)?.finishedOn).toBeNull();
    expect((await list()).deliveries).toMatchObject([{ times: 2, words: 'They are too small', broughtAt: null }]);
    // once somebody builds on it, it is not taken from under them
    await manager.call('POST', `/api/steps/${stepId}/brought`, { body: { words: '' } });
    await manager.call('POST', `/api/steps/${await stepOf(scene, pieceId, 'write')}/begin`);
    expect((await ask()).body).toMatchObject({ code: 'path.follower_begun' });
  });

  it('is refused where it cannot be asked', async () => {
    const foreign = await withDelivery(await makePiece(scene, scene.b));
    const cases: [object, string][] = [
      [{ dueOn: '2027-03-06' }, 'packet.due_on_day_off'], // a Saturday
      [{ dueOn: '2027-02-26' }, 'packet.due_in_past'],
      [{ contactId: scene.b.contactId }, 'contact.unknown'],
      [{ alsoIds: [foreign] }, 'piece.other_client'],
      [{ alsoIds: [await stepOf(scene, pieceId, 'write')] }, 'step.not_a_delivery'],
    ];
    for (const [body, code] of cases) expect((await ask(body)).body).toMatchObject({ code });
    expect(await mails()).toEqual([]);
    expect((await ask({}, await stepOf(scene, pieceId, 'write'))).body).toMatchObject({ code: 'step.not_a_delivery' });
  });

  it('is reminded of by the client’s working time, and its manager told once the day has passed', async () => {
    await ask();
    const at = async (now: string) => {
      scene.app.clock.set(now);
      await sendReminders(scene.app);
      return mails();
    };
    expect(await at('2027-03-01T16:00:00Z')).toHaveLength(1);
    expect(await at('2027-03-03T10:00:00Z')).toContain('A reminder: Pictures: A piece, by Friday 5 March 2027');
    expect(await at('2027-03-03T11:00:00Z')).toHaveLength(2);
    expect((await at('2027-03-05T10:00:00Z')).at(-1)).toBe('A reminder: Pictures: A piece, today');
    await at('2027-03-08T10:00:00Z');
    expect(await told()).toContain('Has not come: Pictures, A piece');
    await scene.app.read("update pieces set wish_on = '2027-05-25' where id = $1", [pieceId]);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.staff.personId));
    expect(await listOf()).toBe('with_client_past_due');
    const desk = (await manager.call('GET', '/api/desk')).body as unknown as DeskShape;
    expect(desk.rows.find(({ id }) => id === pieceId)).toMatchObject({
      materialDueOn: '2027-03-05',
      packetDueOn: null,
      waitsForWord: false,
    });
    // what has come is reminded of no more
    await bring('done', { words: 'Here' });
    expect(await at('2027-03-09T10:00:00Z')).toHaveLength(3);
  });

  it('of the team is one thing each, is taken away and put back, and names who put it there', async () => {
    const add = (body: object, by = manager) =>
      by.call('POST', `/api/pieces/${pieceId}/material`, { body: { sort: 'reference', label: '', ...body } });
    expect((await add({})).body).toMatchObject({ code: 'material.not_one' });
    expect((await add({ url: 'https://x.test', text: 'both' })).body).toMatchObject({ code: 'material.not_one' });
    expect((await add({ url: 'javascript:alert(1)' })).status).toBe(400);
    const { body } = await add({ sort: 'transcript', text: 'What was said' });
    const staff = await callerAs(scene, 'staff');
    expect((await add({ text: 'x' }, staff)).status).toBe(404); // has no step of it
    expect((await list(staff)).material).toMatchObject([{ sort: 'transcript', text: 'What was said', by: 'Max', isFromClient: false }]);
    const one = `/api/material/${String(body['materialId'])}`;
    expect((await manager.call('DELETE', one)).status).toBe(204);
    expect((await list()).material).toEqual([]);
    expect((await manager.call('POST', `${one}/restore`)).status).toBe(204);
    expect((await list()).material).toHaveLength(1);
    const verbs = await scene.app.read<{ verb: string }>("select verb from activities where verb like 'material.%' order by id");
    expect(verbs.map(({ verb }) => verb)).toEqual(['material.added', 'material.removed', 'material.restored']);
  });

  it('said to be all by the contact and recorded by the manager at once is done once', async () => {
    await ask();
    await bring('material', { label: '', text: 'x' });
    const [one, other] = await Promise.all([
      bring('done', { words: '' }),
      manager.call('POST', `/api/steps/${stepId}/brought`, { body: { words: 'by hand' } }),
    ]);
    expect([one.status, other.status].sort()).toEqual([204, 409]);
    const said = await scene.app.read("select 1 from activities where verb = 'material.brought' and thing_id = $1", [pieceId]);
    expect(said).toHaveLength(1);
  });
});
