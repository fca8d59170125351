import type { MarkerShape, ObservancesShape } from '@zesting/contract';
import { makePlanScene, type PlanScene } from '../../../test-support/plan-scene.js';
import { callerAs, type Caller } from '../../../test-support/scene.js';

describe('days of note', () => {
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene(); // its pillars: Craft and People
  });
  afterAll(() => plan.scene.close());
  beforeEach(async () => {
    await plan.scene.app.read('delete from yearly_days');
    await plan.scene.app.read("update clients set observances = '{}'");
    await plan.reset();
  });

  const list = async (clientId = plan.scene.a.id, by: Caller = plan.lead) =>
    (await by.call('GET', `/api/clients/${clientId}/observances`)).body as unknown as ObservancesShape; // as the contract has it
  const named = async (name: string, clientId?: string) => (await list(clientId)).observances.find((day) => day.name === name);
  const take = (name: string, isTaken = true) => plan.manager.call('PUT', plan.of('observances'), { body: { name, isTaken } });
  const add = (body: object, by = plan.manager) =>
    by.call('POST', '/api/observances', { body: { clientId: plan.scene.a.id, on: '2027-05-06', subjects: [], ...body } });
  const standing = async (year: number) => {
    const { body } = await plan.manager.call('GET', `/api/calendar?from=${year}-01-01&to=${year}-12-31`);
    return (body['markers'] as MarkerShape[]).filter(({ kind }) => kind === 'observance').map(({ on, name }) => `${on} ${name}`);
  };

  it('are the region’s and international ones of the next twelve months, with what the pillars have in common with them', async () => {
    const { observances, pillars } = await list();
    expect(pillars).toBe(true);
    expect(observances.map(({ on }) => on)).toEqual(observances.map(({ on }) => on).sort());
    expect([observances[0]?.on.slice(0, 7), observances.at(-1)?.on.slice(0, 7)]).toEqual(['2027-03', '2028-02']);
    expect(await named('Easter Sunday')).toMatchObject({ from: 'region', on: '2027-03-28', isTaken: false });
    expect(await named('International Women’s Day')).toMatchObject({ from: 'world', on: '2027-03-08', fit: ['people'] });
    expect(await named('World Youth Skills Day')).toMatchObject({ fit: ['craft'] });
    expect((await named('World Bee Day'))?.fit).toEqual([]);
    expect((await list(plan.scene.b.id)).pillars).toBe(false);
  });

  it('stand on the calendar every year once they are taken, and never before', async () => {
    expect(await standing(2028)).toEqual([]);
    expect((await take('World Water Day')).status).toBe(204);
    expect(await standing(2028)).toEqual(['2028-03-22 World Water Day']);
    expect(await standing(2030)).toEqual(['2030-03-22 World Water Day']);
    expect((await named('World Water Day'))?.isTaken).toBe(true);
    await take('World Water Day', false);
    expect(await standing(2028)).toEqual([]);
  });

  it('are taken by two at once without losing one', async () => {
    await Promise.all([take('World Water Day'), take('World Bee Day'), take('World Food Day')]);
    expect((await standing(2028)).length).toBe(3);
  });

  it('are added for a client, which takes them at once, or by a lead for all', async () => {
    const { body } = await add({ name: ' Bell Day ', subjects: [' Bells ', 'craft'] });
    expect(await named('Bell Day')).toMatchObject({
      on: '2027-05-06',
      from: 'own',
      ownId: body['observanceId'],
      isOfAll: false,
      isTaken: true,
      fit: ['craft'],
    });
    expect(await named('Bell Day', plan.scene.b.id)).toBeUndefined();
    expect(await standing(2029)).toEqual(['2029-05-06 Bell Day']);
    expect((await add({ name: 'bell day' })).body['code']).toBe('observance.there_already');
    expect((await add({ name: 'For all', clientId: null })).body['code']).toBe('access.refused');
    expect((await add({ name: 'For all', clientId: null }, plan.lead)).status).toBe(201);
    expect(await named('For all', plan.scene.b.id)).toMatchObject({ isOfAll: true, isTaken: false });
  });

  it('of one name are one, of many that add it at once', async () => {
    const all = await Promise.all([add({ name: 'Bell Day' }), add({ name: 'Bell Day' }), add({ name: 'BELL DAY' })]);
    expect(all.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
  });

  it('that were added go off the calendar when they are removed; those of all by leads alone', async () => {
    const { body } = await add({ name: 'Bell Day' });
    const { body: ofAll } = await add({ name: 'For all', clientId: null }, plan.lead);
    const remove = (id: unknown, by = plan.manager) => by.call('DELETE', `/api/observances/${String(id)}`);
    expect((await remove(ofAll['observanceId'])).body['code']).toBe('access.refused');
    expect((await remove(ofAll['observanceId'], plan.lead)).status).toBe(204);
    expect((await remove(body['observanceId'])).status).toBe(204);
    expect(await standing(2029)).toEqual([]);
    const staff = await callerAs(plan.scene, 'staff');
    expect((await staff.call('GET', plan.of('observances'))).status).toBe(403);
  });
});

