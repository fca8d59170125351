import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { readConfig, type Config } from '../src/platform/config/config.js';

const port = process.env['ZESTING_TEST_PG'];

async function admin(sql: string): Promise<pg.QueryResult> {
  if (!port) throw new Error('database tests need the throwaway cluster: run them with npm test, or node tools/test.mjs database');
  const client = new pg.Client(`postgres://postgres@127.0.0.1:${port}/postgres`);
  await client.connect();
  const result = await client.query(sql);
  await client.end();
  return result;
}

/** Drops a database once its last connection is gone: those of a server that was closed a moment ago are still saying goodbye. */
async function drop(name: string): Promise<void> {
  for (let tries = 0; tries < 20; tries++) {
    const { rows } = await admin(`select 1 from pg_stat_activity where datname = '${name}'`);
    if (rows.length === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await admin(`drop database ${name} with (force)`);
}

/** Makes a database without any tables, or a copy of another. */
export async function makeEmptyDatabase(template = 'template1'): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `test_${process.pid}_${process.hrtime.bigint()}`;
  await admin(`create database ${name} template ${template}`);
  return { url: `postgres://postgres@127.0.0.1:${port}/${name}`, drop: () => drop(name) };
}

export interface TestDatabase {
  readonly config: Config;
  readonly drop: () => Promise<void>;
}

/** Makes an empty, migrated database of this test file's own, and a configuration that points to it. */
export async function makeTestDatabase(env: Readonly<Record<string, string>> = {}): Promise<TestDatabase> {
  const { url, drop } = await makeEmptyDatabase(process.env['ZESTING_TEST_TEMPLATE']);
  const folder = mkdtempSync(join(tmpdir(), 'zesting-files-'));
  const config = readConfig({
    ZESTING_DATABASE_URL: url,
    ZESTING_FILES: folder,
    ZESTING_KEY: 'test',
    ZESTING_TESTING: '1',
    ZESTING_SMTP_PORT: '1',
    ZESTING_LOG: 'fatal',
    ...env,
  });
  return {
    config: { ...config, hasClockJobs: false },
    drop: async () => {
      await drop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
