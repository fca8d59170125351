import { getValue } from '@zesting/core';
import type { LibraryShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { eventually } from '../../../test-support/eventually.js';
import { editContent, editPiece } from '../production/index.js';
import { splitWords } from './queries/find-in-library.js';

describe('finding pieces by what they say', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager, freelance] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager'), await callerAs(scene, 'freelance')];
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from piece_words');
  });

  const write = async (title: string, copy: string, { client = scene.a, tags = [] as string[] } = {}): Promise<string> => {
    const { lead: by } = scene.people;
    const id = await makePiece(scene, client);
    getValue(await editPiece(scene.app, by, id, { title }, 1));
    const [channelId = ''] = client.channelIds;
    const channels = [{ channelId, copy: '', tags, firstComment: '', link: '' }];
    getValue(await editContent(scene.app, by, id, { shared: { copy, disclosure: '', media: [] }, channels }, 1));
    return id;
  };
  const find = async (words: string, more = '', caller = manager) =>
    (await caller.call('GET', `/api/library?words=${encodeURIComponent(words)}${more}`)).body as unknown as LibraryShape;
  const titles = async (words: string, more = '', caller = manager) => (await find(words, more, caller)).pieces.map(({ title }) => title);

  it('finds titles, copy and tags by their stems, with accents folded, all words of it', async () => {
    await write('Blankets', 'They take eleven days in the café.', { tags: ['slowwool'] });
    await write('Scarves', 'Short ends, long winters.');
    expect(await titles('blanket')).toEqual(['Blankets']);
    expect(await titles('taking days')).toEqual(['Blankets']);
    expect(await titles('CAFE')).toEqual(['Blankets']);
    expect(await titles('slowwool')).toEqual(['Blankets']);
    expect(await titles('scar')).toEqual(['Scarves']); // begun only
    expect(await titles('winters blankets')).toEqual([]);
    expect(await titles('"long winters"')).toEqual(['Scarves']);
    expect(await titles('days -blankets')).toEqual([]);
    expect(await titles('')).toEqual(['Scarves', 'Blankets']);
    for (const odd of ["'", '"', '((', '\\', ':*', '&|!', 'a:*b', '%', '   -  ']) expect((await find(odd)).pieces).toBeDefined();
  });

  it('shows where the words stand, and forgets what is no longer said', async () => {
    const id = await write('Blankets', 'They take eleven days.');
    const [found] = (await find('eleven')).pieces;
    expect(found).toMatchObject({ pieceId: id, snippet: 'They take \u0002eleven\u0003 days.', tags: [], formatName: 'Still' });
    const [row] = await scene.app.read<{ version: number }>('select content_version as version from pieces where id = $1', [id]);
    const body = { shared: { copy: 'They take twelve days.', disclosure: '', media: [] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, id, body, row?.version ?? 0));
    expect([await titles('eleven'), await titles('twelve')]).toEqual([[], ['Blankets']]);
  });

  it('narrows by channel, format, days and client, and stays in reach', async () => {
    const id = await write('Blankets', 'Wool.');
    await write('Kauri', 'Wool too.', { client: scene.b });
    await scene.app.read(
      "update placements set on_day = '2027-03-20', at_time = '09:00', publish_at = '2027-03-20T09:00:00Z' where piece_id = $1 and channel_id = $2",
      [id, scene.a.channelIds[0]],
    );
    expect(await titles('wool')).toEqual(['Blankets']);
    expect(await titles('wool', '', lead)).toEqual(['Kauri', 'Blankets']);
    expect(await titles('wool', `&clientId=${scene.b.id}`)).toEqual([]);
    expect(await titles('wool', '&from=2027-03-20&to=2027-03-20')).toEqual(['Blankets']);
    expect(await titles('wool', '&from=2027-03-21')).toEqual([]);
    expect(await titles('wool', `&from=2027-03-01&channelId=${scene.a.channelIds[1]}`)).toEqual([]);
    expect(await titles('wool', `&formatId=${scene.routeId}`)).toEqual([]);
    expect((await freelance.call('GET', '/api/library?words=wool')).status).toBe(403);
  });

  it('goes on page by page, none twice', async () => {
    for (let number = 0; number < 33; number++) await write(`Wool ${number}`, 'Wool.');
    const first = await find('wool');
    const second = await find('wool', `&cursor=${first.next}`);
    expect([first.pieces.length, second.pieces.length, second.next]).toEqual([30, 3, null]);
    expect(new Set([...first.pieces, ...second.pieces].map(({ pieceId }) => pieceId)).size).toBe(33);
  });

  it('reads a client’s pieces in the client’s language, also those that were there', async () => {
    await write('Gärten', 'Die Gärten im Frühling blühen.');
    expect(await titles('garten')).toEqual(['Gärten']); // begun only
    expect(await titles('blühe garten')).toEqual([]);
    const [client] = await scene.app.read<{ version: number }>('select version from clients where id = $1', [scene.a.id]);
    const put = await manager.call('PATCH', `/api/clients/${scene.a.id}`, {
      body: { language: 'de' },
      headers: { 'If-Match': `"${client?.version}"` },
    });
    expect(put.status).toBe(200);
    await eventually(async () => (await titles('blühe garten')).length > 0);
    expect(await titles('blühe garten')).toEqual(['Gärten']);
    await write('Wiesen', 'Auf der Wiese.');
    expect(await titles('wiesen grün')).toEqual([]);
    expect(await titles('der wiese')).toEqual(['Wiesen']);
  });
});

it('the last word may be begun only, where it stands free', () => {
  expect(splitWords('slow woo')).toEqual({ whole: 'slow', begun: 'woo' });
  expect(splitWords('woo')).toEqual({ whole: '', begun: 'woo' });
  expect(splitWords('"slow woo')).toEqual({ whole: '"slow woo', begun: '' });
  expect(splitWords('slow -woo')).toEqual({ whole: 'slow -woo', begun: '' });
  expect(splitWords('a')).toEqual({ whole: 'a', begun: '' });
  expect(splitWords(' ')).toEqual({ whole: '', begun: '' });
});
