import { randomUUID } from 'node:crypto';
import { getValue, type FormContent } from '@zesting/core';
import { FORM_DOCUMENT_SCHEMA, type FormShape, type RequestShape } from '@zesting/contract';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { callerAs, callerByLink, filledIn, makeScene, NOW, type Caller, type Scene } from '../../../test-support/scene.js';
import { submitRequest } from './index.js';

const ITEMS: FormContent['items'] = [
  { key: 'title', kind: 'short', label: 'What is it about?', needed: true, serves: 'title' },
  { key: 'kind', kind: 'one_of', label: 'What kind', options: [{ value: 'clip' }, { value: 'post' }], needed: true },
  { key: 'length', kind: 'number', label: 'Seconds', shownIf: { field: 'kind', is: 'is', value: 'clip' }, needed: true },
  { key: 'where', kind: 'channel', label: 'Where', several: true },
  { key: 'budget', kind: 'money', label: 'Budget', unit: 'GBP' },
];

describe('forms', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
  });
  afterAll(() => scene.close());

  const get = async (formId: string): Promise<FormShape> =>
    (await manager.call('GET', `/api/forms/${formId}`)).body as unknown as FormShape;
  const make = async (body: Record<string, unknown> = {}) =>
    String((await manager.call('POST', '/api/forms', { body: { title: 'New', clientIds: [scene.a.id], ...body } })).body['formId']);
  const patch = (form: FormShape, part: Partial<FormContent>) =>
    manager.call('PATCH', `/api/forms/${form.id}`, {
      body: { content: { ...form.content, ...part } },
      headers: { 'If-Match': `"${form.version}"` },
    });
  const publish = async (formId: string) => {
    const { version } = await get(formId);
    return manager.call('POST', `/api/forms/${formId}/publish`, { headers: { 'If-Match': `"${version}"` } });
  };
  /** A published form of client A with a link. */
  const asked = async (part: Partial<FormContent> = {}) => {
    const formId = await make();
    await patch(await get(formId), { items: ITEMS, routeId: scene.routeId, ...part });
    expect((await publish(formId)).status).toBe(200);
    const made = await manager.call('POST', `/api/forms/${formId}/links`, { body: { clientId: scene.a.id, label: 'Window', origins: [] } });
    return { formId, linkId: String(made.body['linkId']) };
  };
  const send = (linkId: string, answers: Record<string, string | string[]>, version = 1) =>
    submitRequest(scene.app, linkId, { name: 'Ann', email: 'contact@aaa.test', answers, version }, randomUUID());
  const request = async (id: string) => (await manager.call('GET', `/api/requests/${id}`)).body as unknown as RequestShape;

  it('begin as a draft, are published only without faults, and keep every version as it was', async () => {
    const formId = await make();
    expect(await get(formId)).toMatchObject({
      hasDraft: true,
      publishedVersion: null,
      faults: [{ fault: 'route_missing' }],
      canEdit: true,
    });
    expect((await publish(formId)).body).toMatchObject({ code: 'form.faulty', faults: [{ fault: 'route_missing', key: null }] });
    const looped = { key: 'loop', kind: 'short', label: 'L', shownIf: { field: 'loop', is: 'answered' } } as const;
    await patch(await get(formId), { items: [...ITEMS, looped], routeId: scene.routeId });
    expect((await publish(formId)).body['faults']).toEqual([{ fault: 'loop', key: 'loop', chain: ['loop'] }]);
    await patch(await get(formId), {
      items: ITEMS,
      rules: [{ takes: { channelIds: [...scene.b.channelIds] } }, { takes: { ownerId: scene.people.staff.personId } }],
    });
    expect((await publish(formId)).body['faults']).toMatchObject([
      { fault: 'rule_gone', rule: 0 },
      { fault: 'rule_gone', rule: 1 },
    ]);
    await patch(await get(formId), { rules: [] });
    expect((await publish(formId)).status).toBe(200);
    expect(await get(formId)).toMatchObject({ hasDraft: false, publishedVersion: 1, versions: [{ number: 1, publishedBy: 'Max' }] });
    expect((await publish(formId)).body['code']).toBe('form.nothing_changed');

    await patch(await get(formId), { title: 'Second', items: ITEMS.slice(0, 2) });
    expect((await publish(formId)).status).toBe(200);
    const first = await manager.call('GET', `/api/forms/${formId}/versions/1`);
    expect(first.body).toMatchObject({ number: 1, content: { title: 'New', items: ITEMS } });
    expect((await manager.call('GET', `/api/forms/${formId}/versions/3`)).status).toBe(404);
  });

  it('tell two editors of each other, and go back to what is asked', async () => {
    const { formId } = await asked();
    const before = await get(formId);
    const saved = await patch(before, { title: 'Mine' });
    expect(saved.body).toMatchObject({ content: { title: 'Mine' }, hasDraft: true });
    const late = await patch(before, { title: 'Theirs' });
    expect([late.status, late.body['theirs']]).toMatchObject([412, { content: { title: 'Mine' } }]);
    const { version } = await get(formId);
    const back = await manager.call('POST', `/api/forms/${formId}/discard`, { headers: { 'If-Match': `"${version}"` } });
    expect(back.body).toMatchObject({ content: { title: 'New' }, hasDraft: false });
  });

  it('refuse what is no form, with the place', async () => {
    const form = await get(await make());
    const odd = await patch(form, { items: [{ key: 'x', kind: 'song', label: 'x' }] as never });
    expect(odd.body).toMatchObject({
      code: 'form.malformed',
      faults: expect.arrayContaining([expect.objectContaining({ at: '/items/0' })]),
    });
    expect((await patch(form, { extra: 1 } as never)).body['code']).toBe('form.malformed');
  });

  it('are asked by their links: choices filled in, hidden answers left out, sorted and given an owner', async () => {
    const when = {
      all: [
        { field: 'kind', is: 'is', value: 'clip' },
        { field: 'length', is: 'at_least', value: '30' },
      ],
    } as const;
    const { linkId, formId } = await asked({
      rules: [{ when, takes: { channelIds: [scene.a.channelIds[1] ?? ''], ownerId: scene.people.lead.personId } }],
    });
    const caller = await callerByLink(scene, 'ask', linkId);
    const { body } = await caller.call('GET', `/api/ask/${linkId}`);
    expect(body).toMatchObject({ title: 'New', version: 1, state: 'open', clientCode: 'AAA' });
    expect((body['items'] as { key: string }[])[3]).toMatchObject({
      options: [{ value: scene.a.channelIds[0], label: 'Photo feed' }, { label: 'Blog' }],
    });

    const first = getValue(
      await send(linkId, { title: 'A', kind: 'post', length: 'hidden and wrong', where: [scene.a.channelIds[0] ?? ''] }),
    );
    expect(await request(first.requestId)).toMatchObject({
      answers: { title: 'A', kind: 'post', where: [scene.a.channelIds[0]] },
      takes: { routeId: scene.routeId, channelIds: [scene.a.channelIds[0]] },
      ownerId: scene.people.manager.personId,
      way: 'form',
    });
    const second = getValue(await send(linkId, { title: 'B', kind: 'clip', length: '45' }));
    expect(await request(second.requestId)).toMatchObject({
      takes: { channelIds: [scene.a.channelIds[1]] },
      ownerId: scene.people.lead.personId,
    });
    expect(await send(linkId, { title: 'C', kind: 'clip' })).toMatchObject({ ok: false, failure: { errors: { length: 'required' } } });
    expect((await get(formId)).links).toMatchObject([{ id: linkId, label: 'Window', requests: 2 }]);
    expect((await manager.call('GET', `/api/forms/${formId}/tried`)).body).toHaveLength(2);
  });

  it('set for a client only what it has: a rule written for another falls away when the form is shared', async () => {
    const lead = await callerAs(scene, 'lead');
    const { formId } = await asked({ rules: [{ takes: { channelIds: [...scene.a.channelIds], ownerId: scene.people.manager.personId } }] });
    await lead.call('PUT', `/api/forms/${formId}/clients`, { body: { clientIds: [scene.a.id, scene.b.id] } });
    const made = await lead.call('POST', `/api/forms/${formId}/links`, { body: { clientId: scene.b.id, label: 'B', origins: [] } });
    const { requestId } = getValue(await send(String(made.body['linkId']), { title: 'Of B', kind: 'post' }));
    // B has no manager: whom the rule names does not manage it, so that the lead answers
    expect((await lead.call('GET', `/api/requests/${requestId}`)).body).toMatchObject({
      takes: { routeId: scene.routeId },
      ownerId: scene.people.lead.personId,
    });
    expect((await lead.call('GET', `/api/requests/${requestId}`)).body['takes']).not.toHaveProperty('channelIds');
    // a manager of A alone takes it away from A at most
    expect((await manager.call('PUT', `/api/forms/${formId}/clients`, { body: { clientIds: [] } })).body['code']).toBe('access.refused');
    await scene.app.read("update clients set archived_at = '2027-03-01' where id = $1", [scene.b.id]);
    expect((await manager.call('PUT', `/api/forms/${formId}/clients`, { body: { clientIds: [scene.a.id] } })).status).toBe(204);
    expect(await scene.app.read('select 1 from form_clients where form_id = $1', [formId])).toHaveLength(2);
    await scene.app.read('update clients set archived_at = null where id = $1', [scene.b.id]);
  });

  it('say when a new version came meanwhile, and leave earlier requests as they were asked', async () => {
    const { linkId, formId } = await asked();
    const { requestId } = getValue(await send(linkId, { title: 'Old', kind: 'post' }));
    await patch(await get(formId), { items: [{ ...ITEMS[0], label: 'In a word?' } as FormContent['items'][number]] });
    await publish(formId);
    expect(await send(linkId, { title: 'Old', kind: 'post' })).toEqual({ ok: false, failure: { code: 'ask.form_changed' } });
    getValue(await send(linkId, { title: 'New' }, 2));
    expect((await request(requestId)).items[0]).toMatchObject({ label: 'What is it about?' });
  });

  it('take nothing before they open and after they close, by the client’s day', async () => {
    const { linkId } = await asked({ opensOn: '2027-03-02' as FormContent['opensOn'], closesOn: '2027-03-03' as FormContent['closesOn'] });
    const stateAt = async (now: string) => {
      scene.app.clock.set(now);
      const state = (await (await callerByLink(scene, 'ask', linkId)).call('GET', `/api/ask/${linkId}`)).body['state'];
      const sent = await send(linkId, { title: 'X', kind: 'post' });
      return [state, sent.ok || sent.failure.code];
    };
    expect(await stateAt('2027-03-01T23:59:00Z')).toEqual(['early', 'ask.not_now']);
    expect(await stateAt('2027-03-02T00:00:00Z')).toEqual(['open', true]);
    expect(await stateAt('2027-03-03T23:59:00Z')).toEqual(['open', true]);
    expect(await stateAt('2027-03-04T00:00:00Z')).toEqual(['over', 'ask.not_now']);
    scene.app.clock.set(NOW);
  });

  it('take nothing from what did not open them, came within moments, or filled in what nobody sees', async () => {
    const { linkId } = await asked();
    const caller = await callerByLink(scene, 'ask', linkId);
    const post = async (part: Record<string, unknown>) => {
      const body = { ...filledIn(scene, linkId, { title: 'X', kind: 'post' }), ...part };
      return (
        (await caller.call('POST', `/api/ask/${linkId}/requests`, { body, headers: { 'Idempotency-Key': randomUUID() } })).body['code'] ??
        'taken'
      );
    };
    const { body } = await caller.call('GET', `/api/ask/${linkId}`);
    expect(await post({ stamp: body['stamp'] })).toBe('ask.not_opened');
    expect(await post({ stamp: `${Date.parse(NOW) - 60_000}.forged` })).toBe('ask.not_opened');
    expect(await post({ stamp: scene.app.links.stamp(randomUUID(), '2027-03-01T08:00:00Z') })).toBe('ask.not_opened');
    expect(await post({ website: 'https://x.test' })).toBe('ask.not_opened');
    expect(await post({})).toBe('taken');
  });

  it('die with their link at once, and come back only by a new one', async () => {
    const { linkId, formId } = await asked();
    const caller = await callerByLink(scene, 'ask', linkId);
    expect((await caller.call('GET', `/api/ask/${linkId}`)).status).toBe(200);
    const change = (what: string) => manager.call('POST', `/api/forms/${formId}/links/${linkId}/change`, { body: { change: what } });
    await change('renew');
    expect((await caller.call('GET', `/api/ask/${linkId}`)).body['code']).toBe('access.link_not_open');
    const [link] = (await get(formId)).links;
    expect(link?.address).toContain('/ask/');
    const qr = async (type: string) =>
      (await manager.call('GET', `/api/forms/${formId}/links/${linkId}/qr?type=${type}`)).headers.get('content-type');
    expect([await qr('png'), await qr('svg')]).toEqual(['image/png', expect.stringContaining('image/svg+xml')]);
    await change('close');
    expect((await get(formId)).links[0]?.address).toBeNull();
    const shown = await manager.call('GET', `/api/forms/${formId}/links/${linkId}/qr`);
    expect(shown.body['code']).toBe('link.unknown');
  });

  it('go away with the archive, for everybody who has a link', async () => {
    const { linkId, formId } = await asked();
    const caller = await callerByLink(scene, 'ask', linkId);
    await manager.call('POST', `/api/forms/${formId}/archive`, { body: { archived: true } });
    expect((await caller.call('GET', `/api/ask/${linkId}`)).body['code']).toBe('access.link_not_open');
    await manager.call('POST', `/api/forms/${formId}/archive`, { body: { archived: false } });
    expect((await caller.call('GET', `/api/ask/${linkId}`)).status).toBe(200);
  });

  it('are copied, begun from the stock, and travel as files that the published schema takes', async () => {
    const { formId } = await asked({
      rules: [{ takes: { routeId: scene.routeId, ownerId: 'lead_person' } }],
      noticeDays: 5,
      answerDays: 2,
    });
    const copy = await make({ copyOf: formId, title: 'Copy' });
    expect((await get(copy)).content).toEqual({ ...(await get(formId)).content, title: 'Copy' });
    const { body: document } = await manager.call('GET', `/api/forms/${formId}/document`);
    const { body: schema } = await manager.call('GET', '/api/schemas/form.json');
    expect(schema).toEqual(JSON.parse(JSON.stringify(FORM_DOCUMENT_SCHEMA)));
    const valid = new Ajv2020({ strict: true, allowUnionTypes: true }).compile(schema);
    expect([valid(document), valid({ ...document, language: 'la' })]).toEqual([true, false]);
    const read = await manager.call('POST', '/api/forms', {
      body: { title: 'New', clientIds: [scene.a.id], document: { ...document, route: 'Gone' } },
    });
    expect(read.body['unknown']).toEqual(['Gone']);
    expect((await get(String(read.body['formId']))).content).toEqual({ ...(await get(formId)).content, routeId: null });
    const odd = await manager.call('POST', '/api/forms', { body: { title: 'Odd', clientIds: [], document: { format: 'other' } } });
    expect(odd.body['code']).toBe('form.malformed');
    const clip = await get(await make({ stock: 'A clip' }));
    expect(clip.content.items.map(({ key }) => key)).toContain('filming');
    expect((await manager.call('POST', '/api/forms', { body: { title: 'X', clientIds: [], stock: 'Nothing' } })).body['code']).toBe(
      'form.stock_unknown',
    );
  });

  it('show what a manager may see, and are changed by who has the right and all of their clients', async () => {
    const lead = await callerAs(scene, 'lead');
    const shared = String(
      (await lead.call('POST', '/api/forms', { body: { title: 'Shared', clientIds: [scene.a.id, scene.b.id] } })).body['formId'],
    );
    const others = String((await lead.call('POST', '/api/forms', { body: { title: 'Others', clientIds: [scene.b.id] } })).body['formId']);
    expect(await get(shared)).toMatchObject({ canEdit: false, clientIds: [scene.a.id] });
    expect(
      (await manager.call('PATCH', `/api/forms/${shared}`, { body: { content: {} }, headers: { 'If-Match': '"1"' } })).body['code'],
    ).toBe('access.refused');
    expect((await manager.call('GET', `/api/forms/${others}`)).status).toBe(404);
    expect((await manager.call('POST', '/api/forms', { body: { title: 'X', clientIds: [scene.b.id] } })).status).toBe(404);
    expect((await manager.call('PUT', `/api/forms/${await make()}/clients`, { body: { clientIds: [scene.b.id] } })).status).toBe(404);
    const listed = ((await manager.call('GET', '/api/forms')).body['items'] as { id: string }[]).map(({ id }) => id);
    expect([listed.includes(shared), listed.includes(others)]).toEqual([true, false]);
    await scene.app.read('update people set may_edit_forms = false where id = $1', [scene.people.manager.personId]);
    expect((await manager.call('POST', '/api/forms', { body: { title: 'X', clientIds: [] } })).body['code']).toBe('access.refused');
    await scene.app.read('update people set may_edit_forms = true where id = $1', [scene.people.manager.personId]);
  });

  it('stay for a client that has an open link', async () => {
    const { formId, linkId } = await asked();
    const clients = (clientIds: string[]) => manager.call('PUT', `/api/forms/${formId}/clients`, { body: { clientIds } });
    expect((await clients([])).body['code']).toBe('form.in_use');
    await manager.call('POST', `/api/forms/${formId}/links/${linkId}/change`, { body: { change: 'close' } });
    expect((await clients([])).status).toBe(204);
    expect(
      (await manager.call('POST', `/api/forms/${formId}/links`, { body: { clientId: scene.a.id, label: 'X', origins: [] } })).body['code'],
    ).toBe('form.not_of_client');
  });

  it('tell how soon it can be by what is asked so far, naming nobody', async () => {
    const { linkId } = await asked();
    const caller = await callerByLink(scene, 'ask', linkId);
    const { body } = await caller.call('POST', `/api/ask/${linkId}/earliest`, { body: { answers: { kind: 'clip' } } });
    expect(Object.keys(body).sort()).toEqual(['days', 'earliestOn', 'pathOn', 'steps']);
    expect((await caller.call('GET', `/api/ask/${linkId}`)).body['earliest']).toEqual(body);
  });

  it('two publish at once: one is told, and no version is lost or doubled', async () => {
    const { formId } = await asked();
    const saved = (await patch(await get(formId), { title: 'Twice' })).body as unknown as FormShape;
    const both = await Promise.all(
      [1, 2].map(() => manager.call('POST', `/api/forms/${formId}/publish`, { headers: { 'If-Match': `"${saved.version}"` } })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 412]);
    expect((await get(formId)).versions.map(({ number }) => number)).toEqual([2, 1]);
  });
});
