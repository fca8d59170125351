import type { LoggerService } from '@nestjs/common';
import { pino, type Logger } from 'pino';

export const LOGGER = Symbol('logger');

export const makeLogger = (level: string): Logger => pino({ level, redact: ['req.headers.cookie', 'req.headers.authorization'] });

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
