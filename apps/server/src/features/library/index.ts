import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { languageChanged } from '../clients/index.js';
import { pieceChanged, pieceMade } from '../production/index.js';
import { LibraryController } from './library.controller.js';
import { PhrasesController } from './phrases.controller.js';
import { keepWords, REREAD, rereadLater, rereadWords } from './use-cases/keep-words.js';

export { addPhrase, usePhrase } from './use-cases/edit-phrase.js';
export { addTagSet } from './use-cases/edit-tag-set.js';

// before anything is started: the demo's loader works without
pieceMade.add(keepWords);
pieceChanged.add(keepWords);
languageChanged.add(rereadLater);

@Module({ controllers: [LibraryController, PhrasesController] })
export class LibraryModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register(REREAD, (payload) => rereadWords(this.app, (payload as { clientId: string }).clientId)); // as rereadLater wrote it
  }
}
