import { Inject, Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import { Logger as GraphileLogger, run, runMigrations, type Runner, type Task } from 'graphile-worker';
import type { Logger } from 'pino';
import { CONFIG, type Config } from '../config/config.js';
import type { Tx } from '../database/transaction.js';
import { LOGGER } from '../logging.js';

/** Puts a job into the outbox: it runs after the transaction commits, and not at all if it rolls back. */
export async function addJob(tx: Tx, task: string, payload: unknown, { key, priority = 0 }: JobOptions = {}): Promise<void> {
  await tx.query('select graphile_worker.add_job($1, $2::json, job_key => $3, priority => $4)', [
    task,
    JSON.stringify(payload),
    key ?? null,
    priority,
  ]);
}

export interface JobOptions {
  /** one job per key waits at a time */
  readonly key?: string;
  /** the larger, the later; 0 for what somebody waits for */
  readonly priority?: number;
}

/** Asks for a task to run once per key, `seconds` from now by the machine's clock; one that is waiting already keeps its time. */
export async function addJobIn(tx: Tx, task: string, key: string, seconds: number): Promise<void> {
  await tx.query(
    `select graphile_worker.add_job($1, '{}'::json, run_at => now() + make_interval(secs => $3), job_key => $2, job_key_mode => 'preserve_run_at')`,
    [task, `${task}:${key}`, seconds],
  );
}

/** Runs the jobs of all features. Features register their tasks before the application has started. */
@Injectable()
export class Jobs implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly tasks = new Map<string, Task>();
  private crontab = '';
  private runner: Runner | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  /** Adds a task; `cron` in crontab form runs it by the clock as well. */
  register(name: string, task: Task, cron?: string): void {
    this.tasks.set(name, task);
    if (cron) this.crontab += `${cron} ${name}\n`;
  }

  /** Clears what has served its time: sessions past their end, idempotency keys after seven days. */
  private readonly clearOld: Task = async (_payload, { query }) => {
    await query('delete from sessions where expire < now()');
    await query("delete from idempotency_keys where created_at < now() - interval '7 days'");
  };

  /** The names of the tasks that the clock starts. */
  byTheClock(): readonly string[] {
    return this.crontab.split('\n').flatMap((line) => line.split(' ').at(-1) || []);
  }

  isRunning(): boolean {
    return this.runner !== undefined;
  }

  async onApplicationBootstrap(): Promise<void> {
    this.register('clear_old', this.clearOld, '7 3 * * *');
    this.runner = await run({
      connectionString: this.config.databaseUrl,
      concurrency: 4,
      pollInterval: 1000,
      noHandleSignals: true,
      taskList: Object.fromEntries(this.tasks),
      crontab: this.crontab,
      logger: new GraphileLogger(() => (level, message) => {
        if (level === 'error' || level === 'warning') this.log.warn({ from: 'jobs' }, message);
      }),
    });
  }

  /** Before the connections close that a job at work still needs. */
  async beforeApplicationShutdown(): Promise<void> {
    await this.runner?.stop();
    this.runner = undefined;
  }
}

/** Makes or updates the job queue's own schema. */
export const migrateJobs = (databaseUrl: string): Promise<void> =>
  runMigrations({ connectionString: databaseUrl, logger: new GraphileLogger(() => () => undefined) });
