// Makes, starts and stops a PostgreSQL cluster of the project's own, on loopback. Plain Node, no dependencies.
import { execFileSync, spawnSync } from 'node:child_process';
import { accessSync, chownSync, constants, existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

/** An expected failure: told in one line, without a stack. */
export class Stop extends Error {}

/** The newest server programs that Debian installed; undefined when there are none. */
export function findPrograms() {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? readdirSync(root).sort((a, b) => Number(b) - Number(a)) : [];
  return versions.map((version) => join(root, version, 'bin')).find((bin) => existsSync(join(bin, 'initdb')));
}

/** PostgreSQL refuses to run as root: its user then. */
function runAs() {
  if (process.getuid?.() !== 0) return {};
  const id = (flag) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

const run = (program, args, options = {}) => {
  const result = spawnSync(program, args, { cwd: '/', stdio: ['ignore', 'pipe', 'pipe'], encoding: 'utf8', ...runAs(), ...options });
  if (result.status !== 0) throw new Stop(`${program.split('/').at(-1)} failed: ${(result.stderr ?? '').trim().split('\n').at(-1) ?? ''}`);
};

/** Whether the user that runs PostgreSQL can enter a folder. */
export function canEnter(folder) {
  if (process.getuid?.() !== 0) {
    try {
      accessSync(folder, constants.X_OK);
      return true;
    } catch {
      return false;
    }
  }
  return spawnSync('test', ['-x', folder], runAs()).status === 0;
}

/** Makes a cluster in `folder` when there is none yet. Two that start at once race for the rename: one wins, the other uses it. */
export function makeCluster(bin, folder) {
  if (existsSync(join(folder, 'PG_VERSION'))) return;
  const { uid, gid } = runAs();
  const parent = join(folder, '..');
  mkdirSync(parent, { recursive: true });
  if (existsSync(folder) && readdirSync(folder).length > 0)
    throw new Stop(`${folder} is there but is no database: move it away, or set ZESTING_DATA`);
  const fresh = `${folder}.new-${process.pid}`;
  mkdirSync(fresh);
  if (uid !== undefined) chownSync(fresh, uid, gid);
  run(join(bin, 'initdb'), ['-D', fresh, '-U', 'postgres', '-A', 'trust', '--locale=C.UTF-8', '-E', 'UTF8']);
  try {
    renameSync(fresh, folder);
  } catch (error) {
    rmSync(fresh, { recursive: true, force: true });
    if (!existsSync(join(folder, 'PG_VERSION'))) throw error;
  }
}

/** The process and port that serve a cluster; undefined when none does. A stale pid file is removed. */
export function serving(folder) {
  const pidFile = join(folder, 'postmaster.pid');
  if (!existsSync(pidFile)) return undefined;
  const [pid, , , port] = readFileSync(pidFile, 'utf8').split('\n');
  try {
    const state = readFileSync(`/proc/${pid}/stat`, 'utf8').replace(/^.*\) /, '')[0];
    const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    if (state !== 'Z' && command.includes(folder)) return { pid: Number(pid), port: Number(port) };
  } catch {
    // no such process
  }
  rmSync(pidFile, { force: true });
  return undefined;
}

export const portIsFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

/** A port that is free now. */
export const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** Starts a cluster on a port of loopback, without a socket. `settings` are PostgreSQL's own. */
export function startCluster(bin, folder, port, settings = {}) {
  const options = { listen_addresses: '127.0.0.1', unix_socket_directories: '', port, ...settings };
  const flags = Object.entries(options).map(([name, value]) => `-c ${name}=${value === '' ? "''" : value}`);
  const log = join(folder, 'server.log');
  const result = spawnSync(join(bin, 'pg_ctl'), ['-D', folder, '-w', '-t', '60', '-l', log, '-o', flags.join(' '), 'start'], {
    cwd: '/',
    stdio: 'ignore',
    ...runAs(),
  });
  if (result.status !== 0) throw new Stop(`the database in ${folder} does not start: ${lastLine(log)}`);
}

function lastLine(log) {
  try {
    return readFileSync(log, 'utf8').trim().split('\n').at(-1) ?? '';
  } catch {
    return `see ${log}`;
  }
}

export function stopCluster(bin, folder) {
  spawnSync(join(bin, 'pg_ctl'), ['-D', folder, '-m', 'fast', '-w', 'stop'], { cwd: '/', stdio: 'ignore', ...runAs() });
}

/** Makes a database on a running cluster when it is not there yet. */
export function makeDatabase(bin, port, name) {
  const connection = ['-h', '127.0.0.1', '-p', String(port), '-U', 'postgres'];
  const found = spawnSync(
    join(bin, 'psql'),
    [...connection, '-d', 'postgres', '-Atc', `select 1 from pg_database where datname = '${name}'`],
    { cwd: '/', encoding: 'utf8' },
  );
  if (found.stdout?.trim() === '1') return;
  const made = spawnSync(join(bin, 'createdb'), [...connection, name], { cwd: '/', encoding: 'utf8' });
  if (made.status !== 0 && !/already exists/.test(made.stderr ?? '')) throw new Stop(`createdb failed: ${(made.stderr ?? '').trim()}`);
}

/** Where clusters lie: under the data folder, or, when PostgreSQL's user cannot enter that, under /var/tmp. */
export function clusterFolder(dataFolder, name) {
  mkdirSync(dataFolder, { recursive: true });
  const inside = join(dataFolder, name);
  if (existsSync(join(inside, 'PG_VERSION')) || canEnter(dataFolder)) {
    const { uid, gid } = runAs();
    const home = join(dataFolder, 'clusters');
    mkdirSync(home, { recursive: true });
    if (uid !== undefined) chownSync(home, uid, gid);
    return join(home, name);
  }
  const { ino } = statSync(dataFolder);
  const outside = `/var/tmp/zesting-${ino}`;
  mkdirSync(outside, { recursive: true });
  const { uid, gid } = runAs();
  if (uid !== undefined) chownSync(outside, uid, gid);
  return join(outside, name);
}
