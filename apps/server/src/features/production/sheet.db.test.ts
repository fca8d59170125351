import exceljs from 'exceljs';
import { parse } from 'csv-parse/sync';
import { getValue, totalsOf } from '@zesting/core';
import type { SheetRowShape, SheetShape } from '@zesting/contract';
import { callerAs, makePiece, makeScene, NOW, stepOf, type Caller, type Scene, type SceneClient } from '../../../test-support/scene.js';
import { assignStep } from './index.js';

describe('the sheet', () => {
  let scene: Scene;
  let manager: Caller;
  let [early, late, strange] = ['', '', ''];
  beforeAll(async () => {
    scene = await makeScene();
    scene.app.clock.set(NOW);
    manager = await callerAs(scene, 'manager');
  });
  beforeEach(async () => {
    await scene.begin();
    await scene.app.read("update pieces set shelved = true, list = null, stage = 'shelved'");
    early = await makePiece(scene, scene.a, '2027-03-20');
    late = await makePiece(scene, scene.a, '2027-03-30');
    strange = await makePiece(scene, scene.b, '2027-03-12'); // not the manager's
  });
  afterAll(() => scene.close());

  const sheet = async (query = '', by = manager) => (await by.call('GET', `/api/pieces/sheet?${query}`)).body as unknown as SheetShape;
  const rowOf = async (id: string): Promise<SheetRowShape> => {
    const row = (await sheet()).rows.find((one) => one.id === id);
    if (!row) throw new Error('the piece is not there');
    return row;
  };
  const change = async (changes: object[]) => (await manager.call('PUT', '/api/pieces/sheet', { body: { changes } })).body;
  const makePillar = async (client: SceneClient): Promise<string> => {
    const sql = "insert into pillars (client_id, name, colour, position) values ($1, 'Craft', 3, 0) returning id";
    return getRow(await scene.app.read<{ id: string }>(`with made as (${sql}) select id from made`, [client.id])).id;
  };
  const bytesOf = async (address: string) => {
    const cookie = [...manager.cookies].map(([name, value]) => `${name}=${value}`).join('; ');
    const response = await fetch(`${scene.address}${address}`, { headers: { Cookie: cookie } });
    return { type: response.headers.get('content-type'), bytes: await response.arrayBuffer() };
  };

  it('has the open pieces of one’s clients, those aimed at soonest first, with what is at hand and what is left', async () => {
    const { rows, total, leftOut } = await sheet();
    expect(rows.map(({ id }) => id)).toEqual([early, late]);
    expect([total, leftOut]).toEqual([2, 0]);
    const [row] = rows;
    const steps = await scene.app.read<{ title: string; effort: number; expected: string }>(
      `select title, case when kind in ('sign_off', 'deliver') then 0 else effort_minutes end as effort, predicted_finish_on as expected
       from steps where piece_id = $1 order by position`,
      [early],
    );
    expect(row).toMatchObject({
      title: 'A piece',
      wishOn: '2027-03-20',
      aimOn: '2027-03-20',
      stage: 'planned',
      stepTitles: [steps[0]?.title],
      doerNames: [],
      leftMinutes: steps.reduce((sum, { effort }) => sum + effort, 0),
      workedMinutes: 0,
      expectedOn: steps
        .map(({ expected }) => expected)
        .sort()
        .at(-1),
    });
    expect(row?.channelNames).toHaveLength(2);
    expect((await sheet('', await callerAs(scene, 'lead'))).rows.map(({ id }) => id)).toContain(strange);
  });

  it('counts hours that were logged, and the effort of a step that ended without any', async () => {
    const write = await stepOf(scene, early, 'write');
    const { personId } = scene.people.freelance;
    getValue(await assignStep(scene.app, scene.people.manager, write, personId));
    const log = (minutes: number, removedAt: string | null) =>
      scene.app.read(
        `insert into worked (client_id, piece_id, step_id, step_title, person_id, on_day, minutes, removed_at) values ($1, $2, $3, 'Write', $4, '2027-03-02', $5, $6)`,
        [scene.a.id, early, write, personId, minutes, removedAt],
      );
    const before = await rowOf(early);
    await scene.app.read("update steps set started_on = '2027-03-02', finished_on = '2027-03-03' where id = $1", [write]);
    const [step] = await scene.app.read<{ effort: number }>('select effort_minutes as effort from steps where id = $1', [write]);
    expect(await rowOf(early)).toMatchObject({
      workedMinutes: step?.effort,
      leftMinutes: before.leftMinutes - (step?.effort ?? 0),
    });
    await log(50, null);
    await log(25, null);
    await log(500, NOW); // taken back
    expect((await rowOf(early)).workedMinutes).toBe(75);
  });

  it('is narrowed as every list of pieces is, and shows on request what is done, last', async () => {
    expect(await sheet('from=2027-03-25')).toMatchObject({ rows: [{ id: late }], total: 1, leftOut: 1 });
    getValue(await assignStep(scene.app, scene.people.manager, await stepOf(scene, late, 'write'), scene.people.staff.personId));
    expect((await sheet(`doer=${scene.people.staff.personId}`)).rows.map(({ id }) => id)).toEqual([late]);
    expect((await sheet('doer=nobody')).rows.map(({ id }) => id)).toEqual([early]);
    const all = await sheet('shown=all');
    expect(all.rows.length).toBeGreaterThan(2);
    expect(all.rows.slice(0, 2).map(({ id }) => id)).toEqual([early, late]);
    expect(await sheet('shown=all&from=2027-03-25')).toMatchObject({
      total: 1 + all.rows.filter(({ id, aimOn }) => id !== late && (aimOn ?? '') >= '2027-03-25').length,
      leftOut: 0,
    });
    expect(all.rows.slice(2).every(({ stage }) => stage === 'shelved')).toBe(true);
  });

  it('is changed in many lines at once, with the plan after it and each change in the record', async () => {
    const [one, two] = [await rowOf(early), await rowOf(late)];
    const { personId, name } = scene.people.staff;
    const pillarId = await makePillar(scene.a);
    const doer = (row: SheetRowShape) => ({ stepId: row.atHand[0]?.stepId, version: row.atHand[0]?.version, personId });
    const body = await change([
      { pieceId: late, version: two.version, title: 'Renamed', purpose: 'buy', pillarId, doer: doer(two) },
      { pieceId: early, version: one.version, wishOn: '2027-04-08', doer: doer(one) },
    ]);
    expect(body).toEqual({ saved: [early, late].sort(), refused: [] });
    expect(await rowOf(late)).toMatchObject({
      title: 'Renamed',
      purpose: 'buy',
      pillarId,
      doerNames: [name],
      version: two.version + 1,
    });
    expect(await rowOf(early)).toMatchObject({ title: 'A piece', wishOn: '2027-04-08', aimOn: '2027-04-08', doerNames: [name] });
    const verbs = await scene.app.read<{ verb: string; detail: object }>(
      "select verb, detail from activities where thing_id = $1 and verb in ('piece.edited', 'step.assigned') order by verb",
      [late],
    );
    expect(verbs.map(({ verb }) => verb)).toEqual(['piece.edited', 'step.assigned']);
    expect(verbs[0]?.detail).toEqual({
      title: { from: 'A piece', to: 'Renamed' },
      purpose: { from: null, to: 'buy' },
      pillar: { from: null, to: 'Craft' },
    });
    await change([{ pieceId: late, version: two.version + 1, purpose: null, pillarId: null }]);
    expect(await rowOf(late)).toMatchObject({ title: 'Renamed', purpose: null, pillarId: null });
  });

  it('makes all changes of a line or none, and those of the others all the same', async () => {
    const [one, two] = [await rowOf(early), await rowOf(late)];
    const given = { stepId: one.atHand[0]?.stepId, version: one.atHand[0]?.version, personId: scene.people.staff.personId };
    const foreign = await makePillar(scene.b);
    expect(
      await change([
        { pieceId: early, version: one.version, title: 'Not so', pillarId: foreign, doer: given },
        { pieceId: late, version: two.version, title: 'So' },
      ]),
    ).toEqual({ saved: [late], refused: [{ pieceId: early, code: 'pillar.unknown' }] });
    expect(await rowOf(early)).toMatchObject({ title: 'A piece', doerNames: [] });
    expect((await rowOf(late)).title).toBe('So');
  });

  it('refuses what somebody else changed meanwhile, a step of another piece, and pieces of others', async () => {
    const [one, two] = [await rowOf(early), await rowOf(late)];
    await change([{ pieceId: early, version: one.version, title: 'First' }]);
    const doer = { stepId: one.atHand[0]?.stepId, version: one.atHand[0]?.version, personId: null };
    const { version } = getRow(await scene.app.read<{ version: number }>('select version from pieces where id = $1', [strange]));
    expect(
      await change([
        { pieceId: early, version: one.version, title: 'Second' },
        { pieceId: late, version: two.version, doer },
        { pieceId: strange, version, title: 'Theirs' },
      ]),
    ).toMatchObject({
      saved: [],
      refused: expect.arrayContaining([
        { pieceId: early, code: 'http.changed_meanwhile' },
        { pieceId: late, code: 'http.changed_meanwhile' },
        { pieceId: strange, code: 'piece.unknown' },
      ]) as unknown,
    });
    expect((await rowOf(early)).title).toBe('First');
    const wrong = await change([{ pieceId: early, version: 2, title: '  ' }]);
    expect(wrong['code']).toBe('http.invalid');
  });

  it('of many at once on the same lines, each line is changed by one of them and nothing is mixed', async () => {
    const [one, two] = [await rowOf(early), await rowOf(late)];
    const words = ['A', 'B', 'C', 'D'];
    const answers = await Promise.all(
      words.map((title) =>
        change([
          { pieceId: early, version: one.version, title, wishOn: `2027-04-0${words.indexOf(title) + 1}` },
          { pieceId: late, version: two.version, title },
        ]),
      ),
    );
    for (const id of [early, late]) {
      const winners = words.filter((_, index) => (answers[index]?.['saved'] as string[]).includes(id));
      expect(winners).toHaveLength(1);
      const row = await rowOf(id);
      expect(row.title).toBe(winners[0]);
      if (id === early) expect(row.wishOn).toBe(`2027-04-0${words.indexOf(row.title) + 1}`);
    }
  });

  it('is taken away as CSV in the columns, order and groups that are asked for; a text that would be reckoned with stays a text', async () => {
    const [one, two] = [await rowOf(early), await rowOf(late)];
    await change([
      { pieceId: early, version: one.version, title: '=HYPERLINK("x"), "said"' },
      { pieceId: late, version: two.version, title: 'Zoë' },
    ]);
    const csv = await bytesOf('/api/pieces/sheet/csv?columns=title,aim,slack,left&by=aim&down=yes');
    expect(csv.type).toContain('text/csv');
    const lines: string[][] = parse(Buffer.from(csv.bytes), { bom: true });
    expect(lines[0]).toEqual(['Piece', 'Aim', 'Slack', 'Left (h)']);
    const { slackDays, leftMinutes } = await rowOf(late);
    expect(lines.slice(1).map(([title]) => title)).toEqual(['Zoë', '\'=HYPERLINK("x"), "said"']);
    expect(lines[1]).toEqual(['Zoë', '2027-03-30', String(slackDays), String(Math.round((leftMinutes / 60) * 100) / 100)]);
    const grouped: string[][] = parse(Buffer.from((await bytesOf('/api/pieces/sheet/csv?columns=aim&by=aim&down=yes&group=week')).bytes), {
      bom: true,
    });
    expect(grouped.slice(1)).toEqual([['2027-03-20'], ['2027-03-30']]);
    for (const wrong of ['columns=title,secret', 'by=secret', 'group=secret', 'down=1'])
      expect([wrong, (await manager.call('GET', `/api/pieces/sheet/csv?${wrong}`)).body['code']]).toEqual([wrong, 'http.invalid']);
  });

  it('is taken away as a spreadsheet: days are days, hours are numbers and are added up there', async () => {
    const book = new exceljs.Workbook();
    await book.xlsx.load((await bytesOf('/api/pieces/sheet/xlsx?columns=title,aim,left')).bytes);
    const [page] = book.worksheets;
    const { rows } = await sheet();
    expect(page?.getRow(2).getCell(2).value).toEqual(new Date('2027-03-20T00:00:00Z'));
    expect(page?.getRow(2).getCell(3).value).toBe((rows[0]?.leftMinutes ?? 0) / 60);
    expect(page?.getRow(4).getCell(3).value).toEqual({ formula: 'SUBTOTAL(109,C2:C3)', result: totalsOf(rows).leftMinutes / 60 });
    await scene.app.read("update pieces set list = null, stage = 'shelved', shelved = true");
    const none = new exceljs.Workbook();
    await none.xlsx.load((await bytesOf('/api/pieces/sheet/xlsx')).bytes);
    expect(none.worksheets[0]?.getRow(1).getCell(2).value).toBe('Piece');
    expect(none.worksheets[0]?.rowCount).toBeLessThanOrEqual(2);
  });
});

/** The one row of an answer. */
function getRow<Row>([row]: readonly Row[]): Row {
  if (!row) throw new Error('nothing was answered');
  return row;
}
