import { getValue } from '@zesting/core';
import type { ClientPageShape, EditClientBody } from '@zesting/contract';
import sharp from 'sharp';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep, handIn } from '../production/index.js';

describe('a client’s page', () => {
  let scene: Scene;
  let lead: Caller;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());

  const page = async (): Promise<ClientPageShape> =>
    (await manager.call('GET', `/api/clients/${scene.a.id}`)).body as unknown as ClientPageShape; // the contract's shape
  const edit = async (body: EditClientBody, version?: number) =>
    manager.call('PATCH', `/api/clients/${scene.a.id}`, { body, headers: { 'If-Match': `"${version ?? (await page()).version}"` } });

  it('keeps lists in their order, archives what is missing, and brings it back by its id', async () => {
    const before = await page();
    const feed = before.channels.slice(0, 1).map((channel) => ({ ...channel, name: 'Feed', copyLimit: 300 }));
    const added = {
      kind: 'newsletter' as const,
      name: 'Letter',
      ratio: '16:9',
      copyLimit: null,
      tagLimit: 0,
      mediaLimit: 1,
      leadDays: 2,
      usualTime: '07:30',
    };
    const edited = await edit({ channels: [added, ...feed] });
    expect(edited.status).toBe(200);
    const after = await page();
    expect(after.channels.map((channel) => [channel.name, channel.copyLimit, channel.leadDays])).toEqual([
      ['Letter', null, 2],
      ['Feed', 300, 0],
    ]);
    expect(after.version).toBe(before.version + 1);
    getResult(await edit({ channels: before.channels }));
    expect((await page()).channels).toEqual(before.channels);
  });

  it('writes what changed into the record, with old and new value', async () => {
    const before = await page();
    getResult(await edit({ name: 'Renamed', usualTime: '10:15' }));
    const activity = await manager.call('GET', `/api/clients/${scene.a.id}/activity`);
    const [line] = activity.body['items'] as { verb: string; actor: string; detail: unknown }[]; // the contract's shape
    expect(line).toMatchObject({
      verb: 'client.edited',
      actor: 'Max',
      detail: { name: { from: before.name, to: 'Renamed' }, usualTime: { from: before.usualTime, to: '10:15' } },
    });
  });

  it('gives pillars colours of their own, and keeps them', async () => {
    const put = async (pillars: EditClientBody['pillars']) => {
      getResult(await edit({ pillars: pillars ?? [] }, (await page()).version));
      return (await page()).pillars;
    };
    const made = await put([
      { name: 'P', share: 60 },
      { name: 'Q', share: 20, colour: 5 },
      { name: 'R', share: 20 },
    ]);
    expect(made.map(({ name, colour }) => [name, colour])).toEqual([
      ['P', 0],
      ['Q', 5],
      ['R', 10],
    ]);
    const [p, q, r] = made;
    const renamed = await put([
      { id: r?.id ?? '', name: 'R2', share: 10 },
      { ...p, name: 'P', share: 10, colour: 7 },
      { id: q?.id ?? '', name: 'Q', share: 0 },
    ]);
    expect(renamed.map(({ name, colour }) => [name, colour])).toEqual([
      ['R2', 10],
      ['P', 7],
      ['Q', 5],
    ]);
  });

  it('refuses an edit made against an older state, and answers with both', async () => {
    const { version } = await page();
    getResult(await edit({ name: 'First' }, version));
    const late = await edit({ name: 'Second' }, version);
    expect([late.status, late.body['code']]).toEqual([412, 'http.changed_meanwhile']);
    expect((late.body['theirs'] as ClientPageShape).name).toBe('First');
    expect((late.body['yours'] as EditClientBody).name).toBe('Second');
    expect((await edit({ name: 'X' }, NaN)).status).toBe(428);
  });

  it.each<[string, EditClientBody, string]>([
    [
      'two contacts with one address',
      {
        contacts: ['A@x.test', 'a@X.test'].map((email) => ({
          name: 'N',
          email,
          canAsk: true,
          canView: true,
          canSignOff: false,
          weight: 1,
        })),
      },
      'client.contact_twice',
    ],
    [
      'shares beyond 100',
      {
        pillars: [
          { name: 'P', share: 60 },
          { name: 'Q', share: 41 },
        ],
      },
      'client.shares_over',
    ],
    [
      'a closure that ends before it begins',
      { closures: [{ startOn: '2027-03-05', endOn: '2027-03-04', name: 'C' }] },
      'client.closure_wrong',
    ],
    [
      'an unknown contact',
      {
        contacts: [
          {
            id: '00000000-0000-4000-8000-000000000000',
            name: 'N',
            email: 'n@x.test',
            canAsk: true,
            canView: true,
            canSignOff: true,
            weight: 1,
          },
        ],
      },
      'client.item_unknown',
    ],
    ['more approvals than approvers', { policy: { kind: 'n_of', count: 5 } }, 'policy.count_too_high'],
    ['a policy without its part', { policy: { kind: 'agency' } }, 'policy.incomplete'],
    [
      'a logo that is no file of theirs',
      {
        brand: { voice: '', palette: [], logos: ['00000000-0000-4000-8000-000000000000'], wordsToUse: [], wordsNever: [], disclosure: '' },
      },
      'file.unknown',
    ],
    ['a zone that is none', { zone: 'Middle/Earth' }, 'http.invalid'],
  ])('refuses %s and changes nothing', async (_name, body, code) => {
    const before = await page();
    const refused = await edit(body);
    expect(refused.body['code']).toBe(code);
    expect(await page()).toEqual(before);
  });

  it('refuses to take away the last contact that a policy names', async () => {
    getResult(await edit({ policy: { kind: 'named', contactIds: [scene.a.contactId] } }));
    expect((await edit({ contacts: [] })).body['code']).toBe('policy.contact_cannot_sign_off');
    getResult(await edit({ policy: { kind: 'any' } }));
  });

  it('plans every open piece anew when the client is closed, and when its clock moves', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-30');
    const dates = async () =>
      (
        await scene.app.read<{ latest: string }>("select latest_finish_on as latest from steps where piece_id = $1 and kind = 'sign_off'", [
          pieceId,
        ])
      )[0]?.latest;
    expect(await dates()).toBe('2027-03-25'); // 26 March 2027 is Good Friday, 29 Easter Monday
    getResult(await edit({ closures: [{ startOn: '2027-03-24', endOn: '2027-03-25', name: 'Stocktaking' }] }));
    expect(await dates()).toBe('2027-03-23');
    getResult(await edit({ closures: [] }));
    const [placement] = await scene.app.read<{ id: string }>('select id from placements where piece_id = $1 limit 1', [pieceId]);
    getResult(
      await manager.call('PUT', `/api/placements/${placement?.id}/date`, {
        body: { on: '2027-03-30', at: '09:00' },
        headers: { 'If-Match': '"1"' },
      }),
    );
    getResult(await edit({ zone: 'America/Los_Angeles' }));
    const [moved] = await scene.app.read('select on_day, at_time, zone, publish_at from placements where id = $1', [placement?.id]);
    expect(moved).toEqual({ on_day: '2027-03-30', at_time: '09:00', zone: 'America/Los_Angeles', publish_at: '2027-03-30T16:00:00Z' });
    getResult(await edit({ zone: 'Europe/London' }));
  });

  it('shows the brand sheet to makers, its logos too, and nothing else of the client', async () => {
    const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#0a0' } })
      .png()
      .toBuffer();
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(bytes)]), 'logo.png');
    const logo = getResult(await manager.call('POST', `/api/clients/${scene.a.id}/files`, { body: form })).body['assetId'] as string;
    const brand = {
      voice: 'Plain',
      palette: [{ name: 'Leaf', hex: '#1e5b43' }],
      logos: [logo],
      wordsToUse: [' moss ', 'moss'],
      wordsNever: [],
      disclosure: '',
    };
    getResult(await edit({ brand }));
    const pieceId = await makePiece(scene, scene.a);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    const freelance = await callerAs(scene, 'freelance');
    const seen = await freelance.call('GET', `/api/clients/${scene.a.id}/brand`);
    expect(seen.body).toMatchObject({
      code: 'AAA',
      brand: { ...brand, wordsToUse: ['moss'] },
      logos: [{ assetId: logo, name: 'logo.png' }],
    });
    expect(seen.body).not.toHaveProperty('contacts');
    expect((await freelance.call('GET', `/api/clients/${scene.a.id}/brand/files/${logo}`)).status).toBe(200);
    expect((await freelance.call('GET', `/api/clients/${scene.b.id}/brand`)).status).toBe(404);
  });

  it('is made with a code of its own, archived out of sight, and restored', async () => {
    const body = {
      code: 'NEW',
      name: 'New one',
      colour: 3,
      zone: 'Europe/Paris',
      region: 'FR',
      weeklyMinutes: [480, 480, 480, 480, 480, 0, 0],
      usualTime: '09:00',
      managerIds: [scene.people.manager.personId],
    };
    const made = getResult(await lead.call('POST', '/api/clients', { body }));
    expect((await lead.call('POST', '/api/clients', { body })).body['code']).toBe('client.code_taken');
    const codes = async () =>
      ((await manager.call('GET', '/api/clients')).body as unknown as { code: string }[]).map((client) => client.code);
    expect(await codes()).toContain('NEW');
    getResult(await lead.call('POST', `/api/clients/${made.body['clientId'] as string}/archive`, { body: { archived: true } }));
    expect(await codes()).not.toContain('NEW');
    expect((await manager.call('GET', `/api/clients/${made.body['clientId'] as string}`)).status).toBe(404);
    const rows = (await lead.call('GET', '/api/clients/rows')).body as unknown as { code: string; archivedAt: string | null }[];
    expect(rows.at(-1)).toMatchObject({ code: 'NEW', archivedAt: expect.any(String) });
    getResult(await lead.call('POST', `/api/clients/${made.body['clientId'] as string}/archive`, { body: { archived: false } }));
    expect(await codes()).toContain('NEW');
  });

  it('lets one of two edits at once through', async () => {
    const { version } = await page();
    const answers = await Promise.all(['One', 'Two', 'Three'].map((name) => edit({ name }, version)));
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 412, 412]);
  });
});

