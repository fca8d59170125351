import { Injectable, type BeforeApplicationShutdown, type OnApplicationShutdown } from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';
import type { NextFunction, Request, Response } from 'express';
import type { Server } from 'node:http';

const LOOK_MS = 100;

/**
 * Knows whether anything is being answered. A stop waits for that alone: browsers hold connections ready over which nothing was ever asked,
 * and the server by itself would wait for those too.
 */
@Injectable()
export class OpenRequests implements BeforeApplicationShutdown, OnApplicationShutdown {
  private count = 0;
  private looking: NodeJS.Timeout | undefined;

  constructor(private readonly host: HttpAdapterHost) {}

  readonly watch = (_request: Request, response: Response, next: NextFunction): void => {
    this.count += 1;
    response.once('close', () => (this.count -= 1));
    next();
  };

  beforeApplicationShutdown(): void {
    const server = this.host.httpAdapter.getHttpServer() as Server; // Express runs on Node's own
    this.looking = setInterval(() => {
      if (this.count === 0) server.closeAllConnections();
    }, LOOK_MS);
  }

  /** Nothing listens any more. */
  onApplicationShutdown(): void {
    clearInterval(this.looking);
  }
}
