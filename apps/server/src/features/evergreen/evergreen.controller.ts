import { Body, Controller, Delete, Get, HttpCode, Param, Put } from '@nestjs/common';
import { EvergreenBody, type EvergreenShape, type EvergreenStockShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { Evergreen } from './entities/evergreen.entity.js';
import { stockOf, stockOfPiece, stockRowShape } from './queries/stock.js';
import { markEvergreen, unmarkEvergreen } from './use-cases/mark.js';

@Controller()
export class EvergreenController {
  constructor(private readonly app: App) {}

  /** A client's pieces that last, by channel: those that rested longest first. */
  @Get('clients/:clientId/evergreen')
  @Access('evergreen.read', { client: 'clientId' })
  async stock(@Param('clientId') clientId: string): Promise<EvergreenStockShape> {
    return { rows: (await stockOf(this.app.manager, clientId)).map(stockRowShape) };
  }

  /** Whether a piece lasts, how it may go out again, and when it may. */
  @Get('pieces/:pieceId/evergreen')
  @Access('evergreen.read', { piece: 'pieceId' })
  async ofPiece(@Param('pieceId') pieceId: string): Promise<EvergreenShape> {
    const found = await this.app.manager.findOneBy(Evergreen, { pieceId });
    const rule = found && { restDays: found.restDays, timesMost: found.timesMost, untilOn: found.untilOn, version: found.version };
    return { rule, rows: (await stockOfPiece(this.app.manager, pieceId)).map(stockRowShape) };
  }

  /** Says that a piece lasts, and how it may go out again. Needs If-Match with the version of what was said before, 0 where nothing was. */
  @Put('pieces/:pieceId/evergreen')
  @HttpCode(204)
  @Access('evergreen.edit', { piece: 'pieceId' })
  async mark(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: EvergreenBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await markEvergreen(this.app, viewer, pieceId, body, version));
  }

  /** Takes a piece out of the stock. */
  @Delete('pieces/:pieceId/evergreen')
  @HttpCode(204)
  @Access('evergreen.edit', { piece: 'pieceId' })
  async unmark(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<void> {
    valueOrProblem(await unmarkEvergreen(this.app, viewer, pieceId));
  }
}
