import { Body, Controller, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import { ArchiveBody, GuidelineBody, type GuidelineMadeShape, type GuidelinesShape, type PieceGuidelinesShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { guidelinesForPiece, guidelinesOf } from './queries/guidelines.js';
import { addGuideline, archiveGuideline, editGuideline } from './use-cases/write-guideline.js';

@Controller()
export class GuidelinesController {
  constructor(private readonly app: App) {}

  @Get('guidelines')
  @Access('guideline.write')
  all(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<GuidelinesShape> {
    return guidelinesOf(this.app, viewer, clientId);
  }

  @Post('guidelines')
  @Access('guideline.write')
  async add(@CurrentViewer() viewer: Viewer, @Body() body: GuidelineBody): Promise<GuidelineMadeShape> {
    return { guidelineId: valueOrProblem(await addGuideline(this.app, viewer, body)) };
  }

  /** Needs If-Match with its version. */
  @Put('guidelines/:guidelineId')
  @HttpCode(204)
  @Access('guideline.write', { guideline: 'guidelineId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('guidelineId') guidelineId: string,
    @Body() body: GuidelineBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editGuideline(this.app, viewer, guidelineId, body, version));
  }

  @Post('guidelines/:guidelineId/archive')
  @HttpCode(204)
  @Access('guideline.write', { guideline: 'guidelineId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('guidelineId') guidelineId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveGuideline(this.app, viewer, guidelineId, body.archived));
  }

  /** What holds for a piece. */
  @Get('pieces/:pieceId/guidelines')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<PieceGuidelinesShape> {
    return guidelinesForPiece(this.app, viewer, pieceId);
  }
}
