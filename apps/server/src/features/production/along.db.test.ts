import { getValue, type RouteStep } from '@zesting/core';
import type { RouteAlongShape, TakenAlongShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { computeStates, storedPiece, storedSteps } from '../planning/index.js';
import { assignStep, beginStep, changePiecePath, createPiece, editContent, handIn, tickLine } from './index.js';

describe('pieces under way are taken along with their route', () => {
  let scene: Scene;
  let lead: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    lead = await callerAs(scene, 'lead');
    await scene.app.read(`update people set skills = '{"write":2,"design":2,"check":2}'`);
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('update pieces set shelved = true, list = null');
    await scene.app.read('delete from notices');
  });

  const route = async () => {
    const [row] = await scene.app.read<{ name: string; steps: RouteStep[]; version: number }>(
      'select name, steps, version from routes where id = $1',
      [scene.routeId],
    );
    if (!row) throw new Error('there is no route');
    return row;
  };
  /** Changes the route as its editor does. */
  const edit = async (change: (steps: readonly RouteStep[]) => readonly RouteStep[]) => {
    const { name, steps, version } = await route();
    const [format] = await scene.app.read<{ name: string }>(
      'select f.name from formats f join routes r on r.format_id = f.id where r.id = $1',
      [scene.routeId],
    );
    const body = { name, formatName: format?.name, roundsAllowed: null, steps: change(steps) };
    return lead.call('PATCH', `/api/routes/${scene.routeId}`, { body, headers: { 'If-Match': `"${version}"` } });
  };
  /** A proof by the check before it goes to the client; writing takes three days more. */
  const proofed = (steps: readonly RouteStep[]): RouteStep[] => [
    ...steps.flatMap((step): RouteStep[] =>
      step.key === 'sign_off'
        ? [
            { key: 'proof', title: 'Proof', kind: 'check', skill: 'check', spanDays: 1, effortMinutes: 20, after: ['check'] },
            { ...step, after: ['proof'] },
          ]
        : [step.key === 'write' ? { ...step, spanDays: step.spanDays + 3 } : step],
    ),
  ];
  const plain = (steps: readonly RouteStep[]): RouteStep[] =>
    steps.flatMap((step): RouteStep[] =>
      step.key === 'proof'
        ? []
        : [step.key === 'sign_off' ? { ...step, after: ['check'] } : step.key === 'write' ? { ...step, spanDays: 1 } : step],
    );
  const look = async () => (await lead.call('GET', `/api/routes/${scene.routeId}/along`)).body as unknown as RouteAlongShape;
  const take = async (pieceIds: readonly string[], version: number) =>
    (await lead.call('POST', `/api/routes/${scene.routeId}/along`, { body: { pieceIds, version } })).body as unknown as TakenAlongShape;
  const path = async (pieceId: string) =>
    (
      await scene.app.read<{ title: string; days: number; before: string[] }>(
        `select s.title, s.span_days as days, array(select b.title from steps b where b.id = any(s.predecessor_ids) order by 1) as before
         from steps s where s.piece_id = $1 order by s.position`,
        [pieceId],
      )
    ).map(({ title, days, before }) => `${title} ${days} < ${before.join()}`);
  /** What is stored is what a full recompute comes to. */
  const isPlanned = async (pieceId: string) => {
    const [state] = await computeStates(scene.app.manager, [pieceId], scene.app.clock.now());
    if (!state) throw new Error('no state');
    const stored = await scene.app.read(
      'select id, latest_start_on, latest_finish_on, earliest_start_on, earliest_finish_on, slack_days, danger from steps where piece_id = $1 order by id',
      [pieceId],
    );
    expect(stored).toEqual([...storedSteps(state)].sort((a, b) => (a.id < b.id ? -1 : 1)));
    const [piece] = await scene.app.read('select danger, slack_days, late_from_on from pieces where id = $1', [pieceId]);
    const { danger, slack_days, late_from_on } = storedPiece(state);
    expect(piece).toEqual({ danger, slack_days, late_from_on });
  };

  it('tells what would move before anything does; taken along, each goes by the route as it is', async () => {
    await edit(plain);
    const [early, begun, old] = [
      await makePiece(scene, scene.a, '2027-03-12'),
      await makePiece(scene, scene.a, '2027-03-30'),
      await makePiece(scene, scene.b, '2027-04-30'),
    ];
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, begun, 'write'), scene.people.staff.personId));
    getValue(await beginStep(scene.app, scene.people.staff, await stepOf(scene, begun, 'write')));
    expect(await look()).toMatchObject({ pieces: [], morePieces: 0 });
    expect((await edit(proofed)).status).toBe(204);
    const found = await look();
    expect(found.version).toBe((await route()).version);
    expect(found.pieces.map(({ pieceId }) => pieceId)).toEqual([early, begun, old]);
    expect(found.pieces[0]).toMatchObject({
      changes: [
        { kind: 'added', title: 'Proof' },
        { kind: 'changed', title: 'Write', fields: ['days'] },
        { kind: 'changed', title: 'Client sign-off', fields: ['order'] },
      ],
      kept: [],
      isAgainst: false,
    });
    // by hand: out on Fri 12; sign-off Wed 10 and Thu 11, check Tue 9, design Fri 5 and Mon 8, writing Thu 4; with the proof on Tue 9 and four days
    // of writing: check Mon 8, design Thu 4 and Fri 5, writing Fri 26 Feb to Wed 3
    expect([found.pieces[0]?.beginByBefore, found.pieces[0]?.beginByAfter]).toEqual(['2027-03-04', '2027-02-26']);
    expect(found.pieces[1]?.kept).toEqual([]);
    expect(found.pieces[1]?.changes.map(({ title }) => title)).toEqual(['Proof', 'Client sign-off']); // it is being written
    expect(await path(early)).toHaveLength(4);
    // what is new in the route was not left out of the piece
    expect((await lead.call('GET', `/api/pieces/${early}`)).body['leftOut']).toEqual([]);
    const taken = await take([early, begun], found.version);
    expect(taken.pieces.map(({ problem }) => problem)).toEqual([null, null]);
    expect(await path(early)).toEqual([
      'Write 4 < ',
      'Design 2 < Write',
      'Check 1 < Design',
      'Proof 1 < Check',
      'Client sign-off 2 < Proof',
    ]);
    expect((await path(begun))[0]).toBe('Write 1 < ');
    expect(await path(old)).toHaveLength(4); // left as it is
    expect((await look()).pieces.map(({ pieceId }) => pieceId)).toEqual([old]);
    const [after] = await scene.app.read<{ late_from_on: string }>('select late_from_on::text from pieces where id = $1', [early]);
    expect(after?.late_from_on).toBe('2027-02-26'); // as it was told
    for (const id of [early, begun]) await isPlanned(id);
    const lines = await scene.app.read<{ detail: { steps: { title: string }[] } }>(
      "select detail from activities where verb = 'piece.taken_along' and thing_id = $1",
      [early],
    );
    expect(lines.map(({ detail }) => detail.steps.map(({ title }) => title))).toEqual([['Proof', 'Write', 'Client sign-off']]);
  });

  it('two states later, what was changed by hand stays, and what goes is told to whoever had it', async () => {
    await edit(plain);
    await edit(proofed);
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    getValue(await assignStep(scene.app, scene.people.lead, await stepOf(scene, pieceId, 'proof'), scene.people.freelance.personId));
    const design = await stepOf(scene, pieceId, 'design');
    getValue(
      await changePiecePath(scene.app, scene.people.lead, pieceId, [{ kind: 'retime', stepId: design, spanDays: 7, effortMinutes: 90 }]),
    );
    await edit((steps) => steps.map((step) => (step.key === 'design' ? { ...step, spanDays: 5, title: 'Draw' } : step)));
    await edit((steps) => plain(steps));
    const found = await look();
    expect(found.pieces[0]).toMatchObject({
      changes: [
        { kind: 'left_out', title: 'Proof', doerName: 'Fay' },
        { kind: 'changed', title: 'Write', fields: ['days'] },
        { kind: 'changed', title: 'Draw', fields: ['title'] },
        { kind: 'changed', title: 'Client sign-off', fields: ['order'] },
      ],
      kept: [{ title: 'Draw', why: 'by_hand' }],
    });
    expect((await take([pieceId], found.version)).pieces).toEqual([{ pieceId, problem: null }]);
    expect(await path(pieceId)).toEqual(['Write 1 < ', 'Draw 7 < Write', 'Check 1 < Draw', 'Client sign-off 2 < Check']);
    const told = await scene.app.read<{ heading: string }>('select heading from notices where person_id = $1', [
      scene.people.freelance.personId,
    ]);
    expect(told.map(({ heading }) => heading)).toContain('Left out: Proof, A piece');
    await edit((steps) => steps.map((step) => (step.key === 'design' ? { ...step, spanDays: 2, title: 'Design' } : step)));
  });

  it('a list that is another is ticked anew; one that stays keeps its ticks', async () => {
    const listed = (lines: readonly string[], days: number) => (steps: readonly RouteStep[]) =>
      plain(steps).map((step) => (step.key === 'write' ? { ...step, checklist: [...lines], spanDays: days } : step));
    await edit(listed(['Links', 'Names'], 1));
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    const write = await stepOf(scene, pieceId, 'write');
    getValue(await tickLine(scene.app, scene.people.manager, write, { position: 0, isDone: true }));
    const ticks = async () => (await scene.app.read('select position from step_ticks where step_id = $1', [write])).length;
    await edit(listed(['Links', 'Names'], 2));
    await take([pieceId], (await look()).version);
    expect(await ticks()).toBe(1);
    await edit(listed(['Prices', 'Links', 'Names'], 2));
    await take([pieceId], (await look()).version);
    expect(await ticks()).toBe(0);
    await edit((steps) => plain(steps).map((step) => (step.key === 'write' ? { ...step, checklist: [] } : step)));
  });

  it('is a lead’s alone; a state that is no longer the route’s, or a piece of another route, is refused', async () => {
    await edit(plain);
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    await edit(proofed);
    const { version } = await look();
    await edit(plain);
    expect((await take([pieceId], version)).pieces).toEqual([{ pieceId, problem: 'http.changed_meanwhile' }]);
    // what nothing changes for is told apart, and counts as up to date once it was looked at
    const found = await look();
    expect([found.pieces, found.unmoved]).toEqual([[], [pieceId]]);
    expect((await take([pieceId], found.version)).pieces).toEqual([{ pieceId, problem: null }]);
    expect(await look()).toMatchObject({ pieces: [], unmoved: [] });
    expect(await scene.app.read("select 1 from activities where verb = 'piece.taken_along' and thing_id = $1", [pieceId])).toEqual([]);
    // archived and brought back, its steps are what they were
    for (const archived of [true, false]) await lead.call('POST', `/api/routes/${scene.routeId}/archive`, { body: { archived } });
    expect((await look()).unmoved).toEqual([]);
    const manager = await callerAs(scene, 'manager');
    expect((await manager.call('GET', `/api/routes/${scene.routeId}/along`)).status).toBe(403);
    const [other] = await scene.app.read<{ id: string }>(
      "insert into routes (name, format_id, steps) select 'Other', format_id, steps from routes where id = $1 returning id",
      [scene.routeId],
    );
    const { body } = await lead.call('POST', `/api/routes/${other?.id}/along`, { body: { pieceIds: [pieceId], version: 1 } });
    expect((body as unknown as TakenAlongShape).pieces).toEqual([{ pieceId, problem: 'piece.other_route' }]);
  });

  it('a route that was archived and brought back before it was ever changed: its pieces follow all the same', async () => {
    const { steps } = await route();
    const [format] = await scene.app.read<{ name: string }>('select name from formats limit 1');
    const made = { name: 'Fresh', formatName: format?.name, roundsAllowed: null, steps: plain(steps) };
    const { body } = await lead.call('POST', '/api/routes', { body: made });
    const routeId = String(body['routeId']);
    const pieceId = getValue(
      await scene.app.write((tx, now) =>
        createPiece(
          tx,
          {
            clientId: scene.a.id,
            requestId: null,
            routeId,
            pillarId: null,
            title: 'Fresh',
            notes: '',
            wishOn: '2027-04-20',
            channelIds: [],
            actor: 'test',
          },
          now,
        ),
      ),
    );
    for (const archived of [true, false]) await lead.call('POST', `/api/routes/${routeId}/archive`, { body: { archived } });
    const change = (next: object, version: number) =>
      lead.call('PATCH', `/api/routes/${routeId}`, { body: { ...made, ...next }, headers: { 'If-Match': `"${version}"` } });
    const seen = async () => (await lead.call('GET', `/api/routes/${routeId}/along`)).body as unknown as RouteAlongShape;
    expect((await change({ name: 'Fresher' }, 3)).status).toBe(204);
    expect(await seen()).toMatchObject({ pieces: [], unmoved: [] }); // another name moves nothing
    expect((await change({ steps: proofed(plain(steps)) }, 4)).status).toBe(204);
    expect((await seen()).pieces.map((piece) => [piece.pieceId, piece.changes.map(({ title }) => title), piece.kept])).toEqual([
      [pieceId, ['Proof', 'Write', 'Client sign-off'], []],
    ]);
  });

  it('a route is changed and pieces are taken along while steps are handed in: nothing is lost, nothing hangs loose', async () => {
    await edit(plain);
    const ids = await Promise.all(Array.from({ length: 4 }, () => makePiece(scene, scene.a, '2027-04-20')));
    for (const id of ids) {
      const words = { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] };
      getValue(await editContent(scene.app, scene.people.manager, id, words, 1));
    }
    const writes = await Promise.all(ids.map((id) => stepOf(scene, id, 'write')));
    expect((await edit(proofed)).status).toBe(204);
    const { version } = await look();
    const [handed, first, second] = await Promise.all([
      Promise.all(writes.map((id) => handIn(scene.app, scene.people.manager, id))),
      take(ids, version),
      take([...ids].reverse(), version),
      edit((steps) => steps.map((step) => (step.key === 'check' ? { ...step, effortMinutes: step.effortMinutes + 5 } : step))),
    ]);
    expect(handed.every(({ ok }) => ok)).toBe(true);
    const problems = [...first.pieces, ...second.pieces].map(({ problem }) => problem);
    expect(problems.every((problem) => problem === null || problem === 'http.changed_meanwhile')).toBe(true);
    const current = (await route()).version;
    for (const problem of (await take(ids, current)).pieces) expect(problem.problem).toBeNull();
    for (const id of ids) {
      const titles = (await path(id)).map((line) => line.split(' ')[0]);
      expect(titles).toEqual(['Write', 'Design', 'Check', 'Proof', 'Client']);
      const loose = await scene.app.read(
        'select 1 from steps s, unnest(s.predecessor_ids) b (id) where s.piece_id = $1 and not exists (select 1 from steps o where o.id = b.id and o.piece_id = $1)',
        [id],
      );
      expect(loose).toEqual([]);
      const [write] = await scene.app.read<{ finished: boolean; version: number }>(
        "select s.finished_on is not null as finished, p.route_version as version from steps s join pieces p on p.id = s.piece_id where s.piece_id = $1 and s.key = 'write'",
        [id],
      );
      expect(write).toEqual({ finished: true, version: current });
      await isPlanned(id);
    }
  });
});
