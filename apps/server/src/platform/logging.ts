import type { LoggerService } from '@nestjs/common';
import { pino, type Logger } from 'pino';

export const LOGGER = Symbol('logger');

export const makeLogger = (level: string): Logger =>
  pino({ level, redact: ['req.headers.cookie', 'req.headers.authorization'], serializers: { err: withoutData } });

/** What of an error is written down: never the parameters of a statement or the row that broke a rule, which hold what people typed. */
export function withoutData(error: unknown): Record<string, unknown> {
  if (!(error instanceof Error)) return { message: 'not an error' };
  const { code, constraint, table } = ('driverError' in error ? error.driverError : error) as Record<string, unknown>; // read, not trusted
  const [message = ''] = error.message.split('\n');
  return {
    type: error.name,
    message,
    code,
    constraint,
    table,
    stack: error.stack,
    ...(error.cause ? { cause: withoutData(error.cause) } : {}),
  };
}

/** Lets the framework log through pino. */
export class FrameworkLogger implements LoggerService {
  constructor(private readonly logger: Logger) {}
  log(message: unknown): void {
    this.logger.debug(message);
  }
  warn(message: unknown): void {
    this.logger.warn(message);
  }
  error(message: unknown, stack?: string): void {
    this.logger.error({ stack }, String(message));
  }
}