describe('a route', () => {
  let scene: Scene;
  let lead: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    await scene.app.read("insert into formats (name) values ('Postcard')");
  });
  afterAll(() => scene.close());

  const step = (key: string, after: string[], more: object = {}) => ({
    key,
    title: key,
    kind: 'make',
    skill: 'write',
    spanDays: 1,
    effortMinutes: 30,
    after,
    ...more,
  });
  const route = (steps: object[], name = 'Short') => ({ name, formatName: 'Postcard', roundsAllowed: 1, steps });
  const signOff = step('sign', ['b'], { kind: 'sign_off', spanDays: 2 });

  it('is refused with its faults, by step', async () => {
    const refused = await lead.call('POST', '/api/routes', { body: route([step('a', ['b']), step('b', ['a'])]) });
    expect([refused.status, refused.body['problems']]).toEqual([422, [{ code: 'route.circular', key: 'a' }]]);
  });

  it('is made, taken by a piece without its optional step, edited without touching that piece, archived', async () => {
    const made = getResult(
      await lead.call('POST', '/api/routes', { body: route([step('a', []), step('b', ['a'], { optional: true }), signOff]) }),
    );
    const routeId = made.body['routeId'] as string;
    const { createPiece } = await import('../production/index.js');
    const wanted = {
      clientId: scene.a.id,
      requestId: null,
      routeId,
      pillarId: null,
      title: 'P',
      notes: '',
      wishOn: null,
      channelIds: scene.a.channelIds,
      actor: 't',
    };
    const refused = await scene.app.write((tx, now) => createPiece(tx, { ...wanted, leaveOut: ['a'] }, now));
    expect(!refused.ok && refused.failure.code).toBe('step.not_optional');
    const pieceId = getValue(await scene.app.write((tx, now) => createPiece(tx, { ...wanted, leaveOut: ['b'] }, now)));
    const steps = () =>
      scene.app.read('select key, title, cardinality(predecessor_ids) as before from steps where piece_id = $1 order by position', [
        pieceId,
      ]);
    const expected = [
      { key: 'a', title: 'a', before: 0 },
      { key: 'sign', title: 'sign', before: 1 },
    ];
    expect(await steps()).toEqual(expected);
    const renamed = route([step('a', [], { title: 'Other' })], 'Shorter');
    expect((await lead.call('PATCH', `/api/routes/${routeId}`, { body: renamed, headers: { 'If-Match': '"9"' } })).status).toBe(412);
    getResult(await lead.call('PATCH', `/api/routes/${routeId}`, { body: renamed, headers: { 'If-Match': '"1"' } }));
    expect(await steps()).toEqual(expected);
    getResult(await lead.call('POST', `/api/routes/${routeId}/archive`, { body: { archived: true } }));
    const offered = (await lead.call('GET', '/api/routes')).body as unknown as { id: string }[];
    expect(offered.map((other) => other.id)).not.toContain(routeId);
    const piece = await lead.call('GET', `/api/pieces/${pieceId}`);
    expect(piece.body['roundsAgreed']).toBe(1);
  });

  it('has no sign-off step for a client whose work the agency signs', async () => {
    await scene.app.read(`update clients set policy = jsonb_build_object('kind', 'agency', 'personId', $2::text) where id = $1`, [
      scene.a.id,
      scene.people.manager.personId,
    ]);
    const pieceId = await makePiece(scene, scene.a);
    const kinds = await scene.app.read<{ kind: string }>('select kind from steps where piece_id = $1 order by position', [pieceId]);
    expect(kinds.map((row) => row.kind)).toEqual(['make', 'make', 'check']);
    expect((await handIn(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'))).ok).toBe(false); // nothing is written yet
  });
});

/** The answer, once it is no refusal. */
function getResult(answer: { status: number; body: Record<string, unknown> }): typeof answer {
  if (answer.status >= 300) throw new Error(`${answer.status} ${JSON.stringify(answer.body)}`);
  return answer;
}
