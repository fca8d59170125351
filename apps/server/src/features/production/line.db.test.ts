import { getValue } from '@zesting/core';
import { callerAs, makePiece, makeScene, NOW, stepOf, type Caller, type Scene } from '../../../test-support/scene.js';
import { assignStep } from './index.js';

interface Line {
  total: number | null;
  leftOut: number | null;
  nextCursor: string | null;
  rows: {
    id: string;
    aimOn: string | null;
    steps: { title: string; latestFinishOn: string | null; doer: string }[];
    placements: { on: string }[];
  }[];
  doers: { key: string; weeklyMinutes: number[]; days: { on: string; minutes: number }[] }[];
}

describe('the line, and what the work is narrowed to', () => {
  let scene: Scene;
  let manager: Caller;
  let pieces: string[] = [];
  beforeAll(async () => {
    scene = await makeScene();
    scene.app.clock.set(NOW);
    manager = await callerAs(scene, 'manager');
    pieces = [
      await makePiece(scene, scene.a, '2027-03-30'),
      await makePiece(scene, scene.a, '2027-03-10'),
      await makePiece(scene, scene.a, null),
    ];
    await makePiece(scene, scene.b, '2027-03-12'); // not the manager's
    getValue(
      await assignStep(scene.app, scene.people.manager, await stepOf(scene, pieces[0] ?? '', 'write'), scene.people.freelance.personId),
    );
  });
  afterAll(() => scene.close());

  const line = async (query = '', by = manager): Promise<Line> =>
    (await by.call('GET', `/api/pieces/line?order=aim${query}`)).body as unknown as Line;

  it('holds the open pieces of one’s clients by the days that they go out, with the dates that are stored', async () => {
    const { rows, total, leftOut, nextCursor } = await line();
    expect(rows.map(({ id }) => id)).toEqual([pieces[1], pieces[0], pieces[2]]);
    expect([total, leftOut, nextCursor]).toEqual([3, 0, null]);
    for (const row of rows) {
      const stored = await scene.app.read(
        'select title, latest_finish_on as "latestFinishOn" from steps where piece_id = $1 order by position',
        [row.id],
      );
      expect(row.steps.map(({ title, latestFinishOn }) => ({ title, latestFinishOn }))).toEqual(stored);
    }
  });

  it('tells of everybody on it when they work: their week, and the days that differ', async () => {
    await scene.app.read("insert into time_off (person_id, start_on, end_on, part) values ($1, '2027-03-04', '2027-03-05', 0.5)", [
      scene.people.freelance.personId,
    ]);
    const { doers, rows } = await line();
    expect(new Set(doers.map(({ key }) => key))).toEqual(new Set(rows.flatMap(({ steps }) => steps.map(({ doer }) => doer))));
    const fay = doers.find(({ key }) => key === scene.people.freelance.personId);
    expect(fay?.weeklyMinutes).toEqual([480, 480, 480, 480, 480, 0, 0]);
    expect(fay?.days).toEqual(
      expect.arrayContaining([
        { on: '2027-03-04', minutes: 240 },
        { on: '2027-03-05', minutes: 240 },
        { on: '2027-03-26', minutes: 0 }, // Good Friday
      ]),
    );
    expect(fay?.days.some(({ on }) => on === '2027-03-03')).toBe(false);
  });

  it('is narrowed as the table is, and says how much that leaves out', async () => {
    const [format] = await scene.app.read<{ id: string }>('select format_id as id from pieces where id = $1', [pieces[0]]);
    const [channelId] = scene.a.channelIds;
    const asked: [string, string[]][] = [
      [`&doer=${scene.people.freelance.personId}`, [pieces[0] ?? '']],
      ['&doer=nobody', [pieces[1] ?? '', pieces[2] ?? '']],
      [`&formatId=${format?.id}`, [pieces[1] ?? '', pieces[0] ?? '', pieces[2] ?? '']],
      [`&channelId=${channelId}`, [pieces[1] ?? '', pieces[0] ?? '', pieces[2] ?? '']],
      [`&pillarId=${pieces[0]}`, []],
      [`&campaignId=${pieces[0]}`, []],
      ['&stage=approved', []],
      ['&from=2027-03-08&to=2027-03-14', [pieces[1] ?? '']],
      ['&danger=fine', [pieces[1] ?? '', pieces[0] ?? ''].filter((id) => id !== '')],
    ];
    for (const [query, ids] of asked) {
      const [drawn, table] = [
        await line(query),
        (await manager.call('GET', `/api/pieces?shown=open&order=aim${query}`)).body as unknown as {
          items: { id: string }[];
          total: number;
          leftOut: number;
        },
      ];
      const found = drawn.rows.map(({ id }) => id);
      expect([query, table.items.map(({ id }) => id), table.total, table.leftOut]).toEqual([query, found, drawn.total, drawn.leftOut]);
      expect([query, drawn.total, drawn.leftOut]).toEqual([query, found.length, 3 - found.length]);
      if (query !== '&danger=fine') expect([query, found]).toEqual([query, ids]);
    }
    const dangers = await scene.app.read<{ danger: string | null }>('select danger from pieces where id = any($1)', [pieces]);
    expect((await line('&danger=fine')).total).toBe(dangers.filter(({ danger }) => danger === 'fine').length);
  });

  it('refuses what is no danger, day or id', async () => {
    for (const query of ['&danger=high', '&from=2027-02-30', '&formatId=x'])
      expect([query, (await manager.call('GET', `/api/pieces/line?order=aim${query}`)).status]).toEqual([query, 400]);
  });

  it('goes on where a page ended, with none twice', async () => {
    const more = await Promise.all(
      Array.from({ length: 101 }, (_, index) => makePiece(scene, scene.a, `2027-05-${String((index % 28) + 1).padStart(2, '0')}`)),
    );
    const first = await line();
    expect([first.rows.length, first.total]).toEqual([100, 104]);
    const then = await line(`&cursor=${first.nextCursor}`);
    expect([then.rows.length, then.total, then.nextCursor]).toEqual([4, null, null]);
    expect(new Set([...first.rows, ...then.rows].map(({ id }) => id))).toEqual(new Set([...pieces, ...more]));
  });
});
