import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import pg from 'pg';

const root = join(__dirname, '..');

/** The present of all browser tests: a Tuesday morning, so that none needs the luck of the hour. ZESTING_NOW sets another. */
export const PRESENT = process.env['ZESTING_NOW'] ?? '2027-03-09T10:15:00Z';

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** Runs a compiled program until it says that it is ready (or, for the demo loader, done). */
export function run(script: string, env: Record<string, string>): Promise<ChildProcess> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, script)], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    child.once('message', () => resolve(child));
    child.once('exit', (code) => reject(new Error(`${script} ended with ${code}`)));
  });
}

export const ended = (child: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) resolve();
    else child.once('exit', () => resolve());
  });

/** Asks children to stop, and waits until they have. */
export async function stop(...children: readonly ChildProcess[]): Promise<void> {
  for (const child of children) child.kill('SIGTERM');
  await Promise.all(children.map(ended));
}

const databaseUrl = (name: string): string => `postgres://postgres@127.0.0.1:${process.env['ZESTING_TEST_PG']}/${name}`;

/** A connection to the throwaway cluster's database of that name. */
export async function connect(name: string): Promise<pg.Client> {
  const client = new pg.Client(databaseUrl(name));
  await client.connect();
  return client;
}

/** Runs one statement that makes or drops databases. */
export async function admin(sql: string): Promise<void> {
  const client = await connect('postgres');
  await client.query(sql).finally(() => client.end());
}

/** What the programs of one Zesting are told: its database, its ports, and a folder with its files and mails. */
export async function environment(database: string, folder: string): Promise<Record<string, string>> {
  const port = String(await freePort());
  return {
    ZESTING_DATABASE_URL: databaseUrl(database),
    ZESTING_PORT: port,
    ZESTING_ADDRESS: `http://127.0.0.1:${port}`,
    ZESTING_FILES: join(folder, 'files'),
    ZESTING_MAIL_FOLDER: join(folder, 'mail'),
    ZESTING_WEB: join(root, 'apps/web/dist'),
    ZESTING_SMTP_PORT: String(await freePort()),
    ZESTING_MAIL_PORT: String(await freePort()),
    ZESTING_TESTING: '1',
    ZESTING_NOW: PRESENT,
  };
}
