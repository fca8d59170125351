import { getDay, getValue } from '@zesting/core';
import type { AgreedAmountsShape, MoneyMonthShape, StaffingProposalShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep } from '../production/index.js';
import { freelanceRates } from './queries/rates.js';

describe('money', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    manager = await callerAs(scene, 'manager');
    freelance = await callerAs(scene, 'freelance');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from fees');
    await scene.app.read('delete from rates');
    await scene.app.read("update agencies set currency = 'EUR'");
  });

  const put = (caller: Caller, path: string, agreed: readonly (readonly [string, number | null])[], version = 0) =>
    caller.call('PUT', `/api/${path}`, {
      body: { agreed: agreed.map(([fromOn, amount]) => ({ fromOn, amount })) },
      headers: { 'If-Match': `"${version}"` },
    });
  const fee = () => `clients/${scene.a.id}/fee`;
  const rate = (who: 'staff' | 'freelance') => `people/${scene.people[who].personId}/rate`;
  const month = async (caller: Caller, of: string) =>
    (await caller.call('GET', `/api/money?month=${of}`)).body as unknown as MoneyMonthShape;

  it('a fee is agreed from a month on, changed against what was looked at, and told in the record', async () => {
    expect((await manager.call('GET', `/api/${fee()}`)).body).toEqual({ agreed: [], currency: 'EUR', version: 0 });
    expect((await put(manager, fee(), [['2027-03-01', 120_000], ['2027-01-01', 100_000]])).status).toBe(204); // prettier-ignore
    const after = (await manager.call('GET', `/api/${fee()}`)).body as unknown as AgreedAmountsShape;
    expect(after).toMatchObject({ version: 1, agreed: [{ fromOn: '2027-01-01' }, { fromOn: '2027-03-01', amount: 120_000 }] });
    const stale = await put(manager, fee(), [['2027-03-01', 1]]);
    expect([stale.status, stale.body['code'], (stale.body['theirs'] as AgreedAmountsShape).version]).toEqual([
      412,
      'http.changed_meanwhile',
      1,
    ]);
    expect((await put(manager, fee(), [['2027-03-15', 1]], 1)).body['code']).toBe('money.not_first_of_month');
    expect((await put(manager, fee(), [['2027-03-01', 1], ['2027-03-01', 2]], 1)).body['code']).toBe('money.day_twice'); // prettier-ignore
    for (const amount of [-1, 0.5, 1e13]) expect((await put(manager, fee(), [['2027-03-01', amount]], 1)).status).toBe(400);
    expect((await put(manager, `clients/${scene.b.id}/fee`, [['2027-03-01', 1]])).status).toBe(404);
    expect((await put(freelance, fee(), [['2027-03-01', 1]], 1)).status).toBe(403);
    const [line] = await scene.app.read<{ verb: string; client_id: string }>(
      "select verb, client_id from activities where verb = 'client.fee_agreed'",
    );
    expect(line?.client_id).toBe(scene.a.id);
  });

  it('a rate is a lead’s to say, the freelance creator’s own to read, and told in no record', async () => {
    expect((await put(manager, rate('freelance'), [['2027-01-01', 4_000]])).status).toBe(403);
    expect((await put(lead, rate('freelance'), [['2027-01-15', 4_000]])).status).toBe(204);
    expect((await put(lead, rate('staff'), [['2027-01-01', 2_500]])).status).toBe(204);
    expect((await freelance.call('GET', `/api/${rate('freelance')}`)).body).toMatchObject({ agreed: [{ amount: 4_000 }] });
    expect((await freelance.call('GET', `/api/${rate('staff')}`)).status).toBe(404);
    expect((await manager.call('GET', `/api/${rate('freelance')}`)).status).toBe(403);
    const lines = await scene.app.read<{ detail: object }>("select detail from activities where verb = 'person.rate_said'");
    expect(lines.map(({ detail }) => detail)).toEqual([{}, {}]);
    expect([...(await freelanceRates(scene.app, getDay('2027-02-01')))]).toEqual([[scene.people.freelance.personId, 4_000]]);
    expect((await freelanceRates(scene.app, getDay('2027-01-14'))).size).toBe(0);
  });

  it('two who agree at once: one does', async () => {
    const answers = await Promise.all([1, 2, 3, 4].map((amount) => put(manager, fee(), [['2027-03-01', amount]])));
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 412, 412, 412]);
    expect((await manager.call('GET', `/api/${fee()}`)).body).toMatchObject({ version: 1 });
  });

  it('a month, worked by hand: hours as logged, else the effort; what an hour brings, and to leads what it costs', async () => {
    const { staff, freelance: fay } = scene.people;
    await put(manager, fee(), [['2027-01-01', 100_000], ['2027-03-01', 120_000]]); // prettier-ignore
    await put(lead, rate('freelance'), [['2027-01-01', 4_000], ['2027-02-10', 5_000]]); // prettier-ignore
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    const [write, design, check] = [
      await stepOf(scene, pieceId, 'write'),
      await stepOf(scene, pieceId, 'design'),
      await stepOf(scene, pieceId, 'check'),
    ];
    const done = (id: string, personId: string, on: string, effort: number) =>
      scene.app.read('update steps set doer_id = $2, started_on = $3, finished_on = $3, effort_minutes = $4 where id = $1', [
        id,
        personId,
        on,
        effort,
      ]);
    const log = (stepId: string, personId: string, on: string, minutes: number, isRemoved = false) =>
      scene.app.read(
        `insert into worked (client_id, piece_id, step_id, step_title, person_id, on_day, minutes, removed_at) values ($1, $2, $3, 'S', $4, $5, $6, case when $7::boolean then now() end)`,
        [scene.a.id, pieceId, stepId, personId, on, minutes, isRemoved],
      );
    await done(write, fay.personId, '2027-02-12', 600); // logged: 2 h on the 9th at 40, 3 h on the 11th at 50; not its effort
    await log(write, fay.personId, '2027-02-09', 120);
    await log(write, fay.personId, '2027-02-11', 180);
    await log(write, fay.personId, '2027-02-11', 999, true); // taken back
    await log(write, fay.personId, '2027-03-01', 60); // of another month
    await done(design, staff.personId, '2027-02-28', 300); // nothing logged: its effort, of somebody without a rate
    await done(check, staff.personId, '2027-03-02', 90);
    const told = (of: MoneyMonthShape) => of.clients.find(({ clientId }) => clientId === scene.a.id);
    expect(told(await month(lead, '2027-02'))).toEqual({
      clientId: scene.a.id,
      fee: 100_000,
      workedMinutes: 600,
      perHour: 10_000, // 1,000.00 over ten hours
      cost: 2 * 4_000 + 3 * 5_000,
      unratedMinutes: 300,
    });
    expect(told(await month(manager, '2027-02'))).toMatchObject({ fee: 100_000, perHour: 10_000, cost: null, unratedMinutes: 0 });
    expect(told(await month(lead, '2027-03'))).toMatchObject({ fee: 120_000, workedMinutes: 150, cost: 5_000, unratedMinutes: 90 });
    expect(told(await month(lead, '2026-12'))).toMatchObject({ fee: null, workedMinutes: 0, perHour: null, cost: 0 });
    const seen = (await month(manager, '2027-02')).clients.map(({ clientId }) => clientId);
    expect(seen).not.toContain(scene.b.id);
    expect((await freelance.call('GET', '/api/money?month=2027-02')).status).toBe(403);
    expect((await lead.call('GET', '/api/money?month=2027-13')).status).toBe(400);
  });

  it('the currency is changed as long as the figures mean the same', async () => {
    const change = async (currency: string) => {
      const { body } = await lead.call('GET', '/api/agency');
      return lead.call('PATCH', '/api/agency', { body: { currency }, headers: { 'If-Match': `"${String(body['version'])}"` } });
    };
    expect((await change('JPY')).status).toBe(200); // nothing is agreed
    expect((await change('EUR')).status).toBe(200);
    await put(manager, fee(), [['2027-03-01', 120_000]]);
    expect((await change('GBP')).status).toBe(200);
    expect(await change('JPY')).toMatchObject({ status: 409, body: { code: 'currency.figures_differ' } });
    expect((await change('ZZZ')).status).toBe(400);
    expect((await manager.call('GET', `/api/${fee()}`)).body).toMatchObject({ currency: 'GBP', agreed: [{ amount: 120_000 }] });
  });

  it('who costs less is proposed where both could do it in time', async () => {
    const { staff, freelance: fay } = scene.people;
    await scene.app.read('update pieces set list = null, shelved = true');
    await scene.app.read("update people set skills = '{}' where role in ('lead', 'manager')");
    await scene.app.read(`update people set skills = '{"write":2,"design":2,"check":2}' where role in ('staff', 'freelance')`);
    await scene.app.read("insert into client_team (client_id, skill, person_id) values ($1, 'write', $2)", [scene.a.id, fay.personId]);
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    for (const key of ['design', 'check'])
      getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, key), staff.personId));
    const writer = async () => {
      const { body } = await manager.call('GET', '/api/staffing/proposal?to=2027-04-30');
      return (body as unknown as StaffingProposalShape).gives.map(({ personName }) => personName);
    };
    expect(await writer()).toEqual(['Fay']); // who usually does it
    await put(lead, rate('freelance'), [['2027-01-01', 4_000]]);
    expect(await writer()).toEqual(['Sia']);
    await scene.app.read('delete from client_team');
  });
});
