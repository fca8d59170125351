import { CHAIN_START, chainHead, getValue } from '@zesting/core';
import { makePiece, makeScene, stepOf, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { movePlacement } from '../calendar/index.js';
import { editContent, handIn } from '../production/index.js';
import { decide, decisionRecord, sendPacket, settleRemark, type DecisionInput } from './index.js';

describe('sign-off', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  }, 60_000);
  afterAll(() => scene.close());

  /** Writes the piece's copy: the shared one and the first channel's. */
  const write = async (pieceId: string, copy: string, onFeed = '') => {
    const [row] = await scene.app.read<{ content_version: number; client_id: string }>(
      'select content_version, client_id from pieces where id = $1',
      [pieceId],
    );
    const client = row?.client_id === scene.a.id ? scene.a : scene.b;
    const channels = [{ channelId: client.channelIds[0] ?? '', copy: onFeed, tags: [], firstComment: '', link: '' }];
    getValue(
      await editContent(
        scene.app,
        scene.people.lead,
        pieceId,
        { shared: { copy, disclosure: '', media: [] }, channels },
        row?.content_version ?? 0,
      ),
    );
  };
  const make = async (pieceId: string, keys = ['write', 'design', 'check']) => {
    for (const key of keys) getValue(await handIn(scene.app, scene.people.lead, await stepOf(scene, pieceId, key)));
  };
  const send = (client: SceneClient, pieceIds: string[], dueOn = '2027-03-10') =>
    sendPacket(scene.app, scene.people.lead, client.id, { title: 'Packet', pieceIds, dueOn });
  const ready = async (client: SceneClient): Promise<string> => {
    const pieceId = await makePiece(scene, client);
    await write(pieceId, 'Copy', 'Feed');
    await make(pieceId);
    return pieceId;
  };
  const say = (packetId: string, pieceId: string, verdict: 'approve' | 'changes', more: Partial<DecisionInput> = {}) =>
    decide(scene.app, {
      packetId,
      pieceId,
      contactId: scene.a.contactId,
      verdict,
      remark: verdict === 'changes' ? 'Warmer' : '',
      versionId: null,
      onBehalf: null,
      ...more,
    });
  const settleAll = async (pieceId: string) => {
    for (const { id } of await scene.app.read<{ id: string }>("select id from remarks where piece_id = $1 and state = 'open'", [pieceId]))
      getValue(await settleRemark(scene.app, scene.people.lead, id, { state: 'settled' }));
  };
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
    const pieceId = await ready(scene.a);
    const packetId = getValue(await send(scene.a, [pieceId]));
    expect(await stateOf(pieceId)).toEqual({ stage: 'with_client', list: 'with_client', round: 1 });
    expect(getValue(await say(packetId, pieceId, 'approve')).outcome).toBe('approved');
    for (const [index, placement] of (await placements(pieceId)).entries())
      getValue(await movePlacement(scene.app, scene.people.lead, placement.id, { on: `2027-04-0${index + 6}` }, placement.version));
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['scheduled', 'scheduled']);
    await write(pieceId, 'Copy', 'Feed, edited');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['pencilled', 'scheduled']);
    expect((await stateOf(pieceId))?.list).toBe('changed_after_sign_off');
    await write(pieceId, 'Copy', 'Feed');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['scheduled', 'scheduled']);
    expect(await send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.signed_already' } });
    await write(pieceId, 'Other copy', 'Feed');
    expect((await placements(pieceId)).map((placement) => placement.state)).toEqual(['pencilled', 'pencilled']);
    getValue(await send(scene.a, [pieceId])); // sent again: a sign-off step of its own, no round
    expect(await stateOf(pieceId)).toMatchObject({ stage: 'with_client', round: 1 });
  });

  it('opens round two with its rework steps when changes are asked, planned anew', async () => {
    const pieceId = await ready(scene.a);
    const packetId = getValue(await send(scene.a, [pieceId]));
    expect(await say(packetId, pieceId, 'changes', { remark: ' ' })).toEqual({ ok: false, failure: { code: 'decision.remark_missing' } });
    getValue(await say(packetId, pieceId, 'changes'));
    const steps = await scene.app.read(
      'select key, round, span_days, latest_finish_on is not null as planned from steps where piece_id = $1 and finished_on is null order by position',
      [pieceId],
    );
    expect(steps).toEqual(['design', 'check', 'sign_off'].map((key) => ({ key, round: 2, span_days: 1, planned: true })));
    expect(await stateOf(pieceId)).toEqual({ stage: 'in_production', list: 'returned', round: 2 });
    expect(await say(packetId, pieceId, 'approve')).toEqual({ ok: false, failure: { code: 'decision.closed' } });
    expect(await send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.not_ready_for_client' } });
    await write(pieceId, 'Warmer copy', 'Feed');
    await make(pieceId, ['design', 'check']);
    expect(await send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'remark.open' } });
    await settleAll(pieceId);
    const second = getValue(await send(scene.a, [pieceId]));
    expect(getValue(await say(second, pieceId, 'approve')).outcome).toBe('approved');
  });

  it('takes one of two decisions at the same moment, and closes a packet whose last pieces are decided together', async () => {
    const pieces = [await ready(scene.a), await ready(scene.a)];
    const packetId = getValue(await send(scene.a, pieces));
    const results = await Promise.all([...pieces, ...pieces].map((pieceId) => say(packetId, pieceId, 'approve')));
    expect(results.map((result) => (result.ok ? 'taken' : result.failure.code)).sort()).toEqual([
      'decision.closed',
      'decision.closed',
      'taken',
      'taken',
    ]);
    const [packet] = await scene.app.read<{ closed: boolean }>('select closed_at is not null as closed from packets where id = $1', [
      packetId,
    ]);
    expect(packet?.closed).toBe(true);
  });

  it('refuses a stale version, a stranger to the packet, and a contact of another client', async () => {
    const [mine, other] = [await ready(scene.a), await ready(scene.a)];
    const packetId = getValue(await send(scene.a, [mine]));
    expect(await say(packetId, mine, 'approve', { versionId: '00000000-0000-4000-8000-000000000000' })).toEqual({
      ok: false,
      failure: { code: 'decision.other_version' },
    });
    expect(await say(packetId, other, 'approve')).toEqual({ ok: false, failure: { code: 'decision.not_in_packet' } });
    expect(await say(packetId, mine, 'approve', { contactId: scene.b.contactId })).toEqual({
      ok: false,
      failure: { code: 'decision.not_an_approver' },
    });
    expect(await send(scene.a, [mine])).toEqual({ ok: false, failure: { code: 'piece.with_client_already' } });
  });

  it('takes due dates only on days that the client works, and pieces only of that client', async () => {
    const pieceId = await ready(scene.b);
    expect(await send(scene.b, [pieceId], '2027-03-13')).toEqual({ ok: false, failure: { code: 'packet.due_on_day_off' } });
    expect(await send(scene.b, [pieceId], '2027-02-26')).toEqual({ ok: false, failure: { code: 'packet.due_in_past' } });
    expect(await send(scene.a, [pieceId])).toEqual({ ok: false, failure: { code: 'piece.other_client' } });
    const [packets] = await scene.app.read<{ count: number }>('select count(*) from packets where client_id = $1', [scene.b.id]);
    expect(packets?.count).toBe(0);
  });

  it('waits for everybody where all must approve, and keeps the policy that the packet was sent under', async () => {
    const [second] = await scene.app.read<{ id: string }>(
      "insert into contacts (client_id, name, email, can_sign_off) values ($1, 'Second', 'second@aaa.test', true) returning id",
      [scene.a.id],
    );
    await scene.app.read(`update clients set policy = '{"kind":"all"}' where id = $1`, [scene.a.id]);
    const pieceId = await ready(scene.a);
    const packetId = getValue(await send(scene.a, [pieceId]));
    await scene.app.read(`update clients set policy = '{"kind":"any"}' where id = $1`, [scene.a.id]); // too late for this packet
    expect(getValue(await say(packetId, pieceId, 'approve')).outcome).toBeNull();
    expect(await stateOf(pieceId)).toMatchObject({ stage: 'with_client' });
    expect(getValue(await say(packetId, pieceId, 'approve', { contactId: second?.id ?? '' })).outcome).toBe('approved');
    await scene.app.read('update contacts set can_sign_off = false where id = $1', [second?.id]);
  });

  it('records what was said by telephone under the contact’s name, with who and how', async () => {
    const pieceId = await ready(scene.a);
    const packetId = getValue(await send(scene.a, [pieceId]));
    const onBehalf = { personId: scene.people.manager.personId, name: 'Max', how: 'By telephone, 14:20' };
    getValue(await say(packetId, pieceId, 'approve', { onBehalf }));
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
