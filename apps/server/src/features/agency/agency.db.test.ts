import { existsSync } from 'node:fs';
import sharp from 'sharp';
import { getValue, ok } from '@zesting/core';
import { eventually } from '../../../test-support/eventually.js';
import { Caller, callerAs, makePiece, makeScene, PASSWORD, type Scene } from '../../../test-support/scene.js';
import { Files } from '../../platform/files/files.js';
import { replanOpen } from '../planning/index.js';

describe('what the agency sets', () => {
  let scene: Scene;
  let lead: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
  });
  afterAll(() => scene.close());
  beforeEach(() => scene.begin());

  const show = async () => (await lead.call('GET', '/api/agency')).body;
  const edit = async (body: object, version?: number) =>
    lead.call('PATCH', '/api/agency', { body, headers: { 'If-Match': `"${version ?? String((await show())['version'])}"` } });

  it('is changed field by field, refused against an older state, and written down', async () => {
    const before = await show();
    expect(before).toMatchObject({ name: 'Agency', cutOff: '12:00', tightDays: 0, sessionDays: 14, keepsPlaces: false, version: 1 });
    expect((await edit({ name: 'Agency of Words' })).body).toEqual({ ...before, name: 'Agency of Words', version: 2 });
    const refused = await edit({ name: 'Other' }, 1);
    expect([refused.status, refused.body['theirs']]).toEqual([412, await show()]);
    const [line] = await scene.app.read<{ verb: string; detail: unknown }>("select verb, detail from activities where thing = 'agency'");
    expect(line).toEqual({ verb: 'agency.edited', detail: { name: { from: 'Agency', to: 'Agency of Words' } } });
    expect((await edit({ name: 'Agency of Words' })).body['version']).toBe(2); // nothing changed, nothing written
    for (const body of [
      { cutOff: '25:00' },
      { tightDays: 21 },
      { tightDays: 1.5 },
      { sessionDays: 0 },
      { zone: 'Mars/Base' },
      { name: '' },
    ])
      expect([body, (await edit(body)).status]).toEqual([body, 400]);
  });

  it('plans everything open anew by what plans rest on', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-19');
    getValue(await scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    const dangerOf = async () =>
      (
        await scene.app.read<{ danger: string; slack: number }>('select danger, slack_days as slack from pieces where id = $1', [pieceId])
      )[0];
    const { danger, slack = 0 } = (await dangerOf()) ?? {};
    expect([danger, slack]).toEqual(['fine', expect.any(Number)]);
    expect(slack).toBeGreaterThan(0);
    expect((await edit({ tightDays: slack })).status).toBe(200);
    await eventually(async () => (await dangerOf())?.danger === 'tight');
    expect((await edit({ tightDays: 0 })).status).toBe(200);
    await eventually(async () => (await dangerOf())?.danger === 'fine');
  });

  it('sets how long sessions last from the next signing in', async () => {
    const daysLeft = async (): Promise<number> => {
      const caller = new Caller(scene.address);
      const { headers } = await caller.call('POST', '/api/session', { body: { email: 'staff@agency.test', password: PASSWORD } });
      const end = /expires=([^;]+)/i.exec(headers.getSetCookie()[0] ?? '')?.[1] ?? '';
      return Math.round((Date.parse(end) - Date.now()) / 86_400_000);
    };
    expect(await daysLeft()).toBe(14);
    await edit({ sessionDays: 3 });
    expect(await daysLeft()).toBe(3);
  });

  it('keeps or takes out where a picture was taken', async () => {
    const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#456' } })
      .jpeg()
      .withExif({ IFD0: { Copyright: 'Somebody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .toBuffer();
    const stored = async () => getValue(await scene.server.get(Files).store(picture)).bytes;
    expect(await stored()).toBeLessThan(picture.length);
    await edit({ keepsPlaces: true });
    expect(await stored()).toBe(picture.length);
    await edit({ keepsPlaces: false });
    expect(await stored()).toBeLessThan(picture.length);
  });

  it('keeps lists in order; what a route needs stays, what is renamed is renamed everywhere', async () => {
    const namesOf = (list: unknown) => (list as { name: string }[]).map((entry) => entry.name);
    const skills = (await show())['skills'] as { id: string; name: string; uses: number }[];
    expect(skills.map(({ name, uses }) => [name, uses])).toEqual([
      ['check', 1],
      ['design', 1],
      ['write', 5],
    ]);
    const idOf = (name: string) => skills.find((skill) => skill.name === name)?.id;
    // two change places, one is new, all in an order of their own
    const swapped = await edit({
      skills: [
        { id: idOf('write'), name: 'design' },
        { name: 'edit' },
        { id: idOf('check'), name: 'check' },
        { id: idOf('design'), name: 'write' },
      ],
    });
    expect([swapped.status, namesOf(swapped.body['skills'])]).toEqual([200, ['design', 'edit', 'check', 'write']]);
    const [route] = await scene.app.read<{ skills: string }>("select jsonb_path_query_array(steps, '$[*].skill') as skills from routes");
    expect(route?.skills).toEqual(['design', 'write', 'check', 'sign_off']);
    expect(await scene.app.read("select skills from people where role = 'staff'")).toEqual([{ skills: { design: 2 } }]);
    const without = swapped.body['skills'] as { id: string; name: string }[];
    const keep = (names: string[]) => without.filter((skill) => names.includes(skill.name)).map(({ id, name }) => ({ id, name }));
    expect((await edit({ skills: keep(['design', 'check']) })).body['code']).toBe('agency.entry_in_use');
    const archived = await edit({ skills: keep(['design', 'check', 'write']) });
    expect(namesOf((archived.body['archived'] as { skills: unknown }).skills)).toEqual(['edit']);
    // typed again it is the one of before
    const again = await edit({ skills: [...keep(['design', 'check', 'write']), { name: 'Edit' }] });
    expect(await scene.app.read('select name from skills where id = $1', [without.find((skill) => skill.name === 'edit')?.id])).toEqual([
      { name: 'Edit' },
    ]);
    expect(namesOf((again.body['archived'] as { skills: unknown }).skills)).toEqual([]);
    for (const wrong of [[{ name: 'x' }, { name: 'X' }], [{ id: scene.routeId, name: 'x' }]])
      expect((await edit({ skills: wrong })).body['code']).toMatch(/^agency\.entry_(twice|unknown)$/);
    await edit({
      skills: [
        { id: idOf('write'), name: 'write' },
        { id: idOf('design'), name: 'design' },
        { id: idOf('check'), name: 'check' },
      ],
    });
  });

  it('offers routes a format and skills of its lists alone', async () => {
    const step = { key: 'write', title: 'Write', kind: 'make', skill: 'write', spanDays: 1, effortMinutes: 60, after: [] };
    const route = { name: 'Other', formatName: 'Still', roundsAllowed: null, steps: [step] };
    const make = (body: object) => lead.call('POST', '/api/routes', { body: { ...route, ...body } });
    expect((await make({ formatName: 'Opera' })).body['code']).toBe('format.unknown');
    expect((await make({ steps: [{ ...step, skill: 'sing' }] })).body['code']).toBe('skill.unknown');
    expect((await make({})).status).toBe(201);
  });

  it('gives new clients and people what it says they begin with', async () => {
    const begun = await lead.call('POST', '/api/forms', { body: { title: 'Tell us', clientIds: [], stock: 'An article' } });
    const defaultFormId = String(begun.body['formId']);
    expect((await edit({ defaultFormId })).body['code']).toBe('form.unknown'); // nothing of it is published
    await lead.call('POST', `/api/forms/${defaultFormId}/publish`, { headers: { 'If-Match': '"1"' } });
    expect(
      (await edit({ defaultFormId, defaultPolicy: { kind: 'all', silenceDays: 4 }, roundUp: 'daily', roundUpAt: '07:15' })).status,
    ).toBe(200);
    // nobody archives what new clients begin with
    expect((await lead.call('POST', `/api/forms/${defaultFormId}/archive`, { body: { archived: true } })).body['code']).toBe('form.in_use');
    const client = { code: 'NEW', name: 'New', colour: 1, zone: 'Europe/London', region: 'GB-ENG', weeklyMinutes: [0, 1, 1, 1, 1, 0, 0] };
    const made = await lead.call('POST', '/api/clients', { body: { ...client, usualTime: '10:00', managerIds: [] } });
    const page = (await lead.call('GET', `/api/clients/${String(made.body['clientId'])}`)).body;
    expect(page['policy']).toEqual({ kind: 'all', silenceDays: 4 });
    const given = (await lead.call('GET', `/api/clients/${String(made.body['clientId'])}/links`)).body['forms'];
    expect(given).toMatchObject([{ formId: defaultFormId, title: 'Tell us', address: expect.stringContaining('/ask/') }]);
    const person = {
      name: 'Nia',
      email: 'nia@agency.test',
      role: 'staff',
      zone: 'Europe/London',
      region: 'GB-ENG',
      weeklyMinutes: [0, 0, 0, 0, 0, 0, 0],
    };
    await lead.call('POST', '/api/people', { body: { ...person, skills: {} } });
    expect(await scene.app.read("select round_up, round_up_at from people where name = 'Nia'")).toEqual([
      { round_up: 'daily', round_up_at: '07:15' },
    ]);
    const needs = (formatId: string, body: unknown) => lead.call('PUT', `/api/formats/${formatId}/needs`, { body });
    const [format] = await scene.app.read<{ id: string }>('select id from formats limit 1');
    expect((await needs(format?.id ?? '', { needs: ['page', 'aim'] })).status).toBe(204);
    expect((await lead.call('GET', '/api/forms')).body['formats']).toContainEqual(
      expect.objectContaining({ formatId: format?.id, needs: ['page', 'aim'] }),
    );
    expect((await needs(format?.id ?? '', { needs: ['shoe_size'] })).status).toBe(400);
    expect((await needs(scene.routeId, { needs: [] })).body['code']).toBe('format.unknown');
    // a client that was there before gets the form when it is asked for
    const links = await lead.call('POST', `/api/clients/${scene.b.id}/form`);
    expect((links.body['forms'] as { title: string }[]).map((one) => one.title).sort()).toEqual(['Ask', 'Tell us']);
  });

  it('shows its mark to everybody, and takes nothing else for one', async () => {
    const put = (bytes: Buffer, name: string) => {
      const form = new FormData();
      form.append('file', new Blob([new Uint8Array(bytes)]), name);
      return show().then((agency) =>
        lead.call('PUT', '/api/agency/mark', { body: form, headers: { 'If-Match': `"${String(agency['version'])}"` } }),
      );
    };
    expect((await put(Buffer.from('no picture'), 'mark.png')).body['code']).toBe('file.type_refused');
    const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: '#456' } })
      .png()
      .toBuffer();
    const marked = await put(picture, 'mark.png');
    expect(marked.body['markAddress']).toMatch(/^\/api\/agency\/mark\?of=[0-9a-f]{12}$/);
    const seen = await fetch(`${scene.address}/api/agency/mark`);
    expect([seen.headers.get('content-type'), (await seen.arrayBuffer()).byteLength]).toEqual(['image/png', picture.length]);
    await lead.call('DELETE', '/api/agency/mark', { headers: { 'If-Match': `"${String((await show())['version'])}"` } });
    expect((await fetch(`${scene.address}/api/agency/mark`)).status).toBe(404);
  });

  it('sends a trial mail from whom it says, and says what the mail server said', async () => {
    await edit({ mailFrom: { name: 'Words', address: 'words@agency.test' } });
    const refused = await lead.call('POST', '/api/agency/trial-mail');
    expect([refused.status, refused.body['code']]).toEqual([422, 'mail.not_taken']); // nobody listens there
    expect((await show())['mailProvedAt']).toBeNull();
    for (const from of [
      { name: 'A "B" <c>', address: 'a@b.test' },
      { name: 'A', address: 'nowhere' },
      { name: '', address: 'a@b.test' },
    ])
      expect([from, (await edit({ mailFrom: from })).status]).toEqual([from, 400]);
    expect((await edit({ mailFrom: null })).body['mailFrom']).toBeNull();
  });

  it('is left as a demo by its name alone, with everything of it, and nothing is loaded or let in again', async () => {
    await scene.app.read('update agencies set is_demo = true');
    const own = await lead.call('GET', '/api/session');
    expect(own.body).toMatchObject({ role: 'lead' });
    expect((await lead.call('POST', '/api/agency/leave-demo', { body: { name: 'Some other' } })).body['code']).toBe('agency.name_differs');
    const name = String((await show())['name']);
    expect((await lead.call('GET', '/api/agency/demo')).body).toMatchObject({ clients: 3, people: 5, pieces: 1 });
    const picture = await sharp({ create: { width: 7, height: 7, channels: 3, background: '#654' } })
      .png()
      .toBuffer();
    const { hash } = getValue(await scene.app.files.store(picture));
    await scene.app.read("update agencies set mark_hash = $1, mark_mime = 'image/png'", [hash]);
    expect(existsSync(scene.app.files.pathOf(hash))).toBe(true);
    expect((await lead.call('POST', '/api/agency/leave-demo', { body: { name } })).status).toBe(204);
    const tables = await scene.app.read<{ name: string }>(
      "select tablename as name from pg_tables where schemaname = 'public' and tablename not in ('migrations', 'demo_left', 'job_workers')",
    );
    for (const table of tables) expect([table.name, await scene.app.read(`select 1 from ${table.name} limit 1`)]).toEqual([table.name, []]);
    expect(existsSync(scene.app.files.pathOf(hash))).toBe(false);
    expect(await scene.app.read('select 1 from demo_left')).toHaveLength(1);
    expect((await lead.call('GET', '/api/desk')).body['code']).toBe('access.signed_out');
    expect((await lead.call('GET', '/api/start')).body['state']).toBe('empty');
  });
});
