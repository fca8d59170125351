import pg from 'pg';
import type { Logger } from 'pino';

/**
 * Keeps a lost connection from ending the process: one that is in use while the database goes away fails its next statement, and says so
 * there; as an event nobody listens to, it would end everything. The pool opens another.
 */
export function surviveLoss(pool: pg.Pool, logger: Logger): pg.Pool {
  pool.on('error', (error) => logger.warn({ err: error }, 'an idle connection was lost'));
  pool.on('connect', (client) => client.on('error', (error) => logger.debug({ err: error }, 'a connection was lost')));
  return pool;
}
