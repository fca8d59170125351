import { parse } from 'csv-parse/sync';
import { strFromU8, unzipSync } from 'fflate';
import sharp from 'sharp';
import { getValue, ok } from '@zesting/core';
import type {
  ClientPageShape,
  FitsShape,
  GoingOutRowShape,
  GoingOutShape,
  GoingOutSoonShape,
  HandOutShape,
  PackShape,
  PlacementShape,
} from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { movePlacement } from '../calendar/index.js';
import { replanOpen } from '../planning/index.js';
import { remindOfWeek } from './use-cases/remind-of-week.js';

describe('what goes out', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager')];
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin(); // Monday 1 March 2027, nine in London; ten in the evening in Auckland
    await scene.app.read('delete from placement_checks');
    await scene.app.read("delete from markers where kind = 'blackout'");
    await scene.app.read("update placements set cancelled = true, state = 'cancelled'");
    await scene.app.read('update pieces set shelved = true, list = null');
  });

  const at = (instant: string) => scene.app.clock.set(instant);
  const show = async (by: Caller = lead, query = '') => (await by.call('GET', `/api/going-out${query}`)).body as unknown as GoingOutShape;
  const soon = async () => (await lead.call('GET', '/api/going-out/soon')).body as unknown as GoingOutSoonShape;
  const handOut = async (id: string) => (await manager.call('GET', `/api/placements/${id}/hand-out`)).body as unknown as HandOutShape;
  const onFeed = async (pieceId: string) => {
    const [row] = await scene.app.read<PlacementShape>(
      'select l.id, l.version from placements l join channels h on h.id = l.channel_id where l.piece_id = $1 order by h.position limit 1',
      [pieceId],
    );
    if (!row) throw new Error('no placement');
    return row;
  };
  const date = async (pieceId: string, on: string, time = '10:00') => {
    const { id, version } = await onFeed(pieceId);
    getValue(await movePlacement(scene.app, scene.people.lead, id, { on, at: time }, version));
    return id;
  };
  /** A piece of a client, signed, on its feed at that time. */
  const signed = async (on: string, time = '10:00') => {
    const { ready, send, say } = signOffIn(scene);
    const pieceId = await ready(scene.a);
    getValue(await say(getValue(await send(scene.a, [pieceId])), pieceId, 'approve'));
    return { pieceId, id: await date(pieceId, on, time) };
  };
  const open = async (client: SceneClient, on: string, time = '10:00') => {
    const pieceId = await makePiece(scene, client);
    return { pieceId, id: await date(pieceId, on, time) };
  };
  const codes = ({ findings }: Pick<GoingOutRowShape, 'findings'>) => findings.map(({ code }) => code);
  const rowOf = async (id: string) => {
    const { rows, missed, unaddressed } = await show();
    const row = [...rows, ...missed, ...unaddressed].find((one) => one.id === id);
    if (!row) throw new Error('it does not go out');
    return row;
  };
  const out = (id: string, body: object = {}) => manager.call('POST', `/api/placements/${id}/out`, { body });
  const check = (id: string, seen: string, isChecked = true, by = manager) =>
    by.call('PUT', `/api/placements/${id}/check`, { body: { isChecked, seen } });

  it('is what stands on each client’s days from its own today on, in the order of the instants', async () => {
    const auckland = await open(scene.b, '2027-03-02', '06:00'); // five in the afternoon of 1 March in London
    const today = await open(scene.a, '2027-03-01', '18:00');
    const last = await open(scene.a, '2027-03-08');
    await open(scene.a, '2027-03-09'); // one day too far
    const { rows, clocks, hidden } = await show();
    expect(rows.map(({ id }) => id)).toEqual([auckland.id, today.id, last.id]);
    expect(hidden).toBe(0);
    expect(clocks.map(({ clientId, todayOn }) => [clientId, todayOn])).toEqual([
      [scene.a.id, '2027-03-01'],
      [scene.b.id, '2027-03-01'],
    ]);
    at('2027-03-01T12:00:00Z'); // 2 March in Auckland, 1 March in London
    expect((await show()).clocks.map(({ todayOn }) => todayOn)).toEqual(['2027-03-01', '2027-03-02']);
    at('2027-03-02T12:00:00Z'); // 3 March in Auckland: what was meant for the 2nd was missed
    const later = await show();
    expect(later.rows.map(({ id }) => id)).toEqual([last.id, expect.any(String)]);
    // a manager sees the own clients, and of them the one that is asked for
    expect((await show(manager)).clocks.map(({ clientId }) => clientId)).toEqual([scene.a.id]);
    expect((await show(lead, `?clientId=${scene.b.id}`)).rows).toEqual([]);
    expect((await show(manager, `?clientId=${scene.b.id}`)).clocks).toEqual([]);
  });

  it('is ready once it is signed, complete, and within the rules of channel and client', async () => {
    const bare = await open(scene.a, '2027-03-03');
    expect(codes(await rowOf(bare.id))).toEqual(['not_signed', 'empty']);
    const { id, pieceId } = await signed('2027-03-04');
    expect(await rowOf(id)).toMatchObject({ state: 'scheduled', findings: [], check: null, wasChecked: false });
    expect(await soon()).toEqual({ count: 2, unready: 1, unchecked: 1, missed: 0, unaddressed: 0 });

    const page = async () => (await lead.call('GET', `/api/clients/${scene.a.id}`)).body as unknown as ClientPageShape;
    const edit = async (body: object) => {
      const { version } = await page();
      const headers = { 'If-Match': `"${version}"` };
      expect((await lead.call('PATCH', `/api/clients/${scene.a.id}`, { body, headers })).status).toBe(200);
    };
    const { channels, brand } = await page();
    const strict = { copyLimit: 3, needsMedia: true, countsTags: true, linksWork: false, minWidth: 600, hasAddress: false };
    await edit({ channels: channels.map((channel) => (channel.name === 'Photo feed' ? { ...channel, ...strict } : channel)) });
    await edit({ brand: { ...brand, wordsNever: ['feed'], needsDisclosure: true } });
    expect((await page()).channels[0]).toMatchObject(strict);
    // whoever sends it to the client is told what does not fit, whatever its day
    const fits = (await manager.call('GET', `/api/pieces/${pieceId}/fits`)).body as unknown as FitsShape;
    expect(fits.channels.map(({ channelName, findings }) => [channelName, ...findings.map(({ code }) => code)])).toEqual([
      ['Photo feed', 'copy_long', 'word_never', 'disclosure_missing', 'media_missing'],
      ['Blog', 'disclosure_missing'],
    ]);
    expect(codes(await rowOf(id))).toEqual(['copy_long', 'word_never', 'disclosure_missing', 'media_missing']);
    // what is left away of the rules stays as it was
    await edit({ channels: channels.map(({ id: channelId, kind, name, ratio, leadDays, usualTime }) => ({ id: channelId, kind, name, ratio, leadDays, usualTime, copyLimit: null, tagLimit: null, mediaLimit: null })) }); // prettier-ignore
    expect((await page()).channels[0]).toMatchObject({ copyLimit: null, needsMedia: true, hasAddress: false });
    await edit({ channels });
    await edit({ brand });
    expect(codes(await rowOf(id))).toEqual([]);

    await lead.call('POST', '/api/markers', {
      body: { clientId: null, kind: 'blackout', name: 'Mourning', startOn: '2027-03-03', endOn: '2027-03-04' },
    });
    await lead.call('POST', '/api/markers', {
      body: { clientId: scene.b.id, kind: 'blackout', name: 'Of another', startOn: '2027-03-04', endOn: '2027-03-04' },
    });
    const other = await open(scene.b, '2027-03-04');
    expect((await rowOf(other.id)).findings.map(({ what }) => what)).toEqual([undefined, undefined, 'Mourning', 'Of another']);
    const twin = await signed('2027-03-04', '18:00'); // the same words on the same day
    expect((await rowOf(id)).findings).toEqual([
      { code: 'blackout', severity: 'should', place: 'date', what: 'Mourning' },
      { code: 'twin', severity: 'should', place: 'date', what: 'A piece' },
    ]);
    expect(codes(await handOut(twin.id))).toEqual(['blackout', 'twin']);
    await signOffIn(scene).write(pieceId, 'Copy', 'Other words');
    expect(codes(await rowOf(id))).toEqual(['not_signed', 'blackout']);
  });

  it('is ticked by one person for what was seen: not for what it became since', async () => {
    const { id, pieceId } = await signed('2027-03-04');
    const { seen } = await rowOf(id);
    expect((await check(id, seen)).status).toBe(204);
    expect(await rowOf(id)).toMatchObject({ check: { by: 'Max', at: expect.stringMatching(/^2027-03-01T09:00/) as string } });
    expect((await soon()).unchecked).toBe(0);
    expect((await check(id, seen, false)).status).toBe(204);
    expect(await rowOf(id)).toMatchObject({ check: null, wasChecked: false });
    await check(id, seen, true, lead);
    expect(await rowOf(id)).toMatchObject({ check: { by: 'Lea' } });
    // another time, and back: the tick is for both the same
    await date(pieceId, '2027-03-04', '11:00');
    expect(await rowOf(id)).toMatchObject({ check: null, wasChecked: true });
    expect((await check(id, seen)).body).toMatchObject({ code: 'http.changed_meanwhile' });
    await date(pieceId, '2027-03-04', '10:00');
    expect(await rowOf(id)).toMatchObject({ check: { by: 'Lea' } });
    await signOffIn(scene).write(pieceId, 'Copy', 'Other words');
    expect(await rowOf(id)).toMatchObject({ check: null, wasChecked: true });
    // what another channel shows is no change here
    const { seen: now } = await rowOf(id);
    await check(id, now);
    await scene.app.read(`update pieces set digests = jsonb_set(digests, array['channels', $2], '"other"') where id = $1`, [
      pieceId,
      scene.a.channelIds[1],
    ]);
    expect((await rowOf(id)).check).not.toBeNull();
    expect((await check(id, 'short')).status).toBe(400);
  });

  it('is copied out by hand: text, tags, first comment and link, each on its own', async () => {
    const { id, pieceId } = await open(scene.a, '2027-03-04');
    const content = {
      shared: { copy: 'Fresh on Saturday', disclosure: 'Advertisement', media: [] },
      channels: [{ channelId: scene.a.channelIds[0], copy: '', tags: ['rye'], firstComment: 'Yours?', link: 'https://aaa.test/menu' }],
    };
    const [piece] = await scene.app.read<{ version: number }>('select content_version as version from pieces where id = $1', [pieceId]);
    const headers = { 'If-Match': `"${piece?.version ?? 0}"` };
    expect((await lead.call('PUT', `/api/pieces/${pieceId}/content`, { body: content, headers })).status).toBeLessThan(300);
    await scene.app.read("update channels set posting_address = 'https://post.test/feed' where id = $1", [scene.a.channelIds[0]]);
    expect(await handOut(id)).toMatchObject({
      text: 'Fresh on Saturday\n\nAdvertisement',
      tags: '#rye',
      firstComment: 'Yours?',
      link: 'https://aaa.test/menu',
      media: [],
      postingAddress: 'https://post.test/feed',
      findings: [{ code: 'not_signed' }],
    });
  });

  it('was missed when its time passed, and can be marked as out at the time at which it really went', async () => {
    const { id } = await signed('2027-03-04');
    const unsigned = await open(scene.a, '2027-03-04');
    at('2027-03-05T09:00:00Z');
    getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now)))); // as a job does every quarter of an hour
    const { missed } = await show();
    expect(Object.fromEntries(missed.map((row) => [row.id, codes(row)]))).toEqual({
      [id]: ['time_passed'],
      [unsigned.id]: ['time_passed', 'not_signed', 'empty'],
    });
    expect((await out(id, { on: '2027-03-05', at: '09:01' })).body).toMatchObject({ code: 'placement.out_ahead' });
    expect((await out(unsigned.id)).body).toMatchObject({ code: 'placement.not_signed_off' });
    expect((await out(id, { on: '2027-03-04', at: '10:07' })).status).toBe(200);
    expect(await rowOf(id)).toMatchObject({ on: '2027-03-04', at: '10:00', outAt: '2027-03-04T10:07:00Z', findings: [] });
    expect((await check(id, (await rowOf(id)).seen)).body).toMatchObject({ code: 'placement.out' });
  });

  it('is asked for its address where the channel has some, until it is given; time and address can be corrected, and the record says so', async () => {
    const { id, pieceId } = await signed('2027-03-04');
    at('2027-03-04T10:02:00Z');
    expect((await out(id)).status).toBe(200);
    const { unaddressed, rows } = await show();
    expect([unaddressed.map((row) => row.id), rows.map((row) => row.state)]).toEqual([[id], ['out']]);
    expect(await soon()).toMatchObject({ count: 0, unaddressed: 1 });
    const correct = async (body: object) => {
      const { version } = await rowOf(id);
      return manager.call('PATCH', `/api/placements/${id}/address`, { body, headers: { 'If-Match': `"${version}"` } });
    };
    expect((await correct({ address: 'https://aaa.test/1' })).status).toBe(204);
    expect((await show()).unaddressed).toEqual([]);
    expect((await correct({ address: 'https://aaa.test/1', on: '2027-03-04', at: '10:03' })).body).toMatchObject({
      code: 'placement.out_ahead',
    });
    expect((await correct({ address: 'https://aaa.test/1', at: '09:55' })).status).toBe(204); // the day that was meant
    expect(await rowOf(id)).toMatchObject({ outAt: '2027-03-04T09:55:00Z', outAddress: 'https://aaa.test/1' });
    const told = await scene.app.read<{ verb: string; detail: object }>(
      "select verb, detail from activities where thing_id = $1 and verb in ('placement.address_corrected', 'placement.out_corrected') order by id",
      [pieceId],
    );
    expect(told).toMatchObject([
      { verb: 'placement.address_corrected', detail: { address: { from: null, to: 'https://aaa.test/1' } } },
      { verb: 'placement.out_corrected', detail: { outAt: { to: '2027-03-04T09:55:00Z' } } },
    ]);
    // a letter is at no address
    await correct({ address: null });
    expect((await show()).unaddressed).toHaveLength(1);
    await scene.app.read('update channels set has_address = false where id = $1', [scene.a.channelIds[0]]);
    expect((await show()).unaddressed).toEqual([]);
    await scene.app.read('update channels set has_address = true where id = $1', [scene.a.channelIds[0]]);
    // nobody looks for it after two months
    at('2027-05-04T10:00:00Z');
    expect((await show()).unaddressed).toEqual([]);
  });

  describe('as a pack', () => {
    const picture = async (pieceId: string, shade: string) => {
      const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: shade } })
        .jpeg()
        .toBuffer();
      const form = new FormData();
      form.append('file', new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), 'Bread, sliced.JPG');
      const { body } = await lead.call('POST', `/api/pieces/${pieceId}/files`, { body: form });
      const [piece] = await scene.app.read<{ version: number }>('select content_version as version from pieces where id = $1', [pieceId]);
      const content = {
        shared: { copy: 'Copy, with “marks”\nand two lines', disclosure: '', media: [{ assetId: body['assetId'], alt: 'Bread' }] },
        channels: [{ channelId: scene.a.channelIds[0], copy: '', tags: ['rye', 'bread'], firstComment: '', link: 'https://aaa.test/menu' }],
      };
      const headers = { 'If-Match': `"${piece?.version ?? 0}"` };
      expect((await lead.call('PUT', `/api/pieces/${pieceId}/content`, { body: content, headers })).status).toBeLessThan(300);
      return bytes;
    };
    /** A signed piece with a picture, on the feed. */
    const pictured = async (on: string, time: string, shade: string) => {
      const { make, send, say } = signOffIn(scene);
      const pieceId = await makePiece(scene, scene.a);
      const bytes = await picture(pieceId, shade);
      await make(pieceId);
      getValue(await say(getValue(await send(scene.a, [pieceId])), pieceId, 'approve'));
      await date(pieceId, on, time);
      return bytes;
    };
    const pack = async (query: string, clientId = scene.a.id) => {
      const answer = await fetch(`${scene.address}/api/clients/${clientId}/pack/zip?${query}`, {
        headers: { cookie: [...manager.cookies].map(([name, value]) => `${name}=${value}`).join('; ') },
      });
      const bytes = new Uint8Array(await answer.arrayBuffer());
      return { status: answer.status, name: answer.headers.get('content-disposition'), files: answer.ok ? unzipSync(bytes) : {} };
    };

    it('holds what is signed, named so that it sorts as it goes out, with a document and a schedule; of one client alone', async () => {
      const evening = await pictured('2027-03-04', '18:00', '#123');
      const morning = await pictured('2027-03-04', '09:00', '#a52');
      await open(scene.a, '2027-03-05'); // not signed
      await open(scene.b, '2027-03-04');
      const span = 'from=2027-03-01&to=2027-03-07';
      const told = (await manager.call('GET', `/api/clients/${scene.a.id}/pack?${span}`)).body as unknown as PackShape;
      expect(told).toMatchObject({ count: 2, files: 2, bytes: evening.length + morning.length });
      expect(told.leftOut.map(({ on, clientId }) => [on, clientId])).toEqual([['2027-03-05', scene.a.id]]);
      const { files, name, status } = await pack(span);
      expect(status).toBe(200);
      expect(name).toBe('attachment; filename="2027-03-01_2027-03-07_AAA_pack.zip"');
      expect(Object.keys(files)).toEqual([
        '01_2027-03-04_AAA_a-piece-photo-feed.jpg',
        '02_2027-03-04_AAA_a-piece-photo-feed.txt',
        '03_2027-03-04_AAA_a-piece-photo-feed.jpg',
        '04_2027-03-04_AAA_a-piece-photo-feed.txt',
        '2027-03-01_2027-03-07_AAA.docx',
        '2027-03-01_2027-03-07_AAA.txt',
        '2027-03-01_2027-03-07_AAA_schedule.csv',
      ]);
      expect(Buffer.from(files['01_2027-03-04_AAA_a-piece-photo-feed.jpg'] ?? []).equals(morning)).toBe(true);
      expect(Buffer.from(files['03_2027-03-04_AAA_a-piece-photo-feed.jpg'] ?? []).equals(evening)).toBe(true);
      // each by itself, under a name of the same kind
      const first = (await show(manager)).rows[0]?.id ?? '';
      const alone = (number: string) => manager.call('GET', `/api/placements/${first}/files/${number}`);
      const { status: sent, headers } = await alone('1');
      expect([sent, headers.get('content-disposition')]).toEqual([200, "attachment; filename*=UTF-8''01_2027-03-04_AAA_a-piece.jpg"]);
      for (const number of ['0', '2', 'x']) expect((await alone(number)).status).toBe(404);
      const text = (file: string) => strFromU8(files[file] ?? new Uint8Array());
      expect(text('02_2027-03-04_AAA_a-piece-photo-feed.txt')).toBe(
        'Copy, with “marks”\nand two lines\n\n#rye #bread\n\nhttps://aaa.test/menu\n',
      );
      // read by another library than wrote it
      const rows = parse(text('2027-03-01_2027-03-07_AAA_schedule.csv'), { bom: true, columns: true });
      expect(rows).toMatchObject([
        {
          client: 'AAA',
          date: '2027-03-04',
          time: '09:00',
          zone: 'Europe/London',
          instant: '2027-03-04T09:00:00Z',
          channel: 'Photo feed',
          text: 'Copy, with “marks”\nand two lines',
          tags: '#rye #bread',
          files: '01_2027-03-04_AAA_a-piece-photo-feed.jpg',
          alternative_texts: 'Bread',
          state: 'scheduled',
          address: '',
        },
        { time: '18:00' },
      ]);
      // the document's own text, in its order
      const document = strFromU8(
        unzipSync(files['2027-03-01_2027-03-07_AAA.docx'] ?? new Uint8Array())['word/document.xml'] ?? new Uint8Array(),
      );
      const said = [...document.matchAll(/<w:t[^>]*>([^<]*)<\/w:t>/g)].map(([, word]) => word);
      expect(said.slice(0, 7)).toEqual([
        'Client AAA (AAA), 2027-03-01 to 2027-03-07',
        'A piece',
        '2027-03-04, 09:00 Europe/London: Photo feed',
        'Text',
        'Copy, with “marks”',
        'and two lines',
        'Tags',
      ]);
    });

    it('is refused of a client that is not the own, of no days, and of too many', async () => {
      expect((await pack('from=2027-03-01&to=2027-03-07', scene.b.id)).status).toBe(404);
      for (const query of ['', 'from=2027-03-07&to=2027-03-01', 'from=2027-03-01&to=2027-05-03'])
        expect((await pack(query)).status).toBe(400);
      expect((await pack('from=2027-03-01&to=2027-05-02')).status).toBe(200);
    });
  });

  it('is looked through on the agency’s day of the week: managers are told once of each client what is left to do', async () => {
    const told = async () =>
      (
        await scene.app.read<{ heading: string; text: string; path: string; name: string }>(
          "select n.heading, n.text, n.path, p.name from notices n join people p on p.id = n.person_id where n.key like 'week-check:%' order by n.id",
        )
      ).map(({ name, heading, text, path }) => `${name}: ${heading}. ${text} ${path}`);
    await scene.app.read('delete from notices');
    await scene.app.read('delete from reminders');
    await open(scene.a, '2027-03-08'); // not signed
    const { id } = await signed('2027-03-09'); // signed, and nobody has looked
    await signed('2027-03-12'); // more than seven days ahead
    at('2027-03-03T12:00:00Z'); // Wednesday
    expect(await remindOfWeek(scene.app)).toBe(0);
    at('2027-03-04T07:59:00Z'); // Thursday, within the quiet hours
    expect(await remindOfWeek(scene.app)).toBe(0);
    at('2027-03-04T08:00:00Z');
    expect(await remindOfWeek(scene.app)).toBe(1);
    expect(await told()).toEqual([
      'Max: The coming week of Client AAA. Of 2 that go out in the next seven days 1 is not ready, 1 nobody has looked at. /calendar/going-out?client=AAA',
    ]);
    expect(await remindOfWeek(scene.app)).toBe(0); // once a day
    // a week later that one is out, and of the last nothing is left to do
    await check(id, (await rowOf(id)).seen);
    at('2027-03-11T09:00:00Z');
    for (const row of (await show()).rows.filter(({ state }) => state === 'scheduled')) await check(row.id, row.seen);
    expect(await remindOfWeek(scene.app)).toBe(0);
    await scene.app.read('delete from reminders');
    await scene.app.read('update agencies set check_weekday = null');
    at('2027-03-04T09:00:00Z');
    expect(await remindOfWeek(scene.app)).toBe(0);
    await scene.app.read('update agencies set check_weekday = 4');
    const many = await Promise.all(Array.from({ length: 6 }, () => remindOfWeek(scene.app))); // several servers at once
    expect(many.reduce((sum, one) => sum + one, 0)).toBe(1);
  });
});
