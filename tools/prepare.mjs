// What a fresh checkout needs before anything runs: Debian packages and npm packages. Plain Node, no dependencies.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
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

function install(missing) {
  const command = `apt-get update && apt-get install -y ${missing.join(' ')}`;
  const isRoot = process.getuid?.() === 0;
  const sudo = !isRoot && spawnSync('sudo', ['-n', 'true']).status === 0;
  if (!isRoot && !sudo) throw new Stop(`${missing.join(' and ')} must be installed. Run as root: ${command}`);
  console.log(`Installing ${missing.join(' and ')} …`);
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
