import { randomUUID } from 'node:crypto';
import { getValue, ok } from '@zesting/core';
import { eventually } from '../../../test-support/eventually.js';
import { callerAs, callerByLink, filledIn, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { leave } from '../../features/people/index.js';
import { assignStep, editPiece } from '../../features/production/index.js';
import { tellClients } from './live.js';

/** An open stream: what came so far, and how it ends. */
async function listen(scene: Scene, caller: Caller) {
  const cookie = [...caller.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  const response = await fetch(`${scene.address}/api/live`, { headers: { Cookie: cookie } });
  const [events, told]: [string[], string[]] = [[], []];
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  const ended = (async () => {
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
      rest += part.value;
      const blocks = rest.split('\n\n');
      rest = blocks.pop() ?? '';
      events.push(...blocks.flatMap((block) => /^event: (\w+)/m.exec(block)?.[1] ?? []));
      told.push(...blocks.flatMap((block) => /^event: changed\ndata: (.*)$/m.exec(block)?.[1] ?? []));
    }
    return 'ended';
  })();
  return { events, told, ended, close: () => reader?.cancel() };
}

/** Waits until it holds; how soon it does is measured by `npm run bench`. */
async function within(holds: () => boolean): Promise<boolean> {
  const end = Date.now() + 5000;
  while (!holds() && Date.now() < end) await new Promise((resolve) => setTimeout(resolve, 10));
  return holds();
}

/** Lets what was told before pass by, also by jobs that follow changes. */
async function quiet(scene: Scene): Promise<void> {
  const waiting = "select 1 from graphile_worker.jobs where task_identifier like 'planning%' and run_at <= now()";
  await eventually(async () => (await scene.app.read(waiting)).length === 0);
  await new Promise((resolve) => setTimeout(resolve, 400));
}

describe('live updates', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  const edit = async (pieceId: string) => {
    const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [pieceId]);
    getValue(await editPiece(scene.app, scene.people.lead, pieceId, { notes: randomUUID() }, row?.version ?? 0));
  };

  it('tell those who may see the change, and nobody else', async () => {
    const [own, foreign] = [await makePiece(scene, scene.a), await makePiece(scene, scene.b)];
    const lead = await listen(scene, await callerAs(scene, 'lead'));
    const manager = await listen(scene, await callerAs(scene, 'manager'));
    await quiet(scene); // what making the pieces told is over
    lead.events.length = 0;
    manager.events.length = 0;
    await edit(foreign);
    expect(await within(() => lead.events.length > 0)).toBe(true);
    expect(manager.events).toEqual([]);
    await edit(own);
    expect(await within(() => manager.events.length > 0)).toBe(true);
    expect(new Set(manager.events)).toEqual(new Set(['changed']));
    await Promise.all([lead.close(), manager.close()]);
  });

  it('name the lines of the record, as the answer to the write does, to each who may see them; what no line tells is more', async () => {
    const [own, foreign] = [await makePiece(scene, scene.a), await makePiece(scene, scene.b)];
    const callers = { lead: await callerAs(scene, 'lead'), manager: await callerAs(scene, 'manager') };
    const lead = await listen(scene, callers.lead);
    const manager = await listen(scene, callers.manager);
    await quiet(scene);
    const write = async (pieceId: string) => {
      const [row] = await scene.app.read<{ version: number }>('select version from pieces where id = $1', [pieceId]);
      const answer = await callers.lead.call('PATCH', `/api/pieces/${pieceId}`, {
        body: { notes: randomUUID() },
        headers: { 'If-Match': `"${row?.version}"` },
      });
      expect(answer.status).toBe(200);
      return answer.headers.get('Zesting-Wrote') ?? '';
    };
    for (const told of [lead.told, manager.told]) told.length = 0;
    const [other, wrote] = [await write(foreign), await write(own)];
    expect(wrote).toMatch(/^\d+$/);
    expect(await within(() => manager.told.length > 0)).toBe(true);
    expect(manager.told).toEqual([wrote]);
    expect(await within(() => lead.told.join(' ') === `${other} ${wrote}`)).toBe(true);
    for (const told of [lead.told, manager.told]) told.length = 0;
    await scene.app.write(async (tx) => ok(await tellClients(tx, [own], 'more')));
    expect(await within(() => lead.told.length > 0 && manager.told.length > 0)).toBe(true);
    expect([manager.told, lead.told]).toEqual([['more'], ['more']]);
    // days that were reckoned anew are told as such, beside the lines, unless there is more
    for (const told of [lead.told, manager.told]) told.length = 0;
    await scene.app.write(async (tx) => ok(await tellClients(tx, [own], 'dates')));
    expect(await within(() => lead.told.length > 0 && manager.told.length > 0)).toBe(true);
    expect([manager.told, lead.told]).toEqual([['dates'], ['dates']]);
    for (const told of [lead.told, manager.told]) told.length = 0;
    await scene.app.write(async (tx) => {
      await tellClients(tx, [own], 'more');
      await tellClients(tx, [foreign], 'dates');
      return ok(await tellClients(tx, [own], 'dates'));
    });
    expect(await within(() => lead.told.length > 0 && manager.told.length > 0)).toBe(true);
    expect([manager.told, lead.told]).toEqual([['more'], ['more']]);
    await Promise.all([lead.close(), manager.close()]);
  });

  it('name lines to the team alone: who asks for something is told none', async () => {
    const asker = await callerByLink(scene, 'ask', scene.a.linkId);
    const body = filledIn(scene, scene.a.linkId, { about: 'Rye' });
    const lines = () => scene.app.read("select 1 from activities where thing = 'request'");
    const before = (await lines()).length;
    const sent = await asker.call('POST', `/api/ask/${scene.a.linkId}/requests`, { body, headers: { 'Idempotency-Key': randomUUID() } });
    expect([sent.status, sent.headers.get('Zesting-Wrote')]).toEqual([201, null]);
    expect((await lines()).length).toBeGreaterThan(before);
  });

  it('tell of every change also when transactions end in another order than they began', async () => {
    const [one, two] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    const lead = await listen(scene, await callerAs(scene, 'lead'));
    await quiet(scene);
    lead.events.length = 0;
    let release = () => {};
    const held = new Promise<void>((resolve) => (release = resolve));
    // a line with an early number, committed late
    const early = scene.app.write(async (tx) => {
      await tx.query(
        "insert into activities (client_id, thing, thing_id, verb, actor, at) values ($1, 'piece', $2, 'piece.edited', 'x', now())",
        [scene.a.id, one],
      );
      await held;
      await tx.query("select pg_notify('zesting_changes', '')");
      return { ok: true as const, value: null };
    });
    await edit(two);
    await within(() => lead.events.length > 0);
    lead.events.length = 0;
    release();
    await early;
    expect(await within(() => lead.events.length > 0)).toBe(true);
    await lead.close();
  });

  it('end at once with the access: by signing out, and by leaving', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const manager = await callerAs(scene, 'manager');
    const stream = await listen(scene, manager);
    await manager.call('DELETE', '/api/session');
    await edit(pieceId);
    expect(await Promise.race([stream.ended, new Promise((resolve) => setTimeout(resolve, 5000, 'still open'))])).toBe('ended');
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    const freelance = await listen(scene, await callerAs(scene, 'freelance'));
    getValue(await leave(scene.app, scene.people.lead, scene.people.freelance.personId));
    expect(await Promise.race([freelance.ended, new Promise((resolve) => setTimeout(resolve, 5000, 'still open'))])).toBe('ended');
  });

  it('say who else has a piece open, and when they left it', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const [lead, staff] = [await callerAs(scene, 'lead'), await callerAs(scene, 'staff')];
    const stream = await listen(scene, lead);
    const [leadTab, staffTab] = [randomUUID(), randomUUID()];
    const look = async (caller: Caller, tab: string) =>
      (await caller.call('PUT', `/api/pieces/${pieceId}/presence/${tab}`, { body: {} })).body;
    expect(await look(lead, leadTab)).toEqual({ others: [] });
    await within(() => stream.events.includes('presence'));
    stream.events.length = 0;
    expect(await look(staff, staffTab)).toEqual({ others: [{ personId: scene.people.lead.personId, name: 'Lea' }] });
    expect(await within(() => stream.events.includes('presence'))).toBe(true);
    expect(await look(lead, leadTab)).toEqual({ others: [{ personId: scene.people.staff.personId, name: 'Sia' }] });
    await staff.call('DELETE', `/api/pieces/${pieceId}/presence/${staffTab}`);
    expect(await look(lead, leadTab)).toEqual({ others: [] });
    // a window that is not heard of any more is closed
    await look(staff, staffTab);
    await scene.app.read("update presences set seen_at = now() - interval '46 seconds' where tab_id = $1", [staffTab]);
    expect(await look(lead, leadTab)).toEqual({ others: [] });
    expect((await lead.call('PUT', `/api/pieces/${pieceId}/presence/no-id`, { body: {} })).status).toBe(400);
    await stream.close();
  });
});
