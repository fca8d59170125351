// A whole Zesting on a throwaway cluster, for what measures and torments it: fuzz, torture, big bench. Plain Node.
import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { clusterFolder, findPrograms, freePort, makeCluster, makeDatabase, startCluster, stopCluster } from './database.mjs';
import { root } from './prepare.mjs';

/** The present of all of these: a Tuesday morning. */
export const PRESENT = '2027-03-09T10:15:00Z';
export const PASSWORD = 'zest-and-pith';

/** Runs a compiled program until it says that it is ready (or, for the demo, done). */
export function program(script, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, script)], {
      cwd: root,
      env: { ...process.env, NODE_ENV: 'production', ...env },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.once('message', () => resolve(child));
    child.once('exit', (code, signal) => reject(new Error(`${script} ended with ${signal ?? code}`)));
  });
}

export const ended = (child) =>
  new Promise((resolve) => (child.exitCode !== null || child.signalCode !== null ? resolve() : child.once('exit', resolve)));

/**
 * Makes a cluster with the demo loaded, lets `work` have it, and removes it again.
 * @param work is given the parts; it starts the application itself, as often as it likes
 */
export async function withZesting(work, { settings = {}, env: more = {} } = {}) {
  const bin = findPrograms();
  const folder = mkdtempSync(join(tmpdir(), 'zesting-throwaway-'));
  chmodSync(folder, 0o755); // the user that runs PostgreSQL must get in
  const cluster = clusterFolder(folder, 'throwaway');
  const pgPort = await freePort();
  makeCluster(bin, cluster);
  const startDatabase = () => startCluster(bin, cluster, pgPort, { max_connections: 200, ...settings });
  startDatabase();
  const children = [];
  try {
    makeDatabase(bin, pgPort, 'zesting');
    const port = await freePort();
    const channelsPort = String(await freePort());
    mkdirSync(join(folder, 'mail'), { recursive: true });
    const env = {
      ZESTING_DATABASE_URL: `postgres://postgres@127.0.0.1:${pgPort}/zesting`,
      ZESTING_PORT: String(port),
      ZESTING_ADDRESS: `http://127.0.0.1:${port}`,
      ZESTING_FILES: join(folder, 'files'),
      ZESTING_SMTP_PORT: String(await freePort()),
      ZESTING_MAIL_PORT: String(await freePort()),
      ZESTING_MAIL_FOLDER: join(folder, 'mail'),
      ZESTING_CHANNELS_PORT: channelsPort,
      ZESTING_CHANNELS_FOLDER: join(folder, 'channels'),
      ZESTING_CHANNELS: `http://127.0.0.1:${channelsPort}`,
      ZESTING_NOW: PRESENT,
      ZESTING_LOG: 'fatal',
      ...more,
    };
    const start = async (script) => {
      const child = await program(script, env);
      children.push(child);
      return child;
    };
    const standIns = await start('apps/standins/dist/main.js'); // the demo sends something to its channels
    await ended(await start('demo/dist/main.js'));
    standIns.kill('SIGTERM');
    await ended(standIns);
    const query = async (sql, values = []) => {
      const client = new pg.Client(env.ZESTING_DATABASE_URL);
      await client.connect();
      return (await client.query(sql, values).finally(() => client.end())).rows;
    };
    await work({
      address: env.ZESTING_ADDRESS,
      env,
      query,
      start,
      folder,
      stopDatabase: () => stopCluster(bin, cluster),
      startDatabase,
    });
  } finally {
    for (const child of children) child.kill('SIGKILL');
    await Promise.all(children.map(ended));
    stopCluster(bin, cluster);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A caller with cookies of its own. */
export class Caller {
  cookies = new Map();
  constructor(address, name) {
    this.address = address;
    this.name = name;
  }

  async call(method, path, body, headers = {}) {
    const response = await fetch(`${this.address}${path}`, {
      method,
      redirect: 'manual',
      signal: AbortSignal.timeout(20_000),
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(this.cookies.size > 0 ? { Cookie: [...this.cookies].map((pair) => pair.join('=')).join('; ') } : {}),
        ...headers,
      },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    });
    for (const cookie of response.headers.getSetCookie()) {
      const [pair] = cookie.split(';');
      this.cookies.set(pair.slice(0, pair.indexOf('=')), pair.slice(pair.indexOf('=') + 1));
    }
    if (response.headers.get('content-type')?.startsWith('text/event-stream')) {
      await response.body?.cancel();
      return { status: response.status, text: '' };
    }
    return { status: response.status, text: await response.text() };
  }

  async json(method, path, body, headers) {
    const { status, text } = await this.call(method, path, body, headers);
    return { status, body: text === '' ? null : JSON.parse(text) };
  }

  /** Signs in as somebody of the demo. */
  async signIn(email) {
    const { status } = await this.call('POST', '/api/session', { email, password: PASSWORD });
    if (status !== 200) throw new Error(`${email} cannot sign in: ${status}`);
    return this;
  }

  /** Opens a personal link. */
  async open(path, token) {
    const { status } = await this.call('POST', path, { token });
    if (status !== 200) throw new Error(`the link at ${path} does not open: ${status}`);
    return this;
  }
}
