import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { DutiesController, PersonDutiesController } from './duties.controller.js';
import { makeDuePieces } from './use-cases/make-pieces.js';

export { dutyDaysOf } from './queries/duties.js';
export { addDuty, changeDuty, endDuty } from './use-cases/duties.js';
export { markDuty, leaveOutMissed } from './use-cases/mark.js';
export { makeDuePieces } from './use-cases/make-pieces.js';

/** Zones change their date on whole quarters of an hour. */
const EVERY_QUARTER = '*/15 * * * *';

@Module({ controllers: [DutiesController, PersonDutiesController] })
export class DutiesModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register('duties_make', async () => void (await makeDuePieces(this.app)), EVERY_QUARTER);
  }
}
