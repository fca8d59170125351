import { randomUUID } from 'node:crypto';
import { getValue } from '@zesting/core';
import sharp from 'sharp';
import { callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { addPieceFile, editContent, handIn } from '../production/index.js';
import { submitRequest } from '../intake/index.js';
import { sendPacket } from './index.js';

describe('the client’s room', () => {
  let scene: Scene;
  let room: Caller;
  let pieceId: string;
  let assetId: string;
  const address = () => `/api/room/${scene.a.contactId}`;
  const file = async (id: string, color: string) =>
    getValue(
      await addPieceFile(scene.app, id, {
        name: 'picture.png',
        bytes: await sharp({ create: { width: 8, height: 8, channels: 3, background: color } })
          .png()
          .toBuffer(),
      }),
    ).assetId;

  beforeAll(async () => {
    scene = await makeScene();
    const { app, people } = scene;
    pieceId = await makePiece(scene, scene.a);
    assetId = await file(pieceId, '#fff');
    const feed = {
      channelId: scene.a.channelIds[0] ?? '',
      copy: 'On the feed',
      tags: ['one', 'two'],
      firstComment: 'First',
      link: 'https://a.test',
    };
    getValue(
      await editContent(
        app,
        people.manager,
        pieceId,
        { shared: { copy: 'For all', disclosure: 'Paid', media: [{ assetId, alt: 'White' }] }, channels: [feed] },
        1,
      ),
    );
    const [placement] = await app.read<{ id: string; version: number }>(
      'select l.id, l.version from placements l join channels h on h.id = l.channel_id where piece_id = $1 order by h.position',
      [pieceId],
    );
    getValue(await movePlacement(app, people.manager, placement?.id ?? '', { on: '2027-03-30', at: '09:15' }, placement?.version ?? 0));
    for (const key of ['write', 'design', 'check']) getValue(await handIn(app, people.manager, await stepOf(scene, pieceId, key)));
    getValue(
      await sendPacket(app, people.manager, scene.a.id, {
        title: 'March',
        message: 'Have a look',
        pieceIds: [pieceId],
        dueOn: '2027-03-10',
      }),
    );
    room = await callerByLink(scene, 'room', scene.a.contactId);
  });
  afterAll(() => scene.close());
  const submit = async (about: string, email: string) =>
    getValue(await submitRequest(scene.app, scene.a.linkId, { name: 'N', email, answers: { about }, version: 1 }, randomUUID()));

  it('shows each piece as it will appear on each channel, with its date there', async () => {
    const { body } = await room.call('GET', address());
    expect(body).toMatchObject({
      contactName: 'Contact AAA',
      canDecide: true,
      packets: [
        {
          title: 'March',
          message: 'Have a look',
          dueOn: '2027-03-10',
          isPastDue: false,
          pieces: [
            {
              round: 1,
              roundsAgreed: 2,
              outcome: null,
              mine: null,
              disclosure: 'Paid',
              media: [{ assetId, alt: 'White', width: 8 }],
              channels: [
                {
                  name: 'Photo feed',
                  copy: 'On the feed',
                  tags: ['one', 'two'],
                  firstComment: 'First',
                  link: 'https://a.test',
                  on: '2027-03-30',
                  at: '09:15',
                },
                { name: 'Blog', copy: 'For all', tags: [], on: null, at: null },
              ],
            },
          ],
        },
      ],
    });
  });

  it('shows what was sent, not what is being worked on, and names nobody of the agency', async () => {
    const [row] = await scene.app.read<{ content_version: number }>('select content_version from pieces where id = $1', [pieceId]);
    getValue(
      await editContent(
        scene.app,
        scene.people.manager,
        pieceId,
        { shared: { copy: 'Secret next words', disclosure: '', media: [] }, channels: [] },
        row?.content_version ?? 0,
      ),
    );
    const text = JSON.stringify((await room.call('GET', address())).body);
    expect(text).toContain('For all');
    expect(text).not.toMatch(/Secret next words|Max|Lea|Sia|Fay|BBB|slack|danger/);
  });

  it('gives out the files that were sent to this contact and no others', async () => {
    const unsent = await file(pieceId, '#000');
    expect((await room.call('GET', `${address()}/files/${assetId}`)).status).toBe(200);
    expect((await room.call('GET', `${address()}/files/${unsent}`)).status).toBe(404);
    const other = await callerByLink(scene, 'room', scene.b.contactId);
    expect((await other.call('GET', `/api/room/${scene.b.contactId}/files/${assetId}`)).status).toBe(404);
    expect((await other.call('GET', `${address()}/files/${assetId}`)).status).toBe(401);
  });

  it('shows pictures clean within a page, and marked where they are opened or downloaded', async () => {
    const { app } = scene;
    const [stored] = await app.read<{ hash: string }>('select hash from assets where id = $1', [assetId]);
    const tag = async (destination: string) =>
      (await room.call('GET', `${address()}/files/${assetId}`, { headers: { 'Sec-Fetch-Dest': destination } })).headers.get('etag');
    expect(await tag('image')).toBe(`"${stored?.hash ?? ''}"`);
    expect(await tag('document')).not.toBe(`"${stored?.hash ?? ''}"`);
    expect(await tag('empty')).not.toBe(`"${stored?.hash ?? ''}"`);
  });

  it('shows who may look the weeks ahead and the own requests, and who may ask where', async () => {
    const { app, a } = scene;
    const rights = (canAsk: boolean, canView: boolean) =>
      app.read('update contacts set can_ask = $2, can_view = $3 where id = $1', [a.contactId, canAsk, canView]);
    const look = async () => (await room.call('GET', address())).body;
    await rights(false, false);
    expect(await look()).toMatchObject({ askAddress: null, view: null });
    await rights(true, true);
    // one that was never sent to the client, and one of another client
    const [unsent, other] = [await makePiece(scene, a), await makePiece(scene, scene.b)];
    // by the use case: a job that plans the piece at this moment waits for it
    const date = async (piece: string) => {
      const placements = await app.read<{ id: string; version: number }>('select id, version from placements where piece_id = $1', [piece]);
      for (const { id, version } of placements)
        getValue(await movePlacement(app, scene.people.lead, id, { on: '2027-03-09', at: '08:00' }, version));
    };
    await date(unsent);
    await date(other);
    await submit('Mine', 'CONTACT@aaa.test');
    await submit('Not mine', 'somebody@else.test');
    const seen = await look();
    expect(String(seen['askAddress'])).toMatch(/\/ask\//);
    expect(seen['view']).toMatchObject({
      entries: [
        { on: '2027-03-09', channelName: 'Photo feed', title: null, state: 'pencilled' },
        { on: '2027-03-09', channelName: 'Blog', title: null, state: 'pencilled' },
        { on: '2027-03-30', at: '09:15', channelName: 'Photo feed', title: 'A piece', state: 'pencilled' },
      ],
      more: 0,
      requests: [
        { title: 'Mine', state: 'new', askedBy: null },
        { title: 'Not mine', state: 'new', askedBy: 'N', address: null },
      ],
    });
    await app.read('update clients set feed_pencilled = false where id = $1', [a.id]);
    expect((await look())['view']).toMatchObject({ entries: [] });
    await app.read('update clients set feed_pencilled = true where id = $1', [a.id]);
    await app.read('update form_links set link_open = false where client_id = $1', [a.id]);
    expect((await look())['askAddress']).toBeNull();
    await app.read('update form_links set link_open = true where client_id = $1', [a.id]);
    await app.read('update pieces set shelved = true where id = $1', [unsent]);
  });

  it('takes a decision once, by a POST alone, and tells it the next time the room is opened', async () => {
    const look = async () =>
      (
        (await room.call('GET', address())).body['packets'] as {
          id: string;
          isClosed: boolean;
          pieces: { versionId: string; mine: string | null }[];
        }[]
      )[0]; // RoomShape
    const packet = await look();
    const body = { packetId: packet?.id, pieceId, versionId: packet?.pieces[0]?.versionId, verdict: 'approve', things: [] };
    expect((await look())?.pieces[0]?.mine).toBeNull();
    expect((await room.call('POST', `${address()}/decisions`, { body })).body).toEqual({ outcome: 'approved', round: 1 });
    expect((await room.call('POST', `${address()}/decisions`, { body })).body).toEqual({ outcome: 'approved', round: 1 }); // a second tap
    const other = { ...body, verdict: 'changes', things: [{ text: 'Warmer' }] };
    expect((await room.call('POST', `${address()}/decisions`, { body: other })).body['code']).toBe('decision.closed');
    expect(await look()).toMatchObject({ isClosed: true, pieces: [{ mine: 'approve' }] });
  });
});
