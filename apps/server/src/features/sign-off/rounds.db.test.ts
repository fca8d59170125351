import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makeScene, type Scene } from '../../../test-support/scene.js';
import { addApprover, signOffIn } from '../../../test-support/sign-off.js';
import { settleRemark } from '../remarks/index.js';
import { approveForClient, chase, recordNoAnswer } from './index.js';

describe('rounds', () => {
  let scene: Scene;
  let way: ReturnType<typeof signOffIn>;
  let [second, third] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    way = signOffIn(scene);
    second = await addApprover(scene, 'Bea', 1);
    third = await addApprover(scene, 'Cleo', 2);
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  const setPolicy = (policy: object) =>
    scene.app.read('update clients set policy = $2 where id = $1', [scene.a.id, JSON.stringify(policy)]);
  const asked = async (words: string) =>
    (
      await scene.app.read<{ to: string }>(
        `select j.payload ->> 'to' as to from graphile_worker._private_jobs j join graphile_worker._private_tasks t on t.id = j.task_id
         where t.identifier = 'mail_send' and j.payload ->> 'subject' like $1 order by j.id`,
        [words],
      )
    ).map((row) => row.to);
  const forgetMails = () => scene.app.read('delete from graphile_worker._private_jobs');
  const outcome = async (contactId: string, packetId: string, pieceId: string) =>
    getValue(await way.say(packetId, pieceId, 'approve', { contactId })).outcome;

  it('ask in turn: the next only when the one before has approved, and nobody out of turn', async () => {
    await setPolicy({ kind: 'all', inTurn: true });
    await forgetMails();
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    expect(await asked('For your sign-off%')).toEqual(['contact@aaa.test']);
    expect(await way.say(packetId, pieceId, 'approve', { contactId: second })).toEqual({
      ok: false,
      failure: { code: 'decision.not_your_turn' },
    });
    expect(await outcome(scene.a.contactId, packetId, pieceId)).toBeNull();
    expect(await asked('For your sign-off%')).toEqual(['contact@aaa.test', 'bea@aaa.test']);
    expect(await outcome(second, packetId, pieceId)).toBeNull();
    expect(await outcome(third, packetId, pieceId)).toBe('approved');
  });

  it('ask only those named, and take n of m in any order', async () => {
    await setPolicy({ kind: 'named', contactIds: [third] });
    await forgetMails();
    const named = await way.ready(scene.a);
    const first = getValue(await way.send(scene.a, [named]));
    expect(await asked('For your sign-off%')).toEqual(['cleo@aaa.test']);
    expect(await way.say(first, named, 'approve', { contactId: second })).toEqual({
      ok: false,
      failure: { code: 'decision.not_an_approver' },
    });
    expect(await outcome(third, first, named)).toBe('approved');
    await setPolicy({ kind: 'n_of', count: 2 });
    const counted = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [counted]));
    expect(await outcome(third, packetId, counted)).toBeNull();
    expect(await outcome(third, packetId, counted)).toBeNull(); // the same contact again is still one
    expect(await outcome(scene.a.contactId, packetId, counted)).toBe('approved');
  });

  it('leave the word to the agency where the client wants that: the named person, no packet, no “with client”', async () => {
    await setPolicy({ kind: 'agency', personId: scene.people.manager.personId });
    const pieceId = await way.ready(scene.a);
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'packet.agency_decides' } });
    expect(await approveForClient(scene.app, scene.people.lead, pieceId)).toEqual({
      ok: false,
      failure: { code: 'decision.other_person_decides' },
    });
    getValue(await approveForClient(scene.app, scene.people.manager, pieceId));
    const [piece] = await scene.app.read('select stage from pieces where id = $1', [pieceId]);
    expect(piece).toEqual({ stage: 'approved' });
    const [decision] = await scene.app.read('select packet_id, contact_id, recorded_by, how from decisions where piece_id = $1', [pieceId]);
    expect(decision).toEqual({
      packet_id: null,
      contact_id: null,
      recorded_by: scene.people.manager.personId,
      how: 'on the client’s standing authority',
    });
    expect(await approveForClient(scene.app, scene.people.manager, pieceId)).toEqual({
      ok: false,
      failure: { code: 'piece.signed_already' },
    });
  });

  it('take silence for a yes only where it was agreed, and only after so many of the client’s working days', async () => {
    await setPolicy({ kind: 'any' });
    const strict = getValue(await way.send(scene.a, [await way.ready(scene.a)]));
    expect(await recordNoAnswer(scene.app, scene.people.lead, strict)).toEqual({
      ok: false,
      failure: { code: 'packet.silence_not_agreed' },
    });
    await setPolicy({ kind: 'any', silenceDays: 3 });
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId])); // Monday 1 March; Tuesday to Thursday are the client's three
    scene.app.clock.set('2027-03-04T16:00:00Z');
    expect(await recordNoAnswer(scene.app, scene.people.lead, packetId)).toEqual({
      ok: false,
      failure: { code: 'packet.silence_too_soon' },
    });
    scene.app.clock.set('2027-03-05T09:00:00Z');
    getValue(await recordNoAnswer(scene.app, scene.people.lead, packetId));
    const [piece] = await scene.app.read('select stage from pieces where id = $1', [pieceId]);
    expect(piece).toEqual({ stage: 'approved' });
  });

  it('carry each remark as a to-do: settled, or answered in words, before the piece can go again', async () => {
    await setPolicy({ kind: 'any' });
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    getValue(await way.say(packetId, pieceId, 'changes', { remark: 'Warmer, please\n\n  Without the price  \n' }));
    const remarks = () =>
      scene.app.read<{ id: string; text: string; state: string }>(
        'select id, text, state from remarks where piece_id = $1 order by position',
        [pieceId],
      );
    const [warm, price] = await remarks();
    expect([warm?.text, price?.text]).toEqual(['Warmer, please', 'Without the price']);
    await way.write(pieceId, 'Warmer copy');
    await way.make(pieceId, ['design', 'check']);
    getValue(await settleRemark(scene.app, scene.people.lead, warm?.id ?? '', { state: 'settled' }));
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'remark.open' } });
    expect(await settleRemark(scene.app, scene.people.lead, price?.id ?? '', { state: 'answered', answer: ' ' })).toEqual({
      ok: false,
      failure: { code: 'remark.answer_missing' },
    });
    getValue(await settleRemark(scene.app, scene.people.lead, price?.id ?? '', { state: 'answered', answer: 'The law asks for it' }));
    getValue(await settleRemark(scene.app, scene.people.lead, warm?.id ?? '', { state: 'open' }));
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'remark.open' } });
    getValue(await settleRemark(scene.app, scene.people.lead, warm?.id ?? '', { state: 'settled' }));
    const again = getValue(await way.send(scene.a, [pieceId]));
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    const { body } = await contact.call('GET', `/api/room/${scene.a.contactId}`);
    const pieces = (body['packets'] as { pieces: { pieceId: string; remarks: unknown[] }[] }[]).flatMap((packet) => packet.pieces); // RoomShape
    expect(pieces.filter((piece) => piece.pieceId === pieceId).map((piece) => piece.remarks)).toContainEqual([
      expect.objectContaining({ text: 'Warmer, please', where: '', place: null, round: 1, state: 'settled', answer: '', replies: [] }),
      expect.objectContaining({ text: 'Without the price', round: 1, state: 'answered', answer: 'The law asks for it' }),
    ]);
    // a part that stayed the same waits for the word of whoever asked for changes to it, and they can give it
    const room = (body['packets'] as { id: string; pieces: { isAsked: boolean }[] }[]).find((packet) => packet.id === again); // RoomShape
    expect(room?.pieces[0]?.isAsked).toBe(true);
    expect(getValue(await way.say(again, pieceId, 'approve')).outcome).toBe('approved');
  });

  it('are counted against what was agreed, and offered a due date that is the earliest latest finish', async () => {
    await setPolicy({ kind: 'any' });
    const [sooner, later] = [await way.ready(scene.a), await way.ready(scene.a)];
    await scene.app.read("update pieces set wish_on = '2027-03-16' where id = $1", [sooner]);
    const lead = await callerAs(scene, 'lead');
    scene.app.clock.set('2027-03-02T09:00:00Z');
    const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [sooner]);
    await lead.call('PATCH', `/api/pieces/${sooner}`, { body: { notes: 'x' }, headers: { 'If-Match': `"${row?.version}"` } });
    const { body } = await lead.call('GET', `/api/clients/${scene.a.id}/ready`);
    const ready = body['pieces'] as { pieceId: string; latestFinishOn: string; answerOn: string; slips: boolean }[]; // ReadyShape
    const [one, two] = [sooner, later].map((id) => ready.find((piece) => piece.pieceId === id));
    // out on Tuesday 16 March: the client's word is due on Monday 15; out on Tuesday 30: before Good Friday 26 and Easter Monday 29
    expect(one).toMatchObject({ latestFinishOn: '2027-03-15', slips: false });
    expect(two).toMatchObject({ latestFinishOn: '2027-03-25', slips: false });
    expect(one && two && one.latestFinishOn < two.latestFinishOn).toBe(true);
    scene.app.clock.set('2027-03-15T13:00:00Z'); // after noon of the last day: two working days are no longer there
    const late = await lead.call('GET', `/api/clients/${scene.a.id}/ready`);
    const slipping = (late.body['pieces'] as typeof ready).find((piece) => piece.pieceId === sooner);
    expect(slipping).toMatchObject({ slips: true });
    expect((slipping?.answerOn ?? '') > '2027-03-15').toBe(true);
  });

  it('chase everybody who is awaited with one click, nobody else, and nobody once the word is given', async () => {
    await setPolicy({ kind: 'all' });
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    expect(await outcome(second, packetId, pieceId)).toBeNull();
    await forgetMails();
    const lead = await callerAs(scene, 'lead');
    const { body } = await lead.call('GET', `/api/packets/${packetId}/chase`);
    expect(body['receivers']).toEqual([
      { name: 'Contact AAA', email: 'contact@aaa.test' },
      { name: 'Cleo', email: 'cleo@aaa.test' },
    ]);
    expect(String(body['text'])).toContain('“A piece”');
    expect(getValue(await chase(scene.app, scene.people.lead, packetId, String(body['text'])))).toBe(2);
    expect(await asked('Your word on%')).toEqual(['contact@aaa.test', 'cleo@aaa.test']);
    await outcome(scene.a.contactId, packetId, pieceId);
    await outcome(third, packetId, pieceId);
    expect(await chase(scene.app, scene.people.lead, packetId, 'Again')).toEqual({
      ok: false,
      failure: { code: 'packet.nobody_to_chase' },
    });
  });
});
