import { randomUUID } from 'node:crypto';
import { Catch, HttpException, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import type { Logger } from 'pino';
import { isAway } from '../database/away.js';
import { brokenRule } from '../database/constraints.js';
import { Problem } from './problem.js';

/** Codes for what the framework itself refuses. */
const FRAMEWORK: Record<number, string> = {
  400: 'http.bad_request',
  404: 'http.no_such_address',
  413: 'http.too_large',
  415: 'http.wrong_type',
  429: 'http.too_many_tries',
};

/** Answers every failure as problem details. Bugs are logged once, with an id that the answer carries. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  constructor(private readonly logger: Logger) {}

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.destroy();
      return;
    }
    const body = this.bodyOf(error);
    if (body.status === 503) response.set('Retry-After', '2');
    response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
  }

  private bodyOf(error: unknown): { status: number } & Record<string, unknown> {
    if (error instanceof Problem) return { ...(error.getResponse() as object), status: error.getStatus() };
    if (isNoRoom(error)) {
      this.logger.error({ err: error }, 'the disk is full');
      return this.bodyOf(Problem.of('file.no_room'));
    }
    const broken = brokenRule(error);
    if (broken) return this.bodyOf(Problem.of(broken));
    if (isAway(error)) {
      this.logger.warn({ err: error }, 'the database is away');
      return this.bodyOf(Problem.of('http.try_again'));
    }
    const status = error instanceof HttpException ? error.getStatus() : statusOf(error);
    if (status !== undefined && status < 500) {
      const code = FRAMEWORK[status] ?? 'http.refused';
      return { type: `/problems/${code}`, code, title: error instanceof Error ? error.message : 'refused', status };
    }
    const id = randomUUID();
    this.logger.error({ err: error, id }, 'unexpected failure');
    return { type: '/problems/http.unexpected', code: 'http.unexpected', title: 'Something went wrong on our side', status: 500, id };
  }
}

/** The disk, or the share of it that is ours, is full. */
const isNoRoom = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && (error.code === 'ENOSPC' || error.code === 'EDQUOT');

/** Errors of body parsers carry their status. */
function statusOf(error: unknown): number | undefined {
  const status = error instanceof Error && 'status' in error ? error.status : undefined;
  return typeof status === 'number' ? status : undefined;
}
