import { getValue } from '@zesting/core';
import { callerAs, makeScene, NOW, type Scene } from '../../../test-support/scene.js';
import { addApprover, signOffIn } from '../../../test-support/sign-off.js';

/** What several do at once or one after the other in rounds: nothing that was said is lost, doubled or turned into something else. */
describe('decisions that come together', () => {
  let scene: Scene;
  let way: ReturnType<typeof signOffIn>;
  let second = '';
  beforeEach(async () => {
    scene = await makeScene();
    way = signOffIn(scene);
    second = await addApprover(scene, 'Bea', 1);
    scene.app.clock.set(NOW);
  });
  afterEach(() => scene.close());

  const setPolicy = (policy: object) =>
    scene.app.read('update clients set policy = $2 where id = $1', [scene.a.id, JSON.stringify(policy)]);
  const stageOf = async (pieceId: string) =>
    (
      await scene.app.read<{ stage: string; list: string; round: number }>('select stage, list, round from pieces where id = $1', [pieceId])
    )[0];
  const decisionsOn = (pieceId: string) =>
    scene.app.read<{ verdict: string }>('select verdict from decisions where piece_id = $1 order by sequence', [pieceId]);

  it('are all stored, in one chain, when six packets of one client are decided at once', async () => {
    const packets = [];
    for (let index = 0; index < 6; index++) {
      const pieceId = await way.ready(scene.a);
      packets.push([getValue(await way.send(scene.a, [pieceId])), pieceId] as const);
    }
    const outcomes = await Promise.all(packets.map(([packetId, pieceId]) => way.say(packetId, pieceId, 'approve')));
    expect(outcomes.map((outcome) => getValue(outcome).outcome)).toEqual(Array.from({ length: 6 }, () => 'approved'));
    const chain = await scene.app.read<{ sequence: number }>('select sequence from decisions where client_id = $1 order by sequence', [
      scene.a.id,
    ]);
    expect(chain.map((link) => link.sequence)).toEqual([1, 2, 3, 4, 5, 6]);
  });

  /** Round 1: the first approver wants the shared part changed; round 2 changes only that, the channels' parts stay the same. */
  async function secondRound(policy: object): Promise<{ packetId: string; pieceId: string }> {
    await setPolicy(policy);
    const pieceId = await way.ready(scene.a);
    const first = getValue(await way.send(scene.a, [pieceId]));
    getValue(await way.say(first, pieceId, 'changes'));
    await way.settleAll(pieceId);
    await way.write(pieceId, 'Warmer copy', 'Feed');
    await way.make(pieceId, ['design', 'check']);
    return { packetId: getValue(await way.send(scene.a, [pieceId])), pieceId };
  }

  it.each([{ kind: 'any' }, { kind: 'all' }, { kind: 'n_of', count: 2 }])(
    'by %j: a yes to what came back unchanged opens no round; the piece waits for whoever asked for the changes',
    async (policy) => {
      const { packetId, pieceId } = await secondRound(policy);
      expect(getValue(await way.say(packetId, pieceId, 'approve', { contactId: second }))).toEqual({ outcome: null, round: 2 });
      expect(await stageOf(pieceId)).toMatchObject({ stage: 'with_client', list: 'with_client', round: 2 });
      expect(getValue(await way.say(packetId, pieceId, 'approve'))).toEqual({ outcome: 'approved', round: 2 });
      expect((await stageOf(pieceId))?.stage).toBe('approved');
    },
  );

  it('count without whoever no longer signs off: their wish of round 1 no longer stands, and what waited only for them is settled', async () => {
    const { packetId, pieceId } = await secondRound({ kind: 'all' });
    expect(getValue(await way.say(packetId, pieceId, 'approve', { contactId: second })).outcome).toBeNull();
    const lead = await callerAs(scene, 'lead');
    const { body: client } = await lead.call('GET', `/api/clients/${scene.a.id}`);
    const contacts = client['contacts'] as Record<string, unknown>[]; // ContactShape
    const { status } = await lead.call('PATCH', `/api/clients/${scene.a.id}`, {
      headers: { 'If-Match': `"${String(client['version'])}"` },
      body: {
        contacts: contacts.map((contact) => ({
          ...contact,
          canSignOff: contact['id'] === scene.a.contactId ? false : contact['canSignOff'],
        })),
      },
    });
    expect(status).toBe(200);
    expect((await stageOf(pieceId))?.stage).toBe('approved');
    expect(await way.say(packetId, pieceId, 'changes', { remark: 'Colder' })).toEqual({
      ok: false,
      failure: { code: 'decision.not_an_approver' },
    });
  });

  it('are one when one contact taps twice, at once or later, and are two when the word is another', async () => {
    await setPolicy({ kind: 'all' });
    const pieceId = await way.ready(scene.a);
    const packetId = getValue(await way.send(scene.a, [pieceId]));
    const twice = await Promise.all([way.say(packetId, pieceId, 'approve'), way.say(packetId, pieceId, 'approve')]);
    expect(twice.map(getValue)).toEqual([
      { outcome: null, round: 1 },
      { outcome: null, round: 1 },
    ]);
    expect(await decisionsOn(pieceId)).toEqual([{ verdict: 'approve' }]);
    const asks = () => way.say(packetId, pieceId, 'changes', { contactId: second, remark: 'Warmer' });
    const [one, two] = [getValue(await asks()), getValue(await asks())];
    expect([one, two]).toEqual([
      { outcome: 'changes', round: 2 },
      { outcome: 'changes', round: 2 },
    ]);
    expect(await decisionsOn(pieceId)).toEqual([{ verdict: 'approve' }, { verdict: 'changes' }]);
    const remarks = await scene.app.read('select 1 from remarks where piece_id = $1', [pieceId]);
    expect(remarks).toHaveLength(1);
  });
});
