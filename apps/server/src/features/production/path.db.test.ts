import { getValue } from '@zesting/core';
import { callerAs, makePiece, makeScene, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { computeStates, loadOpenSteps, predict, storedPiece, storedSteps } from '../planning/index.js';
import { assignStep, beginStep, editContent, handIn } from './index.js';

interface PathStepRow {
  id: string;
  key: string;
  title: string;
  version: number;
  pinnedFinishOn: string | null;
  latestFinishOn: string | null;
  conflict: string | null;
  predecessorIds: string[];
}

describe('the path of one piece', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    await scene.app.read(`update people set skills = '{"write":2,"design":2,"check":2}'`);
  });
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read('update pieces set shelved = true, list = null');
    await scene.app.read(
      "update routes set steps = (select jsonb_agg(case when e ->> 'key' = 'design' then e || '{\"optional\":true}' else e end) from jsonb_array_elements(steps) e)",
    );
  });
  afterAll(() => scene.close());

  const whole = async (pieceId: string) => {
    const { body } = await manager.call('GET', `/api/pieces/${pieceId}`);
    return body as unknown as {
      steps: PathStepRow[];
      leftOut: { key: string }[];
      activity: { verb: string; detail: object }[];
      danger: string | null;
    };
  };
  const change = (pieceId: string, ...changes: object[]) => manager.call('POST', `/api/pieces/${pieceId}/path`, { body: { changes } });
  const preview = (pieceId: string, ...changes: object[]) =>
    manager.call('POST', `/api/pieces/${pieceId}/path/preview`, { body: { changes } });
  const proof = { kind: 'add', title: 'Proof', does: 'check', skill: 'check', spanDays: 1, effortMinutes: 30 };
  const titles = async (pieceId: string) => (await whole(pieceId)).steps.map(({ title }) => title);

  it('is changed together or not at all, planned anew, and remembered', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const [write, design, check] = [
      await stepOf(scene, pieceId, 'write'),
      await stepOf(scene, pieceId, 'design'),
      await stepOf(scene, pieceId, 'check'),
    ];
    const refused = await change(pieceId, { kind: 'leave_out', stepId: design }, { kind: 'leave_out', stepId: write });
    expect([refused.status, refused.body['code']]).toEqual([409, 'step.not_optional']);
    expect(await titles(pieceId)).toEqual(['Write', 'Design', 'Check', 'Client sign-off']);

    const done = await change(
      pieceId,
      { kind: 'leave_out', stepId: design },
      { ...proof, place: 'after', stepId: check },
      { kind: 'retime', stepId: write, spanDays: 3, effortMinutes: 90 },
      { kind: 'pin', stepId: check, finishOn: '2027-03-12' },
    );
    expect(done.status).toBe(204);
    const after = await whole(pieceId);
    expect(after.steps.map(({ title, latestFinishOn }) => [title, latestFinishOn])).toEqual([
      // by hand: the aim is Tuesday 30 March, Easter is off; the check is pinned, three days of writing end the day before it
      ['Write', '2027-03-11'],
      ['Check', '2027-03-12'],
      ['Proof', '2027-03-23'],
      ['Client sign-off', '2027-03-25'],
    ]);
    expect(after.leftOut).toEqual([{ key: 'design', title: 'Design' }]);
    expect(after.activity.slice(0, 4).map(({ verb }) => verb)).toEqual(['step.pinned', 'step.retimed', 'step.added', 'step.left_out']);
    const [stored] = await scene.app.read<{ duration: number }>(
      'select latest_finish_on - latest_start_on as duration from steps where id = $1',
      [write],
    );
    expect(stored?.duration).toBe(2);
  });

  it('gets back what was left out, between what it stood', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const links = async () => {
      const { steps } = await whole(pieceId);
      const titleOf = new Map(steps.map(({ id, title }) => [id, title]));
      return steps.map(({ title, predecessorIds }) => `${title} < ${predecessorIds.map((id) => titleOf.get(id)).join()}`);
    };
    const before = await links();
    expect((await change(pieceId, { kind: 'leave_out', stepId: await stepOf(scene, pieceId, 'design') })).status).toBe(204);
    expect(await links()).toEqual(['Write < ', 'Check < Write', 'Client sign-off < Check']);
    expect((await change(pieceId, { kind: 'bring_back', key: 'design' })).status).toBe(204);
    expect(await links()).toEqual(before);
    expect((await change(pieceId, { kind: 'bring_back', key: 'design' })).body['code']).toBe('step.not_on_path');
  });

  it.each<[string, object, string]>([
    ['a pin on a day off', { kind: 'pin', finishOn: '2027-03-13' }, 'step.pin_on_day_off'],
    ['a pin in the past', { kind: 'pin', finishOn: '2027-02-26' }, 'step.pin_in_past'],
    ['a skill that is on no list', { ...proof, place: 'after', skill: 'juggling' }, 'skill.unknown'],
    ['a change without what it needs', { kind: 'retime', spanDays: 2 }, 'http.invalid'],
    ['no kind of change', { kind: 'burn' }, 'http.invalid'],
    ['a step that somebody changed meanwhile', { kind: 'pin', finishOn: null, version: 7 }, 'http.changed_meanwhile'],
    ['a person who is not there', { kind: 'give', personId: '00000000-0000-4000-8000-000000000000' }, 'person.unknown'],
  ])('refuses %s, in the preview too', async (_name, what, code) => {
    const pieceId = await makePiece(scene, scene.a);
    const step = { stepId: await stepOf(scene, pieceId, 'write') };
    for (const ask of [preview, change]) expect((await ask(pieceId, { ...step, ...what })).body['code']).toBe(code);
  });

  it('refuses a pin together with a person who is not there', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const stepId = await stepOf(scene, pieceId, 'write');
    const both = [
      { kind: 'pin', stepId, finishOn: '2027-03-10' },
      { kind: 'give', stepId, personId: '00000000-0000-4000-8000-000000000000' },
    ];
    for (const ask of [preview, change]) expect((await ask(pieceId, ...both)).body['code']).toBe('person.unknown');
  });

  it('refuses the step of another piece', async () => {
    const [pieceId, other] = [await makePiece(scene, scene.a), await makePiece(scene, scene.a)];
    const stepId = await stepOf(scene, other, 'design');
    for (const ask of [preview, change]) {
      expect((await ask(pieceId, { kind: 'leave_out', stepId })).body['code']).toBe('step.not_on_path');
      expect((await ask(pieceId, { kind: 'give', stepId, personId: scene.people.staff.personId })).body['code']).toBe('step.not_on_path');
    }
  });

  it('tells before what comes true after', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const [write, design] = [await stepOf(scene, pieceId, 'write'), await stepOf(scene, pieceId, 'design')];
    const changes = [
      { kind: 'retime', stepId: write, spanDays: 4, effortMinutes: 240 },
      { kind: 'split', stepId: design, title: 'Second picture', place: 'beside', spanDays: 1, effortMinutes: 60 },
      { kind: 'give', stepId: write, personId: scene.people.staff.personId },
    ];
    const facts = ({ id, version, latestFinishOn }: PathStepRow) => [id, version, latestFinishOn];
    const before = await whole(pieceId);
    const { body } = await preview(pieceId, ...changes);
    expect((await whole(pieceId)).steps.map(facts)).toEqual(before.steps.map(facts)); // looking changes nothing
    const told = (body['steps'] as { title: string; doerName: string | null; after: { latestFinishOn: string } | null }[]).map(
      ({ title, after }) => [title, after?.latestFinishOn],
    );
    expect(told.map(([title]) => title)).toEqual(
      ['Write', 'Design', 'Second picture', 'Check', 'Client sign-off'].filter((title) => told.some(([one]) => one === title)),
    );
    expect(told.map(([title]) => title)).toEqual(expect.arrayContaining(['Write', 'Second picture']));
    expect((await change(pieceId, ...changes)).status).toBe(204);
    const after = new Map((await whole(pieceId)).steps.map(({ title, latestFinishOn }) => [title, latestFinishOn]));
    for (const [title, on] of told) expect([title, after.get(title ?? '')]).toEqual([title, on]);
  });

  it('lets two who change it at once both come through, and neither overwrite the other', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const check = await stepOf(scene, pieceId, 'check');
    const both = await Promise.all([
      change(pieceId, { ...proof, title: 'Proof one', place: 'after', stepId: check }),
      change(pieceId, { ...proof, title: 'Proof two', place: 'after', stepId: check }),
    ]);
    expect(both.map(({ status }) => status)).toEqual([204, 204]);
    expect((await titles(pieceId)).sort()).toEqual(['Check', 'Client sign-off', 'Design', 'Proof one', 'Proof two', 'Write']);
    const pins = await Promise.all(
      ['2027-03-10', '2027-03-11'].map((finishOn) => change(pieceId, { kind: 'pin', stepId: check, finishOn, version: 1 })),
    );
    expect(pins.map(({ status }) => status).sort()).toEqual([204, 412]);
    // one hands in while the other leaves out: never both
    const write = await stepOf(scene, pieceId, 'write');
    getValue(
      await editContent(
        scene.app,
        scene.people.manager,
        pieceId,
        { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] },
        1,
      ),
    );
    getValue(await handIn(scene.app, scene.people.manager, write));
    const design = await stepOf(scene, pieceId, 'design');
    const [begun, left] = await Promise.all([
      beginStep(scene.app, scene.people.manager, design).then(
        ({ ok }) => ok,
        () => false,
      ),
      change(pieceId, { kind: 'leave_out', stepId: design }),
    ]);
    expect([begun, left.status === 204].filter(Boolean)).toHaveLength(1);
  });

  it('tells whoever can start now, and whoever need not any more', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a);
    const [write, design, check] = [
      await stepOf(scene, pieceId, 'write'),
      await stepOf(scene, pieceId, 'design'),
      await stepOf(scene, pieceId, 'check'),
    ];
    getValue(await assignStep(app, people.manager, design, people.freelance.personId));
    getValue(await assignStep(app, people.manager, check, people.staff.personId));
    getValue(await editContent(app, people.manager, pieceId, { shared: { copy: 'Words', disclosure: '', media: [] }, channels: [] }, 1));
    getValue(await handIn(app, people.manager, write));
    expect((await change(pieceId, { kind: 'leave_out', stepId: design })).status).toBe(204);
    const notices = await app.read<{ name: string; heading: string }>(
      'select p.name, n.heading from notices n join people p on p.id = n.person_id where n.path = $1 order by p.name, n.heading',
      [`/pieces/${pieceId}`],
    );
    expect(notices).toEqual(
      expect.arrayContaining([
        { name: 'Fay', heading: 'Left out: Design, A piece' },
        { name: 'Sia', heading: 'Check: A piece' },
      ]),
    );
    expect(notices.filter(({ heading }) => heading.startsWith('Design:'))).toEqual([]);
    const told = async () =>
      (
        await app.read<{ heading: string }>("select heading from notices where path = $1 and heading like 'Wanted by%'", [
          `/pieces/${pieceId}`,
        ])
      ).map(({ heading }) => heading);
    expect((await change(pieceId, { kind: 'pin', stepId: check, finishOn: '2027-03-12' })).status).toBe(204);
    expect(await told()).toEqual([expect.stringMatching(/^Wanted by .*12 March.*: Check, A piece$/)]);
    expect((await change(pieceId, { kind: 'pin', stepId: check, finishOn: null })).status).toBe(204);
    expect(await told()).toEqual([]);
  });

  it('stays as the full recompute finds it, after any changes', async () => {
    const { app } = scene;
    const pieceId = await makePiece(scene, scene.a);
    const steps = ['write', 'design', 'check'];
    for (let round = 0; round < 12; round++) {
      const path = (await whole(pieceId)).steps;
      const at = path[(round * 7) % path.length];
      const kinds = [
        { ...proof, title: `Proof ${round}`, place: 'before' },
        { kind: 'retime', spanDays: 1 + (round % 3), effortMinutes: 30 * round },
        { kind: 'pin', finishOn: round % 2 === 0 ? '2027-03-15' : null },
        { kind: 'leave_out' },
        { kind: 'give', personId: round % 2 === 0 ? scene.people.staff.personId : null },
        { kind: 'split', title: `Rest ${round}`, place: 'beside', spanDays: 1, effortMinutes: 0 },
      ];
      await change(pieceId, { stepId: at?.id, ...kinds[round % kinds.length] });
      const [state] = await computeStates(app.manager, [pieceId], app.clock.now());
      if (!state) throw new Error('no state');
      const stored = await app.read(
        'select id, latest_start_on, latest_finish_on, earliest_start_on, earliest_finish_on, slack_days, danger from steps where piece_id = $1 order by id',
        [pieceId],
      );
      expect(stored).toEqual([...storedSteps(state)].sort((a, b) => (a.id < b.id ? -1 : 1)));
      const [piece] = await app.read('select danger, slack_days, late_from_on, earliest_publish_on from pieces where id = $1', [pieceId]);
      const { danger, slack_days, late_from_on, earliest_publish_on } = storedPiece(state);
      expect(piece).toEqual({ danger, slack_days, late_from_on, earliest_publish_on });
    }
    expect(steps.length).toBeLessThan((await whole(pieceId)).steps.length);
  });
});

