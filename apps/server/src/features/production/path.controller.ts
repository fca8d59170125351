import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { PathChangesBody, type ForecastShape, type MendsShape, type PathPreviewShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { forecastOf } from './queries/forecast.js';
import { previewPath } from './queries/path-preview.js';
import { whatHelpsPiece } from './queries/what-helps.js';
import { changePiecePath } from './use-cases/change-path.js';

/** The path of one piece: its steps, as they are changed by hand. */
@Controller('pieces/:pieceId/path')
export class PathController {
  constructor(private readonly app: App) {}

  /** Changes steps, all or none. */
  @Post()
  @HttpCode(204)
  @Access('path.change', { piece: 'pieceId' })
  async change(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: PathChangesBody): Promise<void> {
    valueOrProblem(await changePiecePath(this.app, viewer, pieceId, body.changes));
  }

  /** What changes would come to, before any is made. */
  @Post('preview')
  @HttpCode(200)
  @Access('path.change', { piece: 'pieceId' })
  async preview(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: PathChangesBody,
  ): Promise<PathPreviewShape> {
    return valueOrProblem(await previewPath(this.app, viewer, pieceId, body.changes));
  }

  /** How long the open steps usually take, and the chance that the piece is ready in time. */
  @Get('forecast')
  @Access('piece.read', { piece: 'pieceId' })
  forecast(@Param('pieceId') pieceId: string): Promise<ForecastShape> {
    return forecastOf(this.app, pieceId);
  }

  /** What would bring the piece back, where it is late. */
  @Get('helps')
  @Access('path.change', { piece: 'pieceId' })
  helps(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<MendsShape> {
    return whatHelpsPiece(this.app, viewer, pieceId);
  }
}
