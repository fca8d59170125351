import exceljs from 'exceljs';
import { parse } from 'csv-parse/sync';
import { getValue } from '@zesting/core';
import type { CopyRowShape, CopyTableShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { editContent } from './index.js';

const DAYS = 'from=2027-03-08&to=2027-04-11';

describe('a table of copy', () => {
  let scene: Scene;
  let manager: Caller;
  let [pieceId, otherId] = ['', ''];
  let [feed, blog] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    [feed = '', blog = ''] = scene.a.channelIds;
  });
  afterAll(() => scene.close());

  const write = async (id: string, client: SceneClient, copy: string) => {
    const [row] = await scene.app.read<{ content_version: number }>('select content_version from pieces where id = $1', [id]);
    const part = { channelId: client.channelIds[0] ?? '', copy: '', tags: ['one'], firstComment: 'First', link: 'https://x.test/a' };
    getValue(
      await editContent(
        scene.app,
        scene.people.lead,
        id,
        { shared: { copy, disclosure: '', media: [] }, channels: [part] },
        row?.content_version ?? 0,
      ),
    );
  };
  const place = (id: string, channelId: string, on: string, at = '09:00') =>
    scene.app.read('update placements set on_day = $3, at_time = $4, publish_at = $5 where piece_id = $1 and channel_id = $2', [
      id,
      channelId,
      on,
      at,
      `${on}T${at}Z`,
    ]);
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('update placements set on_day = null, at_time = null, publish_at = null');
    [pieceId, otherId] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    for (const id of [pieceId, otherId]) await write(id, scene.a, 'Shared');
    await place(pieceId, feed, '2027-03-16');
    await place(pieceId, blog, '2027-03-15', '10:00');
    await place(otherId, feed, '2027-03-16', '08:00');
  });

  const path = (days = DAYS) => `/api/clients/${scene.a.id}/copy?${days}`;
  const table = async (days?: string) => (await manager.call('GET', path(days))).body as unknown as CopyTableShape;
  const change = async (changes: object[]) => (await manager.call('PUT', `/api/clients/${scene.a.id}/copy`, { body: { changes } })).body;
  const rowOf = ({ rows }: CopyTableShape, id: string, channelId: string) =>
    rows.find((row) => row.pieceId === id && row.channelId === channelId) as CopyRowShape; // placed there in beforeEach
  const contentOf = async (id: string) =>
    (
      await scene.app.read<{ content: { shared: { copy: string }; channels: Record<string, { copy: string; tags: string[] }> } }>(
        'select content from pieces where id = $1',
        [id],
      )
    )[0]?.content;

  it('tells what the pages answered to which the links of its rows lead, and of no others', async () => {
    await scene.app.read(
      `insert into asked_pages (address, status, asked_at, wanted_until) values
         ('https://x.test/a', 404, '2027-03-01T08:00:00Z', '2027-03-20T00:00:00Z'),
         ('https://x.test/other', 404, '2027-03-01T08:00:00Z', '2027-03-20T00:00:00Z')
       on conflict (address) do update set status = excluded.status, asked_at = excluded.asked_at`,
    );
    expect((await table()).pages).toEqual([{ address: 'https://x.test/a', status: 404, askedAt: '2027-03-01T08:00:00Z' }]);
  });

  it('shows what is laid out as its words, and writes words beside it', async () => {
    await scene.app.read(
      `update pieces set content = jsonb_set(content, '{shared}', content -> 'shared' || '{"copy": "# Rye\\n\\n*Back*", "isLaidOut": true}') where id = $1`,
      [pieceId],
    );
    const row = rowOf(await table(), pieceId, blog);
    expect(row).toMatchObject({ copy: 'Rye\n\nBack', isLaidOut: true });
    await change([{ pieceId, channelId: blog, contentVersion: row.contentVersion, copy: 'Rye is back' }]);
    const content = await contentOf(pieceId);
    expect(content?.shared).toMatchObject({ copy: '# Rye\n\n*Back*', isLaidOut: true });
    expect(content?.channels[blog]?.copy).toBe('Rye is back');
    expect(rowOf(await table(), pieceId, blog)).toMatchObject({ copy: 'Rye is back', isLaidOut: false });
  });

  const bytesOf = async (address: string) => {
    const cookie = [...manager.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const response = await fetch(`${scene.address}${address}`, { headers: { Cookie: cookie } });
    return { type: response.headers.get('content-type'), bytes: await response.arrayBuffer() };
  };

  it('has what goes out in its days, by day and time, with what each channel shows', async () => {
    const all = await table();
    expect(
      all.rows.map(({ pieceId: id, channelId, on, at, copy, tags, firstComment, link }) => [
        id,
        channelId,
        on,
        at,
        copy,
        tags,
        firstComment,
        link,
      ]),
    ).toEqual([
      [pieceId, blog, '2027-03-15', '10:00', 'Shared', [], '', ''],
      [otherId, feed, '2027-03-16', '08:00', 'Shared', ['one'], 'First', 'https://x.test/a'],
      [pieceId, feed, '2027-03-16', '09:00', 'Shared', ['one'], 'First', 'https://x.test/a'],
    ]);
    expect(rowOf(all, pieceId, feed).sharedWith).toHaveLength(1);
    expect(all.undated).toBeGreaterThan(0);
    expect((await table('from=2027-03-15&to=2027-03-15')).rows).toHaveLength(1);
    for (const days of ['', 'from=2027-03-15', 'from=2027-03-15&to=2027-03-14', 'from=2027-03-15&to=2027-06-14'])
      expect([days, (await manager.call('GET', path(days))).body['code']]).toEqual([days, 'http.invalid']);
  });

  it('is changed in many cells at once: what one channel shows, and no other', async () => {
    const before = await table();
    const { contentVersion } = rowOf(before, pieceId, feed);
    const body = await change([
      { pieceId, channelId: feed, contentVersion, copy: 'For the feed', tags: ['two', 'three'] },
      { pieceId, channelId: blog, contentVersion, firstComment: 'Read on' },
      { pieceId: otherId, channelId: feed, contentVersion: rowOf(before, otherId, feed).contentVersion, link: '' },
    ]);
    expect(body).toEqual({ saved: [pieceId, otherId].sort(), refused: [] });
    const after = await table();
    expect(rowOf(after, pieceId, feed)).toMatchObject({
      copy: 'For the feed',
      tags: ['two', 'three'],
      firstComment: 'First',
      sharedWith: [],
    });
    expect(rowOf(after, pieceId, blog)).toMatchObject({ copy: 'Shared', firstComment: 'Read on' });
    expect(rowOf(after, otherId, feed)).toMatchObject({ copy: 'Shared', link: '', tags: ['one'] });
    const [activity] = await scene.app.read<{ detail: { parts: string[] } }>(
      "select detail from activities where thing_id = $1 and verb = 'piece.content_edited' order by id desc limit 1",
      [pieceId],
    );
    expect(activity?.detail.parts.sort()).toEqual([feed, blog].sort());
  });

  it('voids what was signed of the parts that were changed, and of these alone', async () => {
    const way = signOffIn(scene);
    const id = await way.ready(scene.a);
    await place(id, feed, '2027-03-18');
    await place(id, blog, '2027-03-18');
    const packetId = getValue(await way.send(scene.a, [id]));
    getValue(await way.say(packetId, id, 'approve'));
    const states = async () =>
      (await table()).rows.filter((row) => row.pieceId === id).map(({ channelId, state }) => [channelId === feed, state]);
    expect((await states()).map(([, state]) => state)).toEqual(['scheduled', 'scheduled']);
    const { contentVersion } = rowOf(await table(), id, feed);
    await change([{ pieceId: id, channelId: feed, contentVersion, copy: 'Not signed' }]);
    expect((await states()).sort()).toEqual([
      [false, 'scheduled'],
      [true, 'pencilled'],
    ]);
  });

  it('refuses a piece that somebody else changed, whole, and saves the others', async () => {
    const before = await table();
    const stale = rowOf(before, pieceId, feed).contentVersion;
    await write(pieceId, scene.a, 'Meanwhile');
    const body = await change([
      { pieceId, channelId: feed, contentVersion: stale, copy: 'Mine' },
      { pieceId, channelId: blog, contentVersion: stale + 1, copy: 'Mine, too' },
      { pieceId: otherId, channelId: feed, contentVersion: rowOf(before, otherId, feed).contentVersion, copy: 'Saved' },
    ]);
    expect(body).toEqual({ saved: [otherId], refused: [{ pieceId, code: 'http.changed_meanwhile' }] });
    expect((await contentOf(pieceId))?.shared.copy).toBe('Meanwhile');
    expect((await contentOf(pieceId))?.channels[blog]?.copy).toBe('');
  });

  it('of two at once on one piece, one is refused and nothing is lost', async () => {
    const { contentVersion } = rowOf(await table(), pieceId, feed);
    const answers = await Promise.all(
      [feed, blog].map((channelId) => change([{ pieceId, channelId, contentVersion, copy: `On ${channelId}` }])),
    );
    expect(answers.map((answer) => (answer['saved'] as string[]).length).sort()).toEqual([0, 1]);
    const won = answers.findIndex((answer) => (answer['saved'] as string[]).length === 1);
    const content = await contentOf(pieceId);
    expect([feed, blog].map((id) => content?.channels[id]?.copy)).toEqual([won === 0 ? `On ${feed}` : '', won === 1 ? `On ${blog}` : '']);
  });

  it('touches nothing of another client, nor channels that the piece does not have', async () => {
    const strange = await makePiece(scene, scene.b);
    const body = await change([
      { pieceId: strange, channelId: scene.b.channelIds[0], contentVersion: 1, copy: 'X' },
      { pieceId, channelId: scene.b.channelIds[0], contentVersion: rowOf(await table(), pieceId, feed).contentVersion, copy: 'X' },
    ]);
    expect(body['refused']).toEqual(
      expect.arrayContaining([
        { pieceId: strange, code: 'piece.unknown' },
        { pieceId, code: 'channel.unknown' },
      ]),
    );
    expect(body['saved']).toEqual([]);
    expect(JSON.stringify(await contentOf(strange))).not.toContain('X');
    const wrong = await change([{ pieceId, channelId: feed, contentVersion: 1, tags: 'one' }]);
    expect(wrong['code']).toBe('http.invalid');
  });

  it('is taken away as CSV and as a spreadsheet, to the character', async () => {
    const { contentVersion } = rowOf(await table(), pieceId, feed);
    const copy = '=1+1, "said", Zoë\nand a line';
    await change([{ pieceId, channelId: feed, contentVersion, copy }]);
    const csv = await bytesOf(path().replace('?', '/csv?'));
    expect(csv.type).toContain('text/csv');
    const lines = parse(Buffer.from(csv.bytes), { bom: true });
    expect(lines).toHaveLength(4);
    expect(lines[3]?.slice(0, 8)).toEqual(['2027-03-16', '09:00', expect.any(String), expect.any(String), 'A piece', '', copy, '#one']);
    const xlsx = await bytesOf(path().replace('?', '/xlsx?'));
    const book = new exceljs.Workbook();
    await book.xlsx.load(xlsx.bytes);
    const cell = book.worksheets[0]?.getRow(4).getCell(7);
    expect([cell?.value, cell?.formula]).toEqual([copy, undefined]);
  });
});
