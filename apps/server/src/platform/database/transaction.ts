import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource, QueryFailedError, type EntityManager, type QueryDeepPartialEntity } from 'typeorm';
import type { Failure, Result } from '@zesting/core';
import type pg from 'pg';
import type { Logger } from 'pino';
import { LOGGER } from '../logging.js';
import { surviveLoss } from './pools.js';

export { rowsOf, type Reader } from './rows.js';

/** The way to write: everything done with it commits together or not at all. */
export type Tx = EntityManager;

/** Inserts a row that is known by an id of its own, and answers that. */
export async function insertRow<E extends { id: string }>(tx: Tx, entity: new () => E, row: QueryDeepPartialEntity<E>): Promise<string> {
  const { identifiers } = await tx.insert(entity, row);
  return String(identifiers[0]?.['id']);
}

class RolledBack<F extends Failure> extends Error {
  constructor(readonly result: { readonly ok: false; readonly failure: F }) {
    super(result.failure.code);
  }
}

/** Serialisation failure and deadlock: the whole transaction may be tried again. */
const RETRIED = new Set(['40001', '40P01']);
const TRIES = 5;
/** The longest pause before the second try, in milliseconds; before each further one twice as long. */
const PAUSE_MS = 20;

/** A pause by chance, so that two that collided do not collide again. */
const pause = (attempt: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, Math.random() * PAUSE_MS * 2 ** (attempt - 1)));

@Injectable()
export class Database {
  constructor(
    @InjectDataSource() readonly source: DataSource,
    @Inject(LOGGER) logger: Logger,
  ) {
    const { master } = source.driver as unknown as { master: pg.Pool }; // TypeORM's own pool
    surviveLoss(master, logger);
  }

  /** Runs one write in one transaction (READ COMMITTED). A failure rolls back; collisions are retried whole. */
  async write<T, F extends Failure>(work: (tx: Tx) => Promise<Result<T, F>>): Promise<Result<T, F>> {
    for (let attempt = 1; ; attempt++) {
      try {
        return await this.source.transaction(async (tx) => {
          const result = await work(tx);
          if (!result.ok) throw new RolledBack(result);
          return result;
        });
      } catch (error) {
        if (error instanceof RolledBack) return error.result as { ok: false; failure: F }; // thrown above, with this F
        if (!(attempt < TRIES && error instanceof QueryFailedError && RETRIED.has(String(error.driverError?.code)))) throw error;
        await pause(attempt);
      }
    }
  }

  /** Runs a read and returns its rows. */
  read<Row>(sql: string, parameters: readonly unknown[] = []): Promise<Row[]> {
    return this.source.query(sql, [...parameters]);
  }
}
