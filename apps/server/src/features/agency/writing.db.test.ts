import { getValue, WRITING_STOCK } from '@zesting/core';
import type { FormatWritingsShape, LibraryShape, PieceShape, RoomShape, VersionsShape } from '@zesting/contract';
import { callerAs, callerByLink, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { takeStock } from './use-cases/take-stock.js';

const SUBJECT = { key: 'subject', name: 'Subject', isLong: false, prompt: 'Why open it', limit: 20, isNeeded: true };
const SCRIPT = { key: 'script', name: 'Script', isLong: true, prompt: '', limit: null, isNeeded: false };
const SLIDES = { key: 'slides', name: 'Slides', isLong: true, isSlides: true, prompt: '', limit: null, isNeeded: false };
const OUTLINE = [
  { heading: 'What it is about', prompt: 'The question' },
  { heading: 'In short', prompt: '', kinds: ['newsletter', 'blog'] },
];

describe('what pieces of a format are written by', () => {
  let scene: Scene;
  let [lead, manager, staff]: [Caller?, Caller?, Caller?] = [];
  let [formatId, pieceId] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager, staff] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager'), await callerAs(scene, 'staff')];
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read("update formats set texts = '[]', outline = '[]', is_laid_out = false");
    pieceId = await makePiece(scene, scene.a);
    const [row] = await scene.app.read<{ id: string }>('select format_id as id from pieces where id = $1', [pieceId]);
    formatId = row?.id ?? '';
  });

  const by = (caller: Caller | undefined): Caller => {
    if (!caller) throw new Error('nobody is signed in');
    return caller;
  };
  const writings = async (caller = lead) => (await by(caller).call('GET', '/api/formats/writing')).body as unknown as FormatWritingsShape;
  const versionOf = async () => (await writings()).formats.find((format) => format.formatId === formatId)?.version ?? 0;
  const set = async (texts: object[], { outline = OUTLINE as object[], version = -1, caller = lead } = {}) =>
    by(caller).call('PUT', `/api/formats/${formatId}/writing`, {
      body: { texts, outline },
      headers: { 'If-Match': `"${version < 0 ? await versionOf() : version}"` },
    });
  const piece = async (id = pieceId) => (await by(lead).call('GET', `/api/pieces/${id}`)).body as unknown as PieceShape;
  const write = async (texts?: object[], copy = 'Copy') => {
    const { content } = await piece();
    const shared = { copy, disclosure: '', media: [], ...(texts ? { texts } : {}) };
    return by(lead).call('PUT', `/api/pieces/${pieceId}/content`, {
      body: { shared, channels: [] },
      headers: { 'If-Match': `"${content.version}"` },
    });
  };
  const digest = async () =>
    (await scene.app.read<{ shared: string }>("select digests ->> 'shared' as shared from pieces where id = $1", [pieceId]))[0]?.shared;

  it('has slides: told so to whoever writes and to the client who reads, until the format has them no longer', async () => {
    // slides have several lines, whatever is said
    expect((await set([{ ...SLIDES, isLong: false }, SUBJECT])).status).toBe(204);
    expect((await writings()).formats.find((format) => format.formatId === formatId)?.texts).toEqual([SLIDES, SUBJECT]);
    const text = '1. Flour\n\n3. Wait';
    const way = signOffIn(scene);
    await way.write(pieceId, 'Copy', 'Feed');
    const part = { channelId: scene.a.channelIds[0], copy: 'Feed', tags: [], firstComment: '', link: '' };
    const texts = [
      { key: 'slides', text },
      { key: 'subject', text: 'Rye' },
    ];
    const saved = await by(lead).call('PUT', `/api/pieces/${pieceId}/content`, {
      body: { shared: { copy: 'Copy', disclosure: '', media: [], texts }, channels: [part] },
      headers: { 'If-Match': `"${(await piece()).content.version}"` },
    });
    expect(saved.status).toBe(200);
    const told = async () => (await piece()).content.shared.texts.map(({ key, isSlides }) => [key, isSlides]);
    expect(await told()).toEqual([
      ['slides', true],
      ['subject', false],
    ]);
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    await way.make(pieceId);
    getValue(await way.send(scene.a, [pieceId]));
    const read = async () => {
      const { body } = await contact.call('GET', `/api/room/${scene.a.contactId}`);
      const { packets } = body as unknown as RoomShape;
      const shown = packets.flatMap(({ pieces }) => pieces).find((one) => one.pieceId === pieceId);
      return shown?.texts.map(({ key, text: words, isSlides }) => [key, words, isSlides]);
    };
    expect(await read()).toEqual([
      ['slides', text, true],
      ['subject', 'Rye', false],
    ]);
    await set([SUBJECT]);
    expect((await read())?.[0]).toEqual(['slides', text, false]);
  });

  it('is told in the order of the formats, and kept with who said so', async () => {
    expect((await set([SUBJECT, SCRIPT])).status).toBe(204);
    const { formats, canEdit } = await writings();
    expect(canEdit).toBe(true);
    expect(formats.find((format) => format.formatId === formatId)).toMatchObject({ texts: [SUBJECT, SCRIPT], outline: OUTLINE });
    const [line] = await scene.app.read<{ detail: object }>(
      "select detail from activities where verb = 'agency.writing_set' order by id desc limit 1",
    );
    expect(line?.detail).toMatchObject({ texts: { from: [], to: ['Subject', 'Script'] } });
    expect((await by(staff).call('GET', '/api/formats/writing')).status).toBe(403);
  });

  it('is refused where it makes no sense, and where somebody said otherwise meanwhile', async () => {
    for (const texts of [
      [SUBJECT, SUBJECT],
      [SUBJECT, { ...SCRIPT, name: ' subject' }],
      [{ ...SUBJECT, key: 'No key' }],
      [{ ...SUBJECT, name: ' ' }],
      [{ ...SUBJECT, limit: 0 }],
    ])
      expect([texts, (await set(texts)).body['code']]).toEqual([texts, 'http.invalid']);
    const version = await versionOf();
    const answers = await Promise.all([set([SUBJECT], { version }), set([SCRIPT], { version })]);
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 412]);
    const lost = answers.find(({ status }) => status === 412);
    const kept = (await writings()).formats.find((format) => format.formatId === formatId);
    expect(lost?.body['theirs']).toEqual(kept);
    expect(kept?.version).toBe(version + 1);
  });

  it('is asked for on its pieces, written there, read in versions, and found', async () => {
    await set([SUBJECT, SCRIPT]);
    expect((await piece()).content).toMatchObject({
      shared: {
        texts: [
          { ...SUBJECT, text: '', isAsked: true },
          { ...SCRIPT, text: '' },
        ],
      },
      outline: OUTLINE,
    });
    expect((await write([{ key: 'script', text: 'Marzipan falls' }])).status).toBe(200);
    const before = await digest();
    expect(
      (
        await write([
          { key: 'subject', text: 'Back' },
          { key: 'script', text: 'Marzipan falls' },
        ])
      ).status,
    ).toBe(200);
    expect(await digest()).not.toBe(before);
    expect((await piece()).content.shared.texts.map(({ name, text }) => [name, text])).toEqual([
      ['Subject', 'Back'],
      ['Script', 'Marzipan falls'],
    ]);
    const versions = (await by(lead).call('GET', `/api/pieces/${pieceId}/versions`)).body as unknown as VersionsShape;
    expect(versions.after.texts).toEqual([
      { key: 'subject', name: 'Subject', text: 'Back' },
      { key: 'script', name: 'Script', text: 'Marzipan falls' },
    ]);
    const found = (await by(lead).call('GET', '/api/library?words=marzipan')).body as { rows?: { id: string }[] };
    expect(JSON.stringify(found)).toContain(pieceId);
  });

  it('stays as it is where nothing is said of it, and goes where it is emptied', async () => {
    await set([SUBJECT]);
    await write([{ key: 'subject', text: 'Back' }]);
    await write(undefined, 'Another copy');
    expect((await piece()).content.shared.texts).toMatchObject([{ text: 'Back' }]);
    const withText = await digest();
    await write([], 'Another copy');
    expect((await piece()).content.shared.texts).toMatchObject([{ text: '' }]);
    const without = await digest();
    expect(without).not.toBe(withText);
    await write([{ key: 'subject', text: ' \n' }], 'Another copy'); // blanks are nothing
    expect(await digest()).toBe(without);
    expect((await write([{ key: 'strange', text: 'X' }])).body['code']).toBe('text.unknown');
  });

  it('is signed with the shared part: another name voids nothing, another word does, and what is no longer asked for still stands', async () => {
    await set([SUBJECT]);
    const way = signOffIn(scene);
    await way.write(pieceId, 'Copy', 'Feed');
    const { content } = await piece();
    const part = { channelId: scene.a.channelIds[0], copy: 'Feed', tags: [], firstComment: '', link: '' };
    const shared = { copy: 'Copy', disclosure: '', media: [], texts: [{ key: 'subject', text: 'Back' }] };
    await by(lead).call('PUT', `/api/pieces/${pieceId}/content`, {
      body: { shared, channels: [part] },
      headers: { 'If-Match': `"${content.version}"` },
    });
    await way.make(pieceId);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    getValue(await way.say(packetId, pieceId, 'approve'));
    expect((await piece()).content.shared.state).toBe('signed');
    await set([{ ...SUBJECT, name: 'Subject line' }]);
    await write([{ key: 'subject', text: 'Back' }]);
    expect((await piece()).content.shared).toMatchObject({ state: 'signed', texts: [{ name: 'Subject line', text: 'Back' }] });
    await set([]);
    expect((await piece()).content.shared).toMatchObject({ state: 'signed', texts: [{ text: 'Back', isAsked: false }] });
    await write([{ key: 'subject', text: 'Back again' }]);
    expect((await piece()).content.shared.state).toBe('voided');
    await write([{ key: 'subject', text: 'Back' }]); // back to what was signed
    expect((await piece()).content.shared.state).toBe('signed');
  });

  it('is laid out where somebody says so: signed as that, and words alone wherever nothing can be laid out', async () => {
    const version = await versionOf();
    const put = await by(lead).call('PUT', `/api/formats/${formatId}/writing`, {
      body: { texts: [], outline: [], isLaidOut: true },
      headers: { 'If-Match': `"${version}"` },
    });
    expect(put.status).toBe(204);
    await set([]); // who says nothing of it leaves it
    expect((await piece()).content).toMatchObject({ laysOut: true, language: 'en', shared: { isLaidOut: false } });
    const copy = '# Back\n\nThe **plait**, [from us](https://aaa.test/plait)';
    const words = 'Back\n\nThe plait, from us (https://aaa.test/plait)';
    const writeAs = async (isLaidOut: boolean | undefined, text = copy) => {
      const { content } = await piece();
      const shared = { copy: text, disclosure: 'Advert *', media: [], ...(isLaidOut === undefined ? {} : { isLaidOut }) };
      const part = { channelId: scene.a.channelIds[0], copy: '', tags: [], firstComment: '', link: '' };
      await by(lead).call('PUT', `/api/pieces/${pieceId}/content`, {
        body: { shared, channels: [part] },
        headers: { 'If-Match': `"${content.version}"` },
      });
    };
    await writeAs(false);
    const alone = await digest();
    await writeAs(true);
    const laidOut = await digest();
    expect(laidOut).not.toBe(alone);
    await writeAs(undefined); // what is left away stays
    expect(await digest()).toBe(laidOut);
    expect((await piece()).content.shared).toMatchObject({ copy, isLaidOut: true });
    const { after } = (await by(lead).call('GET', `/api/pieces/${pieceId}/versions`)).body as unknown as VersionsShape;
    expect(after).toMatchObject({ copy, isLaidOut: true });
    const [placement] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 and channel_id = $2', [
      pieceId,
      scene.a.channelIds[0],
    ]);
    const { body } = await by(manager).call('GET', `/api/placements/${placement?.id}/hand-out`);
    expect([body['text'], body['html']]).toEqual([
      `${words}\n\nAdvert *`,
      '<h2>Back</h2>\n<p>The <strong>plait</strong>, <a href="https://aaa.test/plait">from us</a></p>\n<p>Advert *</p>',
    ]);
    const found = (await by(lead).call('GET', '/api/library?words=plait')).body as unknown as LibraryShape;
    expect(found.pieces.find((one) => one.pieceId === pieceId)?.copy).toBe(words);
    // a layout of nothing is none
    await writeAs(true, ' ');
    expect((await piece()).content.shared.isLaidOut).toBe(false);
  });

  it('has other wordings to choose from: kept on the piece, neither signed nor frozen, read by the client beside what stands there', async () => {
    await set([SUBJECT]);
    await write([{ key: 'subject', text: 'Back', others: ['Again', ' Back', 'Again'] }]);
    const texts = async () => (await piece()).content.shared.texts.map(({ text, others }) => [text, others]);
    expect(await texts()).toEqual([['Back', ['Again']]]);
    const before = await digest();
    await write([{ key: 'subject', text: 'Back', others: ['Again', 'Here'] }]);
    expect(await digest()).toBe(before);
    await write([{ key: 'subject', text: 'Back' }]); // who says nothing of them leaves them
    expect(await texts()).toEqual([['Back', ['Again', 'Here']]]);
    const verbs = await scene.app.read<{ verb: string }>('select verb from activities where thing_id = $1 order by id desc limit 1', [
      pieceId,
    ]);
    expect(verbs[0]?.verb).toBe('piece.wordings_thought_of');
    const { make, send } = signOffIn(scene);
    await make(pieceId);
    getValue(await send(scene.a, [pieceId]));
    const [version] = await scene.app.read<{ shared: object }>(
      "select content -> 'shared' as shared from versions where piece_id = $1 order by number desc limit 1",
      [pieceId],
    );
    expect(version?.shared).not.toHaveProperty('others');
    expect(version?.shared).toMatchObject({ texts: [{ text: 'Back' }] });
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    const room = (await contact.call('GET', `/api/room/${scene.a.contactId}`)).body as unknown as RoomShape;
    const seen = room.packets.flatMap(({ pieces }) => pieces).find((one) => one.pieceId === pieceId);
    expect(seen?.texts).toEqual([{ key: 'subject', name: 'Subject', text: 'Back', isSlides: false, others: ['Again', 'Here'] }]);
    await write([{ key: 'subject', text: 'Back', others: [] }]);
    expect(await texts()).toEqual([['Back', []]]);
  });

  it('keeps a piece from going out that lacks a text it needs, or has one that is too long', async () => {
    await set([SUBJECT]);
    const [placement] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 limit 1', [pieceId]);
    const codes = async () =>
      ((await by(manager).call('GET', `/api/placements/${placement?.id}/hand-out`)).body['findings'] as { code: string; what?: string }[])
        .filter(({ code }) => code.startsWith('text_'))
        .map(({ code, what }) => [code, what]);
    expect(await codes()).toEqual([['text_missing', 'Subject']]);
    await write([{ key: 'subject', text: 'Far too long for a subject line' }]);
    expect(await codes()).toEqual([['text_long', 'Subject']]);
    await write([{ key: 'subject', text: 'Short' }]);
    expect(await codes()).toEqual([]);
    const { body } = await by(manager).call('GET', `/api/placements/${placement?.id}/hand-out`);
    expect(body['texts']).toEqual([{ name: 'Subject', text: 'Short' }]);
  });

  it('comes with the starting stock for formats that are new, and leaves those that were there alone', async () => {
    await scene.app.read("insert into formats (name, position) values ('Newsletter', 90)");
    await scene.app.write(async (tx, now) => ({ ok: true, value: await takeStock(tx, 'test', now) }));
    const { formats } = await writings();
    const of = (name: string) => formats.find((format) => format.name === name)?.texts;
    expect(of('Newsletter')).toEqual([]);
    expect(of('Audio episode')).toEqual(WRITING_STOCK['Audio episode']?.texts);
  });
});
