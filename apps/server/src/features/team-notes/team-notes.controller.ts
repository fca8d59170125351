import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { EditTeamNoteBody, TeamNoteBody, type TeamNotesShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { teamNotesOf } from './queries/team-notes.js';
import { addNote, editNote, removeNote } from './use-cases/write-note.js';

@Controller()
export class TeamNotesController {
  constructor(private readonly app: App) {}

  /** What the team wrote on a piece: additions to the brief and comments. */
  @Get('pieces/:pieceId/notes')
  @Access('piece.read', { piece: 'pieceId' })
  list(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<TeamNotesShape> {
    return teamNotesOf(this.app, viewer, { pieceId });
  }

  @Post('pieces/:pieceId/notes')
  @Access('note.write', { piece: 'pieceId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: TeamNoteBody): Promise<TeamNotesShape> {
    valueOrProblem(await addNote(this.app, viewer, { pieceId }, body));
    return teamNotesOf(this.app, viewer, { pieceId });
  }

  /** What the team said about an idea. */
  @Get('ideas/:ideaId/notes')
  @Access('plan.read', { idea: 'ideaId' })
  ofIdea(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string): Promise<TeamNotesShape> {
    return teamNotesOf(this.app, viewer, { ideaId });
  }

  @Post('ideas/:ideaId/notes')
  @Access('plan.edit', { idea: 'ideaId' })
  async addToIdea(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Body() body: TeamNoteBody): Promise<TeamNotesShape> {
    valueOrProblem(await addNote(this.app, viewer, { ideaId }, body));
    return teamNotesOf(this.app, viewer, { ideaId });
  }

  /** Changes the text of one's own. Needs If-Match with its version. */
  @Patch('notes/:noteId')
  @HttpCode(204)
  @Access('note.write', { note: 'noteId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('noteId') noteId: string,
    @Body() body: EditTeamNoteBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editNote(this.app, viewer, noteId, body.text, version));
  }

  @Delete('notes/:noteId')
  @HttpCode(204)
  @Access('note.write', { note: 'noteId' })
  async remove(@CurrentViewer() viewer: Viewer, @Param('noteId') noteId: string): Promise<void> {
    valueOrProblem(await removeNote(this.app, viewer, noteId));
  }
}
