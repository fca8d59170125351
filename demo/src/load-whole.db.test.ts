import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { getValue } from '@zesting/core';
import type { App } from '@zesting/server';
import { makeTestDatabase, type TestDatabase } from '../../apps/server/test-support/database.js';
import { loadWhole } from './load-whole.js';

describe('loading the demo', () => {
  let database: TestDatabase;

  beforeEach(async () => {
    database = await makeTestDatabase();
  });
  afterEach(() => database.drop());

  const ask = async (sql: string): Promise<Record<string, unknown>[]> => {
    const client = new pg.Client(database.config.databaseUrl);
    await client.connect();
    return (await client.query<Record<string, unknown>>(sql).finally(() => client.end())).rows;
  };
  /** A story that gets as far as an agency and a file. */
  const begun = async (app: App): Promise<void> => {
    await app.read("insert into agencies (name, zone, region, weekly_minutes) values ('Begun', 'Europe/London', 'GB-ENG', '{480}')");
    getValue(await app.files.store(Buffer.from('a note of the story')));
  };
  const leftOver = async () => [
    existsSync(`${database.config.dataFolder}-in-the-making`),
    (await ask("select 1 from pg_database where datname like current_database() || '_in_the%'")).length,
  ];

  it('leaves nothing of a story that failed on the way, and tries again at the next start', async () => {
    const failing = async (app: App) => {
      await begun(app);
      throw new Error('the story broke');
    };
    await expect(loadWhole(database.config, failing)).rejects.toThrow('the story broke');
    expect(await ask('select name from agencies')).toEqual([]);
    expect(await leftOver()).toEqual([false, 0]);
    expect(await loadWhole(database.config, begun)).toBe(true);
    expect(await ask('select name from agencies')).toEqual([{ name: 'Begun' }]);
    expect(await leftOver()).toEqual([false, 0]);
    const hash = createHash('sha256').update('a note of the story').digest('hex');
    expect(readFileSync(join(database.config.dataFolder, hash.slice(0, 2), hash), 'utf8')).toBe('a note of the story');
  });

  it('leaves an agency that is there alone', async () => {
    await ask("insert into agencies (name, zone, region, weekly_minutes) values ('Our own', 'Europe/London', 'GB-ENG', '{480}')");
    expect(await loadWhole(database.config, begun)).toBe(false);
    expect(await ask('select name from agencies')).toEqual([{ name: 'Our own' }]);
  });

  it('plays the story at the present that the configuration names', async () => {
    let seen = '';
    await loadWhole({ ...database.config, now: '2031-05-06T07:08:09Z' }, async (app, now) => {
      seen = now;
      await begun(app);
    });
    expect(seen.slice(0, 16)).toBe('2031-05-06T07:08');
  });
});
