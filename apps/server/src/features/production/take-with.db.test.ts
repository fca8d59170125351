import { getValue } from '@zesting/core';
import type { MyStepsShape, PiecePage, PieceShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { loadOpenSteps } from '../planning/index.js';
import { assignStep } from './index.js';

describe('a step that is taken together with somebody', () => {
  let scene: Scene;
  let manager: Caller;
  let freelance: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    [manager, freelance] = [await callerAs(scene, 'manager'), await callerAs(scene, 'freelance')];
  });
  beforeEach(() => scene.begin());
  afterAll(() => scene.close());

  const versionOf = async (stepId: string) =>
    (await scene.app.read<{ version: number }>('select version from steps where id = $1', [stepId]))[0]?.version ?? 0;
  const take = async (stepId: string, personId: string | null, version?: number, by = manager) =>
    by.call('PUT', `/api/steps/${stepId}/with`, {
      body: { personId },
      headers: { 'If-Match': `"${version ?? (await versionOf(stepId))}"` },
    });
  const mine = async (by: Caller) => (await by.call('GET', '/api/steps/mine')).body as unknown as MyStepsShape;
  const worked = async () =>
    (await scene.app.read('select 1 from worked_clients where person_id = $1', [scene.people.freelance.personId])).length;

  it('is seen by who learns it, counts as no work of theirs, and is its doer’s to hand in', async () => {
    const { staff, freelance: fay, manager: max } = scene.people;
    const pieceId = await makePiece(scene, scene.a);
    const write = await stepOf(scene, pieceId, 'write');
    expect((await take(write, fay.personId)).body).toMatchObject({ code: 'step.with_nobody' });
    getValue(await assignStep(scene.app, max, write, staff.personId));
    expect((await take(write, staff.personId)).body).toMatchObject({ code: 'step.with_nobody' });
    expect((await freelance.call('GET', `/api/pieces/${pieceId}`)).status).toBe(404);
    expect((await take(write, fay.personId, 99)).status).toBe(412);
    expect((await take(write, fay.personId)).status).toBe(204);
    const seen = await freelance.call('GET', `/api/pieces/${pieceId}`);
    expect(seen.status).toBe(200);
    const shape = seen.body as unknown as PieceShape;
    expect(shape.steps[0]).toMatchObject({ doerName: 'Sia', withId: fay.personId, withName: 'Fay', mine: false });
    expect(shape.canWrite).toBe(false);
    const { body: listed } = await manager.call('GET', '/api/pieces');
    const row = (listed as unknown as PiecePage).items.find(({ id }) => id === pieceId);
    expect(row?.currentDoer).toBe('Sia with Fay'); // in lists too
    expect((await mine(freelance)).together).toMatchObject([{ stepId: write, doerName: 'Sia', atHand: true, stepTitle: 'Write' }]);
    expect((await mine(freelance)).rows).toEqual([]);
    expect((await freelance.call('POST', `/api/steps/${write}/hand-in`, { body: {} })).status).toBeGreaterThanOrEqual(400);
    const open = await loadOpenSteps(scene.app.manager);
    expect(open.filter((step) => Object.values(step).includes(fay.personId))).toEqual([]);
    const told = await scene.app.read('select 1 from notices where person_id = $1', [fay.personId]);
    expect(told.length).toBeGreaterThan(0);
    expect(await worked()).toBe(1);
  });

  it('ends where nobody has it, where the learner gets it, and where that is said; then they see the piece no more', async () => {
    const { staff, freelance: fay, manager: max } = scene.people;
    const [row] = await scene.app.read<{ id: string; pieceId: string }>(
      'select id, piece_id as "pieceId" from steps where with_id is not null',
    );
    const [stepId, pieceId] = [row?.id ?? '', row?.pieceId ?? ''];
    const withId = async () =>
      (await scene.app.read<{ id: string | null }>('select with_id as id from steps where id = $1', [stepId]))[0]?.id;
    getValue(await assignStep(scene.app, max, stepId, scene.people.lead.personId));
    expect(await withId()).toBe(fay.personId); // with whoever has it now
    getValue(await assignStep(scene.app, max, stepId, fay.personId));
    expect(await withId()).toBeNull();
    expect((await mine(freelance)).rows.map((one) => one.stepId)).toEqual([stepId]);
    getValue(await assignStep(scene.app, max, stepId, staff.personId));
    expect((await take(stepId, fay.personId)).status).toBe(204);
    getValue(await assignStep(scene.app, max, stepId, null));
    expect(await withId()).toBeNull();
    expect([await worked(), (await freelance.call('GET', `/api/pieces/${pieceId}`)).status]).toEqual([0, 404]);
    getValue(await assignStep(scene.app, max, stepId, staff.personId));
    expect((await take(stepId, fay.personId)).status).toBe(204);
    expect((await take(stepId, null)).status).toBe(204);
    expect(await worked()).toBe(0);
    const verbs = await scene.app.read("select detail from activities where verb = 'step.taken_with' order by id");
    expect(verbs).toHaveLength(4);
  });

  it('holds the first where two name somebody at once', async () => {
    const { staff, freelance: fay, lead, manager: max } = scene.people;
    const stepId = await stepOf(scene, await makePiece(scene, scene.a), 'write');
    getValue(await assignStep(scene.app, max, stepId, staff.personId));
    const version = await versionOf(stepId);
    const answers = await Promise.all([take(stepId, fay.personId, version), take(stepId, lead.personId, version)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([204, 412]);
  });
});
