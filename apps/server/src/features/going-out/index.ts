import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { GoingOutController } from './going-out.controller.js';
import { remindOfWeek } from './use-cases/remind-of-week.js';

export { goingOutOf } from './queries/going-out.js';
export { goingOutRow } from './queries/hand-out.js';
export { STOPPED } from './queries/stopped.js';
export { seenOf } from './seen.js';
export { checkPlacement } from './use-cases/check-placement.js';

const EVERY_QUARTER = '*/15 * * * *';

@Module({ controllers: [GoingOutController] })
export class GoingOutModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register('going_out_week', async () => void (await remindOfWeek(this.app)), EVERY_QUARTER);
  }
}
