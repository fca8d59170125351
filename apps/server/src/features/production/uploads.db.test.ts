import { createHash, randomBytes } from 'node:crypto';
import { readdirSync, readFileSync, readlinkSync, rmSync } from 'node:fs';
import sharp from 'sharp';
import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { eventually } from '../../../test-support/eventually.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { decide, sendPacket } from '../sign-off/index.js';
import { addPieceFile, assignStep, editContent, handIn } from './index.js';

const TUS = { 'Tus-Resumable': '1.0.0' };
const encoded = (name: string) => Buffer.from(name).toString('base64');

describe('files', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const raw = (caller: Caller, method: string, path: string, headers: Record<string, string>, body?: Buffer) =>
    fetch(`${scene.address}${path}`, {
      method,
      headers: { ...TUS, ...headers, Cookie: [...caller.cookies].map(([name, value]) => `${name}=${value}`).join('; ') },
      body: body ? new Uint8Array(body) : null,
    });
  const begin = async (caller: Caller, at: string, name: string, length: number) => {
    const answer = await raw(caller, 'POST', at, { 'Upload-Length': String(length), 'Upload-Metadata': `filename ${encoded(name)}` });
    return { status: answer.status, path: answer.headers.get('location') ?? '' };
  };
  /** A refusal in the middle of a body closes the connection, which not every client reads to the end: no status then. */
  const sendOn = async (caller: Caller, path: string, offset: number, part: Buffer): Promise<number> => {
    const headers = { 'Upload-Offset': String(offset), 'Content-Type': 'application/offset+octet-stream' };
    return raw(caller, 'PATCH', path, headers, part).then(
      ({ status }) => status,
      () => 0,
    );
  };
  const picture = () =>
    sharp({ create: { width: 900, height: 600, channels: 3, background: '#789' } })
      .png()
      .toBuffer();

  it('come in parts, go on after a cut, and are taken once', async () => {
    const caller = await callerAs(scene, 'lead');
    const at = `/api/pieces/${await makePiece(scene, scene.a)}/uploads`;
    const bytes = Buffer.concat([readFileSync(new URL(import.meta.url)), randomBytes(0)]);
    const text = Buffer.from(bytes.toString('utf8').replaceAll('<', '('));
    const { status, path } = await begin(caller, at, 'Zwölf Farne.txt', text.length);
    expect([status, path.startsWith(`${at}/`)]).toEqual([201, true]);
    expect(await sendOn(caller, path, 0, text.subarray(0, 1000))).toBe(204);
    expect((await caller.call('POST', `${path}/file`)).body['code']).toBe('file.not_arrived');
    // the other end lost count: it asks, and goes on from there
    expect([409, 0]).toContain(await sendOn(caller, path, 500, text.subarray(500)));
    const far = (await raw(caller, 'HEAD', path, {})).headers.get('upload-offset');
    expect(far).toBe('1000');
    expect(await sendOn(caller, path, 1000, text.subarray(1000))).toBe(204);
    const [one, two] = await Promise.all([caller.call('POST', `${path}/file`), caller.call('POST', `${path}/file`)]);
    expect(one.body).toMatchObject({ name: 'Zwölf Farne.txt', mime: 'text/plain', bytes: text.length });
    expect(two.body['assetId']).toBe(one.body['assetId']);
    expect((await caller.call('POST', `${path}/file`)).body['assetId']).toBe(one.body['assetId']); // an answer lost on the way
    const got = await caller.call('GET', `/api/files/${String(one.body['assetId'])}`);
    expect(createHash('sha256').update(String(got.body['text'])).digest('hex')).toBe(createHash('sha256').update(text).digest('hex'));
  });

  it('belong to the address they were begun at, and to no other piece, form or person', async () => {
    const lead = await callerAs(scene, 'lead');
    const [mine, other] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    const { path } = await begin(lead, `/api/pieces/${mine}/uploads`, 'a.txt', 4);
    const elsewhere = path.replace(mine, other);
    expect((await raw(lead, 'HEAD', elsewhere, {})).status).toBe(404);
    expect([404, 0]).toContain(await sendOn(lead, elsewhere, 0, Buffer.from('text')));
    expect(await sendOn(lead, path, 0, Buffer.from('text'))).toBe(204);
    expect((await lead.call('POST', `${elsewhere}/file`)).body['code']).toBe('file.not_arrived');
    const freelance = await callerAs(scene, 'freelance');
    expect((await raw(freelance, 'HEAD', path, {})).status).toBe(404);
    const form = await callerByLink(scene, 'ask', scene.a.linkId);
    const asked = await begin(form, `/api/ask/${scene.a.linkId}/uploads`, 'b.txt', 4);
    expect(await sendOn(form, asked.path, 0, Buffer.from('text'))).toBe(204);
    expect((await form.call('POST', `${asked.path}/file`)).body).toMatchObject({ name: 'b.txt', bytes: 4 });
  });

  it('are refused by content and by size, whatever they are called', async () => {
    const lead = await callerAs(scene, 'lead');
    const at = `/api/pieces/${await makePiece(scene, scene.a)}/uploads`;
    const page = Buffer.from('<html><script>alert(1)</script></html>');
    const { path } = await begin(lead, at, 'a.png', page.length);
    await sendOn(lead, path, 0, page);
    expect((await lead.call('POST', `${path}/file`)).body['code']).toBe('file.type_refused');
    expect((await begin(lead, at, 'a.mp4', 3 * 1024 ** 3)).status).toBe(413);
    expect((await raw(lead, 'HEAD', `${at}/..%2f..%2fserver.key`, {})).status).toBe(404);
  });

  it('that are pictures are served in the width asked for, unenlarged', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const file = getValue(await addPieceFile(scene.app, pieceId, { name: 'a.png', bytes: await picture() }));
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'design'), scene.people.lead.personId));
    const lead = await callerAs(scene, 'lead');
    const widthOf = async (query: string) => {
      const answer = await raw(lead, 'GET', `/api/files/${file.assetId}${query}`, {});
      return [answer.headers.get('content-type'), (await sharp(Buffer.from(await answer.arrayBuffer())).metadata()).width];
    };
    expect(await widthOf('?width=160')).toEqual(['image/webp', 160]);
    expect(await widthOf('?width=300')).toEqual(['image/webp', 480]);
    expect(await widthOf('?width=1080')).toEqual(['image/webp', 900]);
    expect(await widthOf('')).toEqual(['image/png', 900]);
    const again = await raw(lead, 'GET', `/api/files/${file.assetId}`, {
      'Cache-Control': 'max-age=0', // as browsers ask
      'If-None-Match': `"${createHash('sha256')
        .update(await picture())
        .digest('hex')}"`,
    });
    expect(again.status).toBe(304);
  });

  it('that are unapproved pictures carry the mark for all but makers, until the client has approved them', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const bytes = await picture();
    const { assetId } = getValue(await addPieceFile(scene.app, pieceId, { name: 'a.png', bytes }));
    for (const [key, person] of [
      ['write', 'staff'],
      ['design', 'freelance'],
    ] as const)
      getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, key), scene.people[person].personId));
    const content = { shared: { copy: 'Copy', disclosure: '', media: [{ assetId, alt: '' }] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, content, 1));
    const isMarked = async (caller: Caller, path: string) => {
      const answer = await raw(caller, 'GET', path, {});
      expect(answer.status).toBe(200);
      const { channels } = await sharp(Buffer.from(await answer.arrayBuffer())).stats();
      return channels.some((channel) => channel.stdev > 3); // the picture is of one colour: words on it spread
    };
    const path = `/api/files/${assetId}?width=480`;
    const [lead, manager, freelance] = [
      await callerAs(scene, 'lead'),
      await callerAs(scene, 'manager'),
      await callerAs(scene, 'freelance'),
    ];
    expect([await isMarked(lead, path), await isMarked(manager, path), await isMarked(freelance, path)]).toEqual([true, true, false]);
    expect(await isMarked(lead, `/api/files/${assetId}`)).toBe(true); // the whole file is no way around it
    for (const key of ['write', 'design', 'check']) getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, pieceId, key)));
    const packetId = getValue(
      await sendPacket(scene.app, scene.people.lead, scene.a.id, { title: 'P', pieceIds: [pieceId], dueOn: '2027-03-10' }),
    );
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    const inRoom = `/api/room/${scene.a.contactId}/files/${assetId}?width=480`;
    expect(await isMarked(contact, inRoom)).toBe(true);
    getValue(
      await decide(scene.app, {
        packetId,
        pieceId,
        contactId: scene.a.contactId,
        verdict: 'approve',
        things: [],
        versionId: null,
        onBehalf: null,
      }),
    );
    expect([await isMarked(contact, inRoom), await isMarked(lead, path), await isMarked(manager, `/api/files/${assetId}`)]).toEqual([
      false,
      false,
      false,
    ]);
  });

  it('gives the finals away whole or not at all: a file that is gone is said, and who hangs up leaves nothing open', async () => {
    const way = signOffIn(scene);
    const pieceId = await makePiece(scene, scene.a);
    const noise = await sharp({
      create: { width: 1200, height: 1200, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 128, sigma: 60 } },
    })
      .png()
      .toBuffer();
    const file = getValue(await addPieceFile(scene.app, pieceId, { name: 'noise.png', bytes: noise }));
    const content = { shared: { copy: 'Copy', disclosure: '', media: [{ assetId: file.assetId, alt: 'Noise' }] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, content, 1));
    await way.make(pieceId);
    getValue(await way.say(getValue(await way.send(scene.a, [pieceId])), pieceId, 'approve'));
    const lead = await callerAs(scene, 'lead');
    const cookie = [...lead.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const get = (signal?: AbortSignal) =>
      fetch(`${scene.address}/api/pieces/${pieceId}/finals`, { headers: { Cookie: cookie }, ...(signal ? { signal } : {}) });
    const whole = Buffer.from(await (await get()).arrayBuffer());
    expect(whole.length).toBeGreaterThan(noise.length / 2);
    expect(whole.subarray(0, 2).toString()).toBe('PK');
    const [asset] = await scene.app.read<{ hash: string }>('select hash from assets where id = $1', [file.assetId]);
    const path = scene.app.files.pathOf(asset?.hash ?? '');
    for (let count = 0; count < 30; count++) {
      const ending = new AbortController();
      await get(ending.signal).then(
        (response) => response.body?.getReader().read(),
        () => undefined,
      );
      ending.abort();
    }
    const handles = () =>
      readdirSync('/proc/self/fd').filter((fd) => {
        try {
          return readlinkSync(`/proc/self/fd/${fd}`) === path;
        } catch {
          return false; // closed while we looked
        }
      }).length;
    await eventually(() => handles() === 0);
    rmSync(path);
    const gone = await lead.call('GET', `/api/pieces/${pieceId}/finals`);
    expect([gone.status, gone.body['code']]).toEqual([410, 'file.gone']);
    const one = await lead.call('GET', `/api/files/${file.assetId}`);
    expect([one.status, one.body['code']]).toEqual([410, 'file.gone']);
    expect((await lead.call('GET', '/api/health')).status).toBe(200);
  });
});
