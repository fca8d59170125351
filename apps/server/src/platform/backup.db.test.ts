import { execFile } from 'node:child_process';
import { appendFileSync, cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { getValue } from '@zesting/core';
import { makeEmptyDatabase } from '../../test-support/database.js';
import { callerAs, makePiece, makeScene, type Scene } from '../../test-support/scene.js';
import { createServer } from '../server.js';
import { Files } from './files/files.js';
import { Jobs } from './jobs/jobs.js';

const TOOLS = join(__dirname, '../../../../tools');

/** Runs a shipped command as a person would. */
const command = (name: string, args: readonly string[], env: Record<string, string>) =>
  new Promise<{ code: number; said: string }>((resolve) =>
    execFile(process.execPath, [join(TOOLS, name), ...args], { env: { ...process.env, ...env } }, (error, out, err) =>
      resolve({ code: error ? 1 : 0, said: out + err }),
    ),
  );

/** A digest of every table, by its name. */
async function contents(url: string): Promise<Record<string, string>> {
  const client = new pg.Client(url);
  await client.connect();
  const tables = await client.query<{ name: string }>(
    "select format('%I.%I', schemaname, tablename) as name from pg_tables where schemaname !~ '^(pg_|information_schema)' order by 1",
  );
  const found: Record<string, string> = {};
  for (const { name } of tables.rows) {
    const { rows } = await client.query<{ digest: string }>(
      `select count(*) || ' ' || coalesce(md5(string_agg(t::text, '|' order by t::text)), '') as digest from ${name} t`,
    );
    found[name] = rows[0]?.digest ?? '';
  }
  await client.end();
  return found;
}

describe('backup and restore', () => {
  let scene: Scene;
  let digest = '';
  let hash = '';
  const work = mkdtempSync(join(tmpdir(), 'zesting-backup-'));
  const kept = join(work, 'kept');
  const env = () => ({ ZESTING_DATABASE_URL: scene.app.config.databaseUrl, ZESTING_FILES: scene.app.config.dataFolder });
  const restored: (() => Promise<void>)[] = [];
  /** Restores into a database and a folder of their own. */
  const restore = async (folder: string, ...more: string[]) => {
    const { url, drop } = await makeEmptyDatabase();
    restored.push(drop);
    const to = { ZESTING_DATABASE_URL: url, ZESTING_FILES: join(work, `files-${restored.length}`) };
    return { ...(await command('restore.mjs', [folder, ...more], to)), to };
  };
  /** A copy of the backup with something wrong in it. */
  const spoiled = (name: string, spoil: (folder: string) => void) => {
    const folder = join(work, name);
    cpSync(kept, folder, { recursive: true });
    spoil(folder);
    return folder;
  };

  beforeAll(async () => {
    scene = await makeScene();
    await scene.server.get(Jobs).beforeApplicationShutdown(); // nothing changes between the backup and the comparison
    await makePiece(scene, scene.a);
    hash = getValue(await scene.server.get(Files).store(Buffer.from('Words that are kept'))).hash;
    const { code, said } = await command('backup.mjs', [kept], env());
    expect([code, said]).toEqual([0, expect.stringContaining('Backed up')]);
    digest = /Digest over all: (\w{64})/.exec(said)?.[1] ?? '';
  });
  afterAll(async () => {
    await scene.close();
    for (const drop of restored) await drop();
    rmSync(work, { recursive: true, force: true });
  });

  it('brings every row and every file back, and Zesting runs on them', async () => {
    const before = await contents(env().ZESTING_DATABASE_URL);
    expect(before['public.pieces']).toMatch(/^1 /);
    const { code, said, to } = await restore(kept, digest);
    expect([code, said]).toEqual([0, expect.stringContaining(digest)]);
    expect(await contents(to.ZESTING_DATABASE_URL)).toEqual(before);
    expect(readFileSync(join(to.ZESTING_FILES, hash.slice(0, 2), hash), 'utf8')).toBe('Words that are kept');
    const server = await createServer({ ...scene.app.config, databaseUrl: to.ZESTING_DATABASE_URL, dataFolder: to.ZESTING_FILES });
    await server.listen(0, '127.0.0.1');
    const manager = await callerAs({ ...scene, address: await server.getUrl() }, 'manager');
    expect((await manager.call('GET', '/api/pieces?view=all')).status).toBe(200);
    await server.close();
  });

  it('refuses what is not whole or not what was backed up, and leaves nothing behind', async () => {
    const file = join('files', hash.slice(0, 2), hash);
    const wrong = {
      'is not what was backed up': spoiled('flipped', (folder) => {
        const path = join(folder, file);
        writeFileSync(path, readFileSync(path, 'utf8').replace('kept', 'lost')); // as long as before
      }),
      'database.dump is not what was backed up': spoiled('longer', (folder) => appendFileSync(join(folder, 'database.dump'), ' ')),
      'is missing from the backup': spoiled('missing', (folder) => rmSync(join(folder, file))),
      'does not belong to the backup': spoiled('more', (folder) => writeFileSync(join(folder, 'files', 'other'), 'x')),
      'the manifest was changed': spoiled('changed', (folder) => {
        const path = join(folder, 'manifest.json');
        writeFileSync(path, readFileSync(path, 'utf8').replace(/"bytes": \d+/, '"bytes": 1'));
      }),
      'is no backup': work,
    };
    for (const [reason, folder] of Object.entries(wrong)) {
      const { code, said, to } = await restore(folder);
      expect([code, said]).toEqual([1, expect.stringContaining(reason)]);
      expect(existsSync(to.ZESTING_FILES)).toBe(false);
      expect(await contents(to.ZESTING_DATABASE_URL)).toEqual({});
    }
    expect(await restore(kept, '0'.repeat(64))).toMatchObject({ code: 1, said: expect.stringContaining('another backup') as string });
  });

  it('never writes over anything', async () => {
    const again = await command('backup.mjs', [kept], env());
    expect(again).toMatchObject({ code: 1, said: expect.stringContaining('is there already') as string });
    const into = await command('restore.mjs', [kept], { ...env(), ZESTING_FILES: join(work, 'elsewhere') });
    expect(into).toMatchObject({ code: 1, said: expect.stringContaining('the database is not empty') as string });
    const { to } = await restore(kept);
    const files = await command('restore.mjs', [kept], to);
    expect(files).toMatchObject({ code: 1, said: expect.stringContaining('is not empty') as string });
    expect(readdirSync(work).filter((name) => name.includes('.part-'))).toEqual([]);
  });

  it('says which stored file is damaged', async () => {
    const files = join(work, 'damaged-files');
    cpSync(scene.app.config.dataFolder, files, { recursive: true });
    writeFileSync(join(files, hash.slice(0, 2), hash), 'Words that are lost');
    const { code, said } = await command('backup.mjs', [join(work, 'of-damaged')], { ...env(), ZESTING_FILES: files });
    expect([code, said]).toEqual([0, expect.stringContaining(`Damaged: files/${hash.slice(0, 2)}/${hash}`)]);
  });

  it('is refused by an older Zesting', async () => {
    const newer = join(work, 'newer');
    await scene.app.read('insert into migrations ("timestamp", name) values (4000000000000, \'Later4000000000000\')');
    await command('backup.mjs', [newer], env());
    await scene.app.read('delete from migrations where "timestamp" = 4000000000000');
    const { code, said } = await restore(newer);
    expect([code, said]).toEqual([1, expect.stringContaining('newer Zesting')]);
  });
});
