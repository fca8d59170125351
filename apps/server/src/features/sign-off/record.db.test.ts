import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { addPieceFile, editContent, handIn } from '../production/index.js';
import { settleRemark } from '../remarks/index.js';
import { decide, sendPacket, thingsIn } from './index.js';

const COMMAND = join(__dirname, '../../../../../tools/verify-record.mjs');

describe('what a signed piece can be taken away as', () => {
  let scene: Scene;
  let pieceId = '';
  const folder = mkdtempSync(join(tmpdir(), 'zesting-record-'));

  const bytesOf = async (caller: Caller, path: string) => {
    const cookie = [...caller.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const answer = await fetch(`${scene.address}${path}`, { headers: { Cookie: cookie } });
    return { status: answer.status, name: answer.headers.get('content-disposition') ?? '', bytes: Buffer.from(await answer.arrayBuffer()) };
  };
  const say = async (packetId: string, verdict: 'approve' | 'changes', remark: string) =>
    getValue(
      await decide(scene.app, {
        packetId,
        pieceId,
        contactId: scene.a.contactId,
        verdict,
        things: thingsIn(remark),
        versionId: null,
        onBehalf: null,
      }),
    );
  const make = async (copy: string, assetId: string, version: number, keys: string[]) => {
    const channels = [{ channelId: scene.a.channelIds[0] ?? '', copy: '', tags: ['figs'], firstComment: '', link: 'https://aaa.test' }];
    const content = { shared: { copy, disclosure: '', media: [{ assetId, alt: 'Figs' }] }, channels };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, content, version));
    for (const key of keys) getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, pieceId, key)));
    return getValue(await sendPacket(scene.app, scene.people.lead, scene.a.id, { title: 'P', pieceIds: [pieceId], dueOn: '2027-03-10' }));
  };
  /** Runs the shipped command as a person would. */
  const check = (bytes: Buffer, key?: string) => {
    const file = join(folder, 'record.pdf');
    writeFileSync(file, bytes);
    const { status, stdout, stderr } = spawnSync(process.execPath, [COMMAND, file, ...(key ? [key] : [])], { encoding: 'utf8' });
    return { status, said: stdout + stderr };
  };

  beforeAll(async () => {
    scene = await makeScene();
    pieceId = await makePiece(scene, scene.a, null);
    const bytes = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#7a9a5b' } })
      .png()
      .toBuffer();
    const { assetId } = getValue(await addPieceFile(scene.app, pieceId, { name: 'Figs on a wall.PNG', bytes }));
    const first = await make('A pot, a wall, and six hours of sun.', assetId, 1, ['write', 'design', 'check']);
    await say(first, 'changes', 'Warmer, please');
    for (const { id } of await scene.app.read<{ id: string }>("select id from remarks where state = 'open'"))
      getValue(await settleRemark(scene.app, scene.people.lead, id, { state: 'settled' }));
    const second = await make('Figs ask for little: a pot, a wall, “six hours” of sun — and Māori potatoes beside them.', assetId, 2, [
      'design',
      'check',
    ]);
    await say(second, 'approve', '');
    const [placement] = await scene.app.read<{ id: string; version: number }>('select id, version from placements where piece_id = $1', [
      pieceId,
    ]);
    getValue(await movePlacement(scene.app, scene.people.lead, placement?.id ?? '', { on: '2027-04-06' }, placement?.version ?? 0));
  });
  afterAll(() => scene.close());

  it('is a PDF with the record inside, which the shipped command finds to hold', async () => {
    const lead = await callerAs(scene, 'lead');
    const { status, name, bytes } = await bytesOf(lead, `/api/pieces/${pieceId}/sign-off-record`);
    expect([status, name]).toEqual([200, expect.stringMatching(/^attachment; filename="AAA-\d+-sign-off-record\.pdf"$/)]);
    const read = await PDFDocument.load(bytes); // an independent reader takes it, signature line and all
    expect([read.getTitle(), read.getPageCount() >= 1]).toEqual(['Sign-off record: A piece', true]);
    const { body } = await lead.call('GET', '/api/health');
    const { status: code, said } = check(bytes, String(body['recordKey']));
    expect(said).toMatch(/^It holds: A piece, Client AAA/);
    expect(said).toContain('2 version(s), 2 decision(s)');
    expect(code).toBe(0);
    expect(check(bytes, '0000 0000 0000 0000').status).toBe(1);
  });

  it('is refused after one byte is changed, wherever it is, and when its end is missing', async () => {
    const { bytes } = await bytesOf(await callerAs(scene, 'lead'), `/api/pieces/${pieceId}/sign-off-record`);
    const places = [
      0,
      100,
      Math.floor(bytes.length / 2),
      bytes.indexOf('six hours'),
      bytes.length - 400,
      bytes.length - 150,
      bytes.length - 2,
    ];
    for (const place of places) {
      const changed = Buffer.from(bytes);
      changed[place] = (changed[place] ?? 0) ^ 1;
      const { status, said } = check(changed);
      expect([place, status, said.startsWith('REFUSED')]).toEqual([place, 1, true]);
    }
    expect(check(bytes.subarray(0, -1)).status).toBe(1);
    expect(check(Buffer.concat([bytes, Buffer.from('\n')])).status).toBe(1);
    expect(check(Buffer.from('no record')).said).toContain('there is no signature at its end');
  });

  it('is for the contact who decided, and for no other client’s', async () => {
    const path = (contactId: string) => `/api/room/${contactId}/pieces/${pieceId}/sign-off-record`;
    const own = await callerByLink(scene, 'room', scene.a.contactId);
    expect((await bytesOf(own, path(scene.a.contactId))).status).toBe(200);
    const other = await callerByLink(scene, 'room', scene.b.contactId);
    expect((await bytesOf(other, path(scene.b.contactId))).status).toBe(404);
    const undecided = await makePiece(scene, scene.a);
    const lead = await callerAs(scene, 'lead');
    expect((await lead.call('GET', `/api/pieces/${undecided}/sign-off-record`)).body['code']).toBe('piece.no_record');
  });

  it('is a ZIP of the finals under names that sort in publishing order', async () => {
    const lead = await callerAs(scene, 'lead');
    const { name, bytes } = await bytesOf(lead, `/api/pieces/${pieceId}/finals`);
    expect(name).toBe('attachment; filename="2027-04-06_AAA_a-piece-finals.zip"');
    const files = unzipSync(new Uint8Array(bytes));
    expect(Object.keys(files).sort()).toEqual([
      '01_2027-04-06_AAA_a-piece.png',
      '02_2027-04-06_AAA_a-piece-photo-feed.txt',
      '03_2027-04-06_AAA_a-piece-blog.txt',
    ]);
    expect(Buffer.from(files['02_2027-04-06_AAA_a-piece-photo-feed.txt'] ?? []).toString()).toBe(
      'Figs ask for little: a pot, a wall, “six hours” of sun — and Māori potatoes beside them.\n\n#figs\n\nhttps://aaa.test\n',
    );
    expect((await sharp(Buffer.from(files['01_2027-04-06_AAA_a-piece.png'] ?? [])).metadata()).width).toBe(30);
    const unsigned = await makePiece(scene, scene.a);
    expect((await lead.call('GET', `/api/pieces/${unsigned}/finals`)).body['code']).toBe('piece.no_finals');
  });
});
