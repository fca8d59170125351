import { cpSync, existsSync, rmSync } from 'node:fs';
import { Temporal } from 'temporal-polyfill';
import { getValue, ok } from '@zesting/core';
import { App, computeStates, createServer, readConfig, replanOpen, storedPiece } from '@zesting/server';
import { makeEmptyDatabase } from '../../apps/server/test-support/database.js';
import { eventually } from '../../apps/server/test-support/eventually.js';
import { Caller } from '../../apps/server/test-support/scene.js';
import { STORY } from './pieces.js';
import { PASSWORD, PEOPLE } from './story.js';

/** A moment drawn by chance for this run; it is printed, and ZESTING_NOW brings it back. */
const ANY = process.env['ZESTING_CHANCE'] ?? '2028-02-29T23:59:00Z';

const COLUMNS = 'id, stage, list, aim_on, aim_at, danger, slack_days, late_from_on, earliest_publish_on, packet_due_on, progress';

const sameInstant = (row: Record<string, unknown>) => ({
  ...row,
  aim_at: typeof row['aim_at'] === 'string' ? Temporal.Instant.from(row['aim_at']).epochMilliseconds : null,
});

describe('the demo, as its program left it', () => {
  let server: Awaited<ReturnType<typeof createServer>>;
  let app: App;
  let drop: () => Promise<void>;
  const folder = `${process.env['ZESTING_STORY_FOLDER']}-looked-at`;

  beforeAll(async () => {
    const { ZESTING_STORY_DATABASE: story, ZESTING_STORY_NOW: now, ZESTING_STORY_FOLDER: files } = process.env;
    if (!story || !files)
      throw new Error('the demo is loaded by tools/test.mjs: run it with npm test, or node tools/test.mjs database load');
    await eventually(() => existsSync(`${files}/whole`), 600_000); // it may still be on its way
    const database = await makeEmptyDatabase(story);
    drop = database.drop;
    cpSync(files, folder, { recursive: true });
    server = await createServer(
      readConfig({
        ZESTING_DATABASE_URL: database.url,
        ZESTING_FILES: `${folder}/files`,
        ZESTING_TESTING: '1',
        ZESTING_SMTP_PORT: '1',
        ZESTING_LOG: 'fatal',
        ZESTING_NOW: now,
      }),
    );
    await server.listen(0, '127.0.0.1');
    app = server.get(App);
  }, 660_000);
  afterAll(async () => {
    await server.close();
    await drop();
    rmSync(folder, { recursive: true, force: true });
  });

  /** What is stored of every piece, and what is reckoned of it now. */
  async function both(): Promise<[Record<string, unknown>[], Record<string, unknown>[]]> {
    const stored = await app.read<Record<string, unknown>>(`select ${COLUMNS} from pieces order by id`);
    const states = await computeStates(
      app.manager,
      stored.map((piece) => String(piece['id'])),
      app.clock.now(),
    );
    return [stored.map(sameInstant), states.map(storedPiece).map(sameInstant)];
  }

  it('has pieces at every stage, each open one on one list, stored as reckoned', async () => {
    const pieces = await app.read<{ id: string; stage: string; list: string | null; danger: string | null }>('select * from pieces');
    expect(pieces).toHaveLength(STORY.length + 4); // and one of the launch's run-up, and three made from a film
    expect(pieces.map((piece) => piece.stage)).toEqual(
      expect.arrayContaining(['planned', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published']),
    );
    const lists = [
      'trouble',
      'out_of_reach',
      'overdue',
      'changed_after_sign_off',
      'will_be_late',
      'no_doer',
      'signed_undated',
      'with_client',
    ];
    expect(pieces.map((piece) => piece.list)).toEqual(expect.arrayContaining(lists));
    expect(pieces.flatMap((piece) => (piece.list ? piece.danger : []))).toEqual(
      expect.arrayContaining(['overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine']),
    );
    for (const piece of pieces) expect(piece.list === null).toBe(piece.stage === 'published');
    const [stored, reckoned] = await both();
    expect(stored).toEqual(reckoned);
  });

  it(`goes on at ${ANY}: all is planned anew, stored as reckoned, and every list can be looked at`, async () => {
    app.clock.set(ANY);
    const [before] = await both();
    getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
    const [stored, reckoned] = await both();
    expect(stored).toEqual(reckoned);
    // time has passed, unless chance drew the very day of the story
    const storyOn = process.env['ZESTING_STORY_NOW']?.slice(0, 10);
    if (ANY.slice(0, 10) !== storyOn) expect(stored).not.toEqual(before);
    const marta = new Caller(await server.getUrl());
    await marta.call('POST', '/api/session', { body: { email: PEOPLE.marta.email, password: PASSWORD } });
    const year = ANY.slice(0, 4);
    for (const path of [
      'desk',
      'requests',
      'pieces',
      'packets',
      'people',
      'routes/whole',
      'runway',
      'ideas',
      'interviews',
      'months-to-start',
      'duties',
      'duties/mine',
      `slots?from=${year}-01-01&to=${year}-02-11`,
      `calendar?from=${year}-01-01&to=${year}-02-11`,
    ])
      expect([path, (await marta.call('GET', `/api/${path}`)).status]).toEqual([path, 200]);
  });
});
