import { existsSync } from 'node:fs';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { PART_SCHEME, boxOf, digestParts, getValue, recordProblems, type Content, type Crop, type SignOffRecord } from '@zesting/core';
import type { ChannelLookShape, HandOutShape, PieceShape, RoomShape, UploadShape, VersionsShape } from '@zesting/contract';
import { eventually } from '../../../test-support/eventually.js';
import { silence } from '../../../test-support/silence.js';
import { callerAs, callerByLink, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { movePlacement } from '../calendar/index.js';
import { signOffRecord } from '../sign-off/queries/sign-off-record.js';
import { addPieceFile, dropAssets, dropBytes } from './index.js';

/** 1200 × 800 at 4:5 around the middle: 640 × 800, 280 from the left. */
const UPRIGHT: Crop = { ratio: '4:5', x: 5000, y: 5000, size: 1000 };

describe('pictures as a channel shows them', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let pieceId: string;
  let wide: UploadShape;
  let tall: UploadShape;
  beforeAll(async () => {
    scene = await makeScene();
    [lead, manager] = [await callerAs(scene, 'lead'), await callerAs(scene, 'manager')];
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read("update placements set cancelled = true, state = 'cancelled'");
    pieceId = await makePiece(scene, scene.a);
    [wide, tall] = [await picture('wide.jpg', 1200, 800), await picture('tall.png', 600, 900)];
  });

  let shade = 0;
  /** Red in its left half and blue in its right, never the same bytes twice. */
  const picture = async (name: string, width: number, height: number) => {
    const half = { create: { width: Math.floor(width / 2), height, channels: 3, background: { r: 0, g: ++shade, b: 255 } } } as const;
    const whole = sharp({ create: { width, height, channels: 3, background: '#ff0000' } }).composite([
      { input: await sharp(half).png().toBuffer(), left: Math.ceil(width / 2), top: 0 },
    ]);
    const bytes = await (name.endsWith('.jpg') ? whole.jpeg({ quality: 100 }) : whole.png()).toBuffer();
    return getValue(await addPieceFile(scene.app, pieceId, { name, bytes }));
  };
  const [FEED, BLOG] = [0, 1];
  const piece = async (by = manager) => (await by.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
  const part = async (at: number) => {
    const found = (await piece()).content.channels.find(({ channelId }) => channelId === scene.a.channelIds[at]);
    if (!found) throw new Error('no such channel');
    return found;
  };
  /** Saves the content with what is told of the channels; both pictures are in it unless told. */
  const save = async (channels: Readonly<Record<number, object>>, media: readonly UploadShape[] = [wide, tall]) => {
    const { content } = await piece();
    const body = {
      shared: { copy: 'Fresh', disclosure: '', media: media.map(({ assetId }) => ({ assetId, alt: 'Bread' })) },
      channels: Object.entries(channels).map(([at, more]) => ({
        channelId: scene.a.channelIds[Number(at)],
        copy: '',
        tags: [],
        firstComment: '',
        link: '',
        ...more,
      })),
    };
    return manager.call('PUT', `/api/pieces/${pieceId}/content`, { body, headers: { 'If-Match': `"${content.version}"` } });
  };
  const cut = ({ hash }: UploadShape, crop: Crop = UPRIGHT) => ({ hash, ...crop });
  const bytesAt = async (path: string) => {
    const cookie = [...manager.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const answer = await fetch(`${scene.address}${path}`, { headers: { Cookie: cookie } });
    return { status: answer.status, name: answer.headers.get('content-disposition') ?? '', bytes: Buffer.from(await answer.arrayBuffer()) };
  };
  /** Through making, sign-off and a day on the feed. */
  const sign = async () => {
    const { make, send, say } = signOffIn(scene);
    await make(pieceId);
    getValue(await say(getValue(await send(scene.a, [pieceId])), pieceId, 'approve'));
  };
  /** Until everything that was asked for is cut, however slow the machine. */
  const allCut = () =>
    eventually(async () => {
      const [left] = await scene.app.read<{ count: number }>(
        "select count(*) as count from graphile_worker.jobs where task_identifier = 'picture_cut'",
      );
      return Number(left?.count) === 0;
    });
  const place = async (on = '2027-03-05') => {
    const [row] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [pieceId, scene.a.channelIds[FEED]],
    );
    getValue(await movePlacement(scene.app, scene.people.lead, row?.id ?? '', { on, at: '10:00' }, row?.version ?? 0));
    return row?.id ?? '';
  };

  it('are chosen, ordered and cut on each by itself; what is left away stays; what is not there is not named', async () => {
    expect((await save({ [FEED]: { media: [tall.hash, wide.hash], crops: [cut(wide)] }, [BLOG]: { media: [] } })).status).toBe(200);
    expect(await part(FEED)).toMatchObject({ media: [tall.hash, wide.hash], crops: { [wide.hash]: UPRIGHT } });
    expect(await part(BLOG)).toMatchObject({ media: [] });
    // somebody who knows nothing of it changes a text
    expect((await save({ [FEED]: { copy: 'Own' } })).status).toBe(200);
    expect(await part(FEED)).toMatchObject({ copy: 'Own', media: [tall.hash, wide.hash], crops: { [wide.hash]: UPRIGHT } });
    // one picture goes: nothing is left of the order, and nothing is cut that is not there
    await save({}, [tall]);
    expect(await part(FEED)).not.toHaveProperty('media');
    expect(await part(FEED)).not.toHaveProperty('crops');
    expect(await part(BLOG)).toMatchObject({ media: [] });
    await save({ [BLOG]: { media: null } });
    expect(await part(BLOG)).not.toHaveProperty('media');
  });

  it('stand for a clip before it plays: signed with it, behind it wherever files go out, and no picture of their own', async () => {
    const clip = getValue(await addPieceFile(scene.app, pieceId, { name: 'oven.wav', bytes: silence() }));
    const saveCover = async (assetId: string, cover?: string | null) => {
      const { content } = await piece();
      const media = [clip, wide, tall].map((file) => ({
        assetId: file.assetId,
        alt: '',
        ...(file.assetId === assetId && cover !== undefined ? { cover } : {}),
      }));
      const body = { shared: { copy: 'Fresh', disclosure: '', media }, channels: [] };
      return manager.call('PUT', `/api/pieces/${pieceId}/content`, { body, headers: { 'If-Match': `"${content.version}"` } });
    };
    for (const [of, by] of [
      [clip, clip],
      [wide, tall],
      [clip, { hash: 'f'.repeat(64) }],
    ] as const)
      expect((await saveCover(of.assetId, by.hash)).body['code']).toBe('cover.unfit');
    expect((await saveCover(clip.assetId, wide.hash)).status).toBe(200);
    expect((await saveCover('')).status).toBe(200); // who says nothing of it leaves it
    expect((await piece()).content.shared.media.map(({ cover }) => cover)).toEqual([wide.hash, undefined, undefined]);
    const id = await place();
    const { media } = (await manager.call('GET', `/api/placements/${id}/hand-out`)).body as unknown as HandOutShape;
    expect(media.map(({ hash, coverOf }) => [hash, coverOf])).toEqual([
      [clip.hash, null],
      [wide.hash, clip.hash],
      [tall.hash, null],
    ]);
    await sign();
    expect((await piece()).content.shared.state).toBe('signed');
    await saveCover(clip.assetId, tall.hash);
    expect((await piece()).content.shared.state).toBe('voided');
    await saveCover(clip.assetId, null);
    expect((await piece()).content.shared).toMatchObject({ state: 'voided' });
    await saveCover(clip.assetId, wide.hash);
    expect((await piece()).content.shared.state).toBe('signed');
  });

  it.each([
    [{ crops: [{ ratio: '0:5' }] }],
    [{ crops: [{ size: 99 }] }],
    [{ crops: [{ x: 10_001 }] }],
    [{ crops: [{ y: 0.5 }] }],
    [{ crops: [{}, {}] }],
    [{ crops: [{ hash: 'ff' }] }],
    [{ media: ['x'] }],
    [{ media: 'all' }],
  ])('are refused as %j, and nothing is changed', async (more: { crops?: object[]; media?: unknown }) => {
    const before = (await piece()).content;
    const { crops, ...rest } = more;
    const answer = await save({ [FEED]: { ...rest, ...(crops ? { crops: crops.map((crop) => ({ ...cut(wide), ...crop })) } : {}) } });
    expect([answer.status, answer.body['code']]).toEqual([400, 'http.invalid']);
    expect((await piece()).content).toEqual(before);
  });

  it('are signed with the part that they belong to, and with no other: cut anew it is void, cut back it is signed again', async () => {
    const crops = [cut(wide)];
    await save({ [FEED]: { crops } });
    await sign();
    const states = async () => {
      const { shared, channels } = (await piece()).content;
      return [shared.state, ...channels.map(({ state }) => state)];
    };
    expect(await states()).toEqual(['signed', 'signed', 'signed']);
    await save({ [FEED]: { crops: [cut(wide, { ...UPRIGHT, x: 4999 })] } });
    expect(await states()).toEqual(['signed', 'voided', 'signed']);
    await save({ [FEED]: { crops, media: [tall.hash, wide.hash] } });
    expect(await states()).toEqual(['signed', 'voided', 'signed']);
    await save({ [FEED]: { crops, media: null } });
    expect(await states()).toEqual(['signed', 'signed', 'signed']);
  });

  it('approvals given when nobody cut anything stay; records of both kinds hold, and a crop put into the old one does not', async () => {
    await save({ [FEED]: {} });
    await sign();
    const [old] = await scene.app.read<{ content: Content; digests: object; clientId: string }>(
      'select content, digests, client_id as "clientId" from pieces where id = $1',
      [pieceId],
    );
    if (!old) throw new Error('no piece');
    // what was digested before there were crops: the first scheme says the same, and a version of that time verifies
    expect(digestParts(old.clientId, pieceId, old.content, 'zesting-part-1')).toEqual(old.digests);
    await scene.app.read("update versions set scheme = 'zesting-part-1' where piece_id = $1", [pieceId]);
    const record = async () => JSON.parse(JSON.stringify(await signOffRecord(scene.app, pieceId))) as SignOffRecord;
    expect(recordProblems(await record())).toEqual([]);
    await save({ [FEED]: { crops: [cut(wide)] } });
    const { send, say } = signOffIn(scene);
    getValue(await say(getValue(await send(scene.a, [pieceId])), pieceId, 'approve'));
    const both = await record();
    expect(both.versions.map(({ scheme }) => scheme)).toEqual(['zesting-part-1', PART_SCHEME]);
    expect(recordProblems(both)).toEqual([]);
    const forged = structuredClone(both);
    Reflect.set(forged.versions[0]?.content.channels[scene.a.channelIds[FEED] ?? ''] ?? {}, 'crops', { [wide.hash]: UPRIGHT });
    expect(recordProblems(forged)).toEqual([`version ${both.versions[0]?.number ?? 0}: its digests are not those of its content`]);
  });

  it('go out as they were cut: by hand, in a pack, with what is approved; the picture itself stays as it is', async () => {
    const before = await scene.app.read('select hash, bytes from assets where id = $1', [wide.assetId]);
    await scene.app.read("update channels set ratio = '4:5', cuts_media = true where id = $1", [scene.a.channelIds[FEED]]);
    await save({ [FEED]: { media: [wide.hash], crops: [cut(wide, { ...UPRIGHT, x: 0 })] } });
    await sign();
    const id = await place();
    await allCut();
    const told = (await manager.call('GET', `/api/placements/${id}/hand-out`)).body as unknown as HandOutShape;
    expect(told.media).toMatchObject([{ name: 'wide.jpg', crop: { ratio: '4:5', x: 0 } }]);
    expect(told.findings).toEqual([]);
    const { status, name, bytes } = await bytesAt(`/api/placements/${id}/files/1`);
    expect([status, name]).toEqual([200, expect.stringMatching(/attachment; .*_AAA_a-piece\.jpg/i)]);
    const { width, height, format } = await sharp(bytes).metadata();
    expect([width, height, format]).toEqual([640, 800, 'jpeg']);
    // its left edge: red, but for the forty columns of the right half that 640 of 1200 reach into
    const left = await sharp(bytes).extract({ left: 0, top: 0, width: 560, height: 800 }).png().toBuffer();
    const { channels } = await sharp(left).stats();
    expect(channels.map(({ mean }) => Math.round(mean / 10) * 10)).toEqual([250, 0, 0]); // as near as JPEG comes to 255

    const pack = unzipSync((await bytesAt(`/api/clients/${scene.a.id}/pack/zip?from=2027-03-01&to=2027-03-07`)).bytes);
    const packed = Object.entries(pack).filter(([file]) => file.endsWith('.jpg'));
    expect(packed.map(([, file]) => Buffer.from(file).equals(bytes))).toEqual([true]);
    const finals = unzipSync((await bytesAt(`/api/pieces/${pieceId}/finals`)).bytes);
    const sizes = await Promise.all(
      Object.entries(finals)
        .filter(([file]) => /\.(jpg|png)$/.test(file))
        .map(async ([file, content]) => {
          const meta = await sharp(content).metadata();
          return `${file.replace(/^[^a-z]*AAA_/i, '')} ${meta.width}×${meta.height}`;
        }),
    );
    expect(sizes.sort()).toEqual(['a-piece-photo-feed.jpg 640×800', 'a-piece.jpg 1200×800', 'a-piece.png 600×900']);
    expect(await scene.app.read('select hash, bytes from assets where id = $1', [wide.assetId])).toEqual(before);
    expect(await sharp(scene.app.files.pathOf(wide.hash)).metadata()).toMatchObject({ width: 1200, height: 800 });
  });

  it('that went out stay as they went out, whatever is cut or written afterwards', async () => {
    await save({ [FEED]: { media: [wide.hash], crops: [cut(wide)] } });
    await sign();
    const id = await place('2027-03-01');
    await allCut();
    scene.app.clock.set('2027-03-01T11:00:00Z');
    expect((await manager.call('POST', `/api/placements/${id}/out`, { body: {} })).status).toBe(200);
    await save({ [FEED]: { copy: 'Written later', media: [tall.hash], crops: [] } });
    const told = (await manager.call('GET', `/api/placements/${id}/hand-out`)).body as unknown as HandOutShape;
    expect([told.text, told.media.map(({ name, crop }) => [name, crop])]).toEqual(['Fresh', [['wide.jpg', UPRIGHT]]]);
  });

  it('carry the mark while the part that they go out with is not signed, whoever has signed the rest', async () => {
    await save({ [FEED]: { crops: [cut(wide)] } });
    await sign();
    const id = await place();
    await allCut();
    const clean = (await bytesAt(`/api/placements/${id}/files/1`)).bytes;
    await save({ [FEED]: { crops: [cut(wide, { ...UPRIGHT, x: 4000 })] } });
    await allCut();
    const { status, bytes, name } = await bytesAt(`/api/placements/${id}/files/1`);
    expect([status, name]).toEqual([200, expect.stringContaining('.webp')]);
    const meta = await sharp(bytes).metadata();
    expect([meta.width, meta.height]).toEqual([640, 800]);
    // white letters upon red and blue; the clean one has none
    const most = async (file: Buffer) => Math.min(...(await sharp(file).stats()).channels.map(({ max }) => max));
    expect(await most(clean)).toBeLessThan(200);
    expect(await most(bytes)).toBeGreaterThan(200);
  });

  it('are seen by the client, in the look of the channel, and beside an earlier version', async () => {
    await scene.app.read('update channels set media_limit = null where id = $1', [scene.a.channelIds[BLOG]]);
    await save({ [FEED]: { media: [wide.hash], crops: [cut(wide)] }, [BLOG]: { media: [] } });
    await sign();
    await place();
    const room = await callerByLink(scene, 'room', scene.a.contactId);
    const { packets } = (await room.call('GET', `/api/room/${scene.a.contactId}`)).body as unknown as RoomShape;
    const seen = packets.flatMap(({ pieces }) => pieces).find((one) => one.pieceId === pieceId);
    expect(seen?.media.map(({ hash }) => hash)).toEqual([wide.hash, tall.hash]);
    expect(seen?.channels.map(({ media, crops }) => [media, crops])).toEqual([
      [[wide.hash], { [wide.hash]: UPRIGHT }],
      [[], undefined],
    ]);
    const look = (await lead.call('GET', `/api/clients/${scene.a.id}/channels/${scene.a.channelIds[FEED]}/look`))
      .body as unknown as ChannelLookShape;
    expect(look.looks.find((one) => one.pieceId === pieceId)?.picture).toEqual({
      assetId: wide.assetId,
      width: 1200,
      height: 800,
      crop: UPRIGHT,
    });
    await save({ [FEED]: { media: null, crops: [] } });
    const { before, after } = (await manager.call('GET', `/api/pieces/${pieceId}/versions`)).body as unknown as VersionsShape;
    expect([before.channels[0]?.crops, after.channels[0]?.crops]).toEqual([{ [wide.hash]: UPRIGHT }, undefined]);
  });

  it('lie ready once they were saved, are made once, and go with the last picture of those bytes', async () => {
    const crop = { ratio: '1:1', x: 2500, y: 5000, size: 500 };
    await save({ [FEED]: { crops: [cut(wide, crop)] } });
    const rows = () =>
      scene.app.read<{ made: string; marked: boolean; width: number; height: number }>(
        'select made_hash as made, marked, width, height from picture_cuts where hash = $1 order by marked',
        [wide.hash],
      );
    await eventually(async () => (await rows()).length === 2);
    const [made] = await rows();
    const { width, height } = boxOf({ width: 1200, height: 800 }, crop);
    expect(made).toMatchObject({ marked: false, width, height });
    await scene.app.pictures.cutsOf([{ hash: wide.hash, crop }]);
    expect(await rows()).toHaveLength(2);
    // another row of the same bytes keeps what was cut out of them
    const twin = getValue(
      await addPieceFile(scene.app, pieceId, { name: 'again.jpg', bytes: await sharp(scene.app.files.pathOf(wide.hash)).toBuffer() }),
    );
    await scene.app.read('update assets set hash = $1 where id = $2', [wide.hash, twin.assetId]);
    const drop = async (id: string) => {
      await eventually(async () => (await scene.app.read('select 1 from asset_sizes where asset_id = $1', [id])).length > 0);
      await dropBytes(scene.app, await scene.app.manager.transaction((tx) => dropAssets(tx, [id])));
    };
    await drop(twin.assetId);
    expect(await rows()).toHaveLength(2);
    expect(existsSync(scene.app.files.pathOf(made?.made ?? ''))).toBe(true);
    await drop(wide.assetId);
    expect(await rows()).toEqual([]);
    expect(existsSync(scene.app.files.pathOf(made?.made ?? ''))).toBe(false);
  });

  it('takes sizes that are being written with the picture, and writes none of a picture that is gone', async () => {
    const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#579' } })
      .jpeg()
      .toBuffer();
    const { assetId } = getValue(await addPieceFile(scene.app, pieceId, { name: 'short.jpg', bytes }));
    const sizes = () => scene.app.read('select 1 from asset_sizes where asset_id = $1', [assetId]);
    await eventually(async () => (await sizes()).length > 0);
    const awaited = () =>
      eventually(async () => {
        const waiting = "select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'";
        return (await scene.app.read(waiting)).length > 0;
      });
    const writing = scene.app.manager.connection.createQueryRunner();
    await writing.startTransaction();
    await writing.query('select 1 from assets where id = $1 for key share', [assetId]);
    await writing.query(
      "insert into asset_sizes (asset_id, width, marked, mime, hash, bytes) values ($1, 33, false, 'image/webp', 'in-the-making', 1)",
      [assetId],
    );
    const dropping = scene.app.manager.connection.createQueryRunner();
    await dropping.startTransaction();
    const dropped = dropAssets(dropping.manager, [assetId]);
    await awaited();
    await writing.commitTransaction();
    await writing.release();
    expect(await dropped).toContain('in-the-making');
    const made = scene.app.pictures.makeSizes(assetId);
    await awaited();
    await dropping.commitTransaction();
    await dropping.release();
    await made;
    expect(await sizes()).toEqual([]);
  });
});
