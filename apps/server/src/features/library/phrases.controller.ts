import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  ArchiveBody,
  PhraseBody,
  PhraseUsedBody,
  type OfferedPhrasesShape,
  type PhraseMadeShape,
  type PhrasesShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { phrasesFor, phrasesOf } from './queries/phrases.js';
import { addPhrase, archivePhrase, editPhrase, usePhrase } from './use-cases/edit-phrase.js';

@Controller()
export class PhrasesController {
  constructor(private readonly app: App) {}

  /** A client's openings, closings, calls to action and templates, with how often each was used. */
  @Get('clients/:clientId/phrases')
  @Access('phrase.edit', { client: 'clientId' })
  all(@Param('clientId') clientId: string): Promise<PhrasesShape> {
    return phrasesOf(this.app, clientId);
  }

  @Post('clients/:clientId/phrases')
  @Access('phrase.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: PhraseBody): Promise<PhraseMadeShape> {
    return { phraseId: valueOrProblem(await addPhrase(this.app, viewer, clientId, body)) };
  }

  /** Needs If-Match with its version. */
  @Put('phrases/:phraseId')
  @HttpCode(204)
  @Access('phrase.edit', { phrase: 'phraseId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('phraseId') phraseId: string,
    @Body() body: PhraseBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editPhrase(this.app, viewer, phraseId, body, version));
  }

  @Post('phrases/:phraseId/archive')
  @HttpCode(204)
  @Access('phrase.edit', { phrase: 'phraseId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('phraseId') phraseId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archivePhrase(this.app, viewer, phraseId, body.archived));
  }

  /** The phrases that are offered where a piece is written. */
  @Get('pieces/:pieceId/phrases')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@Param('pieceId') pieceId: string): Promise<OfferedPhrasesShape> {
    return phrasesFor(this.app, pieceId);
  }

  /** Writes down that a phrase was put into a piece. */
  @Post('pieces/:pieceId/phrases')
  @HttpCode(204)
  @Access('piece.write_content', { piece: 'pieceId' })
  async use(@Param('pieceId') pieceId: string, @Body() body: PhraseUsedBody): Promise<void> {
    valueOrProblem(await usePhrase(this.app, pieceId, body.phraseId));
  }
}
