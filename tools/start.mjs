// npm start: everything from a fresh checkout to a running Zesting with its demo. Ctrl+C stops all that was started.
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
const dataFolder = process.env.ZESTING_DATA ?? join(root, '.data');

/** Starts a compiled program and resolves when it says that it listens. */
function startProgram(children, script, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--enable-source-maps', join(root, script)], {
      cwd: root,
      env: { ...process.env, NODE_ENV: 'production', ...env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    children.push(child);
    child.once('message', (message) => resolve(message));
    child.once('exit', (code) => reject(new Stop(`${script} ended with code ${code}`)));
  });
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
  for (const wanted of [port, mailPort])
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
  const children = [];
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    for (const child of children) child.kill('SIGTERM');
    await Promise.all(children.map(ended));
    stopCluster(bin, cluster);
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  try {
    makeDatabase(bin, running.port, 'zesting');
    const smtpPort = await freePort();
    const env = {
      ZESTING_DATABASE_URL: `postgres://postgres@127.0.0.1:${running.port}/zesting`,
      ZESTING_PORT: String(port),
      ZESTING_ADDRESS: process.env.ZESTING_ADDRESS ?? `http://127.0.0.1:${port}`,
      ZESTING_FILES: join(dataFolder, 'files'),
      ZESTING_WEB: join(root, 'apps/web/dist'),
      ZESTING_SMTP_PORT: String(smtpPort),
      ZESTING_MAIL_PORT: String(mailPort),
      ZESTING_MAIL_FOLDER: join(dataFolder, 'mail'),
    };
    await startProgram(children, 'apps/standins/dist/main.js', env);
    const signIns = await startProgram([], 'demo/dist/main.js', env);
    await startProgram(children, 'apps/server/dist/main.js', env);
    for (const child of children)
      child.once('exit', (code) => {
        if (stopping) return;
        console.error(`A part of Zesting ended with code ${code}.`);
        void stop(1);
      });
    console.log(`\nZesting is ready: http://127.0.0.1:${port}`);
    console.log(`Mail that the demo sends: http://127.0.0.1:${mailPort}`);
    console.log(`\nSign in with one of these; the password is ${signIns.password}`);
    for (const person of signIns.people) console.log(`  ${person.email.padEnd(28)} ${person.what}`);
    console.log('\nCtrl+C stops everything.');
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    await stop(1);
  }
});
