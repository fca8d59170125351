import { CHAIN_START, chainHead, getValue } from '@zesting/core';
import { makeScene, type Scene } from '../../../test-support/scene.js';
import { signOffIn } from '../../../test-support/sign-off.js';
import { movePlacement } from '../calendar/index.js';
import { decisionRecord } from './index.js';

describe('sign-off', () => {
  let scene: Scene;
  let way: ReturnType<typeof signOffIn>;
  beforeAll(async () => {
    scene = await makeScene();
    way = signOffIn(scene);
  });
  afterAll(() => scene.close());

  const placements = (pieceId: string) =>
    scene.app.read<{ id: string; state: string; version: number; name: string }>(
      'select l.id, l.state, l.version, h.name from placements l join channels h on h.id = l.channel_id where piece_id = $1 order by h.position',
      [pieceId],
    );
  const stateOf = async (pieceId: string) =>
    (
      await scene.app.read<{ stage: string; list: string; round: number }>('select stage, list, round from pieces where id = $1', [pieceId])
    )[0];

  it('approves exactly the version sent; an edit of one channel voids that part alone; edited back it is signed again', async () => {
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    expect(await stateOf(pieceId)).toEqual({ stage: 'with_client', list: 'with_client', round: 1 });
    expect(getValue(await way.say(packetId, pieceId, 'approve')).outcome).toBe('approved');
    for (const [index, placement] of (await placements(pieceId)).entries())
      getValue(await movePlacement(scene.app, scene.people.lead, placement.id, { on: `2027-04-0${index + 6}` }, placement.version));
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['scheduled', 'scheduled']);
    await way.write(pieceId, 'Copy', 'Feed, edited');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['pencilled', 'scheduled']);
    expect((await stateOf(pieceId))?.list).toBe('changed_after_sign_off');
    await way.write(pieceId, 'Copy', 'Feed');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['scheduled', 'scheduled']);
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.signed_already' } });
    await way.write(pieceId, 'Other copy', 'Feed');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['pencilled', 'pencilled']);
    getValue(await way.send(scene.a, [pieceId])); // sent again: a sign-off step of its own, no round
    expect(await stateOf(pieceId)).toMatchObject({ stage: 'with_client', round: 1 });
  });

  it('opens round two with its rework steps when changes are asked, planned anew', async () => {
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    expect(await way.say(packetId, pieceId, 'changes', { remark: ' ' })).toEqual({
      ok: false,
      failure: { code: 'decision.remark_missing' },
    });
    getValue(await way.say(packetId, pieceId, 'changes'));
    const steps = await scene.app.read(
      'select key, round, span_days, latest_finish_on is not null as planned from steps where piece_id = $1 and finished_on is null order by position',
      [pieceId],
    );
    expect(steps).toEqual(['design', 'check', 'sign_off'].map((key) => ({ key, round: 2, span_days: 1, planned: true })));
    expect(await stateOf(pieceId)).toEqual({ stage: 'in_production', list: 'returned', round: 2 });
    expect(await way.say(packetId, pieceId, 'approve')).toEqual({ ok: false, failure: { code: 'decision.closed' } });
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.not_ready_for_client' } });
    await way.write(pieceId, 'Warmer copy', 'Feed');
    await way.make(pieceId, ['design', 'check']);
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'remark.open' } });
    await way.settleAll(pieceId);
    const second = getValue(await way.send(scene.a, [pieceId]));
    expect(getValue(await way.say(second, pieceId, 'approve')).outcome).toBe('approved');
  });

  it('takes two taps at the same moment for one decision, and closes a packet whose last pieces are decided together', async () => {
    const pieces = [await way.ready(scene.a), await way.ready(scene.a)];
    const packetId = getValue(await way.send(scene.a, pieces));
    const results = await Promise.all([...pieces, ...pieces].map((pieceId) => way.say(packetId, pieceId, 'approve')));
    expect(results.map((result) => getValue(result).outcome)).toEqual(['approved', 'approved', 'approved', 'approved']);
    expect(await scene.app.read('select 1 from decisions where packet_id = $1', [packetId])).toHaveLength(2);
    const [packet] = await scene.app.read<{ closed: boolean }>('select closed_at is not null as closed from packets where id = $1', [
      packetId,
    ]);
    expect(packet?.closed).toBe(true);
  });

  it('refuses a stale version, a stranger to the packet, and a contact of another client', async () => {
    const [mine, other] = [await way.ready(scene.a), await way.ready(scene.a)];
    const packetId = getValue(await way.send(scene.a, [mine]));
    expect(await way.say(packetId, mine, 'approve', { versionId: '00000000-0000-4000-8000-000000000000' })).toEqual({
      ok: false,
      failure: { code: 'decision.other_version' },
    });
    expect(await way.say(packetId, other, 'approve')).toEqual({ ok: false, failure: { code: 'decision.not_in_packet' } });
    expect(await way.say(packetId, mine, 'approve', { contactId: scene.b.contactId })).toEqual({
      ok: false,
      failure: { code: 'decision.not_an_approver' },
    });
    expect(await way.send(scene.a, [mine])).toEqual({ ok: false, failure: { code: 'piece.with_client_already' } });
  });

  it('takes due dates only on days that the client works, and pieces only of that client', async () => {
    const pieceId = await way.ready(scene.b);
    expect(await way.send(scene.b, [pieceId], '2027-03-13')).toEqual({ ok: false, failure: { code: 'packet.due_on_day_off' } });
    expect(await way.send(scene.b, [pieceId], '2027-02-26')).toEqual({ ok: false, failure: { code: 'packet.due_in_past' } });
    expect(await way.send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.other_client' } });
    const [packets] = await scene.app.read<{ count: number }>('select count(*) from packets where client_id = $1', [scene.b.id]);
    expect(packets?.count).toBe(0);
  });

  it('waits for everybody where all must approve, and keeps the policy that the packet was sent under', async () => {
    const [second] = await scene.app.read<{ id: string }>(
      "insert into contacts (client_id, name, email, can_sign_off) values ($1, 'Second', 'second@aaa.test', true) returning id",
      [scene.a.id],
    );
    await scene.app.read(`update clients set policy = '{"kind":"all"}' where id = $1`, [scene.a.id]);
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    await scene.app.read(`update clients set policy = '{"kind":"any"}' where id = $1`, [scene.a.id]); // too late for this packet
    expect(getValue(await way.say(packetId, pieceId, 'approve')).outcome).toBeNull();
    expect(await stateOf(pieceId)).toMatchObject({ stage: 'with_client' });
    expect(getValue(await way.say(packetId, pieceId, 'approve', { contactId: second?.id ?? '' })).outcome).toBe('approved');
    await scene.app.read('update contacts set can_sign_off = false where id = $1', [second?.id]);
  });

  it('records what was said by telephone under the contact’s name, with who and how', async () => {
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    const onBehalf = { personId: scene.people.manager.personId, name: 'Max', how: 'By telephone, 14:20' };
    getValue(await way.say(packetId, pieceId, 'approve', { onBehalf }));
    const [decision] = await scene.app.read('select recorded_by, how, contact_id from decisions where piece_id = $1', [pieceId]);
    expect(decision).toEqual({ recorded_by: scene.people.manager.personId, how: 'By telephone, 14:20', contact_id: scene.a.contactId });
  });

  it('chains the decisions of a client: the head follows from every record', async () => {
    const rows = await scene.app.read<{
      sequence: number;
      packet_id: string;
      piece_id: string;
      version_id: string;
      contact_id: string;
      verdict: 'approve' | 'changes';
      digests: string[];
      remark: string;
      decided_at: string;
      recorded_by: string | null;
      how: string;
      head: string;
    }>('select * from decisions where client_id = $1 order by sequence', [scene.a.id]);
    expect(rows.length).toBeGreaterThan(4);
    let head = CHAIN_START;
    for (const [index, row] of rows.entries()) {
      expect(row.sequence).toBe(index + 1);
      head = chainHead(
        head,
        decisionRecord({
          sequence: row.sequence,
          packetId: row.packet_id,
          pieceId: row.piece_id,
          versionId: row.version_id,
          contactId: row.contact_id,
          verdict: row.verdict,
          digests: row.digests,
          remark: row.remark,
          decidedAt: row.decided_at,
          recordedBy: row.recorded_by,
          how: row.how,
        }),
      );
      expect(row.head).toBe(head);
    }
    const [client] = await scene.app.read<{ chain_head: string }>('select chain_head from clients where id = $1', [scene.a.id]);
    expect(client?.chain_head).toBe(head);
  });
});
