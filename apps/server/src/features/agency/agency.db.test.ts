import sharp from 'sharp';
import { getValue, ok } from '@zesting/core';
import { eventually } from '../../../test-support/eventually.js';
import { Caller, callerAs, makePiece, makeScene, NOW, PASSWORD, type Scene } from '../../../test-support/scene.js';
import { Files } from '../../platform/files/files.js';
import { replanOpen } from '../planning/index.js';

describe('what the agency sets', () => {
  let scene: Scene;
  let lead: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
  }, 60_000);
  afterAll(() => scene.close());
  beforeEach(() => scene.app.clock.set(NOW));

  const show = async () => (await lead.call('GET', '/api/agency')).body;
  const edit = async (body: object, version?: number) =>
    lead.call('PATCH', '/api/agency', { body, headers: { 'If-Match': `"${version ?? String((await show())['version'])}"` } });

  it('is changed field by field, refused against an older state, and written down', async () => {
    const before = await show();
    expect(before).toMatchObject({ name: 'Agency', cutOff: '12:00', tightDays: 0, sessionDays: 14, keepsPlaces: false, version: 1 });
    expect((await edit({ name: 'Agency of Words' })).body).toEqual({ ...before, name: 'Agency of Words', version: 2 });
    const refused = await edit({ name: 'Other' }, 1);
    expect([refused.status, refused.body['theirs']]).toEqual([412, await show()]);
    const [line] = await scene.app.read<{ verb: string; detail: unknown }>("select verb, detail from activities where thing = 'agency'");
    expect(line).toEqual({ verb: 'agency.edited', detail: { name: { from: 'Agency', to: 'Agency of Words' } } });
    expect((await edit({ name: 'Agency of Words' })).body['version']).toBe(2); // nothing changed, nothing written
    for (const body of [
      { cutOff: '25:00' },
      { tightDays: 21 },
      { tightDays: 1.5 },
      { sessionDays: 0 },
      { zone: 'Mars/Base' },
      { name: '' },
    ])
      expect([body, (await edit(body)).status]).toEqual([body, 400]);
  });

  it('plans everything open anew by what plans rest on', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-19');
    getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    const dangerOf = async () =>
      (
        await scene.app.read<{ danger: string; slack: number }>('select danger, slack_days as slack from pieces where id = $1', [pieceId])
      )[0];
    const { danger, slack = 0 } = (await dangerOf()) ?? {};
    expect([danger, slack]).toEqual(['fine', expect.any(Number)]);
    expect(slack).toBeGreaterThan(0);
    expect((await edit({ tightDays: slack })).status).toBe(200);
    await eventually(async () => (await dangerOf())?.danger === 'tight');
    expect((await edit({ tightDays: 0 })).status).toBe(200);
    await eventually(async () => (await dangerOf())?.danger === 'fine');
  });

  it('sets how long sessions last from the next signing in', async () => {
    const daysLeft = async (): Promise<number> => {
      const caller = new Caller(scene.address);
      const { headers } = await caller.call('POST', '/api/session', { body: { email: 'staff@agency.test', password: PASSWORD } });
      const end = /expires=([^;]+)/i.exec(headers.getSetCookie()[0] ?? '')?.[1] ?? '';
      return Math.round((Date.parse(end) - Date.now()) / 86_400_000);
    };
    expect(await daysLeft()).toBe(14);
    await edit({ sessionDays: 3 });
    expect(await daysLeft()).toBe(3);
  });

  it('keeps or takes out where a picture was taken', async () => {
    const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#456' } })
      .jpeg()
      .withExif({ IFD0: { Copyright: 'Somebody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .toBuffer();
    const stored = async () => getValue(await scene.server.get(Files).store(picture)).bytes;
    expect(await stored()).toBeLessThan(picture.length);
    await edit({ keepsPlaces: true });
    expect(await stored()).toBe(picture.length);
    await edit({ keepsPlaces: false });
    expect(await stored()).toBeLessThan(picture.length);
  });
});
