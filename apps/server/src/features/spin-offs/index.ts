import { Module } from '@nestjs/common';
import { pieceChanged } from '../production/index.js';
import { SpinOffsController } from './spin-offs.controller.js';
import { followSource } from './use-cases/follow-source.js';

export { addSpread, putToUse, renameSkillsOfSpreads } from './use-cases/edit-spread.js';
export { makeSpinOffs } from './use-cases/make-spin-offs.js';

// before anything is started: the demo's loader works without
pieceChanged.add(followSource);

@Module({ controllers: [SpinOffsController] })
export class SpinOffsModule {}
