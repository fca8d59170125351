import './types.js';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DataSource, DefaultNamingStrategy, type DataSourceOptions, type MigrationInterface, type Table } from 'typeorm';

/** camelCase in the code, snake_case in the database. */
class SnakeNames extends DefaultNamingStrategy {
  override columnName(propertyName: string, customName: string | undefined, prefixes: string[]): string {
    return [...prefixes, customName ?? propertyName].map(snake).join('_');
  }

  override primaryKeyName(table: Table | string): string {
    return `pk_${typeof table === 'string' ? table : table.name}`;
  }
}
const snake = (text: string): string => text.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

// eslint-disable-next-line @typescript-eslint/no-unsafe-function-type -- TypeORM's own type for entity classes
export function dataSourceOptions(url: string, entities: Function[]): DataSourceOptions {
  return {
    type: 'postgres',
    url,
    entities,
    namingStrategy: new SnakeNames(),
    uuidExtension: 'pgcrypto', // whose function is PostgreSQL's own by now: nothing is installed
    installExtensions: false,
    synchronize: false,
    migrationsRun: false,
    logging: false,
    parseInt8: true,
    // a burst of questions waits its turn on a machine that has much to do: that is no database that is away
    extra: { max: 10, connectionTimeoutMillis: 15_000, keepAlive: true, options: '-c TimeZone=UTC -c jit=off' },
  };
}

/** Every migration of the folder, in the order of their times: whoever adds one writes its file and nothing else. */
export async function foundMigrations(): Promise<(new () => MigrationInterface)[]> {
  const folder = fileURLToPath(new URL('../../migrations/', import.meta.url));
  const files = readdirSync(folder).filter((name) => /^\d{13}-[a-z-]+\.[jt]s$/.test(name));
  const modules = await Promise.all(
    files.sort().map((name) => import(join(folder, name)) as Promise<Record<string, new () => MigrationInterface>>),
  );
  return modules.flatMap((module) => Object.values(module).filter((one) => typeof one === 'function'));
}

/** Does something with the migrations under an advisory lock, so that two starts at once do no harm. */
async function migrating(url: string, work: (source: DataSource) => Promise<void>): Promise<void> {
  const source = await new DataSource({ ...dataSourceOptions(url, []), migrations: await foundMigrations() }).initialize();
  const runner = source.createQueryRunner();
  try {
    await runner.query('select pg_advisory_lock(4310)');
    await work(source);
  } finally {
    await runner.query('select pg_advisory_unlock(4310)');
    await runner.release();
    await source.destroy();
  }
}

/** Brings the schema up to date. */
export const migrate = (url: string): Promise<void> => migrating(url, async (source) => void (await source.runMigrations()));

/**
 * Takes the newest migrations back, newest first, with what is kept in their columns and tables. What the schema before cannot hold stops it.
 * @param count so many; Infinity: all
 */
export const migrateBack = (url: string, count: number): Promise<void> =>
  migrating(url, async (source) => {
    const done = await source.query<{ count: number }[]>('select count(*) from migrations');
    for (let left = Math.min(count, done[0]?.count ?? 0); left > 0; left--) await source.undoLastMigration();
  });
