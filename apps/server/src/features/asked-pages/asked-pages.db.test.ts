import { startChannels, type Channels } from '@zesting/standins';
import { getValue } from '@zesting/core';
import type { GoingOutShape, PageAnswersShape } from '@zesting/contract';
import { Jobs } from '../../platform/jobs/jobs.js';
import { callerAs, makePiece, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { movePlacement } from '../calendar/index.js';
import { askDue, clearAsked } from './use-cases/ask.js';
import { wantNext, wantOfPiece } from './use-cases/want.js';

const MENU = 'https://kiln.test/menu';

describe('pages that links lead to', () => {
  let channels: Channels;
  let scene: Scene;
  let manager: Caller;
  let pieceId: string;
  beforeAll(async () => {
    channels = await startChannels({ port: 0, folder: null });
    scene = await makeScene({ env: { ZESTING_PAGE_ASKER: channels.address } });
    manager = await callerAs(scene, 'manager');
    await scene.server.get(Jobs).beforeApplicationShutdown(); // pages are asked here, not by jobs that come in between
  });
  afterAll(async () => {
    await scene.close();
    await channels.close();
  });
  beforeEach(async () => {
    await scene.begin(); // Monday 1 March 2027, nine in London
    await scene.app.read('delete from asked_pages');
    await scene.app.read('delete from graphile_worker._private_jobs');
    await scene.app.read("update placements set cancelled = true, state = 'cancelled'");
    for (const [address] of channels.pages.list()) channels.pages.say(address, 'there');
    pieceId = await makePiece(scene, scene.a);
    await signOffIn(scene).write(pieceId, 'Fresh', `See ${MENU} and https:/broken`);
    await wantOfPiece(scene.app, pieceId); // as the job does that was asked for
    expect(await waiting()).toEqual([pieceId]);
  });

  /** The pieces for which a job is asked for. */
  const waiting = async () =>
    (
      await scene.app.read<{ id: string }>(
        "select payload ->> 'pieceId' as id from graphile_worker._private_jobs where task_id = (select id from graphile_worker._private_tasks where identifier = 'pages_want')",
      )
    ).map(({ id }) => id);
  const at = (instant: string) => scene.app.clock.set(instant);
  const answers = async (method: 'GET' | 'POST' = 'GET', by = manager) =>
    ((await by.call(method, `/api/pieces/${pieceId}/links`)).body as unknown as PageAnswersShape).rows.map(
      ({ address, status, askedAt }) => `${address} ${status} ${askedAt.slice(0, 16)}`,
    );
  const due = () =>
    scene.app.read<{ address: string; at: string | null }>('select address, next_at as at from asked_pages order by address');
  const findings = async () => {
    const { rows } = (await manager.call('GET', '/api/going-out')).body as unknown as GoingOutShape;
    return rows.flatMap((row) => row.findings.flatMap(({ code, what }) => (code.startsWith('link_') ? `${code} ${what}` : [])));
  };
  const date = async (on: string) => {
    const [placement] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [pieceId, scene.a.channelIds[0]],
    );
    getValue(await movePlacement(scene.app, scene.people.lead, placement?.id ?? '', { on, at: '10:00' }, placement?.version ?? 0));
  };

  it('are asked once something is written, and no more than once while they are there and nothing goes out', async () => {
    expect(await answers()).toEqual([]);
    expect(await askDue(scene.app)).toBe(1); // what is no whole address is asked of nobody
    expect(await answers()).toEqual([`${MENU} 200 2027-03-01T09:00`]);
    expect(await due()).toEqual([{ address: MENU, at: null }]);
    at('2027-03-02T09:00:00Z');
    expect(await askDue(scene.app)).toBe(0);
  });

  it('are asked again after an hour where they are not there, as long as anybody wants to know', async () => {
    channels.pages.say(MENU, 'gone');
    await askDue(scene.app);
    at('2027-03-01T09:59:00Z');
    expect(await askDue(scene.app)).toBe(0);
    at('2027-03-01T10:01:00Z');
    channels.pages.say(MENU, 'there');
    expect(await askDue(scene.app)).toBe(1);
    expect(await answers()).toEqual([`${MENU} 200 2027-03-01T10:01`]);
    expect((await due())[0]?.at).toBeNull(); // two hours after it was written nobody waits any more
  });

  it('are asked until what leads there is out, and the manager sees it on what goes out', async () => {
    await date('2027-03-05');
    await askDue(scene.app);
    expect(await findings()).toEqual(['link_broken https:/broken']);
    expect(await wantNext(scene.app)).toBe(1);
    channels.pages.say(MENU, 'silent');
    at('2027-03-01T21:01:00Z');
    expect(await askDue(scene.app)).toBe(1);
    expect(await findings()).toEqual(['link_broken https:/broken', `link_silent ${MENU}`]);
    at('2027-03-01T22:02:00Z');
    channels.pages.say(MENU, 'gone');
    expect(await askDue(scene.app)).toBe(1);
    expect(await findings()).toEqual(['link_broken https:/broken', `link_gone ${MENU}`]);
    at('2027-03-05T10:30:00Z'); // it should have gone out half an hour ago
    expect(await wantNext(scene.app)).toBe(0);
    await askDue(scene.app);
    expect((await due())[0]?.at).toBeNull();
  });

  it('of what goes out in more than eight days are not asked again and again', async () => {
    await date('2027-03-09'); // at ten: an hour too far
    expect(await wantNext(scene.app)).toBe(0);
    at('2027-03-01T10:00:00Z');
    expect(await wantNext(scene.app)).toBe(1);
  });

  it('are asked at once by whoever wants to know, but for those that just were', async () => {
    await askDue(scene.app);
    channels.pages.say(MENU, 'gone');
    expect(await answers('POST')).toEqual([`${MENU} 200 2027-03-01T09:00`]); // a moment ago
    at('2027-03-01T09:01:00Z');
    expect(await answers('POST')).toEqual([`${MENU} 404 2027-03-01T09:01`]);
    channels.pages.say(MENU, 'broken');
    at('2027-03-01T09:02:00Z');
    expect(await answers('POST')).toEqual([`${MENU} 500 2027-03-01T09:02`]);
  });

  it('say nothing new where the asker is away: what was known stays', async () => {
    channels.pages.say(MENU, 'gone');
    await askDue(scene.app);
    at('2027-03-01T10:01:00Z');
    Object.assign(scene.app.config, { pageAsker: 'http://127.0.0.1:1' });
    expect(await askDue(scene.app)).toBe(0);
    expect(await answers('POST')).toEqual([`${MENU} 404 2027-03-01T09:00`]);
    expect((await due())[0]?.at).toContain('2027-03-01T10:16:00');
    Object.assign(scene.app.config, { pageAsker: null });
    at('2027-03-01T10:17:00Z');
    expect(await askDue(scene.app)).toBe(0);
    Object.assign(scene.app.config, { pageAsker: channels.address });
    expect(await askDue(scene.app)).toBe(1);
  });

  it('are forgotten once nobody has wanted them for a quarter of a year', async () => {
    await askDue(scene.app);
    at('2027-05-29T09:00:00Z');
    await clearAsked(scene.app);
    expect(await due()).toHaveLength(1);
    at('2027-05-30T11:00:01Z');
    await clearAsked(scene.app);
    expect(await due()).toEqual([]);
  });

  it('are none of a piece that leads nowhere: nothing is asked for', async () => {
    await scene.app.read('delete from graphile_worker._private_jobs');
    await signOffIn(scene).write(await makePiece(scene, scene.a), 'Fresh', 'No address');
    expect(await waiting()).toEqual([]);
  });
});
