import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import pg from 'pg';
import { getValue, ok } from '@zesting/core';
import { makeEmptyDatabase } from '../../test-support/database.js';
import { Caller } from '../../test-support/scene.js';
import { computeStates, replanOpen, storedPiece } from '../features/planning/index.js';
import { App } from '../platform/app.js';
import { readConfig } from '../platform/config/config.js';
import { migrate } from '../platform/database/data-source.js';
import { migrateJobs } from '../platform/jobs/jobs.js';
import { createServer } from '../server.js';

/** What an earlier Zesting (of 2026-11-25, five migrations) left behind: its database with the demo in it, and a sign-off record it gave out. */
const OLDER = join(__dirname, '../../test-support/older');
/** The piece that record is about. */
const SIGNED = 'Seeded rye is back';
/** What the migrations are meant to change: two lists of the desk became one, what a piece answers is a table, forms have versions and links. */
const REWRITTEN = [
  'pieces.list',
  'pieces.request_id',
  'requests.fields',
  'form_uses.form_id',
  ...['client_id', 'intro', 'fields', 'route_id', 'link_generation', 'link_open'].map((column) => `intake_forms.${column}`),
];
interface OldForm {
  readonly id: string;
  readonly generation: number;
  readonly fields: readonly { readonly key: string; readonly label: string; readonly required?: boolean }[];
}
const PRESENT = '2026-11-26T10:00:00Z';

