import { Module } from '@nestjs/common';
import { TeamNotesController } from './team-notes.controller.js';

export { TeamNote } from './entities/team-note.entity.js';
export { teamOf } from './queries/team-notes.js';
export { addNote } from './use-cases/write-note.js';

@Module({ controllers: [TeamNotesController] })
export class TeamNotesModule {}
