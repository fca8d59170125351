import { Module } from '@nestjs/common';
import { GuidelinesController } from './guidelines.controller.js';

export { holdsFor } from './queries/guidelines.js';
export { addGuideline, lockGuideline, mayWriteGuideline, noteGuideline, renameSkillsOfGuidelines } from './use-cases/write-guideline.js';

@Module({ controllers: [GuidelinesController] })
export class GuidelinesModule {}
