import { getValue } from '@zesting/core';
import type { PersonPageShape } from '@zesting/contract';
import { Caller, callerAs, makePiece, makeScene, PASSWORD, stepOf, type Scene } from '../../../test-support/scene.js';
import { managersOf } from '../notices/index.js';
import { assignStep } from '../production/index.js';

const WEEK = [480, 480, 480, 480, 480, 0, 0];
const NEW = {
  name: 'Nia New',
  email: 'nia@agency.test',
  role: 'manager',
  zone: 'Europe/London',
  region: 'GB-ENG',
  weeklyMinutes: WEEK,
  skills: { write: 2 },
};

describe('people', () => {
  let scene: Scene;
  let lead: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  const pageOf = async (personId: string, by = lead): Promise<PersonPageShape> =>
    (await by.call('GET', `/api/people/${personId}`)).body as unknown as PersonPageShape; // the contract's shape
  const mailsTo = (email: string) =>
    scene.app.read<{ payload: { to: string; links: { address: string }[] } }>(
      "select payload from graphile_worker._private_jobs where payload ->> 'to' = $1 order by id",
      [email],
    );

  it('invites by a link that sets the password, opens once, and ends other sessions', async () => {
    const made = await lead.call('POST', '/api/people', { body: NEW });
    expect(made.status).toBe(201);
    expect((await lead.call('POST', '/api/people', { body: { ...NEW, email: 'NIA@agency.test' } })).body['code']).toBe(
      'person.email_taken',
    );
    expect((await lead.call('POST', '/api/people', { body: { ...NEW, email: 'o@x.test', skills: { write: 4 } } })).body['code']).toBe(
      'person.skill_wrong',
    );
    const personId = made.body['personId'] as string;
    const signIn = (password: string) => new Caller(scene.address).call('POST', '/api/session', { body: { email: NEW.email, password } });
    expect((await signIn('')).status).toBe(401);
    const token = (await mailsTo(NEW.email)).at(-1)?.payload.links[0]?.address.split('/invite/')[1];
    const invited = new Caller(scene.address);
    expect((await invited.call('POST', '/api/invites/open', { body: { token } })).body).toEqual({ linkId: personId });
    expect((await invited.call('GET', `/api/invites/${personId}`)).body).toEqual({
      name: NEW.name,
      email: NEW.email,
      agencyName: 'Agency',
    });
    expect((await invited.call('POST', `/api/invites/${personId}/password`, { body: { password: 'short' } })).body['code']).toBe(
      'http.invalid',
    );
    expect(
      (await invited.call('POST', `/api/invites/${personId}/password`, { body: { password: 'long enough for now, eels' } })).status,
    ).toBe(204);
    expect((await signIn('long enough for now, eels')).status).toBe(200);
    expect((await new Caller(scene.address).call('POST', '/api/invites/open', { body: { token } })).body['code']).toBe(
      'access.link_not_open',
    );
  });

  it('takes an invitation back, which then opens nothing, and sends another', async () => {
    const made = await lead.call('POST', '/api/people', { body: { ...NEW, email: 'ola@agency.test' } });
    const personId = made.body['personId'] as string;
    const tokenOf = async () => (await mailsTo('ola@agency.test')).at(-1)?.payload.links[0]?.address.split('/invite/')[1];
    const opens = async (token: string | undefined) =>
      (await new Caller(scene.address).call('POST', '/api/invites/open', { body: { token } })).status;
    const first = await tokenOf();
    expect(await opens(first)).toBe(200);
    expect((await lead.call('DELETE', `/api/people/${personId}/invite`)).status).toBe(204);
    expect(await opens(first)).toBe(401);
    expect((await lead.call('POST', `/api/people/${personId}/invite`)).status).toBe(204);
    expect([await opens(await tokenOf()), await opens(first)]).toEqual([200, 401]);
  });

  it('plans around time off from the moment it is entered, and back when it goes', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    const design = await stepOf(scene, pieceId, 'design');
    getValue(await assignStep(scene.app, scene.people.lead, design, scene.people.staff.personId));
    const latest = async () =>
      (await scene.app.read<{ on: string }>('select latest_start_on as on from steps where id = $1', [design]))[0]?.on;
    const before = await latest();
    const staff = await callerAs(scene, 'staff');
    const path = `/api/people/${scene.people.staff.personId}/time-off`;
    expect((await staff.call('POST', path, { body: { startOn: '2027-03-19', endOn: '2027-03-18', part: 1 } })).body['code']).toBe(
      'time_off.order_wrong',
    );
    expect((await staff.call('POST', path, { body: { startOn: '2027-03-17', endOn: '2027-03-19', part: 1, note: 'Skiing' } })).status).toBe(
      204,
    );
    expect(before).toBe('2027-03-19');
    expect(await latest()).toBe('2027-03-16');
    const [entry] = (await pageOf(scene.people.staff.personId)).timeOff;
    expect(entry).toMatchObject({ startOn: '2027-03-17', part: 1, note: 'Skiing', isImported: false });
    expect((await staff.call('DELETE', `${path}/${entry?.id}`)).status).toBe(204);
    expect(await latest()).toBe(before);
  });

  it('reads a calendar file without taking it over, takes it over, and replaces it when it is read again', async () => {
    const staff = await callerAs(scene, 'staff');
    const path = `/api/people/${scene.people.staff.personId}/time-off`;
    const read = async (text: string) => {
      const form = new FormData();
      form.append('file', new Blob([text]), 'away.ics');
      return staff.call('POST', `${path}/read-file`, { body: form });
    };
    expect((await read('no calendar')).body['code']).toBe('time_off.file_unreadable');
    const event = (day: string) =>
      `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:u\r\nSUMMARY:Away\r\nDTSTART;VALUE=DATE:${day}\r\nEND:VEVENT\r\nEND:VCALENDAR`;
    const absences = async () => (await pageOf(scene.people.staff.personId)).timeOff.map((row) => [row.startOn, row.isImported]);
    const first = await read(event('20270310'));
    expect(await absences()).toEqual([]);
    expect((await staff.call('POST', `${path}/import`, { body: { absences: first.body['absences'] } })).status).toBe(204);
    expect(await absences()).toEqual([['2027-03-10', true]]);
    const second = await read(event('20270311'));
    expect((await staff.call('POST', `${path}/import`, { body: { absences: second.body['absences'] } })).status).toBe(204);
    expect(await absences()).toEqual([['2027-03-11', true]]);
  });

  it('has one manager’s clients looked after by another just on the days of the cover, by the absent one’s clock', async () => {
    const other = await callerAs(scene, 'manager');
    const [nia] = await scene.app.read<{ id: string }>('select id from people where email = $1', [NEW.email]);
    await scene.app.read('insert into client_people (client_id, person_id) values ($1, $2)', [scene.b.id, nia?.id]);
    await scene.app.read("update people set zone = 'Pacific/Auckland' where id = $1", [nia?.id]);
    const cover = { coverId: scene.people.manager.personId, startOn: '2027-03-03', endOn: '2027-03-04' };
    expect(
      (await lead.call('POST', `/api/people/${nia?.id}/covers`, { body: { ...cover, coverId: scene.people.staff.personId } })).body['code'],
    ).toBe('person.not_a_manager');
    expect((await lead.call('POST', `/api/people/${nia?.id}/covers`, { body: cover })).status).toBe(204);
    const sees = async (at: string) => {
      scene.app.clock.set(at);
      const told = (await managersOf(scene.app.manager, scene.b.id, at)).map((manager) => manager.name);
      return [(await other.call('GET', `/api/clients/${scene.b.id}`)).status, ...told];
    };
    expect(await sees('2027-03-02T10:59:00Z')).toEqual([404, 'Nia New']);
    expect(await sees('2027-03-02T11:00:00Z')).toEqual([200, 'Max']); // midnight of 3 March in Auckland
    expect(await sees('2027-03-04T10:59:00Z')).toEqual([200, 'Max']);
    expect(await sees('2027-03-04T11:00:00Z')).toEqual([404, 'Nia New']);
  });

  it('refuses to give a step to somebody barred from the client', async () => {
    const page = await pageOf(scene.people.staff.personId);
    const edited = await lead.call('PATCH', `/api/people/${page.id}`, {
      // named twice: the last word counts
      body: { clients: ['own', 'barred'].map((relation) => ({ clientId: scene.a.id, relation })) },
      headers: { 'If-Match': `"${page.version}"` },
    });
    expect(edited.body['clients']).toMatchObject([{ code: 'AAA', relation: 'barred' }]);
    const stepId = await stepOf(scene, await makePiece(scene, scene.a), 'write');
    const given = await lead.call('PUT', `/api/steps/${stepId}/doer`, {
      body: { personId: page.id },
      headers: { 'If-Match': '"1"' },
    });
    expect([given.status, given.body['code']]).toEqual([409, 'person.barred']);
    const candidates = (await lead.call('GET', `/api/steps/${stepId}/candidates`)).body as unknown as {
      personId: string;
      isBarred: boolean;
    }[];
    expect(candidates.at(-1)).toMatchObject({ personId: page.id, isBarred: true });
    await lead.call('PATCH', `/api/people/${page.id}`, {
      body: { clients: [{ clientId: scene.a.id, relation: 'own' }] },
      headers: { 'If-Match': `"${page.version + 1}"` },
    });
  });

  it('ends access at once when somebody leaves, counts their steps as nobody’s, and hands them on', async () => {
    const { personId } = scene.people.freelance;
    const freelance = await callerAs(scene, 'freelance');
    const pieceId = await makePiece(scene, scene.a);
    const stepId = await stepOf(scene, pieceId, 'write');
    getValue(await assignStep(scene.app, scene.people.lead, stepId, personId));
    expect((await freelance.call('GET', `/api/pieces/${pieceId}`)).status).toBe(200);
    const left = await lead.call('POST', `/api/people/${personId}/leave`);
    expect(left.body['steps']).toMatchObject([{ stepId, pieceId, title: 'Write' }]);
    expect((await freelance.call('GET', `/api/pieces/${pieceId}`)).status).toBe(401);
    expect(
      (await new Caller(scene.address).call('POST', '/api/session', { body: { email: 'freelance@agency.test', password: PASSWORD } }))
        .status,
    ).toBe(401);
    const list = async () => (await scene.app.read<{ list: string }>('select list from pieces where id = $1', [pieceId]))[0]?.list;
    expect(await list()).toBe('no_doer');
    expect((await lead.call('POST', `/api/people/${personId}/leave`)).body['code']).toBe('person.has_left');
    const same = await lead.call('PUT', `/api/steps/${stepId}/doer`, { body: { personId }, headers: { 'If-Match': '"2"' } });
    expect(same.status).toBe(204); // it is theirs already: nothing happens
    const given = await lead.call('POST', `/api/people/${personId}/give-steps`, {
      body: { stepIds: [stepId], personId: scene.people.staff.personId },
    });
    expect(given.status).toBe(204);
    expect(await list()).toBe('on_course');
    expect((await lead.call('POST', `/api/people/${personId}/come-back`)).status).toBe(204);
    expect((await callerAs(scene, 'freelance')) instanceof Caller).toBe(true);
  });

  it('keeps the last lead, also when two leave at once', async () => {
    expect((await lead.call('POST', `/api/people/${scene.people.lead.personId}/leave`)).body['code']).toBe('person.last_lead');
    const made = await lead.call('POST', '/api/people', { body: { ...NEW, email: 'second@agency.test', role: 'lead' } });
    const ids = [scene.people.lead.personId, made.body['personId'] as string];
    const { leave } = await import('./index.js');
    const results = await Promise.all(ids.map((id) => leave(scene.app, scene.people.lead, id)));
    expect(results.map((result) => (result.ok ? 'left' : result.failure.code)).sort()).toEqual(['left', 'person.last_lead']);
  });

  it('reads a calendar file apart from the server: one that never ends is refused, one that lasts for good is a span', async () => {
    const staff = await callerAs(scene, 'staff');
    const { personId } = scene.people.staff;
    const read = (...lines: string[]) => {
      const body = new FormData();
      const text = [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'BEGIN:VEVENT',
        'UID:1',
        'SUMMARY:Away',
        ...lines,
        'END:VEVENT',
        'END:VCALENDAR',
      ].join('\r\n');
      body.append('file', new Blob([text], { type: 'text/calendar' }), 'off.ics');
      return staff.call('POST', `/api/people/${personId}/time-off/read-file`, { body });
    };
    const endless = await read('DTSTART:20270302T100000Z', 'RRULE:FREQ=SECONDLY;BYMONTH=1;BYMONTHDAY=31;BYHOUR=23');
    expect([endless.status, endless.body['code']]).toEqual([422, 'time_off.file_unreadable']);
    const gone = await read('DTSTART;VALUE=DATE:20270308', 'DTEND;VALUE=DATE:99980101');
    const absences = gone.body['absences'] as { startOn: string; endOn: string }[]; // FoundTimeOffShape
    expect([absences[0]?.startOn, absences.at(-1)?.endOn]).toEqual(['2027-03-08', '2199-12-31']);
    const imported = await staff.call('POST', `/api/people/${personId}/time-off/import`, { body: { absences } });
    expect(imported.status).toBe(204);
    await staff.call('POST', `/api/people/${personId}/time-off/import`, { body: { absences: [] } });
  });
});
