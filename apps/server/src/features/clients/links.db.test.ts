import { getValue } from '@zesting/core';
import { Caller, callerAs, makeScene, NOW, type Scene } from '../../../test-support/scene.js';
import { submitRequest } from '../intake/index.js';
import { addCover } from '../people/index.js';
import { changeLink } from './use-cases/change-link.js';

describe('links', () => {
  let scene: Scene;
  beforeEach(async () => {
    scene = await makeScene();
    scene.app.clock.set(NOW);
  });
  afterEach(() => scene.close());

  const opens = async (path: string, token: string): Promise<boolean> =>
    (await new Caller(scene.address).call('POST', path, { body: { token } })).status === 200;
  const token = (purpose: 'ask' | 'room' | 'feed' | 'receipt', id: string, generation = 1) =>
    scene.app.links.token(purpose, id, generation);
  const change = (kind: 'form' | 'room' | 'feed' | 'receipt', how: 'renew' | 'close', id?: string) =>
    changeLink(scene.app, scene.people.lead, scene.a.id, { kind, change: how, ...(id === undefined ? {} : { id }) });
  const mails = () =>
    scene.app.read<{ to: string; subject: string }>(
      "select payload ->> 'to' as to, payload ->> 'subject' as subject from graphile_worker._private_jobs where payload ->> 'subject' is not null",
    );

  it('die at once when they are renewed, and open nothing while they are closed', async () => {
    const { requestId } = getValue(
      await submitRequest(scene.app, scene.a.linkId, { name: 'N', email: 'n@x.test', answers: { about: 'X' }, version: 1 }, 'links-1'),
    );
    for (const [kind, purpose, path, id] of [
      ['form', 'ask', '/api/ask/open', scene.a.linkId],
      ['room', 'room', '/api/room/open', scene.a.contactId],
      ['receipt', 'receipt', '/api/receipts/open', requestId],
    ] as const) {
      expect([kind, await opens(path, token(purpose, id))]).toEqual([kind, true]);
      getValue(await change(kind, 'renew', id));
      expect([kind, await opens(path, token(purpose, id)), await opens(path, token(purpose, id, 2))]).toEqual([kind, false, true]);
      getValue(await change(kind, 'close', id));
      expect([kind, await opens(path, token(purpose, id, 2)), await opens(path, token(purpose, id, 3))]).toEqual([kind, false, false]);
    }
    const feed = async (generation: number) =>
      (await new Caller(scene.address).call('GET', `/feeds/${token('feed', scene.a.id, generation)}.ics`)).status;
    expect(await feed(1)).toBe(200);
    getValue(await change('feed', 'renew'));
    expect([await feed(1), await feed(2)]).toEqual([404, 200]);
    expect(await change('room', 'renew', scene.b.contactId)).toEqual({ ok: false, failure: { code: 'link.unknown' } });
    expect(await change('feed', 'renew', scene.a.linkId)).toEqual({ ok: false, failure: { code: 'link.unknown' } });
  });

  it('to a room go to the contact by mail, and no answer of the API shows one to the agency', async () => {
    const lead = await callerAs(scene, 'lead');
    getValue(await change('room', 'renew', scene.a.contactId));
    expect(await mails()).toEqual([{ to: 'contact@aaa.test', subject: 'Your new link from Agency' }]);
    for (const path of [`/api/clients/${scene.a.id}/links`, `/api/clients/${scene.a.id}`, '/api/clients', '/api/packets'])
      expect(JSON.stringify((await lead.call('GET', path)).body)).not.toContain('/room/');
    const view = await lead.call('GET', `/api/clients/${scene.a.id}/rooms/${scene.a.contactId}`);
    expect([view.status, view.body['canDecide']]).toEqual([200, false]);
    expect((await lead.call('GET', `/api/clients/${scene.a.id}/rooms/${scene.b.contactId}`)).status).toBe(404);
    const decided = await lead.call('POST', `/api/room/${scene.a.contactId}/decisions`, { body: {} });
    expect(decided.body['code']).toBe('access.link_not_open');
  });

  it('are not shown to who only covers for the client’s manager', async () => {
    const { lead, manager } = scene.people;
    const [other] = await scene.app.read<{ id: string }>(
      `insert into people (name, email, password_hash, role, zone, region, weekly_minutes)
       select 'Cora', 'cora@agency.test', password_hash, 'manager', zone, region, weekly_minutes from people where id = $1 returning id`,
      [manager.personId],
    );
    const cover = { coverId: other?.id ?? '', startOn: '2027-03-01', endOn: '2027-03-05' };
    getValue(await addCover(scene.app, lead, manager.personId, cover));
    const cora = new Caller(scene.address);
    await cora.call('POST', '/api/session', { body: { email: 'cora@agency.test', password: 'correct horse' } });
    expect((await cora.call('GET', `/api/clients/${scene.a.id}`)).status).toBe(200);
    expect((await cora.call('GET', `/api/clients/${scene.a.id}/links`)).body['code']).toBe('access.refused');
    const renew = await cora.call('POST', `/api/clients/${scene.a.id}/links`, { body: { kind: 'feed', change: 'renew' } });
    expect(renew.body['code']).toBe('access.refused');
    expect((await (await callerAs(scene, 'manager')).call('GET', `/api/clients/${scene.a.id}/links`)).status).toBe(200);
  });

  it('end with the contact who is replaced, and with the address that is no longer theirs', async () => {
    const lead = await callerAs(scene, 'lead');
    const edit = async (name: string, email: string) => {
      const { body } = await lead.call('GET', `/api/clients/${scene.a.id}`);
      const [old] = body['contacts'] as { id: string }[]; // ContactShape
      const contacts = [{ id: old?.id, name, email, canAsk: true, canView: true, canSignOff: true, weight: 1 }];
      const answer = await lead.call('PATCH', `/api/clients/${scene.a.id}`, {
        body: { contacts },
        headers: { 'If-Match': `"${String(body['version'])}"` },
      });
      return (answer.body['contacts'] as { id: string }[])[0]?.id ?? '';
    };
    expect(await edit('Contact Aaa', 'contact@aaa.test')).toBe(scene.a.contactId); // a name alone is the same person
    expect(await opens('/api/room/open', token('room', scene.a.contactId))).toBe(true);
    expect(await edit('Contact Aaa', 'new@aaa.test')).toBe(scene.a.contactId);
    expect(await opens('/api/room/open', token('room', scene.a.contactId))).toBe(false);
    expect(await opens('/api/room/open', token('room', scene.a.contactId, 2))).toBe(true);
    const next = await edit('Somebody Else', 'else@aaa.test');
    expect(next).not.toBe(scene.a.contactId);
    expect(await opens('/api/room/open', token('room', scene.a.contactId, 2))).toBe(false);
  });

  it('to a receipt go to the sender by mail when they are renewed', async () => {
    const { requestId } = getValue(
      await submitRequest(scene.app, scene.a.linkId, { name: 'Nia', email: 'nia@x.test', answers: { about: 'X' }, version: 1 }, 'links-3'),
    );
    getValue(await change('receipt', 'close', requestId));
    expect(await opens('/api/receipts/open', token('receipt', requestId, 2))).toBe(false);
    getValue(await change('receipt', 'renew', requestId));
    const [mail] = await scene.app.read<{ address: string }>(
      `select payload -> 'links' -> 0 ->> 'address' as address from graphile_worker._private_jobs
       where payload ->> 'to' = 'nia@x.test' and payload ->> 'subject' = 'Your new link from Agency'`,
    );
    expect(mail?.address.endsWith(`/ask/receipt/${token('receipt', requestId, 3)}`)).toBe(true);
    expect(await opens('/api/receipts/open', token('receipt', requestId, 3))).toBe(true);
  });

  it('of receipts end with the archived client', async () => {
    const { requestId } = getValue(
      await submitRequest(scene.app, scene.a.linkId, { name: 'N', email: 'n@x.test', answers: { about: 'X' }, version: 1 }, 'links-2'),
    );
    await scene.app.read('update clients set archived_at = now() where id = $1', [scene.a.id]);
    expect(await opens('/api/receipts/open', token('receipt', requestId))).toBe(false);
  });
});

describe('that the agency decides in the client’s place', () => {
  it('is for a lead to say, or for a manager who says how the client agreed', async () => {
    const scene = await makeScene();
    const { personId } = scene.people.manager;
    const put = async (role: 'lead' | 'manager', policy: Record<string, unknown>) => {
      const caller = await callerAs(scene, role);
      const { body } = await caller.call('GET', `/api/clients/${scene.a.id}`);
      return caller.call('PATCH', `/api/clients/${scene.a.id}`, {
        body: { policy },
        headers: { 'If-Match': `"${String(body['version'])}"` },
      });
    };
    expect((await put('manager', { kind: 'agency', personId })).body['code']).toBe('policy.needs_consent');
    expect((await put('lead', { kind: 'agency', personId })).status).toBe(200);
    expect((await put('manager', { kind: 'any' })).status).toBe(200);
    const consent = 'Ann said so by telephone on 1 March';
    expect((await put('manager', { kind: 'agency', personId, consent })).status).toBe(200);
    const [line] = await scene.app.read<{ said: string }>(
      "select detail -> 'consent' ->> 'to' as said from activities where verb = 'client.edited' order by id desc limit 1",
    );
    expect(line?.said).toBe(consent);
    await scene.close();
  });
});
