import { cpSync, existsSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { App, createServer, migrate, migrateJobs, type Config } from '@zesting/server';
import { loadDemo } from './load.js';

/** Which database an address names, and the same address with another. */
const nameIn = (url: string): string => decodeURIComponent(new URL(url).pathname.slice(1));
function withName(url: string, name: string): string {
  const address = new URL(url);
  address.pathname = `/${encodeURIComponent(name)}`;
  return address.toString();
}
const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

async function ask<Row extends pg.QueryResultRow>(url: string, ...statements: string[]): Promise<Row[]> {
  const client = new pg.Client(url);
  await client.connect();
  try {
    let rows: Row[] = [];
    for (const statement of statements) rows = (await client.query<Row>(statement)).rows;
    return rows;
  } finally {
    await client.end();
  }
}

/** What a database holds: the demo, an agency of one's own, or none yet; `left` where the demo was left for good. */
export type Holds = 'demo' | 'own' | 'empty' | 'left';

/** Asked without building the application, so that a second start is quick; of older data too, whose agencies were all the demo's. */
export async function whatIsIn(databaseUrl: string): Promise<Holds> {
  const has = async (table: string): Promise<boolean> =>
    (await ask<{ there: string | null }>(databaseUrl, `select to_regclass('${table}') as there`))[0]?.there !== null;
  if (!(await has('agencies'))) return 'empty';
  const [agency] = await ask<{ demo: boolean }>(
    databaseUrl,
    "select coalesce((to_jsonb(a) ->> 'is_demo')::boolean, true) as demo from agencies a",
  );
  if (agency) return agency.demo ? 'demo' : 'own';
  const wasLeft = (await has('demo_left')) && (await ask(databaseUrl, 'select 1 from demo_left')).length > 0;
  return wasLeft ? 'left' : 'empty';
}

/**
 * Loads the demo whole or not at all: into a database and a folder of its own, which take the place of the empty ones once the story is
 * complete. A failure leaves what was there as it was. An agency that is there stays, and a demo that was left stays away.
 * @param load plays the story; tests pass one that fails on the way
 * @returns whether it was loaded now
 */
export async function loadWhole(config: Config, load: (app: App, now: string) => Promise<void> = loadDemo): Promise<boolean> {
  if ((await whatIsIn(config.databaseUrl)) !== 'empty') return false;
  const name = nameIn(config.databaseUrl);
  const making = `${name}_in_the_making`;
  const maintenance = withName(config.databaseUrl, 'postgres');
  const part: Config = {
    ...config,
    databaseUrl: withName(config.databaseUrl, making),
    dataFolder: `${config.dataFolder}-in-the-making`,
    webFolder: null,
  };
  const clear = async () => {
    await ask(maintenance, `drop database if exists ${quoted(making)} with (force)`);
    rmSync(part.dataFolder, { recursive: true, force: true });
  };
  await clear(); // of a start that was killed
  try {
    await ask(maintenance, `create database ${quoted(making)}`);
    await play(part, load);
    // from here on nothing can go wrong but the machine: first the files, which do no harm alone, then the name
    if (existsSync(part.dataFolder)) for (const entry of readdirSync(part.dataFolder)) moveInto(part.dataFolder, config.dataFolder, entry);
    await ask(maintenance, `drop database ${quoted(name)} with (force)`, `alter database ${quoted(making)} rename to ${quoted(name)}`);
  } finally {
    await clear();
  }
  return true;
}

async function play(config: Config, load: (app: App, now: string) => Promise<void>): Promise<void> {
  await migrate(config.databaseUrl);
  await migrateJobs(config.databaseUrl);
  // not started: no job runs meanwhile, what the story puts into the outbox goes out when the server starts
  const server = await createServer(config);
  try {
    const app = server.get(App);
    await load(app, app.clock.now());
  } finally {
    await server.close();
  }
}

/** Moves a folder or file; what is there under that name already is joined with it: files lie under their hash. */
function moveInto(from: string, to: string, entry: string): void {
  if (existsSync(join(to, entry))) cpSync(join(from, entry), join(to, entry), { recursive: true, force: false });
  else renameSync(join(from, entry), join(to, entry));
}
