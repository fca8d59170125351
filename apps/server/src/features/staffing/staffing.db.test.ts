import { getDay, getValue } from '@zesting/core';
import type { StaffingOutcomeShape, StaffingProposalShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { predict, replan } from '../planning/index.js';
import { assignStep } from '../production/index.js';
import { proposeStaff } from './queries/propose-staff.js';

describe('who takes what nobody has', () => {
  let scene: Scene;
  let manager: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    freelance = await callerAs(scene, 'freelance');
    await scene.app.read("update people set skills = '{}' where role in ('lead', 'manager')");
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read("delete from client_people where relation = 'barred'");
    await scene.app.read('delete from client_team');
    await scene.app.read('delete from time_off');
    await scene.app.read('delete from notices');
    await scene.app.read('update pieces set list = null, shelved = true');
    await scene.app.read(`update people set skills = '{"write":2,"design":2,"check":2}' where role in ('staff', 'freelance')`);
  });

  const propose = async (more = '', caller = manager) => {
    const { status, body } = await caller.call('GET', `/api/staffing/proposal?to=2027-04-30${more}`);
    return { status, ...(body as unknown as StaffingProposalShape & { code?: string }) };
  };
  const give = (gives: readonly object[], caller = manager) => caller.call('POST', '/api/staffing/gives', { body: { gives } });
  const outcomeOf = async (gives: readonly object[], caller = manager) => {
    const { status, body } = await caller.call('POST', '/api/staffing/outcome', { body: { gives } });
    return { status, ...(body as unknown as StaffingOutcomeShape) };
  };
  const settle = () => scene.app.write(async (tx, now) => ({ ok: true as const, value: await predict(tx, now) }));
  const toGive = ({ gives }: StaffingProposalShape) => gives.map(({ stepId, personId, version }) => ({ stepId, personId, version }));
  const doers = async (pieceId: string) =>
    (
      await scene.app.read<{ key: string; name: string | null }>(
        "select s.key, p.name from steps s left join people p on p.id = s.doer_id where s.piece_id = $1 and s.kind not in ('sign_off', 'deliver') order by s.position",
        [pieceId],
      )
    ).map(({ key, name }) => `${key} ${name}`);

  it('a piece that nobody has: the usual doer first, each step with its dates; taken whole, it is on its way in time', async () => {
    const { staff, freelance: fay } = scene.people;
    await scene.app.read("insert into client_team (client_id, skill, person_id) values ($1, 'write', $2)", [scene.a.id, fay.personId]);
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'own') on conflict do nothing", [
      scene.a.id,
      staff.personId,
    ]);
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    await settle();
    const found = await propose();
    expect(found).toMatchObject({ status: 200, isProven: true, moreSteps: 0, left: [], pieces: [] });
    expect(found.gives.map(({ stepTitle, personName, why, fromName }) => [stepTitle, personName, why, fromName])).toEqual([
      ['Write', 'Fay', 'usual', null],
      ['Design', 'Sia', 'own', null],
      ['Check', 'Sia', 'own', null],
    ]);
    for (const { predictedFinishOn, latestFinishOn } of found.gives)
      expect(predictedFinishOn && latestFinishOn && predictedFinishOn <= latestFinishOn).toBe(true);
    expect(await doers(pieceId)).toEqual(['write null', 'design null', 'check null']); // nothing is stored
    expect((await give(toGive(found))).status).toBe(204);
    await settle();
    expect(await doers(pieceId)).toEqual(['write Fay', 'design Sia', 'check Sia']);
    expect((await propose()).gives).toEqual([]);
    // what was told comes true
    const ends = await scene.app.read<{ id: string; on: string }>(
      'select id, predicted_finish_on::text as on from steps where piece_id = $1 and doer_id is not null',
      [pieceId],
    );
    const endOf = new Map(ends.map(({ id, on }) => [id, on]));
    expect(found.gives.map(({ stepId }) => endOf.get(stepId))).toEqual(found.gives.map(({ predictedFinishOn }) => predictedFinishOn));
    // whoever can start has heard of it
    const told = await scene.app.read<{ name: string }>('select p.name from notices n join people p on p.id = n.person_id');
    expect(told.map(({ name }) => name)).toEqual(['Fay']);
  });

  it('what is too much for one goes to two, and nobody is given what is predicted late where somebody could do it in time', async () => {
    const { staff, freelance: fay } = scene.people;
    await scene.app.read("insert into client_team (client_id, skill, person_id) values ($1, 'write', $2)", [scene.a.id, staff.personId]);
    const ids = [await makePiece(scene, scene.a, '2027-03-12'), await makePiece(scene, scene.a, '2027-03-12')];
    // each writing fills every hour of the days up to when it is due
    await scene.app.read("update steps set effort_minutes = 2400, span_days = 1 where key = 'write' and piece_id = any($1)", [ids]);
    await scene.app.read("update steps set effort_minutes = 30, span_days = 1 where key <> 'write' and piece_id = any($1)", [ids]);
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replan(tx, ids, now) }));
    await settle();
    const found = await propose();
    const writers = found.gives.filter(({ stepTitle }) => stepTitle === 'Write').map(({ personName, why }) => `${personName} ${why}`);
    expect(writers.sort()).toEqual(['Fay skill', 'Sia usual']);
    expect(found.pieces).toEqual([]);
    // were Fay away, one of them would be late: told with its days
    await scene.app.read("insert into time_off (person_id, start_on, end_on, part, note) values ($1, '2027-02-20', '2027-03-31', 1, '')", [
      fay.personId,
    ]);
    const late = await propose();
    expect(late.pieces.length).toBeGreaterThan(0);
    expect(late.pieces[0]?.after).toBeGreaterThan(0);
  });

  it('gives what is long due to whoever has time; where nobody has, what others have becomes later, told without its name', async () => {
    const { staff, freelance: fay } = scene.people;
    const other = await makePiece(scene, scene.b, '2027-03-12');
    const own = await makePiece(scene, scene.a, '2027-02-26');
    const hours = (id: string, minutes: number) =>
      scene.app.read(
        "update steps set effort_minutes = case when key = 'write' then $2::int else 30 end, span_days = 1 where piece_id = $1",
        [id, minutes],
      );
    await hours(other, 2400);
    await hours(own, 960);
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replan(tx, [other, own], now) }));
    for (const key of ['write', 'design', 'check'])
      getValue(
        await assignStep(scene.app, scene.people.lead, await stepOf(scene, other, key), key === 'write' ? staff.personId : fay.personId),
      );
    await settle();
    const found = await propose();
    expect(found.gives.find(({ stepTitle }) => stepTitle === 'Write')?.personName).toBe('Fay');
    expect([found.pieces.map(({ pieceId }) => pieceId), found.othersLater]).toEqual([[own], 0]); // late all the same
    await scene.app.read(`update people set skills = '{"design":2,"check":2}' where id = $1`, [fay.personId]);
    const forced = await propose();
    expect(forced.gives.find(({ stepTitle }) => stepTitle === 'Write')?.personName).toBe('Sia');
    expect([forced.pieces.map(({ pieceId }) => pieceId), forced.othersLater]).toEqual([[own], 1]);
    expect(JSON.stringify(forced)).not.toContain(other);
  });

  it('what the programme cannot see is tried on everybody’s work: one piece later is less than three', async () => {
    const { staff, freelance: fay, lead } = scene.people;
    // both have every hour spoken for: Sia by one piece until 11 March, Fay by three until the 10th, each due when it ends
    const theirs = [
      ['2027-03-19', staff, 10],
      ['2027-03-11', fay, 4],
      ['2027-03-16', fay, 3],
      ['2027-03-18', fay, 2],
    ] as const;
    const days = (id: string, count: number) =>
      scene.app.read(
        "update steps set effort_minutes = case when key = 'write' then $2::int * 480 else 30 end, span_days = 1 where piece_id = $1",
        [id, count],
      );
    for (const [wishOn, who, count] of theirs) {
      const id = await makePiece(scene, scene.b, wishOn);
      await days(id, count);
      await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replan(tx, [id], now) }));
      for (const key of ['write', 'design', 'check'])
        getValue(await assignStep(scene.app, lead, await stepOf(scene, id, key), key === 'write' ? who.personId : lead.personId));
    }
    // long due, two days of work: Fay would have hours for it sooner
    const own = await makePiece(scene, scene.a, '2027-02-26');
    await days(own, 2);
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replan(tx, [own], now) }));
    await settle();
    const found = await propose();
    expect(found.gives.find(({ stepTitle }) => stepTitle === 'Write')).toMatchObject({ personName: 'Sia' });
    expect(found.othersLater).toBe(1);
  });

  it('says what nobody can do, and what nobody has hours for', async () => {
    await makePiece(scene, scene.a, '2027-03-30');
    await scene.app.read(`update people set skills = '{"write":2,"design":2}' where role in ('staff', 'freelance')`);
    const found = await propose();
    expect(found.left.map(({ stepTitle, skill, why }) => [stepTitle, skill, why])).toEqual([['Check', 'check', 'nobody_able']]);
    expect(found.gives.map(({ stepTitle }) => stepTitle)).toEqual(['Write', 'Design']);
    await scene.app.read("update steps set effort_minutes = 60000 where key = 'design'");
    expect((await propose()).left).toContainEqual(expect.objectContaining({ stepTitle: 'Design', why: 'no_hours' }));
    // whoever may not work for the client is not thought of
    await scene.app.read(
      "insert into client_people (client_id, person_id, relation) select $1, id, 'barred' from people where role in ('staff', 'freelance') on conflict (client_id, person_id) do update set relation = 'barred'",
      [scene.a.id],
    );
    expect((await propose()).gives).toEqual([]);
  });

  it('what has been due for months is somebody’s to do all the same', async () => {
    await makePiece(scene, scene.a, '2026-10-01');
    const found = await propose();
    expect([found.gives.length, found.left]).toEqual([3, []]);
  });

  it('moves what somebody has and has not begun only where that is asked for, and helps', async () => {
    const { staff } = scene.people;
    const ids = [await makePiece(scene, scene.a, '2027-03-12'), await makePiece(scene, scene.a, '2027-03-12')];
    await scene.app.read("update steps set effort_minutes = 2400, span_days = 1 where key = 'write' and piece_id = any($1)", [ids]);
    await scene.app.read("update steps set effort_minutes = 30, span_days = 1 where key <> 'write' and piece_id = any($1)", [ids]);
    for (const id of ids)
      for (const key of ['write', 'design', 'check'])
        getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, id, key), staff.personId));
    await settle();
    expect((await propose()).gives).toEqual([]); // everything is somebody's
    const found = await propose('&given=yes');
    // Sia keeps one of the two, and only what helps changes hands
    expect(found.gives.map(({ stepTitle, personName, fromName }) => [stepTitle, personName, fromName])).toEqual([['Write', 'Fay', 'Sia']]);
    await scene.app.read("update steps set started_on = '2027-02-20' where piece_id = any($1) and key = 'write'", [ids]);
    expect((await propose('&given=yes')).gives.map(({ stepTitle }) => stepTitle)).not.toContain('Write');
  });

  it('all or none: a step that changed meanwhile, or is of another’s client, leaves nothing given', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    const gives = toGive(await propose());
    const stale = gives.map((one, index) => (index === 1 ? { ...one, version: one.version + 1 } : one));
    expect(await give(stale)).toMatchObject({ status: 412, body: { code: 'http.changed_meanwhile' } });
    const other = await makePiece(scene, scene.b, '2027-03-30');
    const foreign = { ...gives[0], stepId: await stepOf(scene, other, 'write') };
    expect((await give([...gives, foreign])).status).toBe(404);
    expect((await give([])).status).toBe(400);
    expect(await doers(pieceId)).toEqual(['write null', 'design null', 'check null']);
    expect((await propose()).gives.every((one) => one.clientId === scene.a.id)).toBe(true);
    expect([(await propose('', freelance)).status, (await give(gives, freelance)).status]).toEqual([403, 403]);
    expect((await manager.call('GET', '/api/staffing/proposal?to=tomorrow')).status).toBe(400);
    expect((await manager.call('GET', '/api/staffing/proposal?to=2029-01-01')).status).toBe(400);
    expect((await propose('&given=perhaps')).status).toBe(400);
    expect((await propose(`&clientId=${scene.b.id}`)).status).toBe(404);
    expect((await propose(`&clientId=${scene.a.id}`)).gives.length).toBe(3);
  });

  it('two who give out at once: one does, the other is told, and every step has one doer', async () => {
    const ids = [await makePiece(scene, scene.a, '2027-03-30'), await makePiece(scene, scene.a, '2027-03-31')];
    const gives = toGive(await propose());
    const lead = await callerAs(scene, 'lead');
    const turned = [...gives].reverse().map((one) => ({ ...one, personId: scene.people.freelance.personId }));
    const answers = await Promise.all([give(gives), give(turned, lead), give(gives), give(turned, lead)]);
    const good = answers.filter(({ status }) => status === 204).length;
    // whoever gives what the first gave already is told nothing wrong
    expect(good).toBeGreaterThanOrEqual(1);
    expect(answers.every(({ status }) => status === 204 || status === 412)).toBe(true);
    const named = (await Promise.all(ids.map(doers))).flat();
    const isTurned = named.every((one) => one.endsWith('Fay'));
    const nameOf = new Map(
      (await scene.app.read<{ id: string; name: string }>('select id, name from people')).map(({ id, name }) => [id, name]),
    );
    if (!isTurned) expect(named.map((one) => one.split(' ')[1]).sort()).toEqual(gives.map(({ personId }) => nameOf.get(personId)).sort());
    const twice = await scene.app.read(
      "select thing_id, detail ->> 'step' from activities where verb = 'step.assigned' and thing_id = any($1) group by 1, 2 having count(*) > 1",
      [ids],
    );
    expect(twice).toEqual([]);
  });

  it('another than is proposed: who else could, what their hours cost to those who may know it, and what it would come to', async () => {
    const { staff, freelance: fay } = scene.people;
    await scene.app.read("insert into client_team (client_id, skill, person_id) values ($1, 'write', $2)", [scene.a.id, staff.personId]);
    await scene.app.read(
      `insert into rates (person_id, agreed, set_by, set_at, version) values ($1, '[{"fromOn":"2027-01-01","amount":4000}]', 'Lea', now(), 1)`,
      [fay.personId],
    );
    const pieceId = await makePiece(scene, scene.a, '2027-03-12');
    await scene.app.read("update steps set effort_minutes = 90 where key = 'write' and piece_id = $1", [pieceId]);
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replan(tx, [pieceId], now) }));
    await settle();
    const found = await propose();
    const write = found.gives.find(({ stepTitle }) => stepTitle === 'Write');
    expect([write?.personName, write?.cost, write?.others]).toEqual([
      'Sia',
      null,
      [{ personId: fay.personId, name: 'Fay', why: 'skill', cost: null }], // a manager is not told rates
    ]);
    const asLead = (await propose('', await callerAs(scene, 'lead'))).gives.find(({ stepId }) => stepId === write?.stepId);
    expect(asLead?.others.map(({ name, cost }) => [name, cost])).toEqual([['Fay', 6000]]); // an hour and a half of 40.00
    // Fay is away until long after it is due: late with her, and the piece with it; nothing is stored
    await scene.app.read("insert into time_off (person_id, start_on, end_on, part, note) values ($1, '2027-02-20', '2027-03-31', 1, '')", [
      fay.personId,
    ]);
    const gives = toGive(found).map((one) => (one.stepId === write?.stepId ? { ...one, personId: fay.personId } : one));
    const late = await outcomeOf(gives);
    expect(late.status).toBe(200);
    expect(late.ends.find(({ stepId }) => stepId === write?.stepId)?.predictedFinishOn).toBe('2027-04-01');
    expect(late.pieces.map(({ pieceId: id, was, after }) => [id, was, after > 0])).toEqual([[pieceId, 0, true]]);
    expect((await outcomeOf(toGive(found))).pieces).toEqual([]);
    expect(await doers(pieceId)).toEqual(['write null', 'design null', 'check null']);
    expect((await give(gives)).status).toBe(204);
    await settle();
    const [row] = await scene.app.read<{ on: string }>(
      "select predicted_finish_on::text as on from steps where piece_id = $1 and key = 'write'",
      [pieceId],
    );
    expect(row?.on).toBe('2027-04-01'); // what was told comes true
    const foreign = { ...gives[0], stepId: await stepOf(scene, await makePiece(scene, scene.b, '2027-03-30'), 'write') };
    expect([(await outcomeOf([foreign])).status, (await outcomeOf(gives, freelance)).status]).toEqual([404, 403]);
    await scene.app.read('delete from rates');
  });

  it('ends when nobody waits any more', async () => {
    await makePiece(scene, scene.a, '2027-03-30');
    const leaving = new AbortController();
    leaving.abort();
    const asked = {
      clientIds: [scene.a.id],
      todayOn: getDay('2027-02-25'),
      untilOn: getDay('2027-04-30'),
      withGiven: false,
      tellsCosts: true,
      seenIds: [scene.a.id],
    };
    expect(await proposeStaff(scene.app, asked, leaving.signal)).toEqual({ ok: false, failure: { code: 'staffing.not_found' } });
  });
});
