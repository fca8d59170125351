import { EventEmitter } from 'node:events';
import { Inject, Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import { Logger as GraphileLogger, run, runMigrations, type Runner, type Task, type WorkerEvents } from 'graphile-worker';
import type { Logger } from 'pino';
import { CONFIG, type Config } from '../config/config.js';
import { Listener } from '../database/listener.js';
import { Database, type Tx } from '../database/transaction.js';
import { LOGGER } from '../logging.js';
import { Clock } from '../time/clock.js';

/** Puts a job into the outbox: it runs after the transaction commits, and not at all if it rolls back. */
export async function addJob(
  tx: Tx,
  task: string,
  payload: unknown,
  { key, priority = 0, queue, tries, inSeconds = 0 }: JobOptions = {},
): Promise<void> {
  await tx.query(
    `select graphile_worker.add_job($1, $2::json, job_key => $3, priority => $4, queue_name => $5, max_attempts => $6,
       run_at => now() + make_interval(secs => $7))`,
    [task, JSON.stringify(payload), key ?? null, priority, queue ?? null, tries ?? null, inSeconds],
  );
}

export interface JobOptions {
  /** one job per key waits at a time */
  readonly key?: string;
  /** the larger, the later; 0 for what somebody waits for */
  readonly priority?: number;
  /** jobs of one queue run one after the other, on all servers together */
  readonly queue?: string;
  /** after so many it is given up */
  readonly tries?: number;
  /** not before so many seconds have gone by, by the machine's clock */
  readonly inSeconds?: number;
}

/** Asks for a task to run once per key, `seconds` from now by the machine's clock; one that is waiting already keeps its time. */
export async function addJobIn(tx: Tx, task: string, key: string, seconds: number): Promise<void> {
  await tx.query(
    `select graphile_worker.add_job($1, '{}'::json, run_at => now() + make_interval(secs => $3), job_key => $2, job_key_mode => 'preserve_run_at')`,
    [task, `${task}:${key}`, seconds],
  );
}

/** How long a job may be held by a server that the database no longer sees, and how often that is looked at. */
const LOST_AFTER = '20 seconds';
const LOOK_MS = 15_000;
/** The pauses before the queue is begun again when it ended by itself. */
const AGAIN_MS = 2_000;

/** Runs the jobs of all features. Features register their tasks before the application has started. */
@Injectable()
export class Jobs implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly tasks = new Map<string, Task>();
  private crontab = '';
  private runner: Runner | undefined;
  private looking: NodeJS.Timeout | undefined;
  private isEnding = false;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(LOGGER) private readonly log: Logger,
    private readonly clock: Clock,
    private readonly database: Database,
    private readonly listener: Listener,
  ) {}

  /** Adds a task; `cron` in crontab form runs it by the clock as well. */
  register(name: string, task: Task, cron?: string): void {
    this.tasks.set(name, task);
    if (cron) this.crontab += `${cron} ${name}\n`;
  }

  /** Clears what has served its time: sessions, which end by the machine's clock as their cookies do, and what was kept for some days. */
  private readonly clearOld: Task = async (_payload, { query }) => {
    await query('delete from sessions where expire < now()');
    await query("delete from form_uses where hour < $1::timestamptz - interval '2 days'", [this.clock.now()]);
    await query("delete from idempotency_keys where created_at < $1::timestamptz - interval '7 days'", [this.clock.now()]);
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
    await this.begin();
    await this.freeLost();
    this.looking = setInterval(
      () => void this.freeLost().catch((error: unknown) => this.log.warn({ err: error }, 'lost jobs were not looked for')),
      LOOK_MS,
    );
    this.looking.unref();
  }

  private async begin(): Promise<void> {
    const events: WorkerEvents = new EventEmitter();
    events.on('pool:create', ({ workerPool }) => this.note(workerPool.id)); // jobs are held in its name, not in that of one worker
    this.runner = await run({
      connectionString: this.config.databaseUrl, // its own pool, which outlives the last job and survives losses
      concurrency: 4,
      pollInterval: 1000,
      noHandleSignals: true,
      taskList: Object.fromEntries(this.tasks),
      crontab: this.config.hasClockJobs ? this.crontab : '',
      events,
      logger: new GraphileLogger(() => (level, message) => {
        if (level === 'error' || level === 'warning') this.log.warn({ from: 'jobs' }, withoutPayload(message));
      }),
    });
    // a queue that ends by itself, after a long outage, is begun again
    void this.runner.promise.catch(() => undefined).then(() => this.beginAgain());
  }

  private async beginAgain(): Promise<void> {
    this.runner = undefined;
    while (!this.isEnding && !this.runner) {
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS).unref());
      if (!this.isEnding) await this.begin().catch((error: unknown) => this.log.warn({ err: error }, 'jobs cannot begin again'));
    }
  }

  /** Writes down that a holder of jobs belongs to this server. */
  private note(workerId: string): void {
    this.database
      .read('insert into job_workers (worker_id, instance_id) values ($1, $2) on conflict do nothing', [workerId, this.listener.instanceId])
      .catch((error: unknown) => this.log.warn({ err: error }, 'a worker was not written down'));
  }

  /**
   * Lets go of jobs that are held by a server which is gone, so that they go on within a minute and not after hours. A server lives as long
   * as the database sees its lasting connection.
   * @returns the workers whose jobs were let go
   */
  async freeLost(): Promise<string[]> {
    if (!this.listener.isConnected) return [];
    const lives = (instance: string) =>
      `exists (select 1 from pg_stat_activity a where a.datname = current_database() and a.application_name = 'zesting ' || ${instance})`;
    const lost = await this.database.read<{ worker_id: string }>(
      `select distinct j.locked_by as worker_id from graphile_worker._private_jobs j left join job_workers w on w.worker_id = j.locked_by
       where j.locked_at < now() - interval '${LOST_AFTER}' and not (w.instance_id is not null and ${lives('w.instance_id')})`,
    );
    const ids = lost.map((row) => row.worker_id);
    if (ids.length > 0) await this.database.read('select graphile_worker.force_unlock_workers($1)', [ids]);
    await this.database.read(`delete from job_workers w where not ${lives('w.instance_id')} and not exists
      (select 1 from graphile_worker._private_jobs j where j.locked_by = w.worker_id)`);
    return ids;
  }

  /** Before the connections close that a job at work still needs; and where a proof must see what is stored before any job. */
  async beforeApplicationShutdown(): Promise<void> {
    this.isEnding = true;
    clearInterval(this.looking);
    await this.runner?.stop().catch(() => undefined); // it may have ended by itself
    this.runner = undefined;
  }
}

/** What the queue says of a job names its payload now and then: addresses and texts stay out of the log. */
const withoutPayload = (message: string): string => message.split('\n')[0]?.slice(0, 300) ?? '';

/** Makes or updates the job queue's own schema. */
export const migrateJobs = (databaseUrl: string): Promise<void> =>
  runMigrations({ connectionString: databaseUrl, logger: new GraphileLogger(() => () => undefined) });
