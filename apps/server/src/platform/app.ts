import { Inject, Injectable } from '@nestjs/common';
import type { Failure, InstantText, Result } from '@zesting/core';
import { Links } from './access/links.js';
import { CONFIG, type Config } from './config/config.js';
import { Database, type Tx } from './database/transaction.js';
import { Files } from './files/files.js';
import { Pictures } from './files/pictures.js';
import { Resumable } from './files/resumable.js';
import { Clock } from './time/clock.js';
import { Work } from './work/work.js';

/** What every use case works with. */
@Injectable()
export class App {
  constructor(
    private readonly database: Database,
    readonly clock: Clock,
    readonly links: Links,
    readonly files: Files,
    readonly pictures: Pictures,
    readonly resumable: Resumable,
    readonly work: Work,
    @Inject(CONFIG) readonly config: Config,
  ) {}

  /** One write in one transaction, with one now. */
  write<T, F extends Failure>(work: (tx: Tx, now: InstantText) => Promise<Result<T, F>>): Promise<Result<T, F>> {
    return this.database.write((tx) => work(tx, this.clock.now()));
  }

  read<Row>(sql: string, parameters: readonly unknown[] = []): Promise<Row[]> {
    return this.database.read(sql, parameters);
  }

  /** For reads that share code with writes. */
  get manager(): Tx {
    return this.database.source.manager;
  }

  /** An address of the agency's application. */
  address(path: string): string {
    return `${this.config.publicAddress}${path}`;
  }
}
