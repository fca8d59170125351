import { Inject, Module, type OnModuleInit } from '@nestjs/common';
import type { Logger } from 'pino';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { LOGGER } from '../../platform/logging.js';
import { pieceChanged, pieceMade } from '../production/index.js';
import { AskedPagesController } from './asked-pages.controller.js';
import { askDue, clearAsked } from './use-cases/ask.js';
import { ASK, WANT, wantLater, wantNext, wantOfPiece } from './use-cases/want.js';

export { pageAnswers } from './queries/answers.js';

const EVERY_QUARTER = '*/15 * * * *';

// before anything is started: the demo's loader works without
pieceMade.add(wantLater);
pieceChanged.add(wantLater);

@Module({ controllers: [AskedPagesController] })
export class AskedPagesModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  onModuleInit(): void {
    this.jobs.register('pages_look', async () => void (await wantNext(this.app)), EVERY_QUARTER);
    this.jobs.register(WANT, (payload) => wantOfPiece(this.app, (payload as { pieceId: string }).pieceId)); // as wantLater wrote it
    this.jobs.register(ASK, async () => void (await askDue(this.app, this.log)));
    this.jobs.register('clear_asked_pages', async () => void (await clearAsked(this.app)), '53 3 * * *');
  }
}
