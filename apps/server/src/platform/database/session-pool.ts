import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import pg from 'pg';
import type { Logger } from 'pino';
import { CONFIG, type Config } from '../config/config.js';
import { LOGGER } from '../logging.js';
import { surviveLoss } from './pools.js';

/** The connections that sessions are read and written with, closed with the application. */
@Injectable()
export class SessionPool implements OnApplicationShutdown {
  readonly pool: pg.Pool;

  constructor(@Inject(CONFIG) config: Config, @Inject(LOGGER) logger: Logger) {
    this.pool = surviveLoss(new pg.Pool({ connectionString: config.databaseUrl, max: 4, connectionTimeoutMillis: 5_000 }), logger);
  }

  onApplicationShutdown(): Promise<void> {
    return this.pool.end();
  }
}
