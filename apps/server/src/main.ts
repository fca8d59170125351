import 'reflect-metadata';
import { createServer } from './server.js';
import { readConfig } from './platform/config/config.js';
import { migrate } from './platform/database/data-source.js';
import { migrateJobs } from './platform/jobs/jobs.js';

const config = readConfig(process.env);
await migrate(config.databaseUrl);
await migrateJobs(config.databaseUrl);
const server = await createServer(config);
server.enableShutdownHooks(['SIGINT', 'SIGTERM']);
await server.listen(config.port, '127.0.0.1');
process.send?.('listening');
// what started us is gone: nobody else would end us
process.once('disconnect', () => void server.close().finally(() => process.exit(0)));
