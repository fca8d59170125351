import sharp from 'sharp';
import { getValue, ok } from '@zesting/core';
import type { GoingOutShape, KeptFilesShape, OfferedKeptFilesShape, PieceShape, UploadShape } from '@zesting/contract';
import { Jobs } from '../../platform/jobs/jobs.js';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { addAsset, clearUnusedFiles } from '../production/index.js';
import { remindOfRenewals } from './use-cases/remind-of-renewals.js';

describe('files that are kept for a client', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let staff: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager, staff] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager'), await callerAs(scene, 'staff')];
    await scene.server.get(Jobs).beforeApplicationShutdown(); // files are cleared away and told of here alone
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin(); // Monday 1 March 2027, nine in London
    for (const table of ['kept_file_uses', 'kept_files', 'renewed_files', 'reminders', 'notices'])
      await scene.app.read(`delete from ${table}`);
    await scene.app.read("update placements set cancelled = true, state = 'cancelled'");
  });

  let shade = 0;
  /** A file of a client that was just brought, never the same bytes twice. */
  const brought = async (clientId = scene.a.id, name = 'loaf.png'): Promise<UploadShape> => {
    const bytes = await sharp({ create: { width: 40, height: 40, channels: 3, background: { r: 9, g: 9, b: ++shade } } })
      .png()
      .toBuffer();
    const stored = getValue(await scene.app.files.store(bytes));
    return getValue(await scene.app.write(async (tx, now) => ok(await addAsset(tx, stored, { clientId, pieceId: null, name, now }))));
  };
  const said = (more: object = {}) => ({ kind: 'product', title: 'Rye loaf', about: 'A loaf on slate', renewBy: null, ...more });
  const keep = async (more: object = {}, file?: UploadShape) => {
    const { assetId } = file ?? (await brought());
    const { status, body } = await manager.call('POST', `/api/clients/${scene.a.id}/kept-files`, { body: { ...said(more), assetId } });
    expect({ status, body }).toMatchObject({ status: 201 });
    return body['keptFileId'] as string;
  };
  const find = async (query = '', by = manager) => (await by.call('GET', `/api/kept-files?${query}`)).body as unknown as KeptFilesShape;
  const titles = async (query = '', by = manager) => (await find(query, by)).files.map(({ title }) => title);
  const one = async (id: string) => {
    const file = (await find()).files.find((each) => each.id === id);
    if (!file) throw new Error('it is not kept');
    return file;
  };
  const renew = async (id: string, assetId: string, renewBy: string | null = null, version?: number) =>
    manager.call('PUT', `/api/kept-files/${id}`, {
      body: { ...said({ renewBy }), assetId },
      headers: { 'If-Match': `"${version ?? (await one(id)).version}"` },
    });
  const take = (pieceId: string, id: string, into = 'content', by = manager) =>
    by.call('POST', `/api/pieces/${pieceId}/kept-files/${id}`, { body: { into } });
  const taken = async (pieceId: string, id: string, into = 'content') => {
    const { status, body } = await take(pieceId, id, into);
    expect({ status, body }).toMatchObject({ status: 200 });
    return body as unknown as UploadShape;
  };
  const show = async (pieceId: string, { assetId }: Pick<UploadShape, 'assetId'>) => {
    const { content } = (await manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
    const body = { shared: { copy: 'Fresh', disclosure: '', media: [{ assetId, alt: 'A loaf' }] }, channels: [] };
    return manager.call('PUT', `/api/pieces/${pieceId}/content`, { body, headers: { 'If-Match': `"${content.version}"` } });
  };

  it('are found by words of their title, what can be seen and their name, whatever their accents, those to be renewed first', async () => {
    await keep({ title: 'Éclair on slate', about: '' });
    await keep({ title: 'Rye loaf', renewBy: '2027-03-20' });
    await keep({ title: 'Buns', about: 'Three buns in a row', renewBy: '2027-03-10' });
    await keep({ title: 'Frame of the week', kind: 'template', renewBy: '2027-09-01' }, await brought(scene.a.id, 'week-frame_v2.png'));
    expect(await titles()).toEqual(['Buns', 'Rye loaf', 'Frame of the week', 'Éclair on slate']);
    expect((await find()).toRenew).toBe(2);
    expect(await titles('renew=yes')).toEqual(['Buns', 'Rye loaf']);
    expect(await titles('words=eclair')).toEqual(['Éclair on slate']);
    expect(await titles('words=Row%20bun')).toEqual(['Buns']);
    expect(await titles('words=v2')).toEqual(['Frame of the week']);
    expect(await titles('words=lair')).toEqual([]); // within a word is no word
    expect(await titles('words=%25')).toEqual(await titles()); // a sign is no word
    expect(await titles('kept=template')).toEqual(['Frame of the week']);
    expect(await titles('', staff)).toHaveLength(4);
    expect(await titles(`clientId=${scene.b.id}`, lead)).toEqual([]);
  });

  it('are put away and taken back, and changed only as they were opened', async () => {
    const id = await keep();
    const { version } = await one(id);
    const edit = (headers = `"${version}"`) =>
      manager.call('PUT', `/api/kept-files/${id}`, { body: said({ title: 'Rye' }), headers: { 'If-Match': headers } });
    expect((await edit()).status).toBe(204);
    expect((await edit()).body).toMatchObject({ code: 'http.changed_meanwhile' });
    expect((await manager.call('POST', `/api/kept-files/${id}/archive`, { body: { archived: true } })).status).toBe(204);
    expect([await titles(), await titles('archived=yes')]).toEqual([[], ['Rye']]);
    expect((await take(await makePiece(scene, scene.a), id)).body).toMatchObject({ code: 'kept_file.unknown' });
    await manager.call('POST', `/api/kept-files/${id}/archive`, { body: { archived: false } });
    expect(await titles()).toEqual(['Rye']);
  });

  it('are the client’s own, and belong to nothing else', async () => {
    const elsewhere = await brought(scene.b.id);
    const ask = (assetId: string) => manager.call('POST', `/api/clients/${scene.a.id}/kept-files`, { body: { ...said(), assetId } });
    expect((await ask(elsewhere.assetId)).body).toMatchObject({ code: 'file.unknown' });
    const file = await brought();
    await keep({}, file);
    expect((await ask(file.assetId)).body).toMatchObject({ code: 'file.unknown' }); // kept already
    const { assetId } = await brought();
    const atOnce = await Promise.all(Array.from({ length: 6 }, () => ask(assetId)));
    expect(atOnce.map(({ status }) => status).sort()).toEqual([201, 422, 422, 422, 422, 422]);
  });

  it('stay where they are kept, and what was never kept is cleared away', async () => {
    const [kept, loose] = [await brought(), await brought()];
    const id = await keep({}, kept);
    const newer = await brought();
    await renew(id, newer.assetId);
    await scene.app.read("update assets set created_at = created_at - interval '3 days' where piece_id is null");
    await clearUnusedFiles(scene.app);
    const left = await scene.app.read<{ id: string }>('select id from assets where id = any($1)', [
      [kept.assetId, loose.assetId, newer.assetId],
    ]);
    expect(left.map((row) => row.id)).toEqual([newer.assetId]);
  });

  it('are taken into a piece as files of its own, once, and are counted by piece', async () => {
    const id = await keep();
    const [pieceId, other] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    const file = await taken(pieceId, id);
    const { assetId } = await one(id);
    expect(file.assetId).not.toBe(assetId);
    const bytes = await scene.app.read<{ hash: string }>('select distinct hash from assets where id = any($1)', [[file.assetId, assetId]]);
    expect(bytes).toEqual([{ hash: file.hash }]); // they lie there once
    expect((await show(pieceId, file)).status).toBe(200);
    expect((await taken(pieceId, id)).assetId).toBe(file.assetId);
    await taken(other, id);
    expect(await one(id)).toMatchObject({ used: 2 });
    expect((await one(id)).pieces.map((piece) => piece.pieceId)).toEqual([other, pieceId]);
    // the library's own file is none of the piece's
    expect((await show(other, { assetId })).body).toMatchObject({ code: 'file.unknown' });
    expect((await take(await makePiece(scene, scene.b), id, 'content', lead)).body).toMatchObject({ code: 'kept_file.unknown' });
  });

  it('are taken among what a piece is made from as well, once', async () => {
    const id = await keep({ kind: 'template', title: 'Frame of the week' });
    const pieceId = await makePiece(scene, scene.a);
    const [first, again] = [await taken(pieceId, id, 'material'), await taken(pieceId, id, 'material')];
    expect(again.assetId).toBe(first.assetId);
    const rows = await scene.app.read<{ label: string; sort: string }>('select label, sort from materials where piece_id = $1', [pieceId]);
    expect(rows).toEqual([{ label: 'Frame of the week', sort: 'original' }]);
  });

  it('are offered for a piece of their client, those used most first, with a small picture', async () => {
    const [first, second] = [await keep({ title: 'Buns' }), await keep({ title: 'Rye loaf' })];
    const pieceId = await makePiece(scene, scene.a);
    const offered = async (of: string, words = '') =>
      ((await lead.call('GET', `/api/pieces/${of}/kept-files?words=${words}`)).body as unknown as OfferedKeptFilesShape).files.map(
        ({ title }) => title,
      );
    expect(await offered(pieceId)).toEqual(['Rye loaf', 'Buns']);
    await taken(pieceId, first);
    expect(await offered(pieceId)).toEqual(['Buns', 'Rye loaf']);
    expect(await offered(pieceId, 'rye')).toEqual(['Rye loaf']);
    const elsewhere = await makePiece(scene, scene.b);
    expect(await offered(elsewhere)).toEqual([]);
    expect((await lead.call('GET', `/api/pieces/${elsewhere}/kept-files/${second}/picture`)).status).toBe(404);
  });

  it('are old once something newer took their place, and where they still go out somebody is told', async () => {
    const id = await keep({ renewBy: '2027-03-20' });
    const pieceId = await makePiece(scene, scene.a);
    const file = await taken(pieceId, id);
    await show(pieceId, file);
    const [placement] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [pieceId, scene.a.channelIds[0]],
    );
    const date = async (on: string) => {
      const [{ version } = { version: 0 }] = await scene.app.read<{ version: number }>('select version from placements where id = $1', [
        placement?.id,
      ]);
      getValue(await movePlacement(scene.app, scene.people.lead, placement?.id ?? '', { on, at: '10:00' }, version));
    };
    const found = async () =>
      ((await manager.call('GET', '/api/going-out')).body as unknown as GoingOutShape).rows.flatMap(({ findings }) =>
        findings.flatMap(({ code, what }) => (code === 'picture_old' ? [what] : [])),
      );
    await date('2027-03-05');
    expect(await found()).toEqual([]);
    scene.app.clock.set('2027-03-16T09:00:00Z');
    await date('2027-03-20');
    expect(await found()).toEqual([]); // it is good on its day
    await date('2027-03-21');
    expect(await found()).toEqual(['loaf.png']);
    // a newer one is brought: the piece keeps what it has, and that is old from today on
    const before = await one(id);
    expect((await renew(id, (await brought()).assetId, '2027-09-01')).status).toBe(204);
    expect(await one(id)).toMatchObject({ renewBy: '2027-09-01', used: 1 });
    expect((await renew(id, (await brought()).assetId, null, before.version)).body).toMatchObject({ code: 'http.changed_meanwhile' });
    await date('2027-03-17');
    expect(await found()).toEqual(['loaf.png']);
    await show(pieceId, await taken(pieceId, id)); // the newer one
    expect(await found()).toEqual([]);
  });

  it('are told of two weeks before their day, once, to their managers', async () => {
    await keep({ title: 'Rye loaf', renewBy: '2027-03-15' });
    const later = await keep({ title: 'Buns', renewBy: '2027-03-16' });
    await keep({ title: 'For good' });
    expect(await remindOfRenewals(scene.app)).toBe(1);
    expect(await remindOfRenewals(scene.app)).toBe(0);
    const told = await scene.app.read<{ heading: string; path: string }>('select heading, path from notices');
    expect(told).toEqual([{ heading: 'To be renewed: Rye loaf', path: '/production/library/files?client=AAA&shown=renew' }]);
    scene.app.clock.set('2027-03-02T09:00:00Z');
    expect((await Promise.all([remindOfRenewals(scene.app), remindOfRenewals(scene.app)])).sort()).toEqual([0, 1]);
    // another day is another reminder
    await manager.call('PUT', `/api/kept-files/${later}`, {
      body: said({ title: 'Buns', renewBy: '2027-03-12' }),
      headers: { 'If-Match': `"${(await one(later)).version}"` },
    });
    expect(await remindOfRenewals(scene.app)).toBe(1);
  });
});
