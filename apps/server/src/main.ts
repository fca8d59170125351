import 'reflect-metadata';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { createServer } from './server.js';
import { readConfig } from './platform/config/config.js';
import { migrate } from './platform/database/data-source.js';
import { isAway } from './platform/database/away.js';
import { migrateJobs } from './platform/jobs/jobs.js';
import { LOGGER } from './platform/logging.js';
import type { Logger } from 'pino';

/** How long a stop may take. */
const STOP_MS = 15_000;

/** What keeps the server from starting is one line, not a trace: the database is away, a port is taken, a setting is wrong. */
async function begin(): Promise<NestExpressApplication> {
  try {
    const config = readConfig(process.env);
    await migrate(config.databaseUrl);
    await migrateJobs(config.databaseUrl);
    const server = await createServer(config);
    server.enableShutdownHooks(['SIGINT', 'SIGTERM']);
    await server.listen(config.port, config.bindAddress);
    return server;
  } catch (error) {
    console.error(`The application cannot start: ${error instanceof Error ? error.message : String(error)}`);
    process.exit(1);
  }
}

const server = await begin();
// libraries leave promises and connections behind that fail when the database goes away; the database comes back, and so do they. All else is a bug: whoever
// started us starts us again
for (const event of ['unhandledRejection', 'uncaughtException'] as const)
  process.on(event, (error: unknown) => {
    const logger = server.get<Logger>(LOGGER);
    if (isAway(error)) return logger.warn({ err: error }, 'the database went away');
    logger.fatal({ err: error }, 'something failed that nobody waited for');
    process.exit(1);
  });
process.send?.('listening');
// a stop that something holds up is not waited for without end: what was not committed is done again by whoever starts next
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => setTimeout(() => process.exit(1), STOP_MS).unref());
// what started us is gone: nobody else would end us
process.once('disconnect', () => void server.close().finally(() => process.exit(0)));
