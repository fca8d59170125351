import { Body, Controller, Delete, Get, HttpCode, Param, Put } from '@nestjs/common';
import { EmbargoBody, type EmbargoShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { Embargo } from './entities/embargo.entity.js';
import { liftEmbargo, setEmbargo } from './use-cases/set-embargo.js';

@Controller('pieces/:pieceId/embargo')
export class EmbargoesController {
  constructor(private readonly app: App) {}

  /** Between which days a piece may be out. */
  @Get()
  @Access('piece.read', { piece: 'pieceId' })
  async read(@Param('pieceId') pieceId: string): Promise<EmbargoShape> {
    const found = await this.app.manager.findOneBy(Embargo, { pieceId });
    if (!found) return { rule: null };
    const { notBeforeOn, notAfterOn, why, version } = found;
    return { rule: { notBeforeOn, notAfterOn, why, version } };
  }

  /** Says between which days a piece may be out. Needs If-Match with the version of what was said before, 0 where nothing was. */
  @Put()
  @HttpCode(204)
  @Access('embargo.edit', { piece: 'pieceId' })
  async set(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: EmbargoBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await setEmbargo(this.app, viewer, pieceId, body, version));
  }

  /** Lets a piece be out on any day. */
  @Delete()
  @HttpCode(204)
  @Access('embargo.edit', { piece: 'pieceId' })
  async lift(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<void> {
    valueOrProblem(await liftEmbargo(this.app, viewer, pieceId));
  }
}
