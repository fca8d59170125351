import { getValue, ok } from '@zesting/core';
import type { CandidateShape, DelaysShape } from '@zesting/contract';
import { eventually } from '../../../test-support/eventually.js';
import { callerAs, makePiece, makeScene, stepOf, type Scene } from '../../../test-support/scene.js';
import { seeded } from '../../../test-support/seeded.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { comeBack, leave } from '../people/index.js';
import { assignStep, beginStep, editContent, editPiece, handBack, handIn, sayRemaining } from '../production/index.js';
import { predictApart } from './predict.js';
import { loadCalendars } from './calendars.js';
import { reachOfWanted, reckonPrediction } from './reckon-prediction.js';
import { predict, replanOpen } from './index.js';

const HOURS = 60;

describe('the prediction of load', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
    await scene.server.get(Jobs).beforeApplicationShutdown(); // predictions are asked for here, not by jobs that come in between
  });
  afterAll(() => scene.close());

  /** Closes what the test before left open, so that nobody has anything to do. */
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read("update pieces set shelved = true, list = null, stage = 'shelved'");
    await changeBeside();
  });

  /** What these tests change beside the use cases is made known as the clock makes known that a day has begun. */
  const changeBeside = () => scene.app.read('insert into predictions_wanted default values');
  const write = (pieceId: string) => stepOf(scene, pieceId, 'write');
  const give = async (pieceId: string, to: 'staff' | 'freelance', left?: number): Promise<string> => {
    const stepId = await write(pieceId);
    getValue(await assignStep(scene.app, scene.people.manager, stepId, scene.people[to].personId));
    if (left !== undefined) getValue(await sayRemaining(scene.app, scene.people[to], stepId, left));
    return stepId;
  };
  const predictAll = async () => getValue(await scene.app.write(async (tx, now) => ok(await predict(tx, now))));
  const stateOf = async (pieceId: string) =>
    (
      await scene.app.read<Record<string, unknown>>(
        `select p.list, p.danger, s.predicted_start_on as start, s.predicted_finish_on as finish, s.behind_steps as behind
         from pieces p join steps s on s.piece_id = p.id and s.key = 'write' where p.id = $1`,
        [pieceId],
      )
    )[0];

  it('calls a piece late whose maker has work due earlier that takes too long, and fine again once somebody else takes that', async () => {
    const first = await makePiece(scene, scene.a, '2027-03-11'); // write by Wed 3
    const second = await makePiece(scene, scene.a, '2027-03-12'); // write by Thu 4
    const big = await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    await predictAll();
    expect(await stateOf(first)).toEqual({
      list: 'will_be_late',
      danger: 'will_be_late',
      start: '2027-03-01',
      finish: '2027-03-04',
      behind: 0,
    });
    expect(await stateOf(second)).toEqual({
      list: 'will_be_late',
      danger: 'will_be_late',
      start: '2027-03-05',
      finish: '2027-03-05',
      behind: 1,
    });
    getValue(await assignStep(scene.app, scene.people.manager, big, scene.people.freelance.personId));
    await predictAll();
    expect(await stateOf(second)).toEqual({ list: 'on_course', danger: 'fine', start: '2027-03-01', finish: '2027-03-01', behind: 0 });
  });

  it('says on the desk which step, whose, when, and behind how many', async () => {
    const first = await makePiece(scene, scene.a, '2027-03-11');
    const second = await makePiece(scene, scene.a, '2027-03-12');
    await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    await predictAll();
    const { body } = await (await callerAs(scene, 'manager')).call('GET', '/api/desk');
    const rows = body['rows'] as { id: string; late: unknown }[];
    expect(rows.find((row) => row.id === second)?.late).toEqual({
      step: 'Write',
      doer: scene.people.staff.name,
      latestFinishOn: '2027-03-04',
      predictedFinishOn: '2027-03-05',
      behindSteps: 1,
    });
  });

  it('goes by half days, time off and the cut-off of whoever does the work', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    await give(pieceId, 'staff', 16 * HOURS);
    await predictAll();
    expect((await stateOf(pieceId))?.['finish']).toBe('2027-03-02');
    await scene.app.read(
      "insert into time_off (person_id, start_on, end_on, part) values ($1, '2027-03-01', '2027-03-01', 0.5), ($1, '2027-03-02', '2027-03-02', 1)",
      [scene.people.staff.personId],
    );
    await changeBeside();
    await predictAll();
    expect((await stateOf(pieceId))?.['finish']).toBe('2027-03-04');
    scene.app.clock.set('2027-03-01T13:00:00Z');
    await changeBeside();
    await predictAll();
    expect((await stateOf(pieceId))?.['finish']).toBe('2027-03-04'); // 8 h on Wednesday, 8 on Thursday
    await scene.app.read('delete from time_off where person_id = $1', [scene.people.staff.personId]);
    await changeBeside();
    await predictAll();
    expect((await stateOf(pieceId))?.['finish']).toBe('2027-03-03');
  });

  it('forgets what is finished, shelved or out, and plans a step anew that is handed back', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    const stepId = await give(pieceId, 'staff', 5 * HOURS);
    const content = { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] };
    getValue(await editContent(app, people.staff, pieceId, content, 1));
    getValue(await beginStep(app, people.staff, stepId));
    getValue(await handIn(app, people.staff, stepId));
    await predictAll();
    expect(await stateOf(pieceId)).toMatchObject({ start: null, finish: null });
    getValue(await handIn(app, people.manager, await stepOf(scene, pieceId, 'design')));
    getValue(await handBack(app, people.manager, await stepOf(scene, pieceId, 'check'), 'Again'));
    await predictAll();
    const [design] = await app.read<{ remaining_minutes: number | null; predicted_finish_on: string | null }>(
      "select remaining_minutes, predicted_finish_on from steps where piece_id = $1 and key = 'design'",
      [pieceId],
    );
    expect(design).toEqual({ remaining_minutes: null, predicted_finish_on: '2027-03-02' });
    const [row] = await app.read<{ version: number }>('select version from pieces where id = $1', [pieceId]);
    getValue(await editPiece(app, people.manager, pieceId, { shelved: true }, row?.version ?? 0));
    await predictAll();
    const left = await app.read('select 1 from steps where piece_id = $1 and predicted_start_on is not null', [pieceId]);
    expect(left).toEqual([]);
  });

  it('keeps from creators how much others have to do, and shows them their own', async () => {
    const first = await makePiece(scene, scene.a, '2027-03-11');
    const second = await makePiece(scene, scene.a, '2027-03-12');
    await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    getValue(await assignStep(scene.app, scene.people.manager, await stepOf(scene, second, 'design'), scene.people.freelance.personId));
    await predictAll();
    const seenBy = async (role: 'manager' | 'staff' | 'freelance') => {
      const { body } = await (await callerAs(scene, role)).call('GET', `/api/pieces/${second}`);
      const [step] = body['steps'] as { predictedFinishOn: string; behindSteps: number }[];
      return [step?.predictedFinishOn, step?.behindSteps];
    };
    expect(await seenBy('manager')).toEqual(['2027-03-05', 1]);
    expect(await seenBy('staff')).toEqual(['2027-03-05', 1]);
    expect(await seenBy('freelance')).toEqual(['2027-03-05', 0]);
  });

  it('plans the work of one who leaves as nobody’s, and of one whose piece is shelved not at all', async () => {
    const { app, people } = scene;
    const first = await makePiece(scene, scene.a, '2027-03-11');
    const second = await makePiece(scene, scene.a, '2027-03-12');
    await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    await predictAll();
    expect(await stateOf(second)).toMatchObject({ finish: '2027-03-05', behind: 1 });
    getValue(await leave(app, people.lead, people.staff.personId));
    await predictAll();
    // nobody’s steps are not in each other’s way; the large one still takes its days
    expect([(await stateOf(first))?.['finish'], (await stateOf(second))?.['finish']]).toEqual(['2027-03-04', '2027-03-01']);
    getValue(await comeBack(app, people.lead, people.staff.personId));
    const [row] = await app.read<{ version: number }>('select version from pieces where id = $1', [first]);
    getValue(await editPiece(app, people.manager, first, { shelved: true }, row?.version ?? 0));
    await predictAll();
    expect(await stateOf(second)).toMatchObject({ finish: '2027-03-01', behind: 0, danger: 'fine' });
  });

  it('says of each candidate when the step would end, by all that they have', async () => {
    const busy = await makePiece(scene, scene.a, '2027-03-11');
    const pieceId = await makePiece(scene, scene.a, '2027-03-12');
    await give(busy, 'staff', 32 * HOURS);
    const { body } = await (await callerAs(scene, 'manager')).call('GET', `/api/steps/${await write(pieceId)}/candidates`);
    const found = (body as unknown as { personId: string; predictedFinishOn: string; latestFinishOn: string }[]).map((person) => [
      person.personId,
      person.predictedFinishOn,
      person.latestFinishOn,
    ]); // CandidateShape
    expect(found).toContainEqual([scene.people.staff.personId, '2027-03-05', '2027-03-04']);
    expect(found).toContainEqual([scene.people.freelance.personId, '2027-03-01', '2027-03-04']);
  });

  it('says of each candidate what else would become late, by name of the own clients alone, and to leads what the hours cost', async () => {
    const { staff, freelance } = scene.people;
    const own = await makePiece(scene, scene.a, '2027-03-11');
    const foreign = await makePiece(scene, scene.b, '2027-03-11');
    const pieceId = await makePiece(scene, scene.a, '2027-03-09');
    // two full days and one: both are due just when they end, so an hour in front of them makes them late
    await give(own, 'staff', 16 * HOURS);
    await give(foreign, 'staff', 8 * HOURS);
    await predictAll();
    await scene.app.read('update steps set latest_finish_on = predicted_finish_on where doer_id = $1 and finished_on is null', [
      staff.personId,
    ]);
    await scene.app.read(
      `insert into rates (person_id, agreed, set_by, set_at, version) values ($1, '[{"fromOn":"2027-01-01","amount":3000}]', 'Lea', now(), 1)`,
      [freelance.personId],
    );
    const [title] = await scene.app.read<{ title: string }>('select title from pieces where id = $1', [own]);
    const asked = async (caller: 'manager' | 'lead') => {
      const { body } = await (await callerAs(scene, caller)).call('GET', `/api/steps/${await write(pieceId)}/candidates`);
      const people = body as unknown as CandidateShape[];
      const { body: late } = await (await callerAs(scene, caller)).call('GET', `/api/steps/${await write(pieceId)}/delays`);
      const delays = late as unknown as DelaysShape[];
      return (personId: string) => {
        const { count, titles } = delays.find((one) => one.personId === personId) ?? {};
        return { count, titles, cost: people.find((person) => person.personId === personId)?.cost };
      };
    };
    const found = await asked('manager');
    expect(found(staff.personId)).toMatchObject({ count: 2, titles: [title?.title] });
    expect(found(freelance.personId)).toEqual({ count: 0, titles: [], cost: null });
    expect((await asked('lead'))(freelance.personId).cost).toEqual({ amount: 3000, currency: 'EUR' });
    await scene.app.read('delete from rates');
  });

  it('takes the doer’s word for what is left, in whole minutes, of their own steps only', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-04-20');
    const stepId = await give(pieceId, 'staff');
    const staff = await callerAs(scene, 'staff');
    const say = async (minutes: unknown, caller = staff) =>
      (await caller.call('PUT', `/api/steps/${stepId}/remaining`, { body: { minutes } })).status;
    expect([await say(90), await say(0), await say(null)]).toEqual([204, 204, 204]);
    expect([await say(-1), await say(1.5), await say('much'), await say(undefined)]).toEqual([400, 400, 400, 400]);
    expect(await say(30, await callerAs(scene, 'freelance'))).toBe(404);
    expect(
      (await scene.app.read<{ left: number | null }>('select remaining_minutes as left from steps where id = $1', [stepId]))[0]?.left,
    ).toBeNull();
    const activity = await scene.app.read<{ detail: unknown }>(
      "select detail from activities where thing_id = $1 and verb = 'step.remaining_said' order by id",
      [pieceId],
    );
    expect(activity.map((line) => line.detail)).toEqual([
      { step: 'Write', from: '60', to: '90' },
      { step: 'Write', from: '90', to: '0' },
      { step: 'Write', from: '0', to: '60' },
    ]);
    const refused = await sayRemaining(scene.app, scene.people.staff, await stepOf(scene, pieceId, 'design'), 30);
    expect(refused).toEqual({ ok: false, failure: { code: 'step.not_available' } });
  });

  it('comes to the same in a thread of its own, and writes nothing where nothing differs', async () => {
    const [first, second] = [await makePiece(scene, scene.a, '2027-03-11'), await makePiece(scene, scene.a, '2027-03-12')];
    await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    expect(await predictApart(scene.app)).toBeGreaterThanOrEqual(2);
    expect(await stateOf(second)).toMatchObject({ danger: 'will_be_late', finish: '2027-03-05', behind: 1 });
    expect(await predictApart(scene.app)).toBe(0);
  });

  it('looks at what a change can reach: over the steps of a piece to its people, and from whom a step was taken', async () => {
    const { app, people } = scene;
    const [mine, linked, apart] = [
      await makePiece(scene, scene.a, '2027-03-11'),
      await makePiece(scene, scene.a, '2027-03-12'),
      await makePiece(scene, scene.a, '2027-03-12'),
    ];
    // pieces enough that a part is less than the whole
    for (let more = 0; more < 6; more++) await makePiece(scene, scene.a, '2027-04-20');
    const big = await give(mine, 'staff', 32 * HOURS);
    await give(linked, 'staff');
    await give(apart, 'freelance');
    await predictAll();
    const reach = async () => {
      const { pieceIds } = await reachOfWanted(app.manager);
      return pieceIds && new Set(pieceIds);
    };
    expect(await reach()).toEqual(new Set());
    getValue(await sayRemaining(app, people.staff, big, 16 * HOURS));
    expect(await reach()).toEqual(new Set([mine, linked]));
    await predictAll();
    getValue(await assignStep(app, people.manager, big, null));
    expect(await reach()).toEqual(new Set([mine, linked])); // by whom it was taken from
    await predictAll();
    expect(await stateOf(linked)).toMatchObject({ finish: '2027-03-01', behind: 0 });
    getValue(await assignStep(app, people.manager, big, people.staff.personId));
    await predictAll();
    const shared = { copy: 'Words', disclosure: '', media: [] };
    getValue(await editContent(app, people.staff, linked, { shared, channels: [] }, 1));
    await predictAll();
    getValue(await handIn(app, people.staff, await write(linked)));
    expect(await reach()).toEqual(new Set([mine, linked])); // by whose hours were taken until now
    await predictAll();
    getValue(await assignStep(app, people.manager, big, people.freelance.personId));
    expect(await reach()).toEqual(new Set([mine, apart]));
    await predictAll();
    const [row] = await app.read<{ version: number }>('select version from pieces where id = $1', [mine]);
    getValue(await editPiece(app, people.manager, mine, { shelved: true }, row?.version ?? 0));
    expect(await reach()).toEqual(new Set([mine, apart]));
    await changeBeside();
    expect(await reach()).toBeNull(); // the whole agency
    await predictAll();
    expect(await app.read('select 1 from predictions_wanted')).toEqual([]);
  });

  it('of what a change can reach is that of the whole, after each of many changes among people who have more to do than hours', async () => {
    const { app, people } = scene;
    const random = seeded(20270302);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T; // none is empty
    const doerOf = (personId: string | null) => Object.values(people).find((person) => person.personId === personId) ?? people.lead;
    const pieces: string[] = [];
    for (let made = 0; made < 12; made++) pieces.push(await makePiece(scene, scene.a, `2027-04-${String(10 + made).padStart(2, '0')}`));
    const shared = { copy: 'Words', disclosure: '', media: [] };
    for (const id of pieces) getValue(await editContent(app, people.lead, id, { shared, channels: [] }, 1));
    await predictAll();
    let changed = 0;
    for (let count = 0; count < 120; count++) {
      const pieceId = pick(pieces);
      const steps = await app.read<{ id: string; kind: string; doer_id: string | null }>(
        'select id, kind, doer_id from steps where piece_id = $1 and finished_on is null order by position limit 3',
        [pieceId],
      );
      const [row] = await app.read<{ version: number; shelved: boolean }>('select version, shelved from pieces where id = $1', [pieceId]);
      const step = pick(steps.filter(({ kind }) => kind !== 'sign_off'));
      const who = pick([null, people.staff, people.staff, people.freelance, people.manager]);
      const choice = random();
      if (step && choice < 0.5) await assignStep(app, people.lead, step.id, who?.personId ?? null);
      else if (steps[0] && choice < 0.8) await sayRemaining(app, people.lead, steps[0].id, pick([1, 10, 30, 60]) * HOURS);
      else if (steps[0] && choice < 0.9) await handIn(app, doerOf(steps[0].doer_id), steps[0].id);
      else await editPiece(app, people.lead, pieceId, { shelved: !row?.shelved }, row?.version ?? 0);
      changed += getValue(await app.write(async (tx, now) => ok(await predict(tx, now, Infinity))));
      const missed = await reckonPrediction(app.manager, await loadCalendars(app.manager, app.clock.now()));
      if (missed.length > 0) throw new Error(`after ${count} changes: ${JSON.stringify(missed)}`);
    }
    expect(changed).toBeGreaterThan(70);
  });

  it('leaves alone what was predicted anew while it was at work', async () => {
    const [first, second] = [await makePiece(scene, scene.a, '2027-03-11'), await makePiece(scene, scene.a, '2027-03-12')];
    const big = await give(first, 'staff', 32 * HOURS);
    await give(second, 'staff');
    let overtaken: Promise<number> | undefined;
    getValue(
      await scene.app.write(async (tx, now) => {
        await tx.query('select 1 from pieces order by id for no key update');
        overtaken = predictApart(scene.app);
        const waits = "select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'";
        await eventually(async () => (await scene.app.read(waits)).length > 0); // it has predicted and wants to store
        await tx.query('update steps set remaining_minutes = 60 where id = $1', [big]);
        return ok(await predict(tx, now));
      }),
    );
    await overtaken;
    expect(await stateOf(second)).toMatchObject({ danger: 'fine', finish: '2027-03-01', behind: 0 });
  });

  it('comes to the same end when two predict at once while somebody assigns', async () => {
    const pieces = [await makePiece(scene, scene.a, '2027-03-11'), await makePiece(scene, scene.a, '2027-03-12')];
    const [first = '', second = ''] = pieces;
    await give(first, 'staff', 32 * HOURS);
    await Promise.all([
      predictAll(),
      give(second, 'staff'),
      predictAll(),
      scene.app.write(async (tx, now) => ok(await replanOpen(tx, now))),
    ]);
    await predictAll();
    expect(await stateOf(second)).toMatchObject({ danger: 'will_be_late', finish: '2027-03-05', behind: 1 });
  });
});

describe('the prediction of load by its job', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  it('follows a change soon after it is committed, and tells by the danger', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-11');
    const stepId = await stepOf(scene, pieceId, 'write');
    const state = async () =>
      (
        await scene.app.read<{ finish: string | null; danger: string }>(
          'select s.predicted_finish_on as finish, p.danger from pieces p join steps s on s.piece_id = p.id where s.id = $1',
          [stepId],
        )
      )[0];
    getValue(await assignStep(scene.app, scene.people.manager, stepId, scene.people.staff.personId));
    await eventually(async () => (await state())?.finish === '2027-03-01');
    getValue(await sayRemaining(scene.app, scene.people.staff, stepId, 40 * HOURS));
    await eventually(async () => (await state())?.danger === 'will_be_late');
  });
});
