import { Inject, Injectable, type BeforeApplicationShutdown, type OnApplicationBootstrap } from '@nestjs/common';
import type { Logger } from 'pino';
import { AccessGuard, type Viewer } from '../access/access.js';
import { Listener } from '../database/listener.js';
import { Database, type Tx } from '../database/transaction.js';
import { LOGGER } from '../logging.js';

/** One open stream of a browser. */
export interface Stream {
  readonly personId: string;
  readonly sessionId: string;
  /**
   * Writes one event; `data` is on one line: of a change the numbers of its lines of the record, and `dates` where days were reckoned anew
   * besides, or `more` where it is more than they tell.
   */
  readonly send: (event: 'changed' | 'presence', data: string) => void;
  readonly end: () => void;
}

const CHANGES = 'zesting_changes';
const PRESENCE = 'zesting_presence';
/** Changes that come together are told together. */
const GATHER_MS = 40;
/** How often access is looked at again though nothing happens, and the line is kept open. */
const BEAT_MS = 20_000;
/** An event names no more lines than so many. */
const TOLD_AT_MOST = 100;
/** Numbers are given before commits: a smaller one may come after a larger one. So many are looked at again. */
const LOOK_BACK = 500;

/** Tells that something changed for everybody, as after a recomputation by the clock. */
export const tellAll = (tx: Tx): Promise<unknown> => tx.query('select pg_notify($1, $2)', [CHANGES, 'all']);

/**
 * Tells that something changed on pieces, to those who may see their clients: after a recomputation, which writes no line of the record.
 * @param what changed: `dates` alone, with what follows from them, or `more`
 */
export async function tellClients(tx: Tx, pieceIds: readonly string[], what: 'dates' | 'more'): Promise<void> {
  const rows = (await tx.query('select distinct client_id from pieces where id = any($1)', [pieceIds])) as { client_id: string }[]; // as asked
  const ids = rows.map((row) => row.client_id);
  // what a notification carries is bounded: beyond that everybody asks anew
  if (ids.length > 0) await tx.query('select pg_notify($1, $2)', [CHANGES, ids.length > 100 ? 'all' : [what, ...ids].join(' ')]);
}

/** Tells that somebody opened or left a piece. */
export const tellPresence = (tx: Tx, pieceId: string): Promise<unknown> => tx.query('select pg_notify($1, $2)', [PRESENCE, pieceId]);

interface Line {
  readonly id: number;
  readonly client_id: string | null;
}

/**
 * Live updates: listens to the database and tells every open stream that something changed in its viewer's reach. An event carries
 * numbers of lines of the record and nothing else; what changed is asked for through the API, which decides anew who may see it.
 */
