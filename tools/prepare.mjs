// What a fresh checkout needs before anything runs: Debian packages and npm packages. Plain Node, no dependencies.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { findPrograms, Stop } from './database.mjs';

export const root = join(import.meta.dirname, '..');

/** Debian's Chromium without a window, which needs two thirds of the time of the whole; that one where it is all there is. */
const BROWSERS = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];
export const findBrowser = () => BROWSERS.find((path) => existsSync(path));

/** Installs the Debian packages that are missing, as root or through sudo; otherwise says what to run. */
export function needPackages({ browser = false } = {}) {
  if (browser && !existsSync(BROWSERS[0])) {
    try {
      install(['chromium-headless-shell']);
    } catch (error) {
      if (!findBrowser()) throw error;
      console.log('The whole Chromium does it as well.');
    }
  }
  if (!findPrograms()) install(['postgresql']);
}

/**
 * Debian's nginx, for the journey behind a proxy: the one that is installed, or else unpacked under `node_modules`, since installing it would
 * also start it.
 */
export function findProxy() {
  if (existsSync('/usr/sbin/nginx')) return '/usr/sbin/nginx';
  const folder = join(root, 'node_modules/.cache/nginx');
  const program = join(folder, 'usr/sbin/nginx');
  if (existsSync(program)) return program;
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  const run = (name, args) => spawnSync(name, args, { cwd: folder, stdio: 'ignore' }).status === 0;
  if (!run('apt-get', ['download', 'nginx'])) {
    asRoot('apt-get update', 'nginx');
    if (!run('apt-get', ['download', 'nginx'])) throw new Stop('nginx cannot be downloaded. Run as root: apt-get install -y nginx');
  }
  const archive = readdirSync(folder).find((name) => name.endsWith('.deb'));
  if (!archive || !run('dpkg', ['-x', archive, '.']) || !existsSync(program)) throw new Stop('nginx cannot be unpacked');
  return program;
}

/** Installs the Debian packages of programs that are not there. @param programs each with its package */
export function needPrograms(programs) {
  const isMissing = (name) => spawnSync('which', [name], { stdio: 'ignore' }).status !== 0;
  const missing = Object.entries(programs).flatMap(([name, debian]) => (isMissing(name) ? [debian] : []));
  if (missing.length > 0) install(missing);
}

function install(missing) {
  asRoot(`apt-get update && apt-get install -y ${missing.join(' ')}`, missing.join(' and '));
}

/** Runs a command as root or through sudo; otherwise says what to run. */
function asRoot(command, what) {
  const isRoot = process.getuid?.() === 0;
  const sudo = !isRoot && spawnSync('sudo', ['-n', 'true']).status === 0;
  if (!isRoot && !sudo) throw new Stop(`${what} must be installed. Run as root: ${command}`);
  console.log(`Installing ${what} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const result = spawnSync(sudo ? 'sudo' : 'sh', sudo ? ['-n', 'sh', '-c', command] : ['-c', command], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (result.status !== 0) throw new Stop(`installing failed. Run as root: ${command}`);
}

/** Runs npm install when the packages are not those of the lock file. */
export function needModules() {
  const lock = join(root, 'package-lock.json');
  const stamp = join(root, 'node_modules', '.zesting-lock');
  const wanted = existsSync(lock) ? String(statSync(lock).size) + readFileSync(lock, 'utf8').length : '';
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing packages …');
  const result = spawnSync('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (result.status !== 0) throw new Stop('npm install failed');
  writeFileSync(stamp, existsSync(lock) ? String(statSync(lock).size) + readFileSync(lock, 'utf8').length : '');
}

/** Runs `main`; an expected failure is one line and exit code 1. */
export async function tell(main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    process.exit(1);
  }
}
