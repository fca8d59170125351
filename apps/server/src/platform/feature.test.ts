import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { FEATURES } from '../features.js';
import { PLATFORM_ENTITIES } from './database/entities/index.js';
import { Features, tableOf, type Feature } from './feature.js';

const folder = join(__dirname, '..', 'features');
/** Tables of the platform: every feature writes them through it. */
const PLATFORM = PLATFORM_ENTITIES.map(tableOf);
const tablesOf = (feature: Feature): string[] => feature.entities.map(tableOf);

const filesOf = (path: string): string[] =>
  readdirSync(path).flatMap((name) => {
    const inside = join(path, name);
    return statSync(inside).isDirectory() ? filesOf(inside) : /\.ts$/.test(name) && !/\.test\.ts$/.test(name) ? [inside] : [];
  });

/** The tables that a source writes by SQL or as entities. Reads are not looked for. */
export function written(source: string, entityTables: ReadonlyMap<string, string>): Set<string> {
  const tables = new Set<string>();
  for (const [, table = ''] of source.matchAll(/\b(?:insert into|delete from|truncate)\s+([a-z_]+)/g)) tables.add(table);
  for (const [, table = ''] of source.matchAll(/\bupdate\s+([a-z_]+)(?:\s+[a-z])?\s+set\b/g)) tables.add(table);
  for (const [, entity = ''] of source.matchAll(/tx\.(?:insert|create|delete|update|upsert)\(\s*([A-Z]\w+)/g)) {
    const table = entityTables.get(entity);
    if (table) tables.add(table);
  }
  return tables;
}

/** By the name of the class. */
const entityTables = (): Map<string, string> =>
  new Map([...PLATFORM_ENTITIES, ...FEATURES.flatMap(({ entities }) => entities)].map((entity) => [entity.name, tableOf(entity)]));

describe('the features', () => {
  it('are joined, and none takes what another has', () => {
    const { policies, owners } = new Features(FEATURES);
    expect(policies.get('open')).toEqual({ open: true });
    expect(owners.get('piece')).toMatch(/from pieces/);
    const again = { ...FEATURES[0], name: 'again' } as (typeof FEATURES)[number];
    expect(() => new Features([...FEATURES, again])).toThrow(/again declares the policy open, which another feature has/);
  });

  it('are those that have a folder', () => {
    expect(FEATURES.map((feature) => feature.name).sort()).toEqual(readdirSync(folder).sort());
  });

  it('claim every table that migrations make, each once', () => {
    const migrations = join(__dirname, '..', 'migrations');
    const made = filesOf(migrations).flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/create (?:unlogged )?table ([a-z_]+)/g)].map(([, table = '']) => table),
    );
    expect([...FEATURES.flatMap(tablesOf), ...PLATFORM].sort()).toEqual([...new Set(made)].sort());
  });

  it('each write their own tables and no others', () => {
    const tables = entityTables();
    const foreign = FEATURES.flatMap((feature) =>
      filesOf(join(folder, feature.name)).flatMap((file) => {
        const source = readFileSync(file, 'utf8');
        const own = [...tablesOf(feature), ...PLATFORM];
        // derived columns are kept up to date, but no row is made or removed
        const rows = source.replaceAll(/\bupdate\s+(?=[a-z_]+(?:\s+[a-z])?\s+set\b)/g, '');
        const derives = feature.derives ?? [];
        return [...written(source, tables)]
          .filter((table) => !own.includes(table) && !(derives.includes(table) && !written(rows, tables).has(table)))
          .map((table) => `${file.slice(folder.length + 1)} writes ${table}`);
      }),
    );
    expect(foreign.sort()).toEqual([]);
  });

  it('are caught when they write a foreign one, however it is said', () => {
    const tables = new Map([['Piece', 'pieces']]);
    expect(
      [...written("tx.query('insert into steps (id)'); tx.query(`update people p set name = $1`); tx.insert(Piece, {})", tables)].sort(),
    ).toEqual(['people', 'pieces', 'steps']);
    expect([
      ...written("select 1 from steps for update; on conflict do update set x = 1; read('delete from remarks where 1')", tables),
    ]).toEqual(['remarks']);
  });
});
