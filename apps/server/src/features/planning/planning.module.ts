import { Module, type OnModuleInit } from '@nestjs/common';
import { ok } from '@zesting/core';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { DaysOffController } from './days-off.controller.js';
import { LoadController } from './load.controller.js';
import { PlanningController } from './planning.controller.js';
import { predictApart } from './predict.js';
import { PREDICT, REPLAN, replanOpenApart, replanSoon } from './replan.js';

/** Zones change their date on whole quarters of an hour. */
const EVERY_QUARTER = '*/15 * * * *';

@Module({ controllers: [PlanningController, DaysOffController, LoadController] })
export class PlanningModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register(REPLAN, async () => void (await replanOpenApart(this.app)), EVERY_QUARTER);
    this.jobs.register(PREDICT, async () => void (await predictApart(this.app)));
  }

  /** At start too, since days may have passed since the last; nobody waits for it. */
  async onApplicationBootstrap(): Promise<void> {
    await this.app.write(async (tx) => ok(await replanSoon(tx)));
  }
}
