import { getValue } from '@zesting/core';
import { callerAs, callerByLink, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep, handIn, editContent, changePiecePath } from '../production/index.js';
import { predict, replanOpen } from '../planning/index.js';
import { raiseObstacle } from './use-cases/raise.js';
import { settleObstacle } from './use-cases/settle.js';

interface Shown {
  id: string;
  words: string;
  stepId: string | null;
  personName: string | null;
  untilOn: string | null;
  days: number;
  settledBy: string | null;
  settledWords: string;
  version: number;
}

describe('what stands in the way', () => {
  let scene: Scene;
  let manager: Caller;
  let staff: Caller;
  let freelance: Caller;
  let lead: Caller;
  let pieceId: string;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    staff = await callerAs(scene, 'staff');
    freelance = await callerAs(scene, 'freelance');
    lead = await callerAs(scene, 'lead');
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('delete from notices');
    pieceId = await makePiece(scene, scene.a);
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'write'), scene.people.freelance.personId));
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'design'), scene.people.staff.personId));
    await scene.app.read('delete from notices');
  });

  const shown = async (caller = manager) =>
    (await caller.call('GET', `/api/pieces/${pieceId}/obstacles`)).body as unknown as {
      open: Shown[];
      settled: Shown[];
      team: { name: string }[];
    };
  const say = (caller: Caller, body: object) =>
    caller.call('POST', `/api/pieces/${pieceId}/obstacles`, { body: { words: 'No photos', whose: 'client', ...body } });
  const told = (name: string) =>
    scene.app.read<{ heading: string; text: string }>(
      'select n.heading, n.text from notices n join people p on p.id = n.person_id where p.name = $1 and n.sent_at is null order by n.id',
      [name],
    );
  const predicted = async (key: string) => {
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await predict(tx, now) }));
    const [row] = await scene.app.read<{ on: string | null }>(
      'select predicted_finish_on as "on" from steps where piece_id = $1 and key = $2',
      [pieceId, key],
    );
    return row?.on;
  };
  const wheel = async () => {
    const [row] = await scene.app.read<{ progress: { title: string; state: string; obstacle?: true }[] }>(
      'select progress from pieces where id = $1',
      [pieceId],
    );
    return row?.progress.map(({ state, obstacle }) => (obstacle ? `${state}!` : state));
  };

  it('is said by whoever does the step, and told to whose it is and to who manages; taken back, nobody hears', async () => {
    const stepId = await stepOf(scene, pieceId, 'write');
    const made = await say(freelance, { stepId, whose: 'person', personId: scene.people.staff.personId, words: ' The key  ' });
    expect(made.status).toBe(201);
    expect((await shown()).open).toMatchObject([{ words: 'The key', stepId, personName: 'Sia', untilOn: null, days: 0, version: 1 }]);
    expect(await told('Sia')).toMatchObject([
      { text: expect.stringMatching(/^Fay waits for you: “The key” stands in the way of “.*” of “/) },
    ]);
    expect(await told('Max')).toMatchObject([{ text: expect.stringMatching(/and waits for a colleague\.$/) }]);
    expect(await told('Fay')).toEqual([]);
    const [one] = (await shown()).open;
    expect((await staff.call('POST', `/api/obstacles/${one?.id}/settle`, { body: { words: 'It was under the mat' } })).status).toBe(204);
    expect([await told('Sia'), await told('Max')]).toEqual([[], []]);
    // who can go on hears that
    expect(await told('Fay')).toMatchObject([{ heading: expect.stringMatching(/^Out of the way: /) }]);
    expect(await shown()).toMatchObject({ open: [], settled: [{ settledBy: 'Sia', settledWords: 'It was under the mat' }] });
    expect((await staff.call('POST', `/api/obstacles/${one?.id}/settle`, { body: {} })).body['code']).toBe('obstacle.settled');
    const verbs = await scene.app.read<{ verb: string }>(
      "select verb from activities where thing_id = $1 and verb like 'obstacle.%' order by id",
      [pieceId],
    );
    expect(verbs.map(({ verb }) => verb)).toEqual(['obstacle.raised', 'obstacle.settled']);
  });

  it('refuses what cannot be: a step of elsewhere, one that is finished, somebody who does not see the piece, a day that is gone', async () => {
    const other = await makePiece(scene, scene.a);
    expect((await say(manager, { stepId: await stepOf(scene, other, 'write') })).body['code']).toBe('step.not_on_path');
    expect((await say(manager, { whose: 'person', personId: '00000000-0000-4000-8000-000000000000' })).body['code']).toBe('person.unknown');
    expect((await say(manager, { whose: 'person' })).body['code']).toBe('person.unknown');
    expect((await say(manager, { words: '  ' })).body['code']).toBe('http.invalid');
    expect((await say(manager, { untilOn: '2027-02-28' })).body['code']).toBe('obstacle.until_in_past');
    const body = { shared: { copy: 'Copy', disclosure: '', media: [] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, body, 1));
    const write = await stepOf(scene, pieceId, 'write');
    getValue(await handIn(scene.app, scene.people.freelance, write));
    expect((await say(manager, { stepId: write })).body['code']).toBe('step.already_finished');
    expect((await shown()).open).toEqual([]);
  });

  it('shifts the prediction from day to day while nobody knows, and to after the day that is said', async () => {
    const free = await predicted('write');
    const stepId = await stepOf(scene, pieceId, 'write');
    const [id, before] = [
      getValue(await raiseObstacle(scene.app, scene.people.freelance, pieceId, { words: 'No photos', whose: 'client', stepId })),
      await predicted('write'),
    ];
    expect([before !== undefined && before !== null && free !== undefined && free !== null && before > free, await wheel()]).toEqual([
      true,
      ['blocked!', 'waiting', 'waiting', 'waiting'],
    ]);
    scene.app.clock.set('2027-03-03T09:00:00Z');
    await scene.app.write(async (tx, now) => ({ ok: true as const, value: await replanOpen(tx, now) }));
    const later = await predicted('write');
    expect((later ?? '') > (before ?? '')).toBe(true);
    const edit = (version: number, more: object) =>
      manager.call('PATCH', `/api/obstacles/${id}`, {
        body: { words: 'No photos', whose: 'client', ...more },
        headers: { 'If-Match': `"${version}"` },
      });
    expect((await edit(1, { whose: 'person' })).body['code']).toBe('person.unknown'); // one of us, and nobody named
    expect((await edit(1, { untilOn: '2027-03-12' })).status).toBe(204);
    expect((await edit(1, { untilOn: '2027-03-15' })).body['code']).toBe('http.changed_meanwhile');
    expect((await predicted('write')) ?? '').toMatch(/^2027-03-(1[5-9])$/); // the 12th is a Friday
    getValue(await settleObstacle(scene.app, scene.people.manager, id, ''));
    expect((await predicted('write')) ?? '9').toBe((await predicted('write')) ?? '8');
    expect(((await predicted('write')) ?? '9') < '2027-03-12').toBe(true);
    expect(await wheel()).toEqual(['current', 'waiting', 'waiting', 'waiting']);
  });

  it('stands in the way of all that is left, where it is the piece’s', async () => {
    const free = await predicted('design');
    await say(manager, { whose: 'outside', untilOn: '2027-03-09' });
    expect([(await predicted('write')) ?? '', (await predicted('design')) ?? ''].every((on) => on > '2027-03-09')).toBe(true);
    expect(free).not.toBe(await predicted('design'));
    expect((await wheel())?.every((one) => one.endsWith('!'))).toBe(true);
  });

  it('goes with the step that is handed in all the same, or left out', async () => {
    const write = await stepOf(scene, pieceId, 'write');
    await say(freelance, { stepId: write, whose: 'person', personId: scene.people.staff.personId });
    const body = { shared: { copy: 'Copy', disclosure: '', media: [] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, body, 1));
    getValue(await handIn(scene.app, scene.people.freelance, write));
    expect(await shown()).toMatchObject({ open: [], settled: [{ settledBy: null }] });
    expect(await wheel()).toEqual(['done', 'current', 'waiting', 'waiting']);
    expect((await told('Sia')).filter(({ heading }) => heading.startsWith('In the way'))).toEqual([]);
    await scene.app.read("update steps set optional = true where piece_id = $1 and key = 'design'", [pieceId]);
    const design = await stepOf(scene, pieceId, 'design');
    await say(staff, { stepId: design, whose: 'person', personId: scene.people.manager.personId });
    expect((await shown()).open).toHaveLength(1);
    expect((await told('Max')).some(({ heading }) => heading.startsWith('In the way'))).toBe(true);
    getValue(await changePiecePath(scene.app, scene.people.manager, pieceId, [{ kind: 'leave_out', stepId: design }]));
    expect((await shown()).open).toEqual([]);
    expect((await told('Max')).some(({ heading }) => heading.startsWith('In the way'))).toBe(false); // it went before they heard
  });

  it('is listed for who manages, the oldest first, and for whose it is; for nobody else', async () => {
    await scene.app.read('delete from obstacles');
    await say(manager, { words: 'Old' });
    scene.app.clock.set('2027-03-04T10:00:00Z');
    await say(manager, { words: 'Sia’s', whose: 'person', personId: scene.people.staff.personId });
    type Row = { words: string; days: number; isMine: boolean };
    const rows = async (caller: Caller, query = '') =>
      ((await caller.call('GET', `/api/obstacles${query}`)).body as unknown as { rows: Row[]; total: number }).rows.map(
        ({ words, days, isMine }) => `${words} ${days}${isMine ? ' mine' : ''}`,
      );
    expect(await rows(manager)).toEqual(['Old 3', 'Sia’s 0']);
    expect(await rows(lead)).toEqual(['Old 3', 'Sia’s 0']);
    expect(await rows(staff)).toEqual(['Sia’s 0 mine']);
    expect(await rows(freelance)).toEqual([]);
    expect(await rows(lead, `?clientId=${scene.b.id}`)).toEqual([]);
    // what is on the shelf waits for nobody
    await scene.app.read('update pieces set list = null where id = $1', [pieceId]);
    expect(await rows(manager)).toEqual([]);
    const contact = await callerByLink(scene, 'room', scene.a.contactId);
    expect((await contact.call('GET', '/api/obstacles')).status).toBe(401);
  });

  it('two settle it at once: one does, the other is told; two say something at once: both stand', async () => {
    await Promise.all([say(manager, { words: 'One' }), say(freelance, { words: 'Two' })]);
    const { open } = await shown();
    expect(open.map(({ words }) => words).sort()).toEqual(['One', 'Two']);
    const id = open[0]?.id ?? '';
    const done = await Promise.all([
      settleObstacle(scene.app, scene.people.manager, id, 'a'),
      settleObstacle(scene.app, scene.people.freelance, id, 'b'),
    ]);
    expect(done.filter(({ ok }) => ok)).toHaveLength(1);
  });
});
