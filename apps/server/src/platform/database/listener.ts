import { randomUUID } from 'node:crypto';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import pg from 'pg';
import type { Logger } from 'pino';
import { CONFIG, type Config } from '../config/config.js';
import { LOGGER } from '../logging.js';

/** The pauses before the connection is made again, in milliseconds. */
const PAUSES_MS = [250, 500, 1_000, 2_000, 5_000];
/** How long the database may take to answer before it counts as away. */
const PATIENCE_MS = 5_000;
const HEARTBEAT_MS = 10_000;

/** The name under which the database sees the server that holds this id, while it lives. */
export const serverName = (instanceId: string): string => `zesting ${instanceId}`;

interface Hearing {
  readonly channel: string;
  readonly hear: (payload: string) => void;
  /** after a gap in which something may have been missed */
  readonly missed: () => void;
}

/**
 * This server's one lasting connection to the database: it hears notifications, and as long as it is open the database knows that this
 * server lives. When it is lost it is made again, one try at a time, for as long as it takes.
 */
@Injectable()
export class Listener implements OnApplicationShutdown {
  /** another one at each start */
  readonly instanceId = randomUUID();
  private readonly hearings: Hearing[] = [];
  private client: pg.Client | undefined;
  private connecting: Promise<void> | undefined;
  private heartbeat: NodeJS.Timeout | undefined;
  private isEnding = false;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  /** Whether the database can be heard now. */
  get isConnected(): boolean {
    return this.client !== undefined;
  }

  /** Hears a channel from now on. */
  async listen(hearing: Hearing): Promise<void> {
    this.hearings.push(hearing);
    if (this.client) await this.client.query(`listen ${hearing.channel}`);
    else await this.connect();
  }

  async onApplicationShutdown(): Promise<void> {
    this.isEnding = true;
    clearInterval(this.heartbeat);
    await this.client?.end().catch(() => undefined);
  }

  /** Makes the connection unless it is being made: callers share one try. */
  private connect(): Promise<void> {
    this.connecting ??= this.open().finally(() => (this.connecting = undefined));
    return this.connecting;
  }

  private async open(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.config.databaseUrl,
      application_name: serverName(this.instanceId),
      connectionTimeoutMillis: PATIENCE_MS,
      query_timeout: PATIENCE_MS,
      keepAlive: true,
    });
    client.on('error', (error) => this.log.warn({ err: error }, 'the listening connection was lost'));
    client.on('notification', ({ channel, payload }) => {
      for (const hearing of this.hearings) if (hearing.channel === channel) hearing.hear(payload ?? '');
    });
    try {
      await client.connect();
      for (const { channel } of this.hearings) await client.query(`listen ${channel}`);
    } catch (error) {
      void client.end().catch(() => undefined);
      throw error;
    }
    // only a connection that was open is mourned: one that never came about ends in the error above
    client.once('end', () => this.lost(client));
    this.client = client;
    clearInterval(this.heartbeat);
    // a connection may die without a word: it is asked now and then
    this.heartbeat = setInterval(() => {
      client.query('select 1').catch(() => void client.end().catch(() => this.lost(client)));
    }, HEARTBEAT_MS);
    this.heartbeat.unref();
  }

  private lost(client: pg.Client): void {
    if (this.client !== client) return;
    this.client = undefined;
    clearInterval(this.heartbeat);
    if (!this.isEnding) void this.tryAgain(0);
  }

  private async tryAgain(tries: number): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, PAUSES_MS[Math.min(tries, PAUSES_MS.length - 1)]).unref());
    if (this.isEnding || this.client) return;
    try {
      await this.connect();
    } catch (error) {
      this.log.warn({ err: error }, 'cannot listen to the database');
      return this.tryAgain(tries + 1);
    }
    for (const { missed } of this.hearings) missed();
  }
}