describe('kinds of markers of the agency’s own', () => {
  let plan: PlanScene;
  beforeAll(async () => {
    plan = await makePlanScene();
  });
  afterAll(() => plan.scene.close());

  const settings = async () =>
    (await plan.lead.call('GET', '/api/agency')).body as { version: number; markerKinds: { id: string; name: string; uses: number }[] };
  const put = async (markerKinds: object[]) =>
    plan.lead.call('PATCH', '/api/agency', { body: { markerKinds }, headers: { 'If-Match': `"${(await settings()).version}"` } });
  const mark = (body: object) =>
    plan.manager.call('POST', '/api/markers', {
      body: { clientId: plan.scene.a.id, name: 'Bells at the dock', startOn: '2027-03-09', endOn: '2027-03-10', ...body },
    });

  it('are offered to who marks, and told by their name; one that is offered no more keeps it', async () => {
    expect((await put([{ name: 'Delivery' }, { name: 'Audit' }])).status).toBe(200);
    const { body: session } = await plan.manager.call('GET', '/api/session');
    const kinds = (session['agency'] as { markerKinds: { id: string; name: string }[] }).markerKinds;
    expect(kinds.map(({ name }) => name)).toEqual(['Delivery', 'Audit']);
    const [delivery, audit] = kinds;
    expect((await mark({ kind: 'own', kindId: delivery?.id })).status).toBe(201);
    const shown = async () => {
      const { body } = await plan.manager.call('GET', '/api/calendar?from=2027-03-09&to=2027-03-09');
      return (body['markers'] as MarkerShape[]).map(({ kind, kindName }) => [kind, kindName]);
    };
    expect(await shown()).toEqual([['own', 'Delivery']]);
    expect((await settings()).markerKinds.map(({ uses }) => uses)).toEqual([1, 0]);
    expect((await put([{ id: audit?.id, name: 'Audit' }])).status).toBe(200);
    expect(await shown()).toEqual([['own', 'Delivery']]);
    const { body: year } = await plan.manager.call('GET', plan.of('year?month=2027-03'));
    expect((year['markers'] as MarkerShape[]).flatMap(({ kindName }) => kindName ?? [])).toEqual(['Delivery']);
  });

  it('go with markers of their own alone', async () => {
    const [kind] = (await settings()).markerKinds;
    const codes = await Promise.all(
      [{ kind: 'own' }, { kind: 'own', kindId: plan.scene.a.id }, { kind: 'launch', kindId: kind?.id }].map(
        async (body) => (await mark(body)).body['code'],
      ),
    );
    expect(codes).toEqual(['marker.kind_unknown', 'marker.kind_unknown', 'marker.kind_unknown']);
  });
});
