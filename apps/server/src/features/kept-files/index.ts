import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { KeptFilesController } from './kept-files.controller.js';
import { KeptFilesInPiecesController } from './in-pieces.controller.js';
import { KeptFileUploadsController } from './uploads.controller.js';
import { remindOfRenewals } from './use-cases/remind-of-renewals.js';

export { oldFrom } from './queries/old-from.js';
export { editKeptFile, keepFile } from './use-cases/keep-file.js';
export { takeKeptFile } from './use-cases/take-kept-file.js';

const EVERY_HOUR = '11 * * * *';

@Module({ controllers: [KeptFilesController, KeptFilesInPiecesController, KeptFileUploadsController] })
export class KeptFilesModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register('kept_files_remind', async () => void (await remindOfRenewals(this.app)), EVERY_HOUR);
  }
}
