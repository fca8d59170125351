import { createHash, randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import type { Request, Response } from 'express';
import { CONFIG, type Config } from '../config/config.js';
import { Jobs } from '../jobs/jobs.js';

/** The most that one upload in parts may weigh, in bytes: a long clip. */
export const RESUMABLE_LIMIT_BYTES = 2 * 1024 ** 3;
/** How long an upload that was cut is kept. */
const KEPT_MS = 7 * 86_400_000;

/** An upload of which every byte has arrived. */
export interface ArrivedUpload {
  readonly path: string;
  readonly name: string;
}

/**
 * Uploads in parts that go on after a cut. An upload belongs to the address that it was begun at: no other one reaches it.
 * @see tus resumable upload protocol 1.0.0
 */
@Injectable()
export class Resumable implements OnModuleInit {
  private readonly store: FileStore;
  private readonly server: Server;
  private readonly folder: string;

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly jobs: Jobs,
  ) {
    this.folder = join(config.dataFolder, 'uploads');
    mkdirSync(this.folder, { recursive: true });
    this.store = new FileStore({ directory: this.folder, expirationPeriodInMilliseconds: KEPT_MS });
    this.server = new Server({
      path: '/api',
      datastore: this.store,
      maxSize: RESUMABLE_LIMIT_BYTES,
      relativeLocation: true,
      allowedOrigins: () => false,
      namingFunction: (request) => `${scopeOf(new URL(request.url).pathname)}-${randomUUID()}`,
      generateUrl: (request, { id }) => `${new URL(request.url).pathname.replace(/\/$/, '')}/${id}`,
      getFileIdFromRequest: (request) => {
        const path = new URL(request.url).pathname;
        const id = path.slice(path.lastIndexOf('/') + 1);
        return isOf(path.slice(0, path.lastIndexOf('/')), id) ? id : undefined;
      },
    });
  }

  onModuleInit(): void {
    this.jobs.register('clear_uploads', async () => void (await this.server.cleanUpExpiredUploads()), '23 3 * * *');
  }

  /** Answers one call of the protocol. Who may call was decided before. */
  async handle(request: Request, response: Response): Promise<void> {
    const hasBody = (request.method === 'PATCH' || request.method === 'POST') && !request.readableEnded; // JSON was read already
    const headers = new Headers();
    for (const [name, value] of Object.entries(request.headers)) if (typeof value === 'string') headers.set(name, value);
    // what has arrived when the connection is cut is kept; `duplex` is Node's own, and not in the type of browsers
    const body = hasBody ? { body: Readable.toWeb(request) as ReadableStream, duplex: 'half' } : {};
    const address = `${request.protocol}://${request.headers.host ?? 'localhost'}${request.originalUrl}`;
    const answer = await this.server.handleWeb(
      new globalThis.Request(address, { method: request.method, headers, ...body } as RequestInit),
    );
    response.status(answer.status);
    for (const [name, value] of answer.headers) response.setHeader(name, value);
    response.end(Buffer.from(await answer.arrayBuffer()));
  }

  /** An upload that was begun at `collection` and has arrived whole; undefined for any other. */
  async find(collection: string, id: string): Promise<ArrivedUpload | undefined> {
    if (!isOf(collection, id)) return undefined;
    const upload = await this.store.getUpload(id).catch(() => undefined); // thrown for what is not there
    if (!upload || upload.size === undefined || upload.offset !== upload.size) return undefined;
    return { path: join(this.folder, id), name: upload.metadata?.['filename'] ?? 'file' };
  }

  /** Forgets an upload whose file has been taken. */
  async forget(id: string): Promise<void> {
    await this.store.remove(id).catch(() => undefined); // gone already
  }
}

const ID = /^[0-9a-f]{16}-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** What ties an upload's id to the address that it was begun at. */
const scopeOf = (collection: string): string => createHash('sha256').update(collection.replace(/\/$/, '')).digest('hex').slice(0, 16);

const isOf = (collection: string, id: string): boolean => ID.test(id) && id.startsWith(`${scopeOf(collection)}-`);
