// npm run restore -- <folder> [digest]: puts a backup where there is nothing yet. Checks all of it first; what does not fit changes nothing.
import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { ask, digestOf, DUMP, filesUnder, MANIFEST, pgProgram, places, SCHEME, sha256Of, withDatabase } from './backup.mjs';
import { clusterFolder, findPrograms, freePort, makeCluster, makeDatabase, serving, startCluster, Stop, stopCluster } from './database.mjs';
import { root, tell } from './prepare.mjs';

/** Reads a backup's manifest and checks every file against it. */
async function checked(folder, expected) {
  let manifest;
  try {
    manifest = JSON.parse(readFileSync(join(folder, MANIFEST), 'utf8'));
  } catch {
    throw new Stop(`${folder} is no backup: it has no ${MANIFEST} that can be read`);
  }
  if (manifest.scheme !== SCHEME || !Array.isArray(manifest.files)) throw new Stop(`${folder} is no backup that this Zesting reads`);
  if (digestOf(manifest) !== manifest.digest) throw new Stop('the digest over all does not hold: the manifest was changed');
  if (expected && expected !== manifest.digest) throw new Stop(`this is another backup: its digest is ${manifest.digest}`);
  const there = new Set(filesUnder(folder).filter((path) => path !== MANIFEST));
  const named = new Set(manifest.files.map(({ path }) => path));
  const missing = [...named].find((path) => !there.has(path));
  if (missing) throw new Stop(`${missing} is missing from the backup`);
  const strange = [...there].find((path) => !named.has(path));
  if (strange) throw new Stop(`${strange} does not belong to the backup`);
  for (const { path, bytes, sha256 } of manifest.files)
    if (statSync(join(folder, path)).size !== bytes || (await sha256Of(join(folder, path))) !== sha256)
      throw new Stop(`${path} is not what was backed up`);
  return manifest;
}

/** The newest change to the database's layout that this Zesting knows. */
function newestMigration() {
  const names = readdirSync(join(root, 'apps/server/src/migrations'));
  return Math.max(...names.map((name) => Number.parseInt(name, 10)).filter((stamp) => !Number.isNaN(stamp)));
}

/**
 * Restores a backup into an empty database and a files folder that is not there or empty.
 * @returns the digest over all
 */
async function restore(folder, expected, to) {
  const { digest, migration, files } = await checked(folder, expected);
  if (Number(migration) > newestMigration()) throw new Stop('this backup is of a newer Zesting: restore it with that one');
  if (existsSync(to.files) && readdirSync(to.files).length > 0)
    throw new Stop(`${to.files} is not empty: move it away, or set ZESTING_DATA to a new folder`);
  if (!to.url) await makeOwnDatabase(to.dataFolder);
  const part = `${to.files}.part-${process.pid}`;
  try {
    for (const { path } of files.filter((file) => file.path.startsWith('files/'))) {
      const target = join(part, path.slice('files/'.length));
      mkdirSync(dirname(target), { recursive: true });
      copyFileSync(join(folder, path), target);
    }
    await withDatabase(to, async (url) => {
      const [{ count }] = await ask(
        url,
        "select count(*)::int from pg_class c join pg_namespace n on n.oid = c.relnamespace where c.relkind = 'r' and n.nspname !~ '^(pg_|information_schema$)'",
      );
      if (count > 0) throw new Stop('the database is not empty: restore into a new one');
      pgProgram('pg_restore', [
        '--single-transaction',
        '--exit-on-error',
        '--no-owner',
        '--no-privileges',
        `--dbname=${url}`,
        join(folder, DUMP),
      ]);
    });
    rmSync(to.files, { recursive: true, force: true }); // empty
    mkdirSync(part, { recursive: true });
    renameSync(part, to.files);
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
  return digest;
}

/** An empty database where `npm start` will look for it. Refused while Zesting runs there. */
async function makeOwnDatabase(dataFolder) {
  const bin = findPrograms();
  const cluster = clusterFolder(dataFolder, 'main');
  if (serving(cluster)) throw new Stop(`Zesting runs with ${dataFolder}: stop it first`);
  makeCluster(bin, cluster);
  startCluster(bin, cluster, await freePort());
  try {
    makeDatabase(bin, serving(cluster).port, 'zesting');
  } finally {
    stopCluster(bin, cluster);
  }
}

await tell(async () => {
  const [folder, expected] = process.argv.slice(2);
  if (!folder) throw new Stop('Say which backup: npm run restore -- /where/backups/are/zesting-2027-03-09 [digest]');
  const digest = await restore(resolve(process.env.INIT_CWD ?? '.', folder), expected, places());
  console.log(`Restored. Digest over all: ${digest}`);
  console.log('The next start brings the database to the layout of this Zesting, if it was made by an older one.');
});