@Injectable()
export class Live implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly streams = new Set<Stream>();
  private readonly told = new Set<number>();
  private newest = 0;
  private toAll = false;
  /** clients of which something was recomputed, and whether that was no more than dates */
  private readonly touched = new Map<string, 'dates' | 'more'>();
  private gathering: NodeJS.Timeout | undefined;
  private beat: NodeJS.Timeout | undefined;
  private isEnding = false;

  constructor(
    private readonly listener: Listener,
    @Inject(LOGGER) private readonly log: Logger,
    private readonly database: Database,
    private readonly access: AccessGuard,
  ) {}

  /** Opens a stream; the answer closes it. */
  open(stream: Stream): () => void {
    // whoever comes back while the server stops is sent away again: an open stream would keep it from stopping
    if (this.isEnding) stream.end();
    else this.streams.add(stream);
    return () => void this.streams.delete(stream);
  }

  async onApplicationBootstrap(): Promise<void> {
    const [last] = await this.database.read<{ id: number | null }>('select max(id) as id from activities');
    this.newest = last?.id ?? 0;
    await this.listener.listen({
      channel: CHANGES,
      hear: (payload) => {
        const [what, ...ids] = payload.split(' ');
        for (const id of ids) if (what !== 'dates' || !this.touched.has(id)) this.touched.set(id, what === 'dates' ? 'dates' : 'more');
        this.gather(payload === 'all');
      },
      missed: () => this.gather(true), // after a gap everybody asks anew
    });
    await this.listener.listen({
      channel: PRESENCE,
      hear: (pieceId) =>
        void this.tellPresence(pieceId).catch((error: unknown) => this.log.warn({ err: error }, 'presence could not be told')),
      missed: () => undefined,
    });
    this.beat = setInterval(() => void this.checkAll(), BEAT_MS);
    this.beat.unref();
  }

  /** Before the server waits for its connections to end: streams never end by themselves. */
  async beforeApplicationShutdown(): Promise<void> {
    this.isEnding = true;
    clearInterval(this.beat);
    clearTimeout(this.gathering);
    for (const stream of this.streams) stream.end();
    this.streams.clear();
  }

  private gather(toAll: boolean): void {
    if (this.isEnding) return;
    this.toAll ||= toAll;
    this.gathering ??= setTimeout(() => {
      this.gathering = undefined;
      void this.tell().catch((error: unknown) => this.log.error({ err: error }, 'a change could not be told'));
    }, GATHER_MS);
  }

  /** Who has a piece open is told to those who may see its client, and to nobody else. */
  private async tellPresence(pieceId: string): Promise<void> {
    if (this.streams.size === 0) return;
    const [piece] = await this.database.read<{ client_id: string }>('select client_id from pieces where id::text = $1', [pieceId]);
    if (!piece) return;
    for (const stream of this.streams) {
      const viewer = await this.viewerOf(stream);
      if (viewer && (viewer.role === 'lead' || viewer.clientIds.includes(piece.client_id))) stream.send('presence', pieceId);
    }
  }

  private async tell(): Promise<void> {
    const lines = await this.freshLines();
    const [toAll, touched] = [this.toAll, [...this.touched]];
    this.toAll = false;
    this.touched.clear();
    if (lines.length === 0 && touched.length === 0 && !toAll) return;
    for (const stream of this.streams) {
      const viewer = await this.viewerOf(stream);
      if (!viewer) {
        this.shut(stream);
        continue;
      }
      const reaches = (clientId: string) => viewer.role === 'lead' || viewer.clientIds.includes(clientId);
      const reached = lines.filter((line) => line.client_id === null || reaches(line.client_id));
      const whats = new Set(touched.filter(([clientId]) => reaches(clientId)).map(([, what]) => what)); // what no line tells
      if (reached.length === 0 && whats.size === 0 && !toAll) continue;
      const isMore = toAll || whats.has('more') || reached.length > TOLD_AT_MOST;
      stream.send('changed', isMore ? 'more' : [...reached.map((line) => line.id), ...whats].join(' '));
    }
  }

  /** Lines of the record that were not told yet. */
  private async freshLines(): Promise<Line[]> {
    const rows = await this.database.read<Line>('select id, client_id from activities where id > $1 order by id', [
      this.newest - LOOK_BACK,
    ]);
    const fresh = rows.filter((row) => !this.told.has(row.id));
    for (const { id } of fresh) {
      this.told.add(id);
      this.newest = Math.max(this.newest, id);
    }
    for (const id of this.told) if (id <= this.newest - LOOK_BACK) this.told.delete(id);
    return fresh;
  }

  private async viewerOf(stream: Stream): Promise<Viewer | undefined> {
    const sessions = await this.database.read('select 1 from sessions where sid = $1', [stream.sessionId]);
    return sessions.length > 0 ? this.access.viewerById(stream.personId) : undefined;
  }

  private async checkAll(): Promise<void> {
    for (const stream of this.streams) {
      const isOpen = await this.viewerOf(stream).catch(() => true); // a database that is away for a moment ends nobody's access
      if (!isOpen) this.shut(stream);
    }
  }

  private shut(stream: Stream): void {
    this.streams.delete(stream);
    stream.end();
  }
}
