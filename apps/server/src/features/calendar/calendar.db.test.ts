import ICAL from 'ical.js';
import { getValue } from '@zesting/core';
import { Caller, callerAs, makePiece, makeScene, NOW, stepOf, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { editContent, handIn } from '../production/index.js';
import { decide, sendPacket } from '../signoff/index.js';
import { addPlacement, cancelPlacement, markOut, movePlacement } from './index.js';

describe('the calendar', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  }, 60_000);
  afterAll(() => scene.close());
  beforeEach(() => scene.app.clock.set(NOW));

  const placementsOf = (pieceId: string) =>
    scene.app.read<{ id: string; state: string; version: number; publish_at: string | null; on_day: string | null }>(
      'select l.id, l.state, l.version, l.publish_at, l.on_day from placements l join channels h on h.id = l.channel_id where l.piece_id = $1 order by h.position',
      [pieceId],
    );
  const first = async (pieceId: string) => {
    const [placement] = await placementsOf(pieceId);
    if (!placement) throw new Error('no placement');
    return placement;
  };
  const place = async (pieceId: string, on: string | null, at?: string) => {
    const placement = await first(pieceId);
    return movePlacement(scene.app, scene.people.lead, placement.id, at === undefined ? { on } : { on, at }, placement.version);
  };
  const signed = async (client: SceneClient): Promise<string> => {
    const pieceId = await makePiece(scene, client, null);
    const { app, people } = scene;
    getValue(await editContent(app, people.lead, pieceId, { shared: { copy: 'Copy', disclosure: '', media: [] }, channels: [] }, 1));
    for (const key of ['write', 'design', 'check']) getValue(await handIn(app, people.lead, await stepOf(scene, pieceId, key)));
    const packetId = getValue(await sendPacket(app, people.lead, client.id, { title: 'P', pieceIds: [pieceId], dueOn: '2027-03-10' }));
    getValue(
      await decide(app, {
        packetId,
        pieceId,
        contactId: client.contactId,
        verdict: 'approve',
        remark: '',
        versionId: null,
        onBehalf: null,
      }),
    );
    return pieceId;
  };

  it('keeps local date and time, and derives the instant by the client’s zone', async () => {
    const pieceId = await makePiece(scene, scene.b);
    getValue(await place(pieceId, '2027-03-16', '08:00'));
    expect(await first(pieceId)).toMatchObject({ on_day: '2027-03-16', publish_at: '2027-03-15T19:00:00Z', state: 'pencilled' });
    const [piece] = await scene.app.read(
      "select aim_on, (select latest_finish_on from steps s where s.piece_id = p.id and kind = 'sign_off') as sign_off from pieces p where id = $1",
      [pieceId],
    );
    expect(piece).toEqual({ aim_on: '2027-03-16', sign_off: '2027-03-15' }); // the client in Auckland may still answer on Monday
  });

  it('refuses a time that the clocks jump over, a past one, and a move made on an older state', async () => {
    const pieceId = await makePiece(scene, scene.a);
    expect(await place(pieceId, '2027-03-28', '01:30')).toEqual({ ok: false, failure: { code: 'time.in_gap' } });
    expect(await place(pieceId, '2027-03-01', '08:59')).toEqual({ ok: false, failure: { code: 'placement.in_past' } });
    const placement = await first(pieceId);
    const results = await Promise.all(
      ['2027-04-06', '2027-04-07'].map((on) => movePlacement(scene.app, scene.people.lead, placement.id, { on }, placement.version)),
    );
    expect(results.map((result) => (result.ok ? 'moved' : result.failure.code)).sort()).toEqual(['http.changed_meanwhile', 'moved']);
  });

  it('moves one placement and never its sibling, and says what becomes late', async () => {
    const pieceId = await makePiece(scene, scene.a, null);
    getValue(await place(pieceId, '2027-04-06'));
    const [, sibling] = await placementsOf(pieceId);
    expect(sibling).toMatchObject({ state: 'undated', on_day: null });
    const moved = getValue(await place(pieceId, '2027-03-04'));
    expect(moved.lateSteps).toEqual(['Write', 'Design', 'Check', 'Client sign-off']);
    expect(moved.state.earliestPublishOn).toBe('2027-03-09'); // six working days from Monday 1 March, then out the next day
    expect(getValue(await place(pieceId, null)).state.aimOn).toBeNull();
  });

  it('schedules only what is signed; what is out stays; what passed unsent is missed', async () => {
    const pieceId = await signed(scene.a);
    getValue(await place(pieceId, '2027-03-08', '10:00'));
    expect((await first(pieceId)).state).toBe('scheduled');
    const unsigned = await makePiece(scene, scene.a);
    getValue(await place(unsigned, '2027-04-08', '10:00'));
    expect(await markOut(scene.app, scene.people.lead, (await first(unsigned)).id, 'https://aaa.test/1')).toEqual({
      ok: false,
      failure: { code: 'placement.not_signed_off' },
    });
    scene.app.clock.set('2027-03-08T10:30:00Z');
    const lead = await callerAs(scene, 'lead');
    getValue(
      await addPlacement(scene.app, scene.people.lead, unsigned, scene.a.channelIds[1] ?? '').then((result) =>
        result.ok ? result : { ok: true as const, value: '' },
      ),
    );
    const piece = await lead.call('GET', `/api/pieces/${pieceId}`);
    expect(piece.body).toMatchObject({ list: 'trouble', placements: [{ state: 'missed' }, { state: 'undated' }] });
    getValue(await markOut(scene.app, scene.people.lead, (await first(pieceId)).id, 'https://aaa.test/1'));
    expect((await first(pieceId)).state).toBe('out');
    expect(await place(pieceId, '2027-03-20')).toEqual({ ok: false, failure: { code: 'placement.out' } });
  });

  it('adds a channel once, cancels a placement, and frees its channel again', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const channel = scene.a.channelIds[0] ?? '';
    expect(await addPlacement(scene.app, scene.people.lead, pieceId, channel)).toEqual({
      ok: false,
      failure: { code: 'placement.exists' },
    });
    expect(await addPlacement(scene.app, scene.people.lead, pieceId, scene.b.channelIds[0] ?? '')).toEqual({
      ok: false,
      failure: { code: 'channel.unknown' },
    });
    getValue(await cancelPlacement(scene.app, scene.people.lead, (await first(pieceId)).id));
    expect(await place(pieceId, '2027-04-08')).toEqual({ ok: false, failure: { code: 'placement.cancelled' } });
    getValue(await addPlacement(scene.app, scene.people.lead, pieceId, channel));
  });

  it('shows public holidays of the client’s region as markers', async () => {
    const lead = await callerAs(scene, 'lead');
    const { body } = await lead.call('GET', `/api/calendar?from=2027-03-22&to=2027-04-04&clientId=${scene.a.id}`);
    // bank holidays of England and Wales in 2027 as gov.uk lists them (from memory): Good Friday 26 March, Easter Monday 29 March
    expect((body['markers'] as { on: string }[]).map((marker) => marker.on)).toEqual(['2027-03-26', '2027-03-29']); // MarkerShape
  });

  it('feeds valid iCalendar: right hours on both sides of both clock changes, stable UIDs, TENTATIVE until signed', async () => {
    const cases: [SceneClient, string, string, string][] = [
      [scene.a, '2027-03-27', '09:00', '2027-03-27T09:00:00Z'], // London, winter time
      [scene.a, '2027-03-29', '09:00', '2027-03-29T08:00:00Z'], // summer time began on 28 March
      [scene.b, '2027-04-03', '08:00', '2027-04-02T19:00:00Z'], // Auckland, summer time
      [scene.b, '2027-04-05', '08:00', '2027-04-04T20:00:00Z'], // it ended on 4 April
    ];
    const expected = new Map<string, string>();
    for (const [client, on, at, instant] of cases) {
      const pieceId = await makePiece(scene, client);
      getValue(await place(pieceId, on, at));
      expected.set(`${(await first(pieceId)).id}@zesting`, instant);
    }
    const confirmed = await signed(scene.a);
    getValue(await place(confirmed, '2027-05-04', '12:00'));
    const uid = `${(await first(confirmed)).id}@zesting`;
    const feed = async (client: SceneClient) => {
      const answer = await new Caller(scene.address).call('GET', `/feeds/${scene.app.links.token('feed', client.id, 1)}.ics`);
      const text = String(answer.body['text']);
      for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75); // RFC 5545 3.1
      return new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
    };
    const events = [...(await feed(scene.a)), ...(await feed(scene.b))];
    for (const [id, instant] of expected) {
      const event = events.find((candidate) => candidate.uid === id);
      expect(event?.startDate.toJSDate().toISOString()).toBe(instant.replace('Z', '.000Z'));
      expect(event?.component.getFirstPropertyValue('status')).toBe('TENTATIVE');
    }
    const signedEvent = events.find((candidate) => candidate.uid === uid);
    expect([signedEvent?.component.getFirstPropertyValue('status'), signedEvent?.summary]).toEqual(['CONFIRMED', 'A piece · Photo feed']);
    getValue(await place(confirmed, '2027-05-05', '12:00'));
    const moved = (await feed(scene.a)).find((candidate) => candidate.uid === uid);
    expect([moved?.startDate.toJSDate().toISOString(), moved?.sequence]).toEqual([
      '2027-05-05T11:00:00.000Z',
      (signedEvent?.sequence ?? 0) + 1,
    ]);
    await scene.app.read('update clients set feed_pencilled = false where id = $1', [scene.a.id]);
    expect((await feed(scene.a)).every((event) => event.component.getFirstPropertyValue('status') === 'CONFIRMED')).toBe(true);
  });
});
