import sharp from 'sharp';
import { getValue } from '@zesting/core';
import type { ContentTextBody, RemarksShape, RoomShape } from '@zesting/contract';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { addPieceFile, assignStep, editContent } from '../production/index.js';
import { signOffRecord } from '../sign-off/queries/sign-off-record.js';

const COPY = 'The oven is hot. We bake at five.';

describe('remarks', () => {
  let scene: Scene;
  let way: ReturnType<typeof signOffIn>;
  let [lead, manager, staff, freelance, contact]: Caller[] = [];
  let [pieceId, pictureId] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    way = signOffIn(scene);
    [lead, manager, staff, freelance] = await Promise.all(
      (['lead', 'manager', 'staff', 'freelance'] as const).map((role) => callerAs(scene, role)),
    );
    contact = await callerByLink(scene, 'room', scene.a.contactId);
  });
  afterAll(() => scene.close());

  const write = async (copy: string, onFeed = '', texts: ContentTextBody[] = []) => {
    const [row] = await scene.app.read<{ content_version: number }>('select content_version from pieces where id = $1', [pieceId]);
    const feed = { channelId: scene.a.channelIds[0] ?? '', copy: onFeed, tags: [], firstComment: '', link: '' };
    const content = { shared: { copy, disclosure: '', media: [{ assetId: pictureId, alt: '' }], texts }, channels: [feed] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, content, row?.content_version ?? 0));
  };
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from notices');
    pieceId = await makePiece(scene, scene.a);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    pictureId = getValue(await addPieceFile(scene.app, pieceId, { name: 'a.png', bytes })).assetId;
    await write(COPY, 'On the feed');
  });

  const path = () => `/api/pieces/${pieceId}/remarks`;
  const say = (who: Caller | undefined, body: object) =>
    who?.call('POST', path(), { body: { text: 'Warmer', audience: 'team', mentionIds: [], ...body } });
  const seen = async (who: Caller | undefined) => (await who?.call('GET', path()))?.body as unknown as RemarksShape;
  const oven = { kind: 'stretch', channelId: null, from: 0, to: 16, words: 'The oven is hot.' };
  const corner = () => ({ kind: 'region', assetId: pictureId, x: 0, y: 0, width: 2000, height: 2000 });
  const send = async () => {
    await way.make(pieceId);
    return getValue(await way.send(scene.a, [pieceId]));
  };
  const inRoom = async () => {
    const { body } = (await contact?.call('GET', `/api/room/${scene.a.contactId}`)) ?? {};
    const room = body as unknown as RoomShape;
    return room.packets.flatMap(({ pieces }) => pieces).filter((piece) => piece.pieceId === pieceId);
  };
  const told = () => scene.app.read("select person_id, path, text from notices where key like 'remark:%' order by text");

  it('stand at a place in the working copy, with what stood there', async () => {
    expect((await say(freelance, { place: oven }))?.status).toBe(201);
    scene.app.clock.set('2027-03-01T09:10:00Z');
    await say(staff, { text: 'Too dark', place: corner() });
    const { remarks } = await seen(lead);
    expect(
      remarks.map(({ authorName, text, place, isContact, audience, canRemove }) => [
        authorName,
        text,
        place,
        isContact,
        audience,
        canRemove,
      ]),
    ).toEqual([
      [scene.people.freelance.name, 'Warmer', { kind: 'stretch', channelId: null, from: 0, to: 16, onText: COPY }, false, 'team', true],
      [
        scene.people.staff.name,
        'Too dark',
        { kind: 'region', assetId: pictureId, number: 1, x: 0, y: 0, width: 2000, height: 2000 },
        false,
        'team',
        true,
      ],
    ]);
    expect((await seen(freelance)).remarks.map(({ canRemove }) => canRemove)).toEqual([true, false]);
  });

  it('are refused at a place that is not there, and bodies that point nowhere', async () => {
    for (const place of [
      { ...oven, words: 'Other words' },
      { ...oven, channelId: scene.a.channelIds[1] },
      { ...oven, textKey: 'subject' },
      { ...corner(), assetId: scene.a.id },
      { ...corner(), x: 9000 },
      { kind: 'moment', assetId: pictureId, atMs: 0 },
    ])
      expect([(await say(manager, { place }))?.body['code'], place]).toEqual(['remark.place_unknown', place]);
    for (const place of [
      { kind: 'spot' },
      { kind: 'stretch', from: 0, to: 2 },
      { kind: 'region', assetId: pictureId },
      { ...oven, from: -1 },
      { ...oven, textKey: 'Not a key' },
      'here',
    ])
      expect((await say(manager, { place }))?.body['code']).toBe('http.invalid');
    expect((await say(manager, { text: ' ' }))?.body['code']).toBe('http.invalid');
    expect((await seen(manager)).remarks).toEqual([]);
  });

  it('tell who is mentioned, in their round-up, and nobody once they are taken back', async () => {
    const { team } = await seen(lead);
    expect(team.map(({ personId }) => personId)).toContain(scene.people.freelance.personId);
    await say(lead, { mentionIds: [scene.people.freelance.personId] });
    const [remark] = (await seen(lead)).remarks;
    expect(remark?.mentioned).toEqual([scene.people.freelance.name]);
    const reply = { text: 'How?', audience: 'team', mentionIds: [scene.people.lead.personId] };
    expect((await freelance?.call('POST', `/api/remarks/${remark?.id}/replies`, { body: reply }))?.status).toBe(204);
    expect(await told()).toEqual([
      {
        person_id: scene.people.lead.personId,
        path: `/pieces/${pieceId}/remarks`,
        text: `${scene.people.freelance.name} remarked: “How?”`,
      },
      {
        person_id: scene.people.freelance.personId,
        path: `/pieces/${pieceId}/remarks`,
        text: `${scene.people.lead.name} remarked: “Warmer”`,
      },
    ]);
    // only one's own, unless one manages
    expect((await freelance?.call('DELETE', `/api/remarks/${remark?.id}`))?.body['code']).toBe('note.of_another');
    expect((await manager?.call('DELETE', `/api/remarks/${remark?.id}`))?.status).toBe(204);
    expect([await told(), (await seen(lead)).remarks]).toEqual([[], []]);
    const again = await freelance?.call('POST', `/api/remarks/${remark?.id}/replies`, { body: { ...reply, mentionIds: [] } });
    expect(again?.body['code']).toBe('note.removed');
    const settled = await lead?.call('PATCH', `/api/remarks/${remark?.id}`, { body: { state: 'settled' } });
    expect(settled?.body['code']).toBe('note.removed');
    // who cannot see the piece cannot be told of it
    const stranger = { mentionIds: [scene.people.staff.personId] };
    const relate = (relation: string) =>
      scene.app.read('update client_people set relation = $3 where person_id = $1 and client_id = $2', [
        scene.people.staff.personId,
        scene.a.id,
        relation,
      ]);
    expect((await say(lead, stranger))?.status).toBe(201);
    await relate('barred');
    expect((await say(lead, stranger))?.body['code']).toBe('person.unknown');
    await relate('own');
  });

  it('of the team stay with the team: not in the room, not in the record, and hold nothing up', async () => {
    await say(staff, { text: 'Hidden from them', place: oven });
    const [remark] = (await seen(lead)).remarks;
    await lead?.call('POST', `/api/remarks/${remark?.id}/replies`, { body: { text: 'Hidden, too', audience: 'team', mentionIds: [] } });
    const refused = await lead?.call('POST', `/api/remarks/${remark?.id}/replies`, {
      body: { text: 'X', audience: 'client', mentionIds: [] },
    });
    expect(refused?.body['code']).toBe('remark.of_team');
    await way.make(pieceId);
    const ready = await lead?.call('GET', `/api/clients/${scene.a.id}/ready`);
    const pieces = ready?.body['pieces'] as { pieceId: string; openRemarks: number; openTeamRemarks: number }[]; // ReadyShape
    expect(pieces.find((piece) => piece.pieceId === pieceId)).toMatchObject({ openRemarks: 0, openTeamRemarks: 1 });
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    getValue(await way.say(packetId, pieceId, 'approve'));
    const room = await inRoom();
    expect(room).toHaveLength(1);
    expect(JSON.stringify(room)).not.toContain('Hidden');
    expect(JSON.stringify(await signOffRecord(scene.app, pieceId))).not.toContain('Hidden');
    const reply = await contact?.call('POST', `/api/room/${scene.a.contactId}/remarks/${remark?.id}/replies`, { body: { text: 'Oh' } });
    expect(reply?.body['code']).toBe('access.not_found');
  });

  it('to the client are written by those who manage, shown where they stand in what was sent, and answered in the room', async () => {
    expect((await say(freelance, { audience: 'client' }))?.body['code']).toBe('remark.for_client_by_managers');
    await say(manager, {
      text: 'Five in the summer only',
      audience: 'client',
      place: { ...oven, from: 17, to: 33, words: 'We bake at five.' },
    });
    await say(manager, { text: 'Never sent', audience: 'client', place: oven });
    await write('Good morning. We bake at five.');
    await send();
    const [piece] = await inRoom();
    expect(piece?.notes.map(({ text, where, place }) => [text, where, place])).toEqual([
      [
        'Five in the summer only',
        '“We bake at five.”',
        { kind: 'stretch', channelId: null, from: 14, to: 30, onText: 'Good morning. We bake at five.' },
      ],
      // what it spoke of was changed before it was sent: of the old words nothing is told
      ['Never sent', '“Good morning.”', expect.objectContaining({ from: 0, to: 13 })],
    ]);
    expect(JSON.stringify(piece)).not.toContain('oven');
    const [note] = piece?.notes ?? [];
    const answer = await contact?.call('POST', `/api/room/${scene.a.contactId}/remarks/${note?.id}/replies`, {
      body: { text: 'Good to know' },
    });
    expect(answer?.status).toBe(204);
    await lead?.call('POST', `/api/remarks/${note?.id}/replies`, { body: { text: 'Between us', audience: 'team', mentionIds: [] } });
    const [after] = await inRoom();
    expect(after?.notes[0]?.replies.map(({ authorName, isContact, text }) => [authorName, isContact, text])).toEqual([
      ['Contact AAA', true, 'Good to know'],
    ]);
    expect((await seen(lead)).remarks.find(({ id }) => id === note?.id)?.replies.map(({ text }) => text)).toEqual([
      'Good to know',
      'Between us',
    ]);
    const heard = await scene.app.read<{ text: string }>("select text from notices where text like 'Contact AAA answers%'");
    expect(heard.length).toBeGreaterThan(0);
    // another client's contact reads and answers nothing of it
    const stranger = await callerByLink(scene, 'room', scene.b.contactId);
    const other = await stranger.call('POST', `/api/room/${scene.b.contactId}/remarks/${note?.id}/replies`, { body: { text: 'X' } });
    expect(other.body['code']).toBe('access.not_found');
  });

  it('of a contact are asked for at places in the version, kept in words in the record, and followed into the next', async () => {
    const text = { key: 'subject', name: 'Subject', isLong: false, prompt: '', limit: null, isNeeded: false };
    await scene.app.read('update formats set texts = $1', [JSON.stringify([text])]);
    await write(COPY, 'On the feed', [{ key: 'subject', text: 'Bread at five' }]);
    const packetId = await send();
    const [piece] = await inRoom();
    const decide = (things: object[]) =>
      contact?.call('POST', `/api/room/${scene.a.contactId}/decisions`, {
        body: { packetId, pieceId, versionId: piece?.versionId, verdict: 'changes', things },
      });
    expect((await decide([{ text: 'X', place: { ...oven, words: 'Nowhere' } }]))?.body['code']).toBe('remark.place_unknown');
    expect((await decide([]))?.body['code']).toBe('decision.remark_missing');
    const feed = { kind: 'stretch', channelId: scene.a.channelIds[0], from: 0, to: 2, words: 'On' };
    const things = [
      { text: 'Not so\n hot', place: oven },
      { text: 'Brighter', place: corner() },
      { text: 'Off', place: feed },
      { text: 'At six', place: { kind: 'stretch', textKey: 'subject', from: 9, to: 13, words: 'five' } },
      { text: 'All in all, shorter' },
    ];
    expect((await decide(things))?.body).toMatchObject({ outcome: 'changes', round: 2 });
    const words =
      '“The oven is hot.”: Not so hot\npicture 1, upper left: Brighter\n“On”: Off\nSubject: “five”: At six\nAll in all, shorter';
    const record = await signOffRecord(scene.app, pieceId);
    expect(JSON.stringify(record)).toContain(JSON.stringify(words));
    // once more by the same tap: nothing new
    expect((await decide(things))?.body).toMatchObject({ outcome: 'changes' });
    const { remarks } = await seen(freelance);
    expect(remarks.map(({ text, isContact, canRemove }) => [text, isContact, canRemove])).toEqual([
      ['Not so hot', true, false],
      ['Brighter', true, false],
      ['Off', true, false],
      ['At six', true, false],
      ['All in all, shorter', true, false],
    ]);
    expect((await lead?.call('DELETE', `/api/remarks/${remarks[0]?.id}`))?.body['code']).toBe('note.of_another');
    await write('Come and see. The oven is warm. We bake at five.', 'On the feed', [{ key: 'subject', text: 'Fresh bread at six' }]);
    await way.make(pieceId, ['design', 'check']);
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'remark.open' } });
    await way.settleAll(pieceId);
    getValue(await way.send(scene.a, [pieceId]));
    const again = (await inRoom()).find(({ round }) => round === 2);
    expect(
      again?.remarks.map(({ text, where, place }) => [
        text,
        where,
        place && 'from' in place ? place.onText.slice(place.from, place.to) : place,
      ]),
    ).toEqual([
      ['Not so hot', '“The oven is hot.”', 'The oven is warm.'],
      ['Brighter', 'picture 1, upper left', expect.objectContaining({ number: 1, x: 0 })],
      ['Off', '“On”', 'On'],
      ['At six', 'Subject: “five”', 'six'],
      ['All in all, shorter', '', null],
    ]);
  });

  it('are settled and answered together, or not: two at once lose neither', async () => {
    await say(staff, {});
    const [remark] = (await seen(lead)).remarks;
    const settle = (who: Caller | undefined, body: object) => who?.call('PATCH', `/api/remarks/${remark?.id}`, { body });
    const replied = (who: Caller | undefined, text: string) =>
      who?.call('POST', `/api/remarks/${remark?.id}/replies`, { body: { text, audience: 'team', mentionIds: [] } });
    const all = await Promise.all([
      settle(lead, { state: 'settled' }),
      settle(manager, { state: 'answered', answer: 'It stays' }),
      replied(lead, 'One'),
      replied(freelance, 'Two'),
    ]);
    expect(all.map((answer) => answer?.status)).toEqual([204, 204, 204, 204]);
    const [after] = (await seen(lead)).remarks;
    expect(after?.replies.map(({ text }) => text).sort()).toEqual(['One', 'Two']);
    expect([
      ['settled', ''],
      ['answered', 'It stays'],
    ]).toContainEqual([after?.state, after?.answer]);
    const [reply] = after?.replies ?? [];
    expect((await manager?.call('DELETE', `/api/replies/${reply?.id}`))?.status).toBe(204);
    expect((await seen(lead)).remarks[0]?.replies).toHaveLength(1);
  });
});
