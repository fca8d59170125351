import { getValue } from '@zesting/core';
import type { MyStepsShape, OwnClockShape, StepHoursShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep, changePiecePath, editContent, handIn } from '../production/index.js';

describe('hours', () => {
  let scene: Scene;
  let [manager, staff, freelance]: Caller[] = [];
  let [pieceId, stepId] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    [manager, staff, freelance] = await Promise.all((['manager', 'staff', 'freelance'] as const).map((role) => callerAs(scene, role)));
  });
  afterAll(() => scene.close());
  const at = (time: string, on = '2027-03-01') => scene.app.clock.set(`${on}T${time}:00Z`);
  const mine = async () => {
    pieceId = await makePiece(scene, scene.a);
    stepId = await stepOf(scene, pieceId, 'write');
    getValue(await assignStep(scene.app, scene.people.lead, stepId, scene.people.freelance.personId));
    return stepId;
  };
  beforeEach(async () => {
    at('09:00');
    await scene.app.read('delete from worked');
    await mine();
  });

  const start = (who: Caller | undefined, id = stepId) => who?.call('POST', `/api/steps/${id}/clock`);
  const stop = (who: Caller | undefined, body: object = {}) => who?.call('POST', '/api/clock/stop', { body });
  const add = (who: Caller | undefined, minutes: unknown, id = stepId) =>
    who?.call('POST', `/api/steps/${id}/hours`, { body: { minutes } });
  const clock = async () => ((await freelance?.call('GET', '/api/clock'))?.body as unknown as OwnClockShape).clock;
  const hours = async (who: Caller | undefined, id = stepId) =>
    (await who?.call('GET', `/api/steps/${id}/hours`))?.body as unknown as StepHoursShape;
  const stepRow = async (id = stepId) =>
    (
      await scene.app.read<{ started_on: string | null; remaining_minutes: number | null }>(
        'select started_on, remaining_minutes from steps where id = $1',
        [id],
      )
    )[0];

  it('run by the clock: it begins the step, and what it ran is taken from what is left', async () => {
    expect((await start(freelance))?.status).toBe(204);
    expect(await stepRow()).toEqual({ started_on: '2027-03-01', remaining_minutes: null });
    expect(await clock()).toMatchObject({
      stepId,
      stepTitle: 'Write',
      pieceId,
      startedAt: expect.stringMatching(/^2027-03-01T09:00/) as string,
    });
    at('09:25');
    expect((await start(freelance))?.status).toBe(204); // a second tap: it runs on
    at('09:40');
    const { rows } = (await freelance?.call('GET', '/api/steps/mine'))?.body as unknown as MyStepsShape;
    expect(rows.find((row) => row.stepId === stepId)).toMatchObject({
      clockStartedAt: expect.stringMatching(/^2027-03-01T09:00/) as string,
      workedMinutes: 0,
      leftMinutes: 60,
    });
    expect((await stop(freelance))?.status).toBe(204);
    expect([await clock(), (await stepRow())?.remaining_minutes, (await hours(freelance)).minutes]).toEqual([null, 20, 40]);
    expect((await stop(freelance))?.body['code']).toBe('hours.no_clock');
    at('10:00');
    await start(freelance);
    at('11:00');
    await stop(freelance);
    expect((await stepRow())?.remaining_minutes).toBe(0); // never less than nothing
  });

  it('move to another step with the clock: what ran is put down', async () => {
    const first = stepId;
    await start(freelance);
    at('09:30');
    await mine();
    await start(freelance);
    expect([(await hours(freelance, first)).minutes, (await clock())?.stepId]).toEqual([30, stepId]);
  });

  it('that were forgotten are asked for, by whatever would stop the clock', async () => {
    const first = stepId;
    await start(freelance);
    at('09:00', '2027-03-02');
    expect((await stop(freelance))?.body['code']).toBe('hours.clock_forgotten');
    await mine();
    expect((await start(freelance))?.body['code']).toBe('hours.clock_forgotten');
    expect((await clock())?.stepId).toBe(first);
    expect((await stop(freelance, { minutes: 50 }))?.status).toBe(204);
    const { worked } = await hours(freelance, first);
    expect(worked.map(({ on, minutes }) => [on, minutes])).toEqual([['2027-03-01', 50]]);
    expect((await stop(freelance, { minutes: 0 }))?.body['code']).toBe('http.invalid');
  });

  it('are typed and taken back; what is left follows both ways', async () => {
    expect((await add(freelance, 45))?.status).toBe(204);
    expect((await stepRow())?.remaining_minutes).toBe(15);
    for (const wrong of [0, -5, 1.5, 721, '30']) expect((await add(freelance, wrong))?.body['code']).toBe('http.invalid');
    const [worked] = (await hours(freelance)).worked;
    expect((await freelance?.call('DELETE', `/api/worked/${worked?.id}`))?.status).toBe(204);
    expect([(await stepRow())?.remaining_minutes, (await hours(freelance)).worked]).toEqual([60, []]);
  });

  it('are one’s own to see and take back, and all of them a manager’s', async () => {
    await add(manager, 15);
    await add(freelance, 20);
    expect([(await hours(freelance)).minutes, (await hours(manager)).minutes]).toEqual([20, 35]);
    const ofManager = (await hours(manager)).worked.find(({ personName }) => personName === scene.people.manager.name);
    expect((await freelance?.call('DELETE', `/api/worked/${ofManager?.id}`))?.body['code']).toBe('note.of_another');
    expect((await staff?.call('GET', `/api/steps/${stepId}/hours`))?.status).toBe(404); // no step of theirs
    expect((await start(staff))?.status).toBe(404);
  });

  it('stop with the step that is handed in, and stay when it goes from the path', async () => {
    const content = { shared: { copy: 'Copy', disclosure: '', media: [] }, channels: [] };
    getValue(await editContent(scene.app, scene.people.lead, pieceId, content, 1));
    await start(freelance);
    at('09:20');
    getValue(await handIn(scene.app, scene.people.freelance, stepId));
    expect([await clock(), (await hours(freelance)).minutes]).toEqual([null, 20]);
    expect((await start(freelance))?.body['code']).toBe('step.already_finished');
    const other = await mine();
    await add(freelance, 10);
    const left = await changePiecePath(scene.app, scene.people.lead, pieceId, [{ kind: 'leave_out', stepId: other }]);
    if (left.ok) expect(await scene.app.read('select minutes from worked where step_id = $1', [other])).toEqual([{ minutes: 10 }]);
    else expect(left.failure).toMatchObject({ code: expect.stringMatching(/^step\./) as string }); // one that was begun is not left out
  });

  it('of two clocks started at once, one runs; of typed ones at once, none is lost', async () => {
    const first = stepId;
    await mine();
    await Promise.all([start(freelance, first), start(freelance, stepId)]);
    const running = await scene.app.read('select 1 from worked where person_id = $1 and minutes is null', [
      scene.people.freelance.personId,
    ]);
    expect(running).toHaveLength(1);
    await Promise.all([add(freelance, 10, first), add(freelance, 5, first), add(manager, 5, first)]);
    expect((await stepRow(first))?.remaining_minutes).toBeLessThanOrEqual(40);
    expect((await hours(manager, first)).worked.filter(({ minutes }) => minutes !== null && minutes >= 5)).toHaveLength(3);
  });
});

