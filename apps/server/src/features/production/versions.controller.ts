import { Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import type { VersionsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { versionsOf } from './queries/versions.js';
import { bringBack } from './use-cases/bring-back.js';

/** What a piece's content was, version by version. */
@Controller('pieces/:pieceId/versions')
export class VersionsController {
  constructor(private readonly app: App) {}

  /** Two of them side by side: what the client saw last and what is being worked on, unless others are asked for. */
  @Get()
  @Access('piece.read', { piece: 'pieceId' })
  async two(@Param('pieceId') pieceId: string, @Query('older') older?: string, @Query('newer') newer?: string): Promise<VersionsShape> {
    const [before, after] = [older, newer].map((number) => (number === undefined ? undefined : Number(number)));
    return valueOrProblem(await versionsOf(this.app, pieceId, before, after));
  }

  /** Makes a version the working copy again. Needs If-Match with the content's version. */
  @Post(':number/bring-back')
  @HttpCode(204)
  @Access('piece.write_content', { piece: 'pieceId' })
  async bring(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Param('number', ParseIntPipe) number: number,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await bringBack(this.app, viewer, pieceId, number, version));
  }
}
