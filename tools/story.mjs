// The demo as the tests look at it: loaded once per run, for Jest and for the browser, each of which begins with a copy.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { freePort } from './database.mjs';
import { ended, PRESENT, program } from './throwaway.mjs';

const DATABASE = 'story';
/** The longest that the jobs of the story may take, in milliseconds. */
const PATIENCE_MS = 600_000;

/** What the tests are told of the story, as environment. It is whole once the file `whole` lies in its folder. */
export const storyIn = (folder) => ({ ZESTING_STORY_DATABASE: DATABASE, ZESTING_STORY_FOLDER: folder, ZESTING_STORY_NOW: PRESENT });

/**
 * Loads the demo into a database of the cluster and lets the jobs of its story run (mails, sizes of pictures).
 * @param port the cluster's
 * @param folder where files and mails go
 */
export async function loadStory(port, folder) {
  const url = (name) => `postgres://postgres@127.0.0.1:${port}/${name}`;
  const ask = async (name, sql) => {
    const client = new pg.Client(url(name));
    await client.connect();
    return (await client.query(sql).finally(() => client.end())).rowCount;
  };
  mkdirSync(join(folder, 'mail'), { recursive: true });
  const env = {
    ZESTING_DATABASE_URL: url(DATABASE),
    ZESTING_PORT: String(await freePort()),
    ZESTING_FILES: join(folder, 'files'),
    ZESTING_MAIL_FOLDER: join(folder, 'mail'),
    ZESTING_SMTP_PORT: String(await freePort()),
    ZESTING_INBOX_PORT: String(await freePort()),
    ZESTING_MAIL_PORT: String(await freePort()),
    ZESTING_CHANNELS_PORT: String(await freePort()),
    ZESTING_CHANNELS_FOLDER: join(folder, 'channels'),
    ZESTING_TESTING: '1',
    ZESTING_NOW: PRESENT,
    ZESTING_LOG: 'warn',
  };
  env.ZESTING_ADDRESS = `http://127.0.0.1:${env.ZESTING_PORT}`;
  env.ZESTING_CHANNELS = `http://127.0.0.1:${env.ZESTING_CHANNELS_PORT}`;
  await ask('postgres', `create database ${DATABASE}`);
  console.log('Loading the demo …');
  const catcher = await program('apps/standins/dist/main.js', env);
  const loader = await program('demo/dist/main.js', env);
  await ended(loader);
  if (loader.exitCode !== 0) throw new Error('the demo did not load');
  const server = await program('apps/server/dist/main.js', env);
  const end = performance.now() + PATIENCE_MS;
  while ((await ask(DATABASE, 'select 1 from graphile_worker.jobs where run_at <= now() and attempts < 3')) > 0) {
    if (performance.now() > end) throw new Error('the jobs of the demo do not come to an end');
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  for (const child of [server, catcher]) {
    child.kill('SIGTERM');
    await ended(child);
  }
  writeFileSync(join(folder, 'whole'), '');
}
