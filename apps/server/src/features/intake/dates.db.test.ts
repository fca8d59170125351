import { randomUUID } from 'node:crypto';
import type { DatesReadShape } from '@zesting/contract';
import { callerAs, makeScene, type Caller, type Scene } from '../../../test-support/scene.js';

describe('a month of dates', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene(); // 2027-03-01
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());

  const path = () => `/api/clients/${scene.a.id}/dates`;
  const read = async (text: string, order?: string) =>
    (await manager.call('POST', `${path()}/read`, { body: { text, ...(order ? { order } : {}) } })).body as unknown as DatesReadShape;
  const put = (entries: object[], key: string = randomUUID()) =>
    manager.call('POST', path(), { body: { entries }, headers: { 'Idempotency-Key': key } });
  const entry = (on: string, title: string, part: object = {}) => ({
    on,
    until: on,
    title,
    kind: 'event',
    isMarker: true,
    isRequest: false,
    routeId: null,
    ...part,
  });

  it('is read without keeping anything, and what stands there already is said', async () => {
    await scene.app.read(
      "insert into markers (client_id, kind, name, start_on, end_on) values ($1, 'offer', 'Spring sale', '2027-03-16', '2027-03-18')",
      [scene.a.id],
    );
    await scene.app.read(
      "insert into markers (client_id, kind, name, start_on, end_on) values ($1, 'event', 'Open evening', '2027-03-20', '2027-03-20')",
      [scene.b.id],
    );
    const { entries, isAmbiguous } = await read('Mon 15 March: spring sale starts\n20.3. open evening\n3/4 talk\nno date here');
    expect(isAmbiguous).toBe(true);
    expect(entries.map(({ on, twin, doubt, kind }) => [on, kind, twin, doubt])).toEqual([
      ['2027-03-15', 'offer', 'Spring sale', null],
      ['2027-03-20', 'event', null, null], // another client's
      ['2027-04-03', 'event', null, null],
      [null, 'event', null, 'no_day'],
    ]);
    expect((await read('3/4 talk', 'month_first')).entries[0]?.on).toBe('2027-03-04');
    expect(await scene.app.read('select 1 from markers')).toHaveLength(2);
  });

  it('becomes markers and requests, all or none, and once however often it is sent', async () => {
    const wrong = await put([entry('2027-05-01', 'Good'), entry('2027-05-03', 'Turned', { until: '2027-05-02' })]);
    expect(wrong.body['code']).toBe('marker.order_wrong');
    expect(await scene.app.read("select 1 from markers where name = 'Good'")).toEqual([]);
    const entries = [
      entry('2027-05-01', 'May fair', { until: '2027-05-02' }),
      entry('2027-05-10', 'Closed', { kind: 'closure' }),
      entry('2027-05-12', 'Mothers’ day post', { isMarker: false, isRequest: true }),
    ];
    const [first, again] = [await put(entries, 'month'), await put(entries, 'month')];
    expect([first.body, again.body]).toEqual([
      { markers: 2, requests: 1, pieces: 0 },
      { markers: 2, requests: 1, pieces: 0 },
    ]);
    expect(await scene.app.read("select kind, start_on, end_on from markers where name = 'May fair'")).toEqual([
      { kind: 'event', start_on: '2027-05-01', end_on: '2027-05-02' },
    ]);
    expect(await scene.app.read("select 1 from client_closures where name = 'Closed' and client_id = $1", [scene.a.id])).toHaveLength(1);
    const list = (await manager.call('GET', '/api/requests?shown=open')).body['items'] as { id: string; title: string }[];
    expect(list).toMatchObject([
      { title: 'Mothers’ day post', way: 'dates', wishOn: '2027-05-12', requesterName: 'Max', ownerId: scene.people.manager.personId },
    ]);
    const judged = await manager.call('GET', `/api/requests/${list[0]?.id}/verdict`);
    expect(judged.body).toMatchObject({ word: 'ready', routeId: null, earliestOn: null });
  });

  it('becomes planned pieces, pencilled on the client’s first channel; what has passed is only wished for', async () => {
    const planned = (on: string, title: string, routeId = scene.routeId) => entry(on, title, { isMarker: false, routeId });
    const wrong = await put([planned('2027-05-20', 'Good piece'), planned('2027-05-21', 'Bad piece', randomUUID())]);
    expect(wrong.body['code']).toBe('route.unknown');
    expect(await scene.app.read("select 1 from pieces where title = 'Good piece'")).toEqual([]);
    const done = await put([planned('2027-05-20', 'Good piece'), planned('2027-03-01', 'Today'), entry('2027-05-22', 'A date')]);
    expect(done.body).toEqual({ markers: 1, requests: 0, pieces: 2 });
    const rows = await scene.app.read(
      `select p.title, p.wish_on, l.on_day, l.channel_id from pieces p join placements l on l.piece_id = p.id where p.title in ('Good piece', 'Today') order by p.title`,
    );
    expect(rows).toEqual([
      { title: 'Good piece', wish_on: '2027-05-20', on_day: '2027-05-20', channel_id: scene.a.channelIds[0] },
      { title: 'Today', wish_on: '2027-03-01', on_day: null, channel_id: scene.a.channelIds[0] },
    ]);
  });
});
