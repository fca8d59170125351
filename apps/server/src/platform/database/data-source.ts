import './types.js';
import { DataSource, DefaultNamingStrategy, type DataSourceOptions } from 'typeorm';
import { First1764000000000 } from '../../migrations/1764000000000-first.js';
import { Setup1764100000000 } from '../../migrations/1764100000000-setup.js';
import { Day1764200000000 } from '../../migrations/1764200000000-day.js';
import { Find1764400000000 } from '../../migrations/1764400000000-find.js';
import { Solid1764500000000 } from '../../migrations/1764500000000-solid.js';
import { Guard1764600000000 } from '../../migrations/1764600000000-guard.js';
import { Devices1764700000000 } from '../../migrations/1764700000000-devices.js';
import { Wanted1764800000000 } from '../../migrations/1764800000000-wanted.js';
import { Lists1764900000000 } from '../../migrations/1764900000000-lists.js';
import { Agency1765000000000 } from '../../migrations/1765000000000-agency.js';
import { Production1765100000000 } from '../../migrations/1765100000000-production.js';
import { Own1765200000000 } from '../../migrations/1765200000000-own.js';
import { TeamNotes1765300000000 } from '../../migrations/1765300000000-team-notes.js';
import { Load1764300000000 } from '../../migrations/1764300000000-load.js';

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
    migrations: [
      First1764000000000,
      Setup1764100000000,
      Day1764200000000,
      Load1764300000000,
      Find1764400000000,
      Solid1764500000000,
      Guard1764600000000,
      Devices1764700000000,
      Wanted1764800000000,
      Lists1764900000000,
      Agency1765000000000,
      Production1765100000000,
      Own1765200000000,
      TeamNotes1765300000000,
    ],
    namingStrategy: new SnakeNames(),
    synchronize: false,
    migrationsRun: false,
    logging: false,
    parseInt8: true,
    extra: { max: 10, connectionTimeoutMillis: 5_000, keepAlive: true, options: '-c TimeZone=UTC -c jit=off' },
  };
}

/** Brings the schema up to date under an advisory lock, so that two starts at once do no harm. */
export async function migrate(url: string): Promise<void> {
  const source = await new DataSource(dataSourceOptions(url, [])).initialize();
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
