import './types.js';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DataSource, DefaultNamingStrategy, type DataSourceOptions, type MigrationInterface } from 'typeorm';

/** camelCase in the code, snake_case in the database. */
class SnakeNames extends DefaultNamingStrategy {
  override columnName(propertyName: string, customName: string | undefined, prefixes: string[]): string {
    return [...prefixes, customName ?? propertyName].map(snake).join('_');
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
    synchronize: false,
    migrationsRun: false,
    logging: false,
    parseInt8: true,
    extra: { max: 10, connectionTimeoutMillis: 5_000, keepAlive: true, options: '-c TimeZone=UTC -c jit=off' },
  };
}

/** Every migration of the folder, in the order of their times: whoever adds one writes its file and nothing else. */
async function foundMigrations(): Promise<(new () => MigrationInterface)[]> {
  const folder = fileURLToPath(new URL('../../migrations/', import.meta.url));
  const files = readdirSync(folder).filter((name) => /^\d{13}-[a-z-]+\.[jt]s$/.test(name));
  const modules = await Promise.all(
    files.sort().map((name) => import(join(folder, name)) as Promise<Record<string, new () => MigrationInterface>>),
  );
  return modules.flatMap((module) => Object.values(module).filter((one) => typeof one === 'function'));
}

/** Brings the schema up to date under an advisory lock, so that two starts at once do no harm. */
export async function migrate(url: string): Promise<void> {
  const source = await new DataSource({ ...dataSourceOptions(url, []), migrations: await foundMigrations() }).initialize();
  const runner = source.createQueryRunner();
  try {
    await runner.query('select pg_advisory_lock(4310)');
    await source.runMigrations();
  } finally {
    await runner.query('select pg_advisory_unlock(4310)');
    await runner.release();
    await source.destroy();
  }
}