describe('data of an earlier Zesting', () => {
  let url = '';
  let drop: () => Promise<void>;
  const query = async <Row>(sql: string, values: unknown[] = []): Promise<Row[]> => {
    const client = new pg.Client(url);
    await client.connect();
    return (await client.query(sql, values).finally(() => client.end())).rows as Row[]; // as asked
  };
  /** Of every table: how many rows, and a digest over the columns that were there then. */
  async function contents(
    columnsThen?: ReadonlyMap<string, string>,
  ): Promise<Map<string, { columns: string; count: number; digest: string }>> {
    const tables = await query<{ name: string; columns: string }>(
      `select table_name as name, string_agg(quote_ident(column_name), ', ' order by column_name) as columns
       from information_schema.columns where table_schema = 'public' and table_name || '.' || column_name <> all($1) group by table_name order by table_name`,
      [REWRITTEN],
    );
    const found = new Map<string, { columns: string; count: number; digest: string }>();
    for (const { name, columns } of tables) {
      const then = columnsThen ? columnsThen.get(name) : columns;
      if (then === undefined) continue;
      const [row] = await query<{ count: number; digest: string }>(
        `select count(*)::int as count, md5(coalesce(string_agg(line, E'\\n' order by line), '')) as digest
         from (select (row(${then}))::text as line from ${name}) x`,
      );
      found.set(name, { columns: then, count: row?.count ?? 0, digest: row?.digest ?? '' });
    }
    return found;
  }

  beforeAll(async () => {
    ({ url, drop } = await makeEmptyDatabase());
    const dump = brotliDecompressSync(readFileSync(join(OLDER, 'data.sql.br'))).toString();
    await query(dump.replace(/^\\.*$/gm, '')); // its program's own commands are no SQL
  });
  afterAll(() => drop());

  it('is brought up to date without losing a row or a word, and works', async () => {
    const before = await contents();
    expect(before.get('decisions')?.count).toBeGreaterThan(20);
    const answered = await query('select id as piece_id, request_id from pieces where request_id is not null order by id');
    const forms = await query<OldForm>('select id, link_generation as generation, fields from intake_forms order by id');
    await migrate(url);
    await migrateJobs(url);
    await migrate(url); // a second start changes nothing
    const after = await contents(new Map([...before].map(([name, { columns }]) => [name, columns])));
    const changed = [...before].filter(([name, { digest }]) => after.get(name)?.digest !== digest).map(([name]) => name);
    expect(changed).toEqual(['migrations']);
    expect(await query('select piece_id, request_id from piece_requests order by piece_id')).toEqual(answered);
    expect(answered.length).toBeGreaterThan(20);
    // what was out is known as the version that was signed then
    expect(await query('select 1 from placements where out_at is not null and out_version_id is null')).toEqual([]);

    const files = mkdtempSync(join(tmpdir(), 'zesting-upgrade-'));
    const config = readConfig({
      ZESTING_DATABASE_URL: url,
      ZESTING_FILES: files,
      ZESTING_KEY: 'older',
      ZESTING_TESTING: '1',
      ZESTING_SMTP_PORT: '1',
      ZESTING_LOG: 'fatal',
      ZESTING_NOW: PRESENT,
    });
    const server = await createServer(config);
    await server.listen(0, '127.0.0.1');
    try {
      const app = server.get(App);
      const address = await server.getUrl();
      const marta = new Caller(address);
      const signedIn = await marta.call('POST', '/api/session', { body: { email: 'marta@quillhaven.test', password: 'zest-and-pith' } });
      expect(signedIn.status).toBe(200);
      for (const path of [
        '/api/desk',
        '/api/requests',
        '/api/packets',
        '/api/people',
        '/api/routes/whole',
        '/api/calendar?from=2026-11-01&to=2026-12-31',
      ])
        expect([path, (await marta.call('GET', path)).status]).toEqual([path, 200]);

      getValue(await app.write(async (tx, now) => ok(await replanOpen(tx, now))));
      const open = await query<{ id: string }>('select id from pieces where list is not null order by id');
      expect(open.length).toBeGreaterThan(20);
      const ids = open.map(({ id }) => id);
      const stages = await query<{ id: string; stage: string }>('select id, stage from pieces where id = any($1)', [ids]);
      const reckoned = (await computeStates(app.manager, ids, app.clock.now())).map(storedPiece);
      expect(new Map(stages.map(({ id, stage }) => [id, stage]))).toEqual(new Map(reckoned.map(({ id, stage }) => [id, stage])));

      // a link that was handed out before opens the same questions
      for (const { id, generation, fields } of forms) {
        const visitor = new Caller(address);
        const opened = await visitor.call('POST', '/api/ask/open', { body: { token: app.links.token('ask', id, generation) } });
        expect(opened.body).toEqual({ linkId: id });
        const { body } = await visitor.call('GET', `/api/ask/${id}`);
        const asked = (body['items'] as { key: string; label: string; needed?: boolean }[]).map(({ key, label, needed = false }) => [
          key,
          label,
          needed,
        ]);
        expect(asked).toEqual(fields.map(({ key, label, required = false }) => [key, label, required]));
      }
      const [request] = await query<{ id: string }>('select id from requests order by id limit 1');
      const { body: whole } = await marta.call('GET', `/api/requests/${request?.id}`);
      expect(whole['items']).toEqual(
        expect.arrayContaining([expect.objectContaining({ kind: 'one_of', options: expect.arrayContaining([{ value: 'The trade' }]) })]),
      );

      const [piece] = await query<{ id: string }>('select id from pieces where title = $1', [SIGNED]);
      const cookie = [...marta.cookies].map((pair) => pair.join('=')).join('; ');
      const answer = await fetch(`${address}/api/pieces/${piece?.id}/sign-off-record`, { headers: { Cookie: cookie } });
      const { recordKey } = (await marta.call('GET', '/api/health')).body as { recordKey: string }; // HealthShape
      const command = join(__dirname, '../../../../tools/verify-record.mjs');
      const made = join(files, 'record.pdf');
      writeFileSync(made, Buffer.from(await answer.arrayBuffer()));
      for (const record of [made, join(OLDER, 'record.pdf')]) {
        const { status, stdout, stderr } = spawnSync(process.execPath, [command, record, recordKey], { encoding: 'utf8' });
        expect([status, stdout + stderr]).toEqual([0, expect.stringContaining(SIGNED)]);
      }
    } finally {
      await server.close();
    }
  });
});
