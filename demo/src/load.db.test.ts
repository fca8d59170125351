import { Temporal } from 'temporal-polyfill';
import { App, computeStates, createServer, storedPiece } from '@zesting/server';
import { makeTestDatabase, type TestDatabase } from '../../apps/server/test-support/database.js';
import { loadDemo } from './load.js';
import { STORY } from './pieces.js';

/** A moment drawn by chance for this run; it is printed, and ZESTING_NOW brings it back. */
const ANY = process.env['ZESTING_CHANCE'] ?? '2028-02-29T23:59:00Z';

/** A Sunday, in the hour at which London's clocks change and in which New York is a day behind; and any moment. */
const DAYS = ['2027-03-28T01:10:00Z', ANY];

describe('the demo', () => {
  let database: TestDatabase;

  beforeEach(async () => {
    database = await makeTestDatabase();
  });
  afterEach(() => database.drop());

  it.each(DAYS)(
    'loads with %s as the present, at every stage, each open piece on one list, stored as reckoned',
    async (now) => {
      const server = await createServer(database.config);
      try {
        const app = server.get(App);
        await loadDemo(app, now);
        const pieces = await app.read<{ id: string; stage: string; list: string | null }>('select * from pieces order by id');
        expect(pieces).toHaveLength(STORY.length);
        const stages = new Set(pieces.map((piece) => piece.stage));
        for (const stage of ['planned', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published'])
          expect(stages).toContain(stage);
        const lists = new Set(pieces.flatMap((piece) => piece.list ?? []));
        for (const list of [
          'trouble',
          'out_of_reach',
          'overdue',
          'changed_after_sign_off',
          'will_be_late',
          'no_doer',
          'signed_undated',
          'with_client',
        ])
          expect(lists).toContain(list);
        const dangers = await app.read<{ danger: string }>('select distinct danger from pieces where list is not null');
        for (const danger of ['overdue', 'out_of_reach', 'will_be_late', 'tight', 'fine'])
          expect(dangers.map((row) => row.danger)).toContain(danger);
        for (const piece of pieces) expect(piece.list === null).toBe(piece.stage === 'published');
        const states = await computeStates(
          app.manager,
          pieces.map((piece) => piece.id),
          app.clock.now(),
        );
        const stored = await app.read<Record<string, unknown>>(
          'select id, stage, list, aim_on, aim_at, danger, slack_days, late_from_on, earliest_publish_on, packet_due_on, progress from pieces order by id',
        );
        const sameInstant = (row: Record<string, unknown>) => ({
          ...row,
          aim_at: typeof row['aim_at'] === 'string' ? Temporal.Instant.from(row['aim_at']).epochMilliseconds : null,
        });
        expect(stored.map(sameInstant)).toEqual(states.map(storedPiece).map(sameInstant));
      } finally {
        await server.close();
      }
    },
    60_000,
  );
});