describe('a step that is offered', () => {
  let scene: Scene;
  let [manager, freelance]: Caller[] = [];
  let [pieceId, stepId] = ['', ''];
  beforeAll(async () => {
    scene = await makeScene();
    [manager, freelance] = [await callerAs(scene, 'manager'), await callerAs(scene, 'freelance')];
    pieceId = await makePiece(scene, scene.a);
    stepId = await stepOf(scene, pieceId, 'write');
  });
  afterAll(() => scene.close());

  const give = async (personId: string) => getValue(await assignStep(scene.app, scene.people.lead, stepId, personId));
  const isOffered = async () => {
    const { rows } = (await freelance?.call('GET', '/api/steps/mine'))?.body as unknown as MyStepsShape;
    const { body } = (await manager?.call('GET', `/api/pieces/${pieceId}`)) ?? { body: {} };
    const steps = Reflect.get(body, 'steps') as { id: string; isOffered: boolean }[]; // PieceShape
    return [rows.find((row) => row.stepId === stepId)?.isOffered, steps.find(({ id }) => id === stepId)?.isOffered];
  };
  const turnDown = (words: string, id = stepId) => freelance?.call('POST', `/api/steps/${id}/turn-down`, { body: { words } });

  it('is taken on by who works freelance; who is on the staff is not asked', async () => {
    await give(scene.people.staff.personId);
    expect(await isOffered()).toEqual([undefined, false]);
    await give(scene.people.freelance.personId);
    expect(await isOffered()).toEqual([true, true]);
    expect((await freelance?.call('POST', `/api/steps/${stepId}/accept`))?.status).toBe(204);
    expect(await isOffered()).toEqual([false, false]);
    await give(scene.people.staff.personId);
    await give(scene.people.freelance.personId);
    expect(await isOffered()).toEqual([true, true]); // given anew, it is asked anew
  });

  it('is turned down with a word why: it is nobody’s again, and who manages hears', async () => {
    await scene.app.read('delete from notices');
    expect((await turnDown(' '))?.body['code']).toBe('http.invalid');
    expect((await turnDown('Away that week'))?.status).toBe(204);
    const [step] = await scene.app.read('select doer_id from steps where id = $1', [stepId]);
    expect(step).toEqual({ doer_id: null });
    const heard = await scene.app.read<{ text: string }>('select distinct text from notices');
    expect(heard.map(({ text }) => text)).toContain(`${scene.people.freelance.name} cannot do “Write” of “A piece”: Away that week`);
    expect((await turnDown('Again'))?.status).toBe(404); // it is theirs no more
  });

  it('is not turned down once it was begun, nor by anybody else', async () => {
    await give(scene.people.freelance.personId);
    const other = await manager?.call('POST', `/api/steps/${stepId}/turn-down`, { body: { words: 'No' } });
    expect(other?.body['code']).toBe('step.other_doer');
    expect((await manager?.call('POST', `/api/steps/${stepId}/accept`))?.body['code']).toBe('step.other_doer');
    await freelance?.call('POST', `/api/steps/${stepId}/begin`);
    expect(await isOffered()).toEqual([false, false]);
    expect((await turnDown('Too late'))?.body['code']).toBe('step.begun_already');
  });
});
