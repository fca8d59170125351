// npm start: everything from a fresh checkout to a running Zesting with its demo; `-- --own` or ZESTING_DEMO=off: without it, for an agency of
// one's own. Ctrl+C stops all that was started.
import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import {
  clusterFolder,
  findPrograms,
  freePort,
  makeCluster,
  makeDatabase,
  portIsFree,
  serving,
  startCluster,
  Stop,
  stopCluster,
} from './database.mjs';
import { needModules, needPackages, root, tell } from './prepare.mjs';

const port = Number(process.env.ZESTING_PORT ?? 4310);
const mailPort = Number(process.env.ZESTING_MAIL_PORT ?? port + 1);
const channelsPort = Number(process.env.ZESTING_CHANNELS_PORT ?? port + 2);
const withDemo = process.env.ZESTING_DEMO !== 'off' && !process.argv.includes('--own');
const dataFolder = process.env.ZESTING_DATA ?? join(root, '.data');

/** Starts a compiled program; its promise resolves with what it says first, usually that it listens. */
function startProgram(script, env) {
  const child = spawn(process.execPath, ['--enable-source-maps', join(root, script)], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  const ready = new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', (code, signal) => reject(new Stop(`${script} ended with ${signal ?? `code ${code}`}`)));
  });
  ready.catch(() => undefined); // whoever waits for it hears; nobody has to
  return { child, ready };
}

/** The pauses before a part is started again, in seconds; one that ran for ten minutes begins anew. */
const PAUSES = [1, 2, 5, 10, 30, 60];
const STEADY_MS = 600_000;

/** Keeps a part of Zesting running: what ends unasked is said, and started again after a pause that grows. */
async function keepRunning(parts, name, script, env) {
  const part = { name, child: null, isEnding: false };
  parts.push(part);
  let fails = 0;
  const start = async () => {
    const began = Date.now();
    const { child, ready } = startProgram(script, env);
    part.child = child;
    child.once('exit', (code, signal) => {
      if (part.isEnding) return;
      if (Date.now() - began > STEADY_MS) fails = 0;
      const pause = PAUSES[Math.min(fails++, PAUSES.length - 1)];
      console.error(`${name} ended with ${signal ?? `code ${code}`}; it is started again in ${pause} s.`);
      part.again = setTimeout(() => void start().catch(() => undefined), pause * 1000);
    });
    await ready;
    if (fails > 0) console.log(`${name} runs again.`);
  };
  await start();
}

/** Claims the data folder for this start; a start that was killed left a claim that no longer counts. */
function claim(folder) {
  const path = join(folder, 'start.pid');
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      writeFileSync(path, String(process.pid), { flag: 'wx' });
      return () => rmSync(path, { force: true });
    } catch (error) {
      if (error.code !== 'EEXIST') throw new Stop(`the data folder cannot be written: ${error.message}`);
      const pid = readFileSync(path, 'utf8');
      if (isStart(pid)) throw new Stop(`Zesting runs already with this data folder (process ${pid})`);
      rmSync(path, { force: true });
    }
  }
  throw new Stop('another start was quicker: use that one');
}

function isStart(pid) {
  try {
    return pid !== String(process.pid) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs');
  } catch {
    return false;
  }
}

const ended = (child) =>
  new Promise((resolve) => (child.exitCode !== null || child.signalCode !== null ? resolve() : child.once('exit', resolve)));

await tell(async () => {
  if (!Number.isInteger(port) || port < 1 || port > 65000) throw new Stop(`ZESTING_PORT is no port: ${process.env.ZESTING_PORT}`);
  const { ZESTING_NOW: present } = process.env;
  if (present && Number.isNaN(Date.parse(present))) throw new Stop(`ZESTING_NOW is no instant such as 2027-03-16T09:00:00Z: ${present}`);
  for (const wanted of [port, mailPort, channelsPort])
    if (!(await portIsFree(wanted))) throw new Stop(`port ${wanted} is in use: stop what uses it, or set ZESTING_PORT`);
  try {
    mkdirSync(dataFolder, { recursive: true });
  } catch (error) {
    throw new Stop(`the data folder cannot be made: ${error.message}`);
  }
  process.on('exit', claim(dataFolder));
  needPackages();
  needModules();
  build();
  const bin = findPrograms();
  const cluster = clusterFolder(dataFolder, 'main');
  makeCluster(bin, cluster);
  if (!serving(cluster)) startCluster(bin, cluster, await freePort());
  const running = serving(cluster);
  const parts = [];
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    for (const part of parts) {
      part.isEnding = true;
      clearTimeout(part.again);
      part.child?.kill('SIGTERM');
    }
    await Promise.all(parts.map(({ child }) => child && ended(child)));
    stopCluster(bin, cluster);
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  try {
    makeDatabase(bin, running.port, 'zesting');
    const smtpPort = await freePort();
    const inboxPort = process.env.ZESTING_INBOX_PORT ?? String(await freePort());
    const env = {
      ZESTING_DATABASE_URL: `postgres://postgres@127.0.0.1:${running.port}/zesting`,
      ZESTING_PORT: String(port),
      ZESTING_ADDRESS: process.env.ZESTING_ADDRESS ?? `http://127.0.0.1:${port}`,
      ZESTING_FILES: join(dataFolder, 'files'),
      ZESTING_WEB: join(root, 'apps/web/dist'),
      ZESTING_SMTP_PORT: String(smtpPort),
      ZESTING_INBOX_PORT: inboxPort,
      ZESTING_MAIL_PORT: String(mailPort),
      ZESTING_MAIL_FOLDER: join(dataFolder, 'mail'),
      ZESTING_CHANNELS_PORT: String(channelsPort),
      ZESTING_CHANNELS_FOLDER: join(dataFolder, 'channels'),
      ZESTING_CHANNELS: `http://127.0.0.1:${channelsPort}`,
      // off unless somebody wants it; the one that ships makes nothing up
      ...(process.env.ZESTING_WRITING_AID === 'simulated' ? { ZESTING_WRITING_AID: `http://127.0.0.1:${channelsPort}` } : {}),
    };
    await keepRunning(parts, 'The pages of mail and channels', 'apps/standins/dist/main.js', env);
    const demoEnv = { ...env, ZESTING_DEMO: withDemo ? 'on' : 'off' };
    const demo = await startProgram('demo/dist/main.js', demoEnv).ready.catch((error) => ({
      people: [],
      failure: error.message,
      holds: 'empty',
    }));
    await keepRunning(parts, 'The application', 'apps/server/dist/main.js', env);
    console.log(`\nZesting is ready: http://127.0.0.1:${port}`);
    console.log(`Mail that Zesting sends, caught and shown: http://127.0.0.1:${mailPort}`);
    console.log(`What goes out by itself, on simulated channels: http://127.0.0.1:${channelsPort}`);
    if (demo.failure) console.log(`\nThe demo could not be loaded (${demo.failure}): Zesting is empty, the next start tries again.`);
    else if (demo.holds === 'empty' || demo.holds === 'left') console.log('\nIt is empty: the first page sets up your agency.');
    else if (demo.holds === 'demo') {
      if (!withDemo)
        console.log(
          '\nThis data folder holds the demo already. Leave it from within (Setup, Agency), or set ZESTING_DATA to another folder.',
        );
      console.log(`\nSign in with one of these; the password is ${demo.password}`);
      for (const person of demo.people) console.log(`  ${person.email.padEnd(28)} ${person.what}`);
    }
    console.log('\nCtrl+C stops everything.');
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    await stop(1);
  }
});
