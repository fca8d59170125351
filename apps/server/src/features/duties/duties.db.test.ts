import { addDays, getDay } from '@zesting/core';
import type { DutyBody, DutyDayShape, DutyShape, MyDutyShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { addTimeOff } from '../people/index.js';
import { assignStep } from '../production/index.js';
import { sendReminders } from '../notices/index.js';
import { predict } from '../planning/index.js';
import { makeDuePieces } from './index.js';

describe('duties', () => {
  let scene: Scene;
  let callers: Record<'lead' | 'manager' | 'staff' | 'freelance', Caller>;
  beforeAll(async () => {
    scene = await makeScene();
    callers = {
      lead: await callerAs(scene, 'lead'),
      manager: await callerAs(scene, 'manager'),
      staff: await callerAs(scene, 'staff'),
      freelance: await callerAs(scene, 'freelance'),
    };
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin(); // Monday 1 March 2027, nine in London
    for (const table of ['duty_marks', 'duties', 'reminders', 'notices', 'time_off']) await scene.app.read(`delete from ${table}`);
    await scene.app.read('update pieces set shelved = true, list = null');
  });

  const who = (role: 'staff' | 'freelance' | 'manager') => scene.people[role].personId;
  const duty = (more: Partial<DutyBody> = {}): DutyBody => ({
    clientId: scene.a.id,
    title: 'Answer the comments',
    remark: 'Within the hour where it can be.',
    checklist: ['Photo feed', 'Blog'],
    rule: 'FREQ=DAILY',
    fromOn: '2027-03-01',
    untilOn: null,
    leadDays: 0,
    leadId: who('staff'),
    secondId: null,
    minutes: 30,
    piece: null,
    ...more,
  });
  const add = async (more: Partial<DutyBody> = {}, by: keyof typeof callers = 'manager') => {
    const { status, body } = await callers[by].call('POST', '/api/duties', { body: duty(more) });
    expect({ status, body }).toMatchObject({ status: 201 });
    return body['dutyId'] as string;
  };
  const list = async (by: keyof typeof callers = 'manager') =>
    (await callers[by].call('GET', `/api/duties?clientId=${scene.a.id}`)).body['duties'] as DutyShape[];
  const mine = async (by: keyof typeof callers = 'staff') =>
    (await callers[by].call('GET', '/api/duties/mine')).body['rows'] as MyDutyShape[];
  const days = async (id: string) => (await callers.manager.call('GET', `/api/duties/${id}/days`)).body['days'] as DutyDayShape[];
  const mark = (id: string, on: string, as: string, by: keyof typeof callers = 'staff', ticks: number[] = []) =>
    callers[by].call('PUT', `/api/duties/${id}/day`, { body: { on, mark: as, ticks } });
  const change = (id: string, version: number, more: Partial<DutyBody>) =>
    callers.manager.call('PUT', `/api/duties/${id}`, { body: duty(more), headers: { 'If-Match': `"${version}"` } });
  const at = (day: string, time = '09:00') => scene.app.clock.set(`${day}T${time}:00Z`);
  /** The days that were missed, the last first; the list says how many, and which was the last. */
  const missedOn = async () => {
    const [first] = await list();
    const missed = first ? (await days(first.id)).flatMap(({ on, state }) => (state === 'missed' ? [on] : [])).reverse() : [];
    expect([first?.missed, first?.lastMissedOn]).toEqual([missed.length, missed[0] ?? null]);
    return missed;
  };

  it('come by their rule to who does them, are done, and the missed show as missed', async () => {
    const id = await add();
    expect(await mine()).toMatchObject([
      {
        dutyId: id,
        title: 'Answer the comments',
        clientCode: 'AAA',
        checklist: ['Photo feed', 'Blog'],
        missedBefore: 0,
        day: { on: '2027-03-01', state: 'due' },
      },
    ]);
    expect((await mark(id, '2027-03-01', 'open', 'staff', [1])).status).toBe(204);
    expect((await mine())[0]?.day.ticks).toEqual([1]);
    expect((await mark(id, '2027-03-01', 'done', 'staff', [1, 0])).status).toBe(204);
    expect(await mine()).toEqual([]);
    expect((await list())[0]).toMatchObject({ next: { on: '2027-03-02', state: 'ahead' }, missed: 0 });
    at('2027-03-08'); // Monday: four days of that week were missed, and none at the weekend
    expect(await missedOn()).toEqual(['2027-03-05', '2027-03-04', '2027-03-03', '2027-03-02']);
    expect(await mine()).toMatchObject([{ day: { on: '2027-03-08' }, missedBefore: 4 }]);
    await mark(id, '2027-03-03', 'done');
    expect(await missedOn()).toEqual(['2027-03-05', '2027-03-04', '2027-03-02']);
    await callers.staff.call('POST', `/api/duties/${id}/missed`, { body: { untilOn: '2027-03-04' } });
    expect(await missedOn()).toEqual(['2027-03-05']);
    expect((await days(id)).slice(0, 6).map(({ on, state, by }) => [on, state, by])).toEqual([
      ['2027-03-01', 'done', scene.people.staff.name],
      ['2027-03-02', 'left_out', scene.people.staff.name],
      ['2027-03-03', 'done', scene.people.staff.name],
      ['2027-03-04', 'left_out', scene.people.staff.name],
      ['2027-03-05', 'missed', null],
      ['2027-03-08', 'due', null],
    ]);
    // taken back
    await mark(id, '2027-03-03', 'open');
    expect(await missedOn()).toEqual(['2027-03-05', '2027-03-03']);
  });

  it('go to the second person while the first is away, and it is said where nobody does them', async () => {
    const id = await add();
    await addTimeOff(scene.app, scene.people.lead, who('staff'), { startOn: '2027-03-09', endOn: '2027-03-10', part: 1 });
    expect((await list())[0]?.uncoveredOn).toEqual(['2027-03-09', '2027-03-10']);
    const { version = 0 } = (await list())[0] ?? {};
    expect((await change(id, version, { secondId: who('freelance') })).status).toBe(204);
    expect((await list())[0]?.uncoveredOn).toEqual([]);
    at('2027-03-09');
    expect((await mine('staff')).map(({ day }) => day.on)).toEqual(['2027-03-08']); // missed, and nothing to do today
    expect((await mine('freelance')).map(({ day }) => day.on)).toEqual(['2027-03-09']);
  });

  it('are marked by who does them and by who manages, and by nobody else', async () => {
    const id = await add({ leadId: who('freelance') });
    expect((await mark(id, '2027-03-01', 'done', 'staff')).status).toBe(404);
    expect((await mark(id, '2027-03-01', 'done', 'freelance')).status).toBe(204);
    expect((await mark(id, '2027-03-02', 'left_out', 'manager')).status).toBe(204);
    expect(await mark(id, '2027-03-06', 'done', 'freelance')).toMatchObject({ status: 422, body: { code: 'duty.day_unknown' } });
    const other = await add({ clientId: scene.b.id }, 'lead');
    expect((await mark(other, '2027-03-01', 'done', 'manager')).status).toBe(404);
    expect((await callers.manager.call('POST', '/api/duties', { body: duty({ clientId: scene.b.id }) })).status).toBe(403);
  });

  it('keep what has been where their rule is changed', async () => {
    const id = await add();
    await mark(id, '2027-03-01', 'done');
    at('2027-03-04');
    const { version = 0 } = (await list())[0] ?? {};
    expect((await change(id, version, { rule: 'FREQ=WEEKLY;BYDAY=FR' })).status).toBe(204);
    expect(await missedOn()).toEqual(['2027-03-03', '2027-03-02']);
    expect((await days(id)).slice(0, 5).map(({ on, state }) => `${on} ${state}`)).toEqual([
      '2027-03-01 done',
      '2027-03-02 missed',
      '2027-03-03 missed',
      '2027-03-05 ahead',
      '2027-03-12 ahead',
    ]);
    // what was missed can still be done, and taken back
    await mark(id, '2027-03-02', 'done');
    expect(await missedOn()).toEqual(['2027-03-03']);
    await mark(id, '2027-03-02', 'open');
    expect(await missedOn()).toEqual(['2027-03-03', '2027-03-02']);
    expect(await change(id, version, { title: 'Old' })).toMatchObject({ status: 412, body: { code: 'http.changed_meanwhile' } });
  });

  it('stay counted from their first week where they are changed', async () => {
    const id = await add({ rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=FR' });
    at('2027-03-10');
    const { version = 0, fromOn = '' } = (await list())[0] ?? {};
    expect((await change(id, version, { rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE,FR', fromOn })).status).toBe(204);
    const [first] = await list();
    expect([first?.fromOn, first?.next?.on]).toEqual(['2027-03-01', '2027-03-17']); // the weeks of 1, 15 and 29 March
  });

  it('end, and what has been stays', async () => {
    const id = await add();
    await mark(id, '2027-03-01', 'done');
    at('2027-03-02');
    expect((await callers.manager.call('DELETE', `/api/duties/${id}`)).status).toBe(204);
    expect(await list()).toEqual([]);
    expect(await mine()).toEqual([]);
    expect((await days(id)).map(({ on, state }) => `${on} ${state}`)).toEqual(['2027-03-01 done']);
    const { version = 0 } = (await scene.app.read<{ version: number }>('select version from duties'))[0] ?? {};
    expect(await change(id, version, {})).toMatchObject({ body: { code: 'duty.ended' } });
  });

  it('come once without a rule, and wait until something is said of them', async () => {
    const id = await add({ rule: null, fromOn: '2027-03-03', title: 'Renew the pictures' });
    expect(await mine()).toEqual([]);
    at('2027-08-02');
    expect(await mine()).toMatchObject([{ title: 'Renew the pictures', day: { on: '2027-03-03', state: 'missed' } }]);
    await mark(id, '2027-03-03', 'done');
    expect(await mine()).toEqual([]);
  });

  it('that come once can be put off after their day, and were not missed then', async () => {
    const id = await add({ rule: null, fromOn: '2027-03-03' });
    at('2027-03-08');
    const { version = 0 } = (await list())[0] ?? {};
    expect((await change(id, version, { rule: null, fromOn: '2027-03-05' })).body).toMatchObject({ code: 'rhythm.in_past' });
    expect((await change(id, version, { rule: null, fromOn: '2027-03-12' })).status).toBe(204);
    expect(await list()).toMatchObject([{ missed: 0, next: { on: '2027-03-12', state: 'ahead' } }]);
  });

  it('take hours before steps do, of today on, and give them back once done', async () => {
    const pieceId = await makePiece(scene, scene.a);
    await scene.app.read('update pieces set shelved = false where id = $1', [pieceId]);
    const stepId = await stepOf(scene, pieceId, 'write'); // an hour of work
    await assignStep(scene.app, scene.people.lead, stepId, who('staff'));
    const predicted = async () => {
      await scene.app.write(async (tx, now) => ({ ok: true as const, value: await predict(tx, now) }));
      return (await scene.app.read<{ on: string }>('select predicted_finish_on as on from steps where id = $1', [stepId]))[0]?.on;
    };
    expect(await predicted()).toBe('2027-03-01');
    const id = await add({ minutes: 450, rule: 'FREQ=WEEKLY;BYDAY=MO' }); // half an hour of eight is left
    expect(await predicted()).toBe('2027-03-02');
    await mark(id, '2027-03-01', 'done');
    expect(await predicted()).toBe('2027-03-01');
  });

  const WAYS_OUT: [string, (id: string) => Promise<unknown>][] = [
    ['done after all', (id) => mark(id, '2027-03-05', 'done')],
    ['left out', (id) => callers.staff.call('POST', `/api/duties/${id}/missed`, { body: { untilOn: '2027-03-05' } })],
  ];
  it.each(WAYS_OUT)(
    'are reminded of by the clock of who does them, and their managers hear of the missed until it is %s',
    async (_, settle) => {
      await add({ rule: 'FREQ=WEEKLY;BYDAY=FR', leadDays: 3 });
      const notices = async () =>
        (
          await scene.app.read<{ heading: string; person: string }>(
            'select n.heading, p.name as person from notices n join people p on p.id = n.person_id order by n.id',
          )
        ).map(({ heading, person }) => `${person}: ${heading}`);
      await sendReminders(scene.app);
      expect(await notices()).toEqual([]);
      at('2027-03-05');
      await sendReminders(scene.app);
      expect(await notices()).toEqual([`${scene.people.staff.name}: A reminder: Answer the comments`]);
      await sendReminders(scene.app);
      expect(await notices()).toHaveLength(1);
      at('2027-03-08');
      await sendReminders(scene.app);
      expect(await notices()).toContain(`${scene.people.manager.name}: Missed: Answer the comments`);
      // before anybody heard: nothing is told
      const [{ id } = { id: '' }] = await list();
      await settle(id);
      expect(await notices()).toEqual([]);
    },
  );

  it.each(['a', null] as const)('are a hundred at most, of %s, many at once as well', async (of) => {
    const clientId = of === null ? null : scene.a.id;
    const id = await add({ clientId }, 'lead');
    await scene.app.read(
      `insert into duties select (jsonb_populate_record(d, jsonb_build_object('id', gen_random_uuid()))).* from duties d, generate_series(1, 97) where d.id = $1`,
      [id],
    );
    const all = await Promise.all([1, 2, 3, 4, 5, 6].map(() => callers.lead.call('POST', '/api/duties', { body: duty({ clientId }) })));
    expect(all.filter(({ status }) => status === 201)).toHaveLength(2);
    expect(all.filter(({ body }) => body['code'] === 'duty.too_many')).toHaveLength(4);
  });

  describe('that make pieces', () => {
    const newsletter = (more: Partial<DutyBody> = {}) =>
      add({
        title: 'Letter',
        rule: 'FREQ=MONTHLY;BYMONTHDAY=20',
        leadDays: 14,
        minutes: 0,
        piece: { routeId: scene.routeId, channelIds: [scene.a.channelIds[1] ?? ''], pillarId: null },
        ...more,
      });
    const made = () =>
      scene.app.read<{ title: string; on: string; notes: string }>(
        `select p.title, l.on_day as on, p.notes from pieces p join placements l on l.piece_id = p.id where p.title like 'Letter%' and not p.shelved order by l.on_day`,
      );

    it('make each when it is due to start, once, with what has to be known', async () => {
      const id = await newsletter();
      expect(await makeDuePieces(scene.app)).toBe(0);
      at('2027-03-06', '00:30');
      expect(await Promise.all([makeDuePieces(scene.app), makeDuePieces(scene.app)])).toContain(1);
      expect(await makeDuePieces(scene.app)).toBe(0);
      expect(await made()).toEqual([
        { title: 'Letter, Saturday 20 March 2027', on: '2027-03-20', notes: expect.stringContaining('– Photo feed\n– Blog') },
      ]);
      expect((await list())[0]).toMatchObject({ missed: 0, next: { on: '2027-04-20', state: 'ahead' }, minutesAMonth: 0 });
      const [there] = await days(id);
      expect(there).toMatchObject({ on: '2027-03-20', state: 'made', pieceId: expect.any(String) });
      expect(await mark(id, '2027-04-20', 'done', 'manager')).toMatchObject({ body: { code: 'duty.makes_piece' } });
      expect(await mark(id, '2027-03-20', 'left_out', 'manager')).toMatchObject({ body: { code: 'duty.makes_piece' } });
    });

    it('leave out what was left out, and say what could not be made', async () => {
      const id = await newsletter();
      await mark(id, '2027-03-20', 'left_out', 'manager');
      at('2027-03-20');
      expect(await makeDuePieces(scene.app)).toBe(0);
      await scene.app.read('update routes set archived_at = now()');
      at('2027-04-10');
      expect(await makeDuePieces(scene.app)).toBe(0);
      await scene.app.read('update routes set archived_at = null');
      at('2027-04-21');
      expect(await makeDuePieces(scene.app)).toBe(0); // its day is over
      expect(await missedOn()).toEqual(['2027-04-20']);
    });

    it('make none where nobody asked for a client, and refuse what is not the client’s', async () => {
      const piece = { routeId: scene.routeId, channelIds: [scene.b.channelIds[0] ?? ''], pillarId: null };
      expect(await callers.manager.call('POST', '/api/duties', { body: duty({ piece }) })).toMatchObject({
        body: { code: 'channel.unknown' },
      });
      const own = duty({ clientId: null, piece: { ...piece, channelIds: [] } });
      expect(await callers.manager.call('POST', '/api/duties', { body: own })).toMatchObject({ body: { code: 'duty.no_client' } });
    });
  });

  it.each([
    [{ rule: 'FREQ=HOURLY' }, 'rhythm.rule_wrong'],
    [{ fromOn: '2027-02-28' }, 'rhythm.in_past'],
    [{ untilOn: '2027-02-01' }, 'rhythm.order_wrong'],
    [{ leadId: '00000000-0000-4000-8000-000000000000' }, 'person.unknown'],
  ] as const)('refuse %o', async (more, code) => {
    expect(await callers.manager.call('POST', '/api/duties', { body: duty(more) })).toMatchObject({ status: 422, body: { code } });
  });

  it('come on no day before the client’s, at every hour of the day and in every zone', async () => {
    for (let hour = 0; hour < 24; hour++) {
      at('2027-03-03', `${String(hour).padStart(2, '0')}:30`);
      const todayOn = new Intl.DateTimeFormat('en-CA', { timeZone: 'Pacific/Auckland' }).format(new Date(scene.app.clock.now()));
      const yesterday = addDays(getDay(todayOn), -1);
      const post = (fromOn: string) => callers.lead.call('POST', '/api/duties', { body: duty({ clientId: scene.b.id, fromOn }) });
      expect((await post(yesterday)).status).toBe(422);
      expect((await post(todayOn)).status).toBe(201);
    }
  });

  describe('of somebody who leaves', () => {
    const of = async (role: 'staff' | 'freelance') =>
      (await callers.lead.call('GET', `/api/people/${who(role)}/duties`)).body as unknown as { title: string; isLead: boolean }[];
    const give = (to: string, by: keyof typeof callers = 'lead') =>
      callers[by].call('POST', `/api/people/${who('staff')}/duties/give`, { body: { personId: to } });

    it('are given to somebody else as they were: as lead, as second, and alone where both were they', async () => {
      await add({ title: 'Lead', secondId: who('manager') });
      await add({ title: 'Second', leadId: who('manager'), secondId: who('staff') });
      await add({ title: 'Both', secondId: who('freelance') });
      const ended = await add({ title: 'Over', untilOn: '2027-03-01' });
      scene.app.clock.set('2027-03-03T09:00:00Z');
      expect(await of('staff')).toMatchObject([
        { title: 'Both', isLead: true },
        { title: 'Lead', isLead: true },
        { title: 'Second', isLead: false },
      ]);
      expect((await give(who('freelance'))).body).toEqual({ given: 3 });
      expect(await of('staff')).toEqual([]);
      const now = (await list()).map(({ title, leadId, secondId }) => [title, leadId, secondId]);
      expect(now).toContainEqual(['Lead', who('freelance'), who('manager')]);
      expect(now).toContainEqual(['Second', who('manager'), who('freelance')]);
      expect(now).toContainEqual(['Both', who('freelance'), null]);
      const [over] = await scene.app.read<{ lead_id: string }>('select lead_id from duties where id = $1', [ended]);
      expect(over?.lead_id).toBe(who('staff'));
      const lines = await scene.app.read("select detail ->> 'to' as to from activities where verb = 'duty.given'");
      expect(lines).toHaveLength(3);
    });

    it('are given by a lead alone, to who is here, and not to themselves', async () => {
      await add();
      expect((await give(who('freelance'), 'manager')).status).toBe(403);
      expect((await give(who('staff'))).body['code']).toBe('person.unknown');
      await scene.app.read('update people set active = false, left_at = now() where id = $1', [who('freelance')]);
      expect((await give(who('freelance'))).body['code']).toBe('person.unknown');
      await scene.app.read('update people set active = true, left_at = null where id = $1', [who('freelance')]);
    });
  });
});
