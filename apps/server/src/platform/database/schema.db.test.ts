import pg from 'pg';
import { DataSource } from 'typeorm';
import { makeEmptyDatabase } from '../../../test-support/database.js';
import { FEATURES } from '../../features.js';
import { madeFor } from './columns.js';
import { dataSourceOptions, foundMigrations, migrate, migrateBack } from './data-source.js';
import { PLATFORM_ENTITIES } from './entities/index.js';

const ENTITIES = [...PLATFORM_ENTITIES, ...FEATURES.flatMap(({ entities }) => entities)];

/** All that the catalog says of the tables, a line each. What TypeORM keeps for itself is none of it. */
const CATALOG = `
  with tables as (select oid, relname, relpersistence from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r' and relname <> 'migrations')
  select format('%s %s', relname, relpersistence) as line from tables
  union all select format('%s.%s %s %s %s %s%s', relname, attname, format_type(atttypid, atttypmod), case when attnotnull then 'not null' end,
      pg_get_expr(adbin, adrelid), attidentity, attgenerated)
    from tables join pg_attribute a on attrelid = tables.oid and attnum > 0 and not attisdropped left join pg_attrdef d on adrelid = attrelid and adnum = attnum
  union all select format('%s: %s %s %s', relname, conname, pg_get_constraintdef(c.oid), convalidated) from tables join pg_constraint c on conrelid = tables.oid
    where contype in ('p', 'u', 'f', 'c')
  union all select pg_get_indexdef(indexrelid) from tables join pg_index on indrelid = tables.oid
  order by 1`;

describe('the schema', () => {
  const made: { url: string; drop: () => Promise<void> }[] = [];
  afterAll(() => Promise.all(made.map(({ drop }) => drop())));

  async function empty(): Promise<string> {
    const database = await makeEmptyDatabase();
    made.push(database);
    return database.url;
  }
  async function query<Row>(url: string, sql: string): Promise<Row[]> {
    const client = new pg.Client(url);
    await client.connect();
    return (await client.query(sql).finally(() => client.end())).rows as Row[]; // as asked
  }
  const catalog = async (url: string): Promise<string[]> => (await query<{ line: string }>(url, CATALOG)).map(({ line }) => line);

  async function migrated(): Promise<string> {
    const url = await empty();
    await migrate(url);
    return url;
  }

  it('is the same by the migrations and by the entities', async () => {
    const [byMigrations, byEntities] = [await migrated(), await empty()];
    // what no entity says: extensions, functions, the counters of numbers
    const functions = await query<{ text: string }>(
      byMigrations,
      `select pg_get_functiondef(p.oid) as text from pg_proc p where pronamespace = 'public'::regnamespace
       and not exists (select 1 from pg_depend where objid = p.oid and deptype = 'e')`,
    );
    const beside = ['create extension pg_trgm; create extension unaccent; create sequence piece_numbers; create sequence request_numbers'];
    await query(byEntities, [...beside, ...functions.map(({ text }) => text)].join(';\n'));
    const source = await new DataSource(dataSourceOptions(byEntities, ENTITIES)).initialize();
    await source.synchronize();
    await source.destroy();
    await query(byEntities, ENTITIES.flatMap((entity) => madeFor(entity)).join(';\n'));
    const lines = await catalog(byMigrations);
    expect(lines.length).toBeGreaterThan(400);
    expect(await catalog(byEntities)).toEqual(lines);
  });

  it('comes back step by step, each time to what it was before that step', async () => {
    const url = await empty();
    const migrations = await foundMigrations();
    const forth: string[][] = [];
    for (const step of migrations.keys()) {
      forth.push(await catalog(url));
      const source = await new DataSource({ ...dataSourceOptions(url, []), migrations: migrations.slice(0, step + 1) }).initialize();
      await source.runMigrations();
      await source.destroy();
    }
    for (const before of forth.reverse()) {
      await migrateBack(url, 1);
      expect(await catalog(url)).toEqual(before);
    }
  });
});