describe('what helps a late piece', () => {
  let scene: Scene;
  let manager: Caller;
  beforeAll(async () => {
    scene = await makeScene();
    manager = await callerAs(scene, 'manager');
    await scene.app.read(`update people set skills = '{"write":2,"design":2,"check":2}'`);
    // days of one hour, so that hours decide
    await scene.app.read('update people set weekly_minutes = array[60,60,60,60,60,0,0]');
  });
  afterAll(() => scene.close());

  const helpsOf = async (pieceId: string) => {
    const { status, body } = await manager.call('GET', `/api/pieces/${pieceId}/path/helps`);
    expect(status).toBe(200);
    return body as unknown as {
      lateDays: number;
      laterOn: string | null;
      tried: number;
      possible: number;
      helps: { changes: Record<string, unknown>[]; lateDays: number; others: { title: string; nowDays: number }[]; othersHidden: number }[];
    };
  };
  const predicted = () => scene.app.write(async (tx, now) => ({ ok: true as const, value: await predict(tx, now) }));

  it('is told with what it does to others, and mends once it is taken', async () => {
    const { app, people } = scene;
    const [first, late] = [await makePiece(scene, scene.a, '2027-03-12'), await makePiece(scene, scene.a, '2027-03-15')];
    for (const pieceId of [first, late]) {
      await app.read("update steps set effort_minutes = 180 where piece_id = $1 and kind = 'make'", [pieceId]);
      for (const key of ['write', 'design'])
        getValue(await assignStep(app, people.manager, await stepOf(scene, pieceId, key), people.freelance.personId));
    }
    getValue(await predicted());
    const told = await helpsOf(late);
    expect(told.lateDays).toBeGreaterThan(0);
    expect([told.tried, told.tried > 0]).toEqual([told.possible, true]);
    const [best] = told.helps;
    if (!best) throw new Error('nothing helps');
    expect(best.changes[0]).toMatchObject({ kind: 'give' });
    const take = () => {
      const changes = best.changes.map(({ kind, stepId, version, personId, finishOn }) => ({ kind, stepId, version, personId, finishOn }));
      return manager.call('POST', `/api/pieces/${late}/path`, { body: { changes } });
    };
    expect((await take()).status).toBe(204);
    getValue(await predicted());
    expect((await helpsOf(late)).lateDays).toBe(best.lateDays);
    // the same words a second time: somebody changed the step since
    expect((await take()).body['code']).toBe('http.changed_meanwhile');
  });

  it('says what it would be if nothing stood in the way any more; that it is gone is said by somebody who knows', async () => {
    const { app } = scene;
    await app.read('update pieces set shelved = true, list = null');
    const pieceId = await makePiece(scene, scene.a, '2027-03-12');
    const stands = {
      words: 'No flour yet',
      whose: 'outside',
      stepId: await stepOf(scene, pieceId, 'write'),
      personId: null,
      untilOn: '2027-03-10',
    };
    expect((await manager.call('POST', `/api/pieces/${pieceId}/obstacles`, { body: stands })).status).toBe(201);
    getValue(await predicted());
    const told = await helpsOf(pieceId);
    expect(told.helps[0]).toMatchObject({ changes: [{ kind: 'free', stepTitle: 'Write' }], lateDays: 0 });
    const free = { kind: 'free', stepId: stands.stepId };
    expect((await manager.call('POST', `/api/pieces/${pieceId}/path`, { body: { changes: [free] } })).status).toBe(400);
    const [obstacle] = await app.read<{ id: string }>('select id from obstacles where piece_id = $1', [pieceId]);
    await manager.call('POST', `/api/obstacles/${obstacle?.id}/settle`, { body: {} });
    getValue(await predicted());
    expect((await helpsOf(pieceId)).lateDays).toBe(0);
  });

  it('names no piece of a client that the manager does not see', async () => {
    const { app, people } = scene;
    await app.read('update pieces set shelved = true, list = null');
    const [mine, theirs] = [await makePiece(scene, scene.a, '2027-03-09'), await makePiece(scene, scene.b, '2027-03-09')];
    for (const pieceId of [mine, theirs]) {
      await app.read("update steps set effort_minutes = 120 where piece_id = $1 and key = 'write'", [pieceId]);
      getValue(await assignStep(app, people.lead, await stepOf(scene, pieceId, 'write'), people.freelance.personId));
    }
    getValue(await predicted());
    const open = await loadOpenSteps(app.manager);
    expect(open.some((row) => row.piece_id === theirs)).toBe(true);
    const step = await stepOf(scene, mine, 'write');
    const { body } = await manager.call('POST', `/api/pieces/${mine}/path/preview`, {
      body: {
        changes: [
          { kind: 'retime', stepId: step, spanDays: 1, effortMinutes: 1200 },
          { kind: 'pin', stepId: step, finishOn: '2027-03-01' },
        ],
      },
    });
    expect(body).toMatchObject({ others: [], othersHidden: 1 });
    expect(JSON.stringify(body)).not.toContain(theirs);
    const seen = await callerAs(scene, 'lead');
    const asLead = await seen.call('POST', `/api/pieces/${mine}/path/preview`, {
      body: {
        changes: [
          { kind: 'retime', stepId: step, spanDays: 1, effortMinutes: 1200 },
          { kind: 'pin', stepId: step, finishOn: '2027-03-01' },
        ],
      },
    });
    expect(asLead.body).toMatchObject({ others: [expect.objectContaining({ pieceId: theirs })], othersHidden: 0 });
  });

  it('says so where somebody on the path never works, and does not call the piece in time', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a, '2027-03-09');
    getValue(await assignStep(app, people.lead, await stepOf(scene, pieceId, 'write'), people.staff.personId));
    expect(await helpsOf(pieceId)).toMatchObject({ isPlanned: true });
    await app.read('update people set weekly_minutes = array[0,0,0,0,0,0,0] where id = $1', [people.staff.personId]);
    expect(await helpsOf(pieceId)).toMatchObject({ isPlanned: false, helps: [] });
    await app.read('update people set weekly_minutes = array[60,60,60,60,60,0,0] where id = $1', [people.staff.personId]);
  });

  it('goes by what finished steps of the kind took', async () => {
    const { app, people } = scene;
    await app.read('update pieces set shelved = true, list = null');
    for (let count = 0; count < 5; count++) {
      const pieceId = await makePiece(scene, scene.a, null);
      await app.read(
        "update steps set doer_id = $2, started_on = '2027-02-15', finished_on = '2027-02-15' where piece_id = $1 and key = 'design'",
        [pieceId, people.freelance.personId],
      );
    }
    await app.read('update pieces set shelved = true, list = null');
    const pieceId = await makePiece(scene, scene.a, '2027-03-08');
    await app.read('update steps set effort_minutes = 0 where piece_id = $1', [pieceId]);
    const told = await helpsOf(pieceId);
    expect(told.helps.flatMap(({ changes }) => changes)).toContainEqual(
      expect.objectContaining({ kind: 'retime', stepTitle: 'Design', wasDays: 2, spanDays: 1, kept: 5, keptOf: 5 }),
    );
  });
});
