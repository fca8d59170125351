import type { ForecastShape, ReadyShape } from '@zesting/contract';
import { replan } from '../planning/index.js';
import { ok } from '@zesting/core';
import { callerAs, makePiece, makeScene, NOW, type Caller, type Scene } from '../../../test-support/scene.js';

describe('the forecast of a piece', () => {
  let scene: Scene;
  let lead: Caller;
  let pieceId = '';
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    scene.app.clock.set(NOW);
    pieceId = await makePiece(scene, scene.a);
  });
  afterAll(() => scene.close());

  const forecast = async () => (await lead.call('GET', `/api/pieces/${pieceId}/path/forecast`)).body as unknown as ForecastShape;
  /** A piece of long ago whose writing took so many days, each other step one: all on days on which everybody works. */
  const past = async (client: Scene['a'], finishedOn: string) => {
    const id = await makePiece(scene, client);
    await scene.app.read(
      "update steps set started_on = '2027-02-01', finished_on = case when key = 'write' then $2::date else '2027-02-01' end where piece_id = $1",
      [id, finishedOn],
    );
  };
  const wish = async (on: string | null) => {
    await scene.app.read('update pieces set wish_on = $2 where id = $1', [pieceId, on]);
    await scene.app.write(async (tx, now) => ok(await replan(tx, [pieceId], now)));
  };

  it('says no chance where there are too few cases, and what it knows of each step all the same', async () => {
    await wish('2027-03-05');
    expect((await forecast()).steps.map(({ title, usualDays, all }) => [title, usualDays, all])).toEqual([
      ['Write', null, 0],
      ['Design', null, 0],
      ['Check', null, 0],
      ['Client sign-off', null, 0],
    ]);
    for (let count = 0; count < 9; count++) await past(scene.b, '2027-02-01');
    expect(await forecast()).toMatchObject({ chance: null });
    expect((await forecast()).steps[0]).toMatchObject({ usualDays: 1, mostDays: 1, own: 0, all: 9 });
  });

  it('says the chance by how long such steps took, worked by hand', async () => {
    // Monday 1 February is day 1, Wednesday 3 day 3: of 18 such, half took one day
    for (let count = 0; count < 9; count++) await past(scene.b, '2027-02-03');
    // today is Monday 1 March: written by Monday or Wednesday, signed off by Thursday 4 or, past the weekend, Monday 8
    const chances: (number | null)[] = [];
    for (const on of ['2027-03-04', '2027-03-05', '2027-03-08', '2027-03-09']) {
      await wish(on);
      chances.push((await forecast()).chance);
    }
    expect(chances.map((chance) => chance?.toFixed(6))).toEqual(['0.000000', '0.500000', '0.500000', '1.000000']);
    await wish(null);
    expect((await forecast()).chance).toBeNull();
  });

  it('goes by the client’s own cases where there are many, and by what is under way', async () => {
    await wish('2027-03-05');
    for (let count = 0; count < 20; count++) await past(scene.a, '2027-02-01');
    const { chance, steps } = await forecast();
    // 20 of 20 own end on the first day, of all 29 of 38: (20 + 5 × 29/38) ÷ 25
    expect(chance).toBeCloseTo((20 + (5 * 29) / 38) / 25, 6);
    expect(steps[0]).toMatchObject({ own: 20, all: 38 });
    await scene.app.read("update steps set started_on = '2027-03-01' where piece_id = $1 and key = 'write'", [pieceId]);
    expect((await forecast()).chance).toBeCloseTo((20 + (5 * 29) / 38) / 25, 6); // begun today: no day is over
    scene.app.clock.set('2027-03-02T09:00:00Z');
    expect((await forecast()).chance).toBe(0); // a day went by: it is one that takes three
    scene.app.clock.set(NOW);
    await scene.app.read("update steps set started_on = null where piece_id = $1 and key = 'write'", [pieceId]);
    // many under way for long already, that have not ended
    const slow = await makePiece(scene, scene.a);
    await scene.app.read("update steps set started_on = '2027-02-15', finished_on = null where piece_id = $1 and key = 'write'", [slow]);
    expect((await forecast()).steps[0]).toMatchObject({ own: 21, all: 39 });
    expect((await forecast()).chance).toBeLessThan((20 + (5 * 29) / 38) / 25);
  });

  it('looks neither at what is older than 400 days, nor at what is on the shelf, nor at the piece itself', async () => {
    const before = (await forecast()).steps[0]?.all;
    const [old, shelved] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    await scene.app.read("update steps set started_on = '2025-12-01', finished_on = '2025-12-01' where piece_id = $1", [old]);
    await scene.app.read("update steps set started_on = '2027-02-01', finished_on = '2027-02-01' where piece_id = $1", [shelved]);
    await scene.app.read('update pieces set shelved = true where id = $1', [shelved]);
    expect((await forecast()).steps[0]?.all).toBe(before);
  });

  it('says day by day how likely a client’s answer is there, worked by hand', async () => {
    const answers = async () => ((await lead.call('GET', `/api/clients/${scene.a.id}/ready`)).body as unknown as ReadyShape).answers;
    await scene.app.read("update steps set finished_on = null where kind = 'sign_off'");
    expect(await answers()).toBeNull();
    // of twelve answers to another client’s rounds nine came on the first day and three on the third (in Auckland Monday 8 February is a holiday)
    await scene.app.read('update pieces set shelved = true where client_id = $1 and id <> $2', [scene.a.id, pieceId]);
    await scene.app.read(
      `update steps s set started_on = '2027-02-09', finished_on = case when n.at <= 9 then date '2027-02-09' else date '2027-02-11' end
       from (select s.id, row_number() over (order by s.id) as at from steps s join pieces p on p.id = s.piece_id where s.kind = 'sign_off' and p.client_id = $1 limit 12) n
       where n.id = s.id`,
      [scene.b.id],
    );
    await scene.app.read("update steps set started_on = null where kind = 'sign_off' and finished_on is null");
    const found = await answers();
    expect([found?.own, found?.all, found?.days.length]).toEqual([0, 12, 30]);
    // today is Monday 1 March
    expect(found?.days.slice(0, 5).map(({ on, chance }) => `${on} ${chance.toFixed(2)}`)).toEqual([
      '2027-03-01 0.75',
      '2027-03-02 0.75',
      '2027-03-03 1.00',
      '2027-03-04 1.00',
      '2027-03-05 1.00',
    ]);
  });
});
