// npm run backup -- <folder>: database and files together, while Zesting runs or not. The folder is made; it is there whole or not at all.
import { createHash } from 'node:crypto';
import { copyFileSync, createReadStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { spawnSync } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { clusterFolder, findPrograms, freePort, serving, startCluster, Stop, stopCluster } from './database.mjs';
import { root, tell } from './prepare.mjs';

export const SCHEME = 'zesting-backup-1';
export const DUMP = 'database.dump';
export const MANIFEST = 'manifest.json';

/** Where Zesting's database and files are: as the environment says, or those of `npm start`. */
export function places() {
  const dataFolder = process.env.ZESTING_DATA ?? join(root, '.data');
  return { dataFolder, url: process.env.ZESTING_DATABASE_URL, files: process.env.ZESTING_FILES ?? join(dataFolder, 'files') };
}

/** Lets `work` have the address of the database; one of `npm start` that does not run is started for as long as that takes. */
export async function withDatabase({ url, dataFolder }, work) {
  if (url) return work(url);
  const bin = findPrograms();
  const cluster = clusterFolder(dataFolder, 'main');
  const before = serving(cluster);
  if (!before) startCluster(bin, cluster, await freePort());
  try {
    return await work(`postgres://postgres@127.0.0.1:${serving(cluster).port}/zesting`);
  } finally {
    if (!before) stopCluster(bin, cluster);
  }
}

/** One answer of the database. */
export async function ask(url, sql) {
  const client = new pg.Client(url);
  await client.connect().catch((error) => {
    throw new Stop(`the database cannot be reached: ${error.message}`);
  });
  return (await client.query(sql).finally(() => client.end())).rows;
}

/** Runs a program of PostgreSQL; what it complains of first is the error. */
export function pgProgram(name, args) {
  const { status, stderr } = spawnSync(join(findPrograms(), name), args, {
    cwd: '/',
    stdio: ['ignore', 'ignore', 'pipe'],
    encoding: 'utf8',
  });
  if (status !== 0) throw new Stop(`${name} failed: ${(stderr ?? '').trim().split('\n')[0]}`);
}

export async function sha256Of(path) {
  const hash = createHash('sha256');
  for await (const part of createReadStream(path)) hash.update(part);
  return hash.digest('hex');
}

/** Paths of all files under a folder, relative to it, sorted. */
export const filesUnder = (folder) =>
  existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => relative(folder, join(entry.parentPath, entry.name)))
        .sort()
    : [];

/** The one digest over all: of the manifest without itself, which has the digest of every file. */
export const digestOf = ({ scheme, madeAt, migration, files }) =>
  createHash('sha256')
    .update(JSON.stringify({ scheme, madeAt, migration, files: files.map(({ path, bytes, sha256 }) => ({ path, bytes, sha256 })) }))
    .digest('hex');

/** Stored files have the hash of their bytes as their name; with something behind it they are not whole yet. */
const STORED = /^[0-9a-f]{64}$/;
const UNFINISHED = /^[0-9a-f]{64}\../;

/** Copies what is not there yet. A file that goes meanwhile was used by nothing. */
function copyFiles(from, to) {
  for (const path of filesUnder(from)) {
    const target = join(to, path);
    if (UNFINISHED.test(path.split('/').at(-1)) || existsSync(target)) continue;
    mkdirSync(dirname(target), { recursive: true });
    try {
      copyFileSync(join(from, path), target);
    } catch (error) {
      if (error.code !== 'ENOENT') throw error;
    }
  }
}

/**
 * Makes a backup. Files are copied before and after the dump: what the dump speaks of was there before it, or came before the second copy.
 * @returns {{ digest: string, files: number, bytes: number, damaged: string[] }} `damaged`: stored files that are no longer what their name says
 */
export async function backup(target, from = places()) {
  if (existsSync(target)) throw new Stop(`${target} is there already: name a folder that is not`);
  if (!existsSync(from.files)) throw new Stop(`there is nothing to back up: ${from.files} does not exist`);
  const part = `${target}.part-${process.pid}`;
  mkdirSync(part, { recursive: true, mode: 0o700 }); // the server's key is inside
  try {
    copyFiles(from.files, join(part, 'files'));
    const migration = await withDatabase(from, async (url) => {
      pgProgram('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${join(part, DUMP)}`, `--dbname=${url}`]);
      const [row] = await ask(url, 'select max("timestamp")::text as last from migrations');
      return row.last;
    });
    copyFiles(from.files, join(part, 'files'));
    const files = [];
    const damaged = [];
    for (const path of filesUnder(part)) {
      const sha256 = await sha256Of(join(part, path));
      const name = path.split('/').at(-1);
      if (STORED.test(name) && name !== sha256) damaged.push(path);
      files.push({ path, bytes: statSync(join(part, path)).size, sha256 });
    }
    const manifest = { scheme: SCHEME, madeAt: new Date().toISOString(), migration, files };
    const digest = digestOf(manifest);
    writeFileSync(join(part, MANIFEST), `${JSON.stringify({ ...manifest, digest }, null, 1)}\n`, { mode: 0o600, flush: true });
    renameSync(part, target);
    return { digest, files: files.length, bytes: files.reduce((sum, { bytes }) => sum + bytes, 0), damaged };
  } catch (error) {
    rmSync(part, { recursive: true, force: true });
    throw error;
  }
}

/* The command itself; restore imports the functions above. */
if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href)
  await tell(async () => {
    const [target] = process.argv.slice(2);
    if (!target) throw new Stop('Say where to: npm run backup -- /where/backups/are/zesting-2027-03-09');
    const { digest, files, bytes, damaged } = await backup(resolve(process.env.INIT_CWD ?? '.', target));
    for (const path of damaged) console.error(`Damaged: ${path} is not what was stored. It is in the backup as it is.`);
    console.log(`Backed up ${files} files, ${(bytes / 1e6).toFixed(1)} MB. Keep it as secret as the data: the server's key is inside.`);
    console.log(`Digest over all: ${digest}`);
  });
