import { Inject, Module, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { ok } from '@zesting/core';
import type { Logger } from 'pino';
import { App } from '../../platform/app.js';
import { addJob, Jobs } from '../../platform/jobs/jobs.js';
import { LOGGER } from '../../platform/logging.js';
import { drain, sendDue } from './drain.js';
import { SendingController } from './sending.controller.js';
import { SEND } from './use-cases/claim.js';

export { claimDue, drain } from './drain.js';
export { putLink } from './use-cases/edit-link.js';

/** The task that looks what is due. */
const LOOK = 'sending_look';
const EVERY_MINUTE = '* * * * *';

@Module({ controllers: [SendingController] })
export class SendingModule implements OnModuleInit, OnApplicationBootstrap {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  onModuleInit(): void {
    this.jobs.register(
      LOOK,
      async (_payload, { addJob: add }) => void (await add(SEND, { look: true }, { jobKey: LOOK, queueName: SEND })),
      EVERY_MINUTE,
    );
    this.jobs.register(SEND, (payload) => this.send(payload));
  }

  /** One at a time on all servers together: what looks for what is due, and what goes on with it. */
  private async send(payload: unknown): Promise<void> {
    const isLook = typeof payload === 'object' && payload !== null && 'look' in payload;
    if (isLook) await sendDue(this.app, this.log);
    else await drain(this.app, this.log);
  }

  /** At start too, since minutes may have passed since the last look. */
  async onApplicationBootstrap(): Promise<void> {
    await this.app.write(async (tx) => ok(await addJob(tx, SEND, { look: true }, { key: LOOK, queue: SEND })));
  }
}
