import ICAL from 'ical.js';
import type { CalendarShape } from '@zesting/contract';
import { getValue } from '@zesting/core';
import { Caller, callerAs, makePiece, makeScene, stepOf, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { editContent, handIn } from '../production/index.js';
import { decide, sendPacket } from '../sign-off/index.js';
import {
  addMarker,
  addPlacement,
  cancelPlacement,
  duplicatePlacement,
  markOut,
  movePlacement,
  removeMarker,
  restorePlacement,
  swapPlacements,
} from './index.js';

describe('the calendar', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

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
        things: [],
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

  it('moves all that are not yet out by as many days when asked, all or none', async () => {
    const pieceId = await signed(scene.a);
    const [one, two] = await placementsOf(pieceId);
    getValue(await movePlacement(scene.app, scene.people.lead, one?.id ?? '', { on: '2027-04-06', at: '09:00' }, 1));
    getValue(await movePlacement(scene.app, scene.people.lead, two?.id ?? '', { on: '2027-04-09', at: '15:00' }, 1));
    const all = getValue(
      await movePlacement(scene.app, scene.people.lead, one?.id ?? '', { on: '2027-04-13', at: '10:00', scope: 'all' }, 2),
    );
    expect(all.others).toBe(1);
    expect((await placementsOf(pieceId)).map((placement) => placement.publish_at)).toEqual([
      '2027-04-13T09:00:00Z',
      '2027-04-16T14:00:00Z', // three days after the first as before, at its own hour
    ]);
    // back by 40 days the second would stand before now: nothing moves
    const refused = await movePlacement(scene.app, scene.people.lead, two?.id ?? '', { on: '2027-03-03', scope: 'all' }, 3);
    expect(refused).toEqual({ ok: false, failure: { code: 'placement.in_past' } });
    expect((await placementsOf(pieceId)).map((placement) => placement.on_day)).toEqual(['2027-04-13', '2027-04-16']);
    // what is out stays where it was
    scene.app.clock.set('2027-04-14T09:00:00Z');
    getValue(await markOut(scene.app, scene.people.lead, one?.id ?? '', { address: 'https://aaa.test/1' }));
    expect(getValue(await movePlacement(scene.app, scene.people.lead, two?.id ?? '', { on: '2027-04-20', scope: 'all' }, 3)).others).toBe(
      0,
    );
  });

  it('swaps two placements of one client, plans both anew, and undoes it by swapping again', async () => {
    const [early, late] = [await makePiece(scene, scene.a, null), await makePiece(scene, scene.a, null)];
    getValue(await place(early, '2027-04-06', '09:00'));
    getValue(await place(late, '2027-04-20', '16:00'));
    const [one, two] = [await first(early), await first(late)];
    const swap = () => swapPlacements(scene.app, scene.people.lead, one.id, two.id);
    const aims = () => scene.app.read('select aim_on from pieces where id = any($1) order by id = $2 desc', [[early, late], early]);
    getValue(await swap());
    expect([(await first(early)).publish_at, (await first(late)).publish_at]).toEqual(['2027-04-20T15:00:00Z', '2027-04-06T08:00:00Z']);
    expect(await aims()).toEqual([{ aim_on: '2027-04-20' }, { aim_on: '2027-04-06' }]);
    getValue(await swap());
    expect([(await first(early)).publish_at, (await first(late)).publish_at]).toEqual([one.publish_at, two.publish_at]);
    const foreign = await first(await makePiece(scene, scene.b));
    expect(await swapPlacements(scene.app, scene.people.lead, one.id, foreign.id)).toEqual({
      ok: false,
      failure: { code: 'placement.other_client' },
    });
    const undated = [await first(await makePiece(scene, scene.a)), await first(await makePiece(scene, scene.a))];
    expect(await swapPlacements(scene.app, scene.people.lead, undated[0]?.id ?? '', undated[1]?.id ?? '')).toEqual({
      ok: false,
      failure: { code: 'placement.undated' },
    });
    const both = await Promise.all([swap(), swap()]); // at the same moment: one after the other, back where they were
    expect(both.map((result) => result.ok)).toEqual([true, true]);
    expect((await first(early)).publish_at).toBe(one.publish_at);
  });

  it('answers a swap of two placements of one piece with the dates that are stored', async () => {
    const pieceId = await makePiece(scene, scene.a, null);
    const [one, two] = (await placementsOf(pieceId)).map(({ id }) => id) as [string, string];
    const put = (id: string, on: string) => movePlacement(scene.app, scene.people.lead, id, { on, at: '09:00' }, 1);
    getValue(await put(one, '2027-04-06'));
    getValue(await put(two, '2027-04-20'));
    for (const pair of [
      [one, two],
      [two, one],
    ] as const) {
      const { state } = getValue(await swapPlacements(scene.app, scene.people.lead, ...pair));
      const [stored] = await scene.app.read('select aim_on, slack_days, list from pieces where id = $1', [pieceId]);
      expect(stored).toEqual({ aim_on: '2027-04-06', slack_days: state.slackDays, list: state.list });
      expect(state.aimOn).toBe('2027-04-06');
    }
  });

  it('places a piece once more on the same channel, never twice at one moment, and brings a cancelled placement back', async () => {
    const pieceId = await makePiece(scene, scene.a, null);
    getValue(await place(pieceId, '2027-04-06', '09:00'));
    const placement = await first(pieceId);
    const again = (on: string) =>
      duplicatePlacement(scene.app, scene.people.lead, placement.id, { channelId: scene.a.channelIds[0] ?? '', on, at: '09:00' });
    expect(await again('2027-04-06')).toEqual({ ok: false, failure: { code: 'placement.exists' } });
    const copy = getValue(await again('2027-05-06'));
    getValue(await cancelPlacement(scene.app, scene.people.lead, copy.placementId));
    getValue(await again('2027-05-06'));
    expect(await restorePlacement(scene.app, scene.people.lead, copy.placementId)).toEqual({
      ok: false,
      failure: { code: 'placement.exists' },
    });
    getValue(await cancelPlacement(scene.app, scene.people.lead, placement.id));
    getValue(await restorePlacement(scene.app, scene.people.lead, placement.id));
    expect((await placementsOf(pieceId)).find((row) => row.id === placement.id)?.state).toBe('pencilled');
  });

  it('takes markers by hand; a closure moves the plan, and taking it away moves it back', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a, '2027-03-16');
    const signOffOn = async () =>
      (await app.read<{ on: string }>("select latest_finish_on as on from steps where piece_id = $1 and kind = 'sign_off'", [pieceId]))[0]
        ?.on;
    expect(await signOffOn()).toBe('2027-03-15');
    const closure = { clientId: scene.a.id, kind: 'closure', name: 'Stocktaking', startOn: '2027-03-15', endOn: '2027-03-15' } as const;
    const closureId = getValue(await addMarker(app, people.lead, closure));
    expect(await signOffOn()).toBe('2027-03-12');
    const launch = { ...closure, kind: 'launch', name: 'Opening', endOn: '2027-03-17' } as const;
    getValue(await addMarker(app, people.manager, launch));
    expect(await addMarker(app, people.manager, { ...launch, clientId: scene.b.id })).toEqual({
      ok: false,
      failure: { code: 'access.refused' },
    });
    expect(await addMarker(app, people.manager, { ...launch, clientId: null })).toEqual({ ok: false, failure: { code: 'access.refused' } });
    expect(await addMarker(app, people.lead, { ...launch, startOn: '2027-03-18' })).toEqual({
      ok: false,
      failure: { code: 'marker.order_wrong' },
    });
    const lead = await callerAs(scene, 'lead');
    const { body } = await lead.call('GET', `/api/calendar?from=2027-03-15&to=2027-03-21&clientId=${scene.a.id}`);
    const markers = body['markers'] as { on: string; name: string }[]; // MarkerShape
    expect(markers.map(({ on, name }) => `${on} ${name}`).sort()).toEqual([
      '2027-03-15 Opening',
      '2027-03-15 Stocktaking',
      '2027-03-16 Opening',
      '2027-03-17 Opening',
    ]);
    expect(getValue(await removeMarker(app, people.lead, closureId))).toEqual({ ...closure, kindId: null });
    expect(await signOffOn()).toBe('2027-03-15');
    expect(getValue(await removeMarker(app, people.lead, closureId))).toBeNull();
  });

  it('shows chosen observances, and each client’s own clock with its midnight by the viewer’s clock', async () => {
    const lead = await callerAs(scene, 'lead');
    const { body: before } = await lead.call('GET', `/api/clients/${scene.b.id}`);
    const possible = before['possibleObservances'] as { on: string; name: string }[]; // DayOffShape
    const chosen = possible[0];
    const saved = await lead.call('PATCH', `/api/clients/${scene.b.id}`, {
      body: { observances: [chosen?.name] },
      headers: { 'If-Match': `"${String(before['version'])}"` },
    });
    expect(saved.status).toBe(200);
    const { body } = await lead.call('GET', `/api/calendar?from=${chosen?.on}&to=${chosen?.on}&clientId=${scene.b.id}`);
    expect(body['markers']).toMatchObject([
      { id: null, on: chosen?.on, startOn: chosen?.on, endOn: chosen?.on, name: chosen?.name, kind: 'observance', clientId: scene.b.id },
    ]);
    // 1 March 2027, 09:00 in London is 22:00 in Auckland (UTC+13), whose day ends at 11:00 London time
    expect(body['clocks']).toEqual([
      { clientId: scene.b.id, zone: 'Pacific/Auckland', todayOn: '2027-03-01', nowAt: '22:00', nextDayAt: '11:00', nextDayIsToday: true },
    ]);
    scene.app.clock.set('2027-04-05T09:00:00Z'); // both clocks have changed: London UTC+1, Auckland UTC+12
    const later = await lead.call('GET', `/api/calendar?from=2027-04-05&to=2027-04-05&clientId=${scene.b.id}`);
    expect(later.body['clocks']).toEqual([
      { clientId: scene.b.id, zone: 'Pacific/Auckland', todayOn: '2027-04-05', nowAt: '21:00', nextDayAt: '13:00', nextDayIsToday: true },
    ]);
  });

  it('schedules only what is signed; what is out stays; what passed unsent is missed', async () => {
    const pieceId = await signed(scene.a);
    getValue(await place(pieceId, '2027-03-08', '10:00'));
    expect((await first(pieceId)).state).toBe('scheduled');
    const unsigned = await makePiece(scene, scene.a);
    getValue(await place(unsigned, '2027-04-08', '10:00'));
    expect(await markOut(scene.app, scene.people.lead, (await first(unsigned)).id, { address: 'https://aaa.test/1' })).toEqual({
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
    getValue(await markOut(scene.app, scene.people.lead, (await first(pieceId)).id, { address: 'https://aaa.test/1' }));
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

  it('shows so many of a day and of the tray, says how many more there are, and always the one that an address leads to', async () => {
    const [model] = await placementsOf(await makePiece(scene, scene.a));
    const copy = async (day: string | null, count: number): Promise<string[]> => {
      await scene.app.read(
        `insert into pieces (client_id, route_id, format_id, title, content, digests, stage, list, created_at)
         select client_id, route_id, format_id, title || n, content, digests, stage, list, created_at + n * interval '1 second'
         from pieces, generate_series(1, $2) n where id = (select piece_id from placements where id = $1)`,
        [model?.id, count],
      );
      const made = await scene.app.read<{ id: string }>(
        `insert into placements (piece_id, client_id, channel_id, on_day, at_time, zone, publish_at, state, created_at, updated_at)
         select p.id, l.client_id, l.channel_id, $2::date, case when $2 is null then null else time '10:00' end, l.zone,
           ($2::date + time '10:00') at time zone l.zone, case when $2 is null then 'undated' else 'pencilled' end, p.created_at, p.created_at
         from pieces p, placements l where l.id = $1 and not exists (select 1 from placements o where o.piece_id = p.id) returning id`,
        [model?.id, day],
      );
      return made.map(({ id }) => id);
    };
    const [dated, undated] = [await copy('2027-07-13', 40), await copy(null, 120)];
    expect([dated.length, undated.length]).toEqual([40, 120]);
    const lead = await callerAs(scene, 'lead');
    const ask = async (placementId?: string): Promise<CalendarShape> =>
      (await lead.call('GET', `/api/calendar?from=2027-07-01&to=2027-07-31${placementId ? `&placementId=${placementId}` : ''}`))
        .body as unknown as CalendarShape; // the contract's shape
    const all = await ask();
    expect([all.entries.length, all.hidden, all.tray.length]).toEqual([30, 10, 100]);
    expect(all.trayHidden).toBeGreaterThanOrEqual(20);
    const missing = (ids: readonly string[], { entries, tray }: CalendarShape) =>
      ids.find((id) => ![...entries, ...tray].some((entry) => entry.id === id)) ?? '';
    for (const id of [missing(dated, all), missing(undated, all)]) {
      expect(id).not.toBe('');
      const led = await ask(id);
      expect(missing([id], led)).toBe('');
      expect([led.entries.length + led.hidden, led.tray.length]).toEqual([40, 100]);
    }
    const foreign = await ask(model?.id.replace(/^./, '0')); // of nobody
    expect(foreign.entries).toEqual(all.entries);
    await scene.app.read('delete from placements where id = any($1)', [[...dated, ...undated]]);
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
    const lead = await callerAs(scene, 'lead');
    const shown = await lead.call('GET', '/api/calendar?from=2027-03-25&to=2027-04-10');
    for (const [client, on, at, instant] of cases)
      expect(shown.body['entries']).toContainEqual(expect.objectContaining({ clientId: client.id, on, at, publishAt: instant }));
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
