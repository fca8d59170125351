import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { connect as knock, createServer } from 'node:net';
import { join } from 'node:path';
import pg from 'pg';

const root = join(__dirname, '..');

/** The present of all browser tests is that of the story they begin with: a Tuesday morning, so that none needs the luck of the hour. */
export const PRESENT = process.env['ZESTING_STORY_NOW'] ?? '2027-03-09T10:15:00Z';

/** Below the ports that systems lend out by themselves: else one that was free a moment ago is another connection's by now. */
const FIRST_PORT = 15_000;
const PORTS_OF_A_WORKER = 1_000;
let lent = process.pid % PORTS_OF_A_WORKER;

/** A port of loopback that nobody has, of those that only this worker lends. */
export async function freePort(): Promise<number> {
  for (let tries = 0; tries < PORTS_OF_A_WORKER; tries++) {
    lent = (lent + 1) % PORTS_OF_A_WORKER;
    const port = FIRST_PORT + Number(process.env['TEST_PARALLEL_INDEX'] ?? 0) * PORTS_OF_A_WORKER + lent;
    if (await isFree(port)) return port;
  }
  throw new Error('no port is free');
}

const isFree = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
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
  const channelsPort = String(await freePort());
  return {
    ZESTING_DATABASE_URL: databaseUrl(database),
    ZESTING_PORT: port,
    ZESTING_ADDRESS: `http://127.0.0.1:${port}`,
    ZESTING_FILES: join(folder, 'files'),
    ZESTING_MAIL_FOLDER: join(folder, 'mail'),
    ZESTING_WEB: join(root, 'apps/web/dist'),
    ZESTING_SMTP_PORT: String(await freePort()),
    ZESTING_INBOX_PORT: String(await freePort()),
    ZESTING_MAIL_PORT: String(await freePort()),
    ZESTING_CHANNELS_PORT: channelsPort,
    ZESTING_CHANNELS_FOLDER: join(folder, 'channels'),
    ZESTING_CHANNELS: `http://127.0.0.1:${channelsPort}`,
    ZESTING_CHANNEL_SECONDS: '2',
    ZESTING_TESTING: '1',
    ZESTING_NOW: PRESENT,
  };
}

/**
 * Debian's nginx with the settings that ship in `deploy/`, a certificate made now, and ports of loopback.
 * @param port where it takes TLS
 */
export async function runProxy(folder: string, port: string, applicationPort: string): Promise<ChildProcess> {
  const inside = join(folder, 'proxy');
  mkdirSync(inside, { recursive: true });
  const [certificate, key] = [join(inside, 'certificate.pem'), join(inside, 'certificate.key')];
  const made = ['-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=localhost', '-keyout', key, '-out', certificate];
  execFileSync('openssl', ['req', ...made], { stdio: 'ignore' });
  const shipped = readFileSync(join(root, 'deploy/nginx.conf'), 'utf8');
  const changed = shipped
    .replace('listen 443 ssl', `listen 127.0.0.1:${port} ssl`)
    .replace('server_name zesting.example', 'server_name localhost')
    .replace('/etc/zesting/certificate.pem', certificate)
    .replace('/etc/zesting/certificate.key', key)
    .replace('http://127.0.0.1:4310', `http://127.0.0.1:${applicationPort}`);
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((name) => `${name}_temp_path ${join(inside, name)};`);
  writeFileSync(
    join(inside, 'all.conf'),
    `${process.getuid?.() === 0 ? 'user root;' : ''} pid ${join(inside, 'pid')}; daemon off; error_log stderr error; events {}
     http { access_log off; ${temporary.join(' ')} ${changed} }`,
  );
  const program = process.env['ZESTING_PROXY'] ?? '/usr/sbin/nginx';
  const child = spawn(program, ['-p', inside, '-e', 'stderr', '-c', join(inside, 'all.conf')], { stdio: ['ignore', 'ignore', 'inherit'] });
  for (let tries = 0; tries < 100 && child.exitCode === null; tries++) {
    if (await isOpen(Number(port))) return child;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('the proxy does not start');
}

const isOpen = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = knock(port, '127.0.0.1', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });

interface Started {
  readonly address: string;
  readonly mailAddress: string;
  readonly channelsAddress: string;
  readonly databaseUrl: string;
  readonly end: () => Promise<void>;
}

/** The port of the cluster that a start made in its data folder. */
const databasePortIn = (folder: string): string => readFileSync(join(folder, 'clusters/main/postmaster.pid'), 'utf8').split('\n')[3] ?? '';

/** Runs the start command as people do, with a data folder of its own, until it says that Zesting is ready. */
export async function startCommand(folder: string, args: readonly string[]): Promise<Started> {
  const [port, mailPort, channelsPort] = [String(await freePort()), String(await freePort()), String(await freePort())];
  const child = spawn(process.execPath, [join(root, 'tools/start.mjs'), ...args], {
    cwd: root,
    env: { ...process.env, ZESTING_DATA: folder, ZESTING_PORT: port, ZESTING_MAIL_PORT: mailPort, ZESTING_CHANNELS_PORT: channelsPort },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (words: Buffer) => {
      said += words.toString();
      if (said.includes('Ctrl+C stops everything')) resolve();
    });
    child.once('exit', (code) => reject(new Error(`the start command ended with ${code}: ${said}`)));
  });
  return {
    address: `http://127.0.0.1:${port}`,
    mailAddress: `http://127.0.0.1:${mailPort}`,
    channelsAddress: `http://127.0.0.1:${channelsPort}`,
    databaseUrl: `postgres://postgres@127.0.0.1:${databasePortIn(folder)}/zesting`,
    end: () => stop(child),
  };
}
