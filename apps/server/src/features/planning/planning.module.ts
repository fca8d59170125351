import { Module, type OnModuleInit } from '@nestjs/common';
import { ok } from '@zesting/core';
import { Database } from '../../platform/database/transaction.js';
import { tellAll } from '../../platform/live/live.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { Clock } from '../../platform/time/clock.js';
import { PlanningController } from './planning.controller.js';
import { predict } from './predict.js';
import { PREDICT, replanOpen } from './replan.js';

/** Zones change their date on whole quarters of an hour. */
const EVERY_QUARTER = '*/15 * * * *';

@Module({ controllers: [PlanningController] })
export class PlanningModule implements OnModuleInit {
  constructor(
    private readonly jobs: Jobs,
    private readonly database: Database,
    private readonly clock: Clock,
  ) {}

  onModuleInit(): void {
    this.jobs.register('planning_replan_open', async () => void (await this.replanOpen()), EVERY_QUARTER);
    this.jobs.register(PREDICT, async () => void (await this.predict()));
  }

  /** At start too: days may have passed since the last. */
  async onApplicationBootstrap(): Promise<void> {
    await this.replanOpen();
  }

  /** Whoever has a piece open whose prediction changed, sees it. */
  private async predict(): Promise<void> {
    await this.database.write(async (tx) => {
      const changed = await predict(tx, this.clock.now());
      if (changed > 0) await tellAll(tx);
      return ok(changed);
    });
  }

  private async replanOpen(): Promise<void> {
    await this.database.write(async (tx) => {
      const [agency] = (await tx.query('select 1 from agencies')) as unknown[];
      const replanned = agency ? await replanOpen(tx, this.clock.now()) : 0;
      await tellAll(tx);
      return ok(replanned);
    });
  }
}
