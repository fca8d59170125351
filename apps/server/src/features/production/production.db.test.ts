import { getValue, PIECE_ORDERS } from '@zesting/core';
import { callerAs, makePiece, makeScene, stepOf, type Scene } from '../../../test-support/scene.js';
import { assignStep, beginStep, editContent, handBack, handIn } from './index.js';
import { listPieces, type PiecesAsked } from './queries/piece-rows.js';

const body = (copy: string) => ({ shared: { copy, disclosure: '', media: [] }, channels: [] });

describe('production', () => {
  let scene: Scene;
  beforeAll(async () => {
    scene = await makeScene();
  });
  afterAll(() => scene.close());

  it('plans a new piece over real working days: Easter is no day of work in England', async () => {
    const pieceId = await makePiece(scene, scene.a, '2027-03-30'); // Tuesday after Easter Monday
    const steps = await scene.app.read(
      'select key, latest_start_on, latest_finish_on, slack_days from steps where piece_id = $1 order by position',
      [pieceId],
    );
    // Good Friday 26 and Easter Monday 29 March 2027 are public holidays (date-holidays, GB-ENG)
    expect(steps).toEqual([
      { key: 'write', latest_start_on: '2027-03-18', latest_finish_on: '2027-03-18', slack_days: 13 },
      { key: 'design', latest_start_on: '2027-03-19', latest_finish_on: '2027-03-22', slack_days: 13 },
      { key: 'check', latest_start_on: '2027-03-23', latest_finish_on: '2027-03-23', slack_days: 13 },
      { key: 'sign_off', latest_start_on: '2027-03-24', latest_finish_on: '2027-03-25', slack_days: 13 },
    ]);
  });

  it('lets the second of two editors see both states, and loses neither text', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const [one, two] = [await callerAs(scene, 'manager'), await callerAs(scene, 'lead')];
    const put = (caller: typeof one, copy: string, version: number) =>
      caller.call('PUT', `/api/pieces/${pieceId}/content`, { body: body(copy), headers: { 'If-Match': `"${version}"` } });
    const answers = await Promise.all([put(one, 'from one', 1), put(two, 'from two', 1)]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 412]);
    const refused = answers.find((answer) => answer.status === 412);
    const mine = answers[0]?.status === 412 ? 'from one' : 'from two';
    const theirs = mine === 'from one' ? 'from two' : 'from one';
    expect(refused?.body).toMatchObject({
      code: 'http.changed_meanwhile',
      yours: { shared: { copy: mine } },
      theirs: { content: { version: 2, shared: { copy: theirs } } },
    });
    expect((await put(one, 'third', 2)).status).toBe(200);
    expect((await one.call('PUT', `/api/pieces/${pieceId}/content`, { body: body('x') })).body['code']).toBe('http.version_missing');
  });

  it('lets work be done in its order, by its doer, and only with something to show', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a);
    const [write, design] = [await stepOf(scene, pieceId, 'write'), await stepOf(scene, pieceId, 'design')];
    getValue(await assignStep(app, people.manager, write, people.freelance.personId));
    getValue(await assignStep(app, people.manager, design, people.staff.personId));
    expect(await handIn(app, people.staff, design)).toEqual({ ok: false, failure: { code: 'step.not_available' } });
    expect(await handIn(app, people.staff, write)).toEqual({ ok: false, failure: { code: 'step.other_doer' } });
    expect(await handIn(app, people.freelance, write)).toEqual({ ok: false, failure: { code: 'piece.nothing_to_hand_in' } });
    getValue(await beginStep(app, people.freelance, write));
    getValue(await editContent(app, people.freelance, pieceId, body('Words'), 1));
    getValue(await handIn(app, people.freelance, write));
    expect(await handIn(app, people.freelance, write)).toEqual({ ok: false, failure: { code: 'step.already_finished' } });
    expect(await assignStep(app, people.manager, write, people.staff.personId)).toEqual({
      ok: false,
      failure: { code: 'step.already_finished' },
    });
    const versions = await app.read('select number from versions where piece_id = $1', [pieceId]);
    expect(versions).toEqual([{ number: 1 }]);
  });

  it('hands back from a check to the maker, with the remark, and plans anew', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a);
    getValue(await editContent(app, people.manager, pieceId, body('Words'), 1));
    for (const key of ['write', 'design']) getValue(await handIn(app, people.manager, await stepOf(scene, pieceId, key)));
    const check = await stepOf(scene, pieceId, 'check');
    expect(await handBack(app, people.freelance, check, 'x')).toEqual({ ok: false, failure: { code: 'step.other_doer' } });
    getValue(await handBack(app, people.manager, check, 'Warmer, please'));
    const [design] = await app.read('select finished_on, remark from steps where piece_id = $1 and key = $2', [pieceId, 'design']);
    expect(design).toEqual({ finished_on: null, remark: 'Warmer, please' });
    expect(await handIn(app, people.manager, check)).toEqual({ ok: false, failure: { code: 'step.not_available' } });
  });

  it('shows a freelancer the brief without what is for the agency only', async () => {
    const { app, people } = scene;
    const { requestId } = getValue(
      await (
        await import('../intake/index.js')
      ).submitRequest(
        app,
        scene.a.linkId,
        { name: 'Ann', email: 'ann@aaa.test', answers: { about: 'Secret sum', budget: '900' }, version: 1 },
        'budget-key',
      ),
    );
    const [pieceId = ''] = getValue(
      await (
        await import('../intake/index.js')
      ).acceptRequest(app, people.manager, requestId, {
        title: 'T',
        routeId: scene.routeId,
        pillarId: null,
        channelIds: [...scene.a.channelIds],
        wishOn: null,
      }),
    );
    getValue(await assignStep(app, people.manager, await stepOf(scene, pieceId, 'write'), people.freelance.personId));
    const brief = async (role: 'freelance' | 'staff') =>
      JSON.stringify((await (await callerAs(scene, role)).call('GET', `/api/pieces/${pieceId}`)).body['brief']);
    expect(await brief('staff')).toContain('900');
    expect(await brief('freelance')).not.toMatch(/900|Budget/);
    expect(await brief('freelance')).toContain('Secret sum');
    const [asset] = await app.read<{ id: string }>(
      "insert into assets (client_id, request_id, hash, name, mime, bytes, created_at) values ($1, $2, 'none', 'sum.txt', 'text/plain', 0, now()) returning id",
      [scene.a.id, requestId],
    );
    const codeFor = async (role: 'freelance') => (await (await callerAs(scene, role)).call('GET', `/api/files/${asset?.id}`)).body['code'];
    await app.read(`update requests set answers = answers || jsonb_build_object('budget', jsonb_build_array($2::text)) where id = $1`, [
      requestId,
      asset?.id,
    ]);
    expect(await codeFor('freelance')).toBe('access.not_found');
  });

  it('lists candidates by skill, then by what is open, with their days off', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a);
    await app.read("insert into time_off (person_id, start_on, end_on) values ($1, '2027-03-04', '2027-03-08')", [people.staff.personId]);
    const manager = await callerAs(scene, 'manager');
    const answer = await manager.call('GET', `/api/steps/${await stepOf(scene, pieceId, 'write')}/candidates`);
    const list = answer.body as unknown as { personId: string; timeOffOn: string[]; skillLevel: number }[]; // CandidateShape
    expect(list.find((person) => person.personId === people.staff.personId)?.timeOffOn).toEqual(['2027-03-04', '2027-03-05', '2027-03-08']);
    expect(list.map((person) => person.skillLevel)).toEqual([2, 2, 2, 2]);
  });

  it('reads a page of pieces with a fixed number of queries, however many there are', async () => {
    const { app } = scene;
    const queries = async (): Promise<number> => {
      let count = 0;
      // the application as this one list sees it: jobs read meanwhile, and are not counted
      const read: typeof app.read = (...query) => {
        count++;
        return app.read(...query);
      };
      await listPieces(Object.assign(Object.create(app) as typeof app, { read }), scene.people.manager, {});
      return count;
    };
    const before = await queries();
    for (let more = 0; more < 5; more++) await makePiece(scene, scene.a);
    expect(await queries()).toBe(before);
  });

  it('shows what is open or done, of a stage, with somebody or nobody, in each order, page by page without a gap', async () => {
    const { app, people } = scene;
    await app.read("update pieces set shelved = true, list = null, stage = 'shelved'");
    const ids: string[] = [];
    for (const day of ['2027-04-20', '2027-04-06', null, '2027-04-13']) ids.push(await makePiece(scene, scene.a, day));
    const [late = '', soon = '', undated = '', middle = ''] = ids;
    getValue(await assignStep(app, people.lead, await stepOf(scene, soon, 'write'), people.staff.personId));
    const list = async (asked: Omit<PiecesAsked, 'clientId'>) => (await listPieces(app, people.manager, asked)).items.map(({ id }) => id);
    expect(await list({ shown: 'open' })).toEqual([middle, undated, soon, late]);
    expect(await list({ shown: 'open', order: 'aim' })).toEqual([soon, middle, late, undated]);
    expect((await list({ shown: 'open', order: 'slack' })).slice(0, 3)).toEqual([soon, middle, late]);
    expect(await list({ doer: people.staff.personId })).toEqual([soon]);
    expect(await list({ doer: 'nobody' })).toEqual([middle, undated, late]);
    expect(await list({ shown: 'open', stage: 'approved' })).toEqual([]);
    const [done, all] = [await list({ shown: 'done' }), await list({ shown: 'all' })];
    expect(done.length).toBeGreaterThan(3);
    expect(new Set(all)).toEqual(new Set([...ids, ...done]));
    expect((await listPieces(app, people.manager, { shown: 'open' })).total).toBe(4);
    expect((await listPieces(app, people.manager, { shown: 'done' })).total).toBeNull();
    // a page after each row goes on with the next, in every order
    for (const order of PIECE_ORDERS) {
      const whole = await list({ shown: 'open', order });
      for (const [place, cursor] of whole.entries()) expect(await list({ shown: 'open', order, cursor })).toEqual(whole.slice(place + 1));
    }
    const manager = await callerAs(scene, 'manager');
    for (const query of ['shown=closed', 'order=title', 'stage=lost', 'doer=max', 'doer=%00'])
      expect([query, (await manager.call('GET', `/api/pieces?${query}`)).status]).toEqual([query, 400]);
  });

  it('gives a step once when two give it away at the same state, and tells the second who has it', async () => {
    const pieceId = await makePiece(scene, scene.a);
    const write = await stepOf(scene, pieceId, 'write');
    const [one, two] = [await callerAs(scene, 'manager'), await callerAs(scene, 'lead')];
    const give = (caller: typeof one, personId: string, version: number) =>
      caller.call('PUT', `/api/steps/${write}/doer`, { body: { personId }, headers: { 'If-Match': `"${version}"` } });
    const { staff, freelance } = scene.people;
    const answers = await Promise.all([give(one, staff.personId, 1), give(two, freelance.personId, 1)]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([204, 412]);
    const given = answers[0]?.status === 204 ? staff : freelance;
    expect(answers.find((answer) => answer.status === 412)?.body).toMatchObject({
      code: 'http.changed_meanwhile',
      theirs: { doerId: given.personId, doerName: given.name, version: 2 },
    });
    expect((await one.call('PUT', `/api/steps/${write}/doer`, { body: { personId: null } })).body['code']).toBe('http.version_missing');
  });

  it('hands back to each who made it side by side, or only to whom the checker names', async () => {
    const { app, people } = scene;
    const pieceId = await makePiece(scene, scene.a);
    const ids = Object.fromEntries(
      await Promise.all(['write', 'design', 'check'].map(async (key) => [key, await stepOf(scene, pieceId, key)] as const)),
    ) as Record<'write' | 'design' | 'check', string>;
    // text and picture side by side, the picture later in the list: both before the check
    await app.read("update steps set predecessor_ids = '{}' where id = $1", [ids.design]);
    await app.read('update steps set predecessor_ids = $2 where id = $1', [ids.check, [ids.write, ids.design]]);
    getValue(await assignStep(app, people.manager, ids.write, people.freelance.personId));
    getValue(await editContent(app, people.manager, pieceId, body('Words'), 1));
    for (const key of ['write', 'design'] as const) getValue(await handIn(app, people.manager, ids[key]));
    const open = async () =>
      (
        await app.read<{ key: string }>(
          "select key from steps where piece_id = $1 and finished_on is null and kind = 'make' order by position",
          [pieceId],
        )
      ).map(({ key }) => key);
    expect(await handBack(app, people.manager, ids.check, 'x', [ids.check])).toEqual({ ok: false, failure: { code: 'step.not_a_check' } });
    expect(await handBack(app, people.manager, ids.check, 'x', [ids.write, ids.check])).toEqual({
      ok: false,
      failure: { code: 'step.not_a_maker' },
    });
    getValue(await handBack(app, people.manager, ids.check, 'Shorter', [ids.write]));
    expect(await open()).toEqual(['write']);
    const told = await app.read<{ heading: string }>("select heading from notices where person_id = $1 and heading like 'Handed back%'", [
      people.freelance.personId,
    ]);
    expect(told).toEqual([{ heading: 'Handed back: A piece' }]);
    getValue(await handIn(app, people.manager, ids.write));
    getValue(await handBack(app, people.manager, ids.check, 'All of it again'));
    expect(await open()).toEqual(['write', 'design']);
  });
});
