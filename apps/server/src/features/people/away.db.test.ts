import { getValue } from '@zesting/core';
import type { AwayShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { predict } from '../planning/index.js';
import { assignStep } from '../production/index.js';

describe('somebody is away', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    manager = await callerAs(scene, 'manager');
    await scene.app.read(`update people set skills = '{"write":2,"design":1,"check":1}' where role in ('staff', 'freelance')`);
    await scene.app.read("update people set skills = '{}' where role in ('lead', 'manager')");
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from time_off');
    await scene.app.read("delete from client_people where relation = 'barred'");
    await scene.app.read('delete from notices');
    await scene.app.read('update pieces set list = null, shelved = true');
  });

  const week = { startOn: '2027-03-01', endOn: '2027-03-05', part: 1 };
  const give = async (pieceId: string, key: string, personId: string) =>
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, key), personId));
  const preview = async (body: object = week) => {
    const { status, body: answer } = await lead.call('POST', `/api/people/${scene.people.staff.personId}/away/preview`, { body });
    return { status, ...(answer as unknown as AwayShape & { code?: string }) };
  };
  const accept = (caller: Caller, gives: readonly object[], body: object = week) =>
    caller.call('POST', `/api/people/${scene.people.staff.personId}/away`, { body: { ...body, gives } });
  const settle = () => scene.app.write(async (tx, now) => ({ ok: true as const, value: await predict(tx, now) }));
  const danger = async (id: string) =>
    (await scene.app.read<{ danger: string }>('select danger from pieces where id = $1', [id]))[0]?.danger;

  it('what becomes late is told with who could take over; accepted, nothing is late', async () => {
    // out on Tuesday of the second week: written by Sia on Monday
    const pieceId = await makePiece(scene, scene.a, '2027-03-10');
    await give(pieceId, 'write', scene.people.staff.personId);
    await give(pieceId, 'design', scene.people.freelance.personId);
    await give(pieceId, 'check', scene.people.freelance.personId);
    await settle();
    expect(['fine', 'tight']).toContain(await danger(pieceId));
    const found = await preview();
    expect(found).toMatchObject({
      status: 200,
      isWhole: true,
      pieces: [{ pieceId, clientId: scene.a.id, was: 0, after: 0 }],
      gives: [{ pieceId, personName: 'Fay' }],
    });
    expect(found.pieces[0]?.away).toBeGreaterThan(0);
    expect(await scene.app.read('select 1 from time_off')).toEqual([]); // nothing is entered
    const gives = found.gives.map(({ stepId, personId, version }) => ({ stepId, personId, version }));
    expect((await accept(manager, gives)).status).toBe(403);
    expect((await accept(lead, gives)).status).toBe(204);
    await settle();
    expect(['fine', 'tight']).toContain(await danger(pieceId));
    expect(await scene.app.read('select start_on, end_on from time_off')).toEqual([{ start_on: '2027-03-01', end_on: '2027-03-05' }]);
    const told = await scene.app.read<{ name: string }>('select p.name from notices n join people p on p.id = n.person_id');
    expect(told.map(({ name }) => name)).toContain('Fay');
    expect((await preview({ ...week, startOn: '2027-03-09', endOn: '2027-03-08' })).code).toBe('time_off.order_wrong');
  });

  it('what they have to do around what goes out is told: put in before they go, or due while they are away', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-10');
    const [placement] = await scene.app.read<{ id: string; version: number; channel_id: string }>(
      'select id, version, channel_id from placements where piece_id = $1 order by channel_id limit 1',
      [pieceId],
    );
    const { personId } = scene.people.staff;
    const item = { kind: 'enter', words: 'Put it in', days: 0, forDays: 1, minutes: 15, personId };
    const others = { ...item, words: 'Not theirs', personId: null };
    const put = await lead.call('PUT', `/api/channels/${placement?.channel_id}/follow-ups`, {
      body: { items: [item, others] },
      headers: { 'If-Match': '"0"' },
    });
    expect(put.status).toBe(204);
    const at = { on: '2027-03-10', at: '10:00' };
    getValue(await movePlacement(scene.app, scene.people.lead, placement?.id ?? '', at, placement?.version ?? 0));
    await scene.app.read(
      `insert into follow_ups (placement_id, client_id, kind, item_key, position, words, person_id, minutes, due_on, state)
       select $1, $2, 'follow_up', gen_random_uuid(), 0, 'Answer', $3, 10, d::date, 'open' from unnest(array['2027-03-11', '2027-03-15']) d`,
      [placement?.id, scene.a.id, personId],
    );
    const next = { startOn: '2027-03-08', endOn: '2027-03-12', part: 1 };
    const told = { pieceId, pieceTitle: 'A piece', clientId: scene.a.id };
    expect((await preview(next)).around).toEqual([
      { ...told, kind: 'enter', words: 'Put it in', channelName: expect.any(String) as string, dueOn: '2027-03-10', thenOn: '2027-03-05' },
      { ...told, kind: 'follow_up', words: 'Answer', channelName: expect.any(String) as string, dueOn: '2027-03-11', thenOn: '2027-03-11' },
    ]);
    expect((await preview({ ...next, startOn: '2027-03-11' })).around.map(({ words }) => words)).toEqual(['Answer']);
    await scene.app.read('delete from follow_ups');
    await scene.app.read('delete from follow_up_lists');
  });

  it('all or none: a step that somebody else has by now, or that changed, leaves nothing entered', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-10');
    await give(pieceId, 'write', scene.people.staff.personId);
    const stepId = await stepOf(scene, pieceId, 'write');
    const [step] = await scene.app.read<{ version: number }>('select version from steps where id = $1', [stepId]);
    const one = { stepId, personId: scene.people.freelance.personId, version: step?.version ?? 0 };
    expect((await accept(lead, [{ ...one, version: 99 }])).body['code']).toBe('http.changed_meanwhile');
    await give(pieceId, 'write', scene.people.freelance.personId);
    expect((await accept(lead, [one])).body['code']).toBe('step.other_doer');
    expect(await scene.app.read('select 1 from time_off')).toEqual([]);
    expect((await accept(lead, [])).status).toBe(204); // away, with nobody to take over
  });

  it('proposes nobody who must not work for the client, and says what stays late', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-10');
    await give(pieceId, 'write', scene.people.staff.personId);
    await give(pieceId, 'design', scene.people.staff.personId);
    await scene.app.read("insert into client_people (client_id, person_id, relation) values ($1, $2, 'barred')", [
      scene.a.id,
      scene.people.freelance.personId,
    ]);
    const found = await preview();
    expect(found.gives).toEqual([]);
    expect(found.pieces).toHaveLength(1);
    expect(found.pieces[0]?.after).toBe(found.pieces[0]?.away);
    // half days cost less
    const half = await preview({ ...week, part: 0.5 });
    expect(half.pieces[0]?.away ?? 0).toBeLessThanOrEqual(found.pieces[0]?.away ?? 0);
  });
});
