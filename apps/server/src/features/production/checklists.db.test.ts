import { getValue } from '@zesting/core';
import type { PathChangeBody, PieceShape, SittingShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep, changePiecePath, editContent, handBack, handIn } from './index.js';

const LINES = ['Every link pressed', 'Text clear of faces', 'Names spelt as the client spells them'];

describe('the checklist of a step', () => {
  let scene: Scene;
  let callers: Record<'manager' | 'staff' | 'freelance', Caller>;
  let pieceId: string;
  let stepId: string;
  beforeAll(async () => {
    scene = await makeScene();
    callers = {
      manager: await callerAs(scene, 'manager'),
      staff: await callerAs(scene, 'staff'),
      freelance: await callerAs(scene, 'freelance'),
    };
    await scene.app.read(
      `update routes set steps = (select jsonb_agg(s || jsonb_build_object('checklist', $2::jsonb, 'optional', s ->> 'key' = 'design') order by n)
       from jsonb_array_elements(steps) with ordinality x (s, n)) where id = $1`,
      [scene.routeId, JSON.stringify(LINES)],
    );
  });
  afterAll(() => scene.close());
  beforeEach(async () => {
    await scene.begin();
    pieceId = await makePiece(scene, scene.a);
    stepId = await stepOf(scene, pieceId, 'write');
    getValue(await assignStep(scene.app, scene.people.lead, stepId, scene.people.staff.personId));
    getValue(
      await editContent(scene.app, scene.people.lead, pieceId, { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] }, 1),
    );
  });

  const tick = (position: number, { isDone = true, by = callers.staff, id = stepId } = {}) =>
    by.call('PUT', `/api/steps/${id}/tick`, { body: { position, isDone } });
  const listOf = async (key = 'write') => {
    const { steps } = (await callers.manager.call('GET', `/api/pieces/${pieceId}`)).body as unknown as PieceShape;
    const id = await stepOf(scene, pieceId, key);
    return steps.find((step) => step.id === id)?.checklist.map(({ text, tick: by }) => `${text}: ${by?.by ?? 'nobody'}`);
  };
  const handed = async (id = stepId) => (await callers.staff.call('POST', `/api/steps/${id}/hand-in`, {})).body?.['code'] ?? null;

  it('comes from the route, is ticked line by line, and is whole before the step is handed in', async () => {
    expect(await listOf()).toEqual(LINES.map((line) => `${line}: nobody`));
    expect(await handed()).toBe('step.unticked');
    for (const position of [0, 2, 2]) expect((await tick(position)).status).toBe(204);
    expect(await handed()).toBe('step.unticked');
    expect((await tick(1)).status).toBe(204);
    expect((await tick(0, { isDone: false })).status).toBe(204);
    expect(await listOf()).toEqual([`${LINES[0]}: nobody`, ...LINES.slice(1).map((line) => `${line}: ${scene.people.staff.name}`)]);
    expect(await handed()).toBe('step.unticked');
    await tick(0);
    expect(await handed()).toBeNull();
    const record = await scene.app.read<{ verb: string; line: string }>(
      "select verb, detail ->> 'line' as line from activities where thing_id = $1 and verb like 'step.tick%' order by id",
      [pieceId],
    );
    expect(record.map(({ verb, line }) => `${verb} ${LINES.indexOf(line)}`)).toEqual([
      'step.ticked 0',
      'step.ticked 2',
      'step.ticked 1',
      'step.tick_taken_back 0',
      'step.ticked 0',
    ]);
  });

  it('is ticked by who does the step, while it can be done, and only where it has a line', async () => {
    expect((await tick(0, { by: callers.freelance })).status).toBe(404);
    expect((await tick(3)).body).toMatchObject({ code: 'step.line_unknown' });
    expect((await tick(-1)).status).toBe(400);
    expect((await tick(0, { id: await stepOf(scene, pieceId, 'check'), by: callers.manager })).body).toMatchObject({
      code: 'step.not_available',
    });
  });

  it('loses nothing where several lines, or one and the same, are ticked at once', async () => {
    const all = await Promise.all([0, 1, 2, 0, 1, 2].map((position) => tick(position)));
    expect(all.map(({ status }) => status)).toEqual(all.map(() => 204));
    expect(await scene.app.read('select 1 from step_ticks where step_id = $1', [stepId])).toHaveLength(3);
    expect(await handed()).toBeNull();
  });

  it('is to be ticked again where the work is handed back', async () => {
    for (const position of LINES.keys()) await tick(position);
    expect(await handed()).toBeNull();
    const design = await stepOf(scene, pieceId, 'design');
    for (const position of LINES.keys()) await tick(position, { id: design, by: callers.manager });
    getValue(await handIn(scene.app, scene.people.lead, design));
    const checkId = await stepOf(scene, pieceId, 'check');
    expect((await tick(0, { id: checkId, by: callers.manager })).status).toBe(204);
    getValue(await handBack(scene.app, scene.people.lead, checkId, 'Once more', [stepId]));
    expect(await listOf()).toEqual(LINES.map((line) => `${line}: nobody`));
    expect(await listOf('check')).toEqual(LINES.map((line) => `${line}: nobody`));
  });

  describe('is said on one piece', () => {
    const version = async (id = stepId) =>
      (await scene.app.read<{ version: number }>('select version from steps where id = $1', [id]))[0]?.version ?? 0;
    const set = async (lines: string[], { by = callers.manager, id = stepId, at = -1 } = {}) =>
      by.call('PUT', `/api/steps/${id}/checklist`, { body: { lines }, headers: { 'If-Match': `"${at < 0 ? await version(id) : at}"` } });

    it('for a step that was added by hand too', async () => {
      const body: PathChangeBody = {
        kind: 'add',
        stepId,
        title: 'Proof',
        does: 'check',
        skill: 'check',
        place: 'after',
        spanDays: 1,
        effortMinutes: 10,
      };
      getValue(await changePiecePath(scene.app, scene.people.lead, pieceId, [body]));
      const [added] = await scene.app.read<{ id: string }>("select id from steps where piece_id = $1 and title = 'Proof'", [pieceId]);
      expect((await set([' Names ', '', 'Days', 'Names'], { id: added?.id ?? '' })).status).toBe(204);
      expect(await scene.app.read('select checklist from steps where id = $1', [added?.id])).toEqual([{ checklist: ['Names', 'Days'] }]);
    });

    it('and keeps what is ticked with its line, wherever that stands now; the rest is told of other pieces nothing', async () => {
      const other = await stepOf(scene, await makePiece(scene, scene.a), 'write');
      await tick(0);
      await tick(2);
      expect((await set([LINES[2] ?? '', 'A new one', LINES[1] ?? ''])).status).toBe(204);
      const who = scene.people.staff.name;
      expect(await listOf()).toEqual([`${LINES[2]}: ${who}`, 'A new one: nobody', `${LINES[1]}: nobody`]);
      expect(await scene.app.read('select checklist from steps where id = $1', [other])).toEqual([{ checklist: LINES }]);
      const [line] = await scene.app.read<{ detail: object }>(
        "select detail from activities where verb = 'step.checklist_set' order by id desc limit 1",
      );
      expect(line?.detail).toMatchObject({ step: 'Write', checklist: { from: LINES, to: [LINES[2], 'A new one', LINES[1]] } });
    });

    it('where the route says a line twice, both ticked, and it is one now', async () => {
      await scene.app.read('update steps set checklist = $2 where id = $1', [stepId, ['Names', 'Names', 'Days']]);
      for (const position of [0, 1]) await tick(position);
      expect((await set(['Days', 'Names'])).status).toBe(204);
      expect(await listOf()).toEqual(['Days: nobody', `Names: ${scene.people.staff.name}`]);
    });

    it('so that nobody ticks another line than they looked at', async () => {
      await set(['A new one', LINES[0] ?? '']);
      const ticked = await callers.staff.call('PUT', `/api/steps/${stepId}/tick`, { body: { position: 0, isDone: true, text: LINES[0] } });
      expect(ticked.body).toMatchObject({ code: 'step.line_unknown' });
      expect(await listOf()).toEqual(['A new one: nobody', `${LINES[0]}: nobody`]);
    });

    it('by who manages the client, one at a time, and while it is open', async () => {
      expect((await set([], { by: callers.staff })).status).toBe(403);
      const at = await version();
      const both = await Promise.all([set(['One'], { at }), set(['Other'], { at })]);
      expect(both.map(({ status }) => status).sort()).toEqual([204, 412]);
      expect((await set(['x'.repeat(121)])).body).toMatchObject({ code: 'http.invalid' });
      expect((await set(['Theirs'], { id: await stepOf(scene, pieceId, 'sign_off') })).body).toMatchObject({ code: 'step.client_decides' });
      await set([]);
      expect(await handed()).toBeNull();
      expect((await set(['Late'])).body).toMatchObject({ code: 'step.already_finished' });
    });
  });

  it('goes with a step that is left out, and comes back with it; a part that is split off has it too', async () => {
    const change = async (body: PathChangeBody) => getValue(await changePiecePath(scene.app, scene.people.lead, pieceId, [body]));
    await tick(0);
    await change({ kind: 'split', stepId, title: 'Write on', place: 'beside', spanDays: 1, effortMinutes: 10 });
    expect(await scene.app.read('select checklist from steps where piece_id = $1 and title = $2', [pieceId, 'Write on'])).toEqual([
      { checklist: LINES },
    ]);
    expect(await listOf()).toContain(`${LINES[0]}: ${scene.people.staff.name}`);
    const design = await stepOf(scene, pieceId, 'design');
    await scene.app.read('insert into step_ticks (step_id, position, person_id, at) values ($1, 0, $2, now())', [
      design,
      scene.people.staff.personId,
    ]);
    await change({ kind: 'leave_out', stepId: design });
    expect(await scene.app.read('select 1 from step_ticks where step_id = $1', [design])).toEqual([]);
    await change({ kind: 'bring_back', key: 'design' });
    expect(await listOf('design')).toEqual(LINES.map((line) => `${line}: nobody`));
  });

  it('says among what is made one after another how much of it is open', async () => {
    await tick(1);
    const { steps } = (await callers.manager.call('GET', '/api/to-make/steps?skill=write')).body as unknown as SittingShape;
    expect(steps?.find((step) => step.stepId === stepId)?.linesOpen).toBe(2);
  });
});
