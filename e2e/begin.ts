import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { admin, connect, ended, environment, run, stop } from './processes';

/**
 * Before all browser tests: loads the demo once and lets the jobs of its story run (mails, sizes of pictures). Each worker begins with a copy of
 * the database and of the folder.
 */
// eslint-disable-next-line no-restricted-syntax -- Playwright takes the default export
export default async function begin(): Promise<() => Promise<void>> {
  const database = `story_${process.pid}`;
  const folder = mkdtempSync(join(tmpdir(), 'zesting-story-'));
  await admin(`create database ${database}`);
  const env = await environment(database, folder);
  const catcher = await run('apps/standins/dist/main.js', env);
  await ended(await run('demo/dist/main.js', env));
  const server = await run('apps/server/dist/main.js', env);
  const data = await connect(database);
  await expect
    .poll(async () => (await data.query('select 1 from graphile_worker.jobs where run_at <= now() and attempts < 3')).rowCount, {
      timeout: 100_000,
      intervals: [500],
    })
    .toBe(0);
  await data.end();
  await stop(server, catcher);
  process.env['ZESTING_STORY_DATABASE'] = database;
  process.env['ZESTING_STORY_FOLDER'] = folder;
  return async () => {
    await admin(`drop database ${database} with (force)`);
    rmSync(folder, { recursive: true, force: true });
  };
}
