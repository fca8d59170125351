import { Global, Module, type DynamicModule } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { PLATFORM_ENTITIES } from './database/entities/index.js';
import { AccessGuard } from './access/access.js';
import { Links } from './access/links.js';
import { App } from './app.js';
import { CONFIG, type Config } from './config/config.js';
import { dataSourceOptions } from './database/data-source.js';
import { SessionPool } from './database/session-pool.js';
import { Listener } from './database/listener.js';
import { Database } from './database/transaction.js';
import { Features } from './feature.js';
import { Files } from './files/files.js';
import { OpenRequests } from './http/open-requests.js';
import { Live } from './live/live.js';
import { PictureProcess } from './files/picture-process.js';
import { Pictures } from './files/pictures.js';
import { Resumable } from './files/resumable.js';
import { Jobs } from './jobs/jobs.js';
import { LOGGER, makeLogger } from './logging.js';
import { Inbox } from './mail/inbox.js';
import { MailSender } from './mail/mail.js';
import { Clock } from './time/clock.js';
import { Work } from './work/work.js';

const shared = [
  App,
  AccessGuard,
  Clock,
  Database,
  Files,
  Inbox,
  Jobs,
  Links,
  Listener,
  Live,
  OpenRequests,
  PictureProcess,
  Pictures,
  Resumable,
  SessionPool,
  Work,
];

/** What all features stand on. */
@Global()
@Module({})
export class PlatformModule {
  static with(config: Config, features: Features): DynamicModule {
    const entities = [...PLATFORM_ENTITIES, ...features.list.flatMap((feature) => feature.entities)];
    return {
      module: PlatformModule,
      imports: [TypeOrmModule.forRoot({ ...dataSourceOptions(config.databaseUrl, entities), retryAttempts: 3, retryDelay: 500 })],
      providers: [
        { provide: CONFIG, useValue: config },
        { provide: Features, useValue: features },
        { provide: LOGGER, useFactory: () => makeLogger(config.logLevel) },
        MailSender,
        ...shared,
      ],
      exports: [CONFIG, Features, LOGGER, MailSender, ...shared],
    };
  }
}
