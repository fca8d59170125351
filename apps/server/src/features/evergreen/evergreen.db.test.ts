import { getValue } from '@zesting/core';
import type { EvergreenShape, EvergreenStockShape, PlanMonthShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { callerAs, type Caller } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { markOut, movePlacement } from '../calendar/index.js';

describe('pieces that last', () => {
  let { scene, lead, manager, feed, of, add, month, fill } = {} as PlanScene; // made before the first test
  let plan: PlanScene;
  let freelance: Caller;
  let pieceId: string;
  let placementId: string;
  beforeAll(async () => {
    plan = await makePlanScene();
    ({ scene, lead, manager, feed, of, add, month, fill } = plan);
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.app.read('delete from evergreens');
    await plan.reset();
    [pieceId, placementId] = await out('2027-03-02');
  });

  /** A signed piece of client A that went out on its feed on a day of March. */
  const out = async (on: string): Promise<[string, string]> => {
    const { ready, send, say } = signOffIn(scene);
    const made = await ready(scene.a);
    getValue(await say(getValue(await send(scene.a, [made])), made, 'approve'));
    const [row] = await scene.app.read<{ id: string; version: number }>(
      'select id, version from placements where piece_id = $1 and channel_id = $2',
      [made, feed],
    );
    const id = row?.id ?? '';
    getValue(await movePlacement(scene.app, scene.people.lead, id, { on, at: '10:00' }, row?.version ?? 0));
    scene.app.clock.set(`${on}T12:00:00Z`);
    getValue(await markOut(scene.app, scene.people.lead, id, { address: null }));
    return [made, id];
  };
  const mark = (body: object, { by = manager, version = 0, id = pieceId } = {}) =>
    by.call('PUT', `/api/pieces/${id}/evergreen`, {
      body: { restDays: 14, timesMost: null, untilOn: null, ...body },
      headers: { 'If-Match': `"${version}"` },
    });
  const told = async () => (await manager.call('GET', `/api/pieces/${pieceId}/evergreen`)).body as unknown as EvergreenShape;
  const stock = async () => ((await manager.call('GET', of('evergreen'))).body as unknown as EvergreenStockShape).rows;
  const candidates = async () => ((await month()) as unknown as PlanMonthShape).candidates.filter(({ kind }) => kind === 'again');
  const again = (ruleId: string, on: string, id = placementId) => ({ ruleId, on, againId: id });

  it('are said to last, with a rest, by who manages the client; two who say it at once do not overwrite each other', async () => {
    expect(await told()).toEqual({ rule: null, rows: [] });
    for (const body of [{ restDays: 0 }, { restDays: 1.5 }, { timesMost: 1 }, { untilOn: '2027-02-30' }])
      expect((await mark(body)).status).toBe(400);
    expect((await mark({}, { by: freelance })).status).toBe(403);
    expect((await mark({ timesMost: 3 })).status).toBe(204);
    expect((await mark({ restDays: 99 })).status).toBe(412);
    expect(await told()).toMatchObject({
      rule: { restDays: 14, timesMost: 3, untilOn: null, version: 1 },
      rows: [{ channelId: feed, placementId, times: 1, lastOn: '2027-03-02', fromOn: '2027-03-16', timesLeft: 2 }],
    });
    expect((await mark({ restDays: 30, untilOn: '2027-03-20' }, { version: 1 })).status).toBe(204);
    expect(await stock()).toMatchObject([{ pieceId, fromOn: null, timesLeft: null }]);
    expect((await freelance.call('GET', of('evergreen'))).status).toBe(403);
    const other = await lead.call('GET', `/api/clients/${scene.b.id}/evergreen`);
    expect(other.body).toEqual({ rows: [] });
  });

  it('are put where the rhythm asks for them, once they have rested, signed as they are; nothing new is', async () => {
    await mark({});
    const ruleId = await add({ rule: 'FREQ=WEEKLY;BYDAY=TU', fromOn: '2027-03-04', fromStock: true });
    const { slots, candidates: all } = (await month()) as unknown as PlanMonthShape;
    expect(slots.every(({ fromStock }) => fromStock)).toBe(true);
    expect(all.filter(({ kind }) => kind === 'again')).toMatchObject([
      { id: placementId, pieceId, channelIds: [feed], notBeforeOn: '2027-03-16', waitsDays: 0 },
    ]);
    expect(await fill(again(ruleId, '2027-03-09'))).toMatchObject([{ pieceId: null, problem: 'piece.rests' }]);
    expect(await fill(again(ruleId, '2027-03-16'))).toMatchObject([{ pieceId, problem: null }]);
    const { body: piece } = await manager.call('GET', `/api/pieces/${pieceId}`);
    expect(piece['placements']).toMatchObject(
      expect.arrayContaining([
        expect.objectContaining({ channelId: feed, on: '2027-03-02', state: 'out' }),
        expect.objectContaining({ channelId: feed, on: '2027-03-16', at: '10:00', state: 'scheduled' }),
      ]),
    );
    // what is still to come counts for its rest
    expect(await fill(again(ruleId, '2027-03-23'), again(ruleId, '2027-03-30'))).toMatchObject([
      { problem: 'piece.rests' },
      { pieceId, problem: null },
    ]);
    expect(await stock()).toMatchObject([{ times: 3, lastOn: '2027-03-30', fromOn: '2027-04-13' }]);
  });

  it('go out no more often than they may, and no longer than they hold', async () => {
    await mark({ timesMost: 2 });
    const ruleId = await add({ rule: 'FREQ=WEEKLY;BYDAY=TU', fromOn: '2027-03-04', fromStock: true });
    expect(await fill(again(ruleId, '2027-03-16'), again(ruleId, '2027-03-30'))).toMatchObject([
      { problem: null },
      { problem: 'piece.rests' },
    ]);
    expect(await candidates()).toEqual([]);
    await mark({ timesMost: 9, untilOn: '2027-03-29' }, { version: 1 });
    expect(await candidates()).toEqual([]);
    expect(await fill(again(ruleId, '2027-03-30'))).toMatchObject([{ problem: 'piece.rests' }]);
  });

  it('are filled in once by two who fill two slots at the same moment, whichever rule they belong to', async () => {
    await mark({});
    const [tuesdays, thursdays] = [
      await add({ rule: 'FREQ=WEEKLY;BYDAY=TU', fromOn: '2027-03-04', fromStock: true }),
      await add({ rule: 'FREQ=WEEKLY;BYDAY=TH', fromOn: '2027-03-04', fromStock: true }),
    ];
    for (let turn = 0; turn < 6; turn++) {
      const both = await Promise.all([fill(again(tuesdays, '2027-03-16')), fill(again(thursdays, '2027-03-18'))]);
      expect(
        both
          .flat()
          .map(({ problem }) => problem)
          .sort(),
      ).toEqual([null, 'piece.rests']);
      await scene.app.read("update placements set cancelled = true, state = 'cancelled' where piece_id = $1 and on_day > '2027-03-10'", [
        pieceId,
      ]);
    }
  });

  it('are of no other client, channel or piece that was never out, and are gone once they are taken out of the stock', async () => {
    await mark({});
    const ruleId = await add({ rule: 'FREQ=WEEKLY;BYDAY=TU', fromOn: '2027-03-04' });
    const onBlog = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 and channel_id <> $2', [
      pieceId,
      feed,
    ]);
    const elsewhere = await scene.app.read<{ id: string }>('select id from placements where client_id = $1 limit 1', [scene.b.id]);
    const [unmarked, never] = await out('2027-03-03');
    expect(
      await fill(
        again(ruleId, '2027-03-16', onBlog[0]?.id ?? ''),
        again(ruleId, '2027-03-16', elsewhere[0]?.id ?? '00000000-0000-4000-8000-000000000000'),
        again(ruleId, '2027-03-23', never),
      ),
    ).toMatchObject([{ problem: 'slot.other_channel' }, { problem: 'piece.unknown' }, { problem: 'piece.rests' }]);
    expect(unmarked).not.toBe(pieceId);
    expect(await fill(again(ruleId, '2027-03-16'))).toMatchObject([{ problem: null }]); // a gap takes it too
    expect((await manager.call('DELETE', `/api/pieces/${pieceId}/evergreen`)).status).toBe(204);
    expect((await manager.call('DELETE', `/api/pieces/${pieceId}/evergreen`)).status).toBe(204);
    expect([await candidates(), await stock(), (await told()).rule]).toEqual([[], [], null]);
    const { body: piece } = await manager.call('GET', `/api/pieces/${pieceId}`);
    expect((piece['placements'] as { on: string }[]).map(({ on }) => on)).toContain('2027-03-16');
    expect((piece['activity'] as { verb: string }[]).map(({ verb }) => verb)).toEqual(
      expect.arrayContaining(['piece.evergreen', 'piece.evergreen_ended']),
    );
  });
});
