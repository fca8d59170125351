import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  ArchiveBody,
  MakeSpinOffsBody,
  MoveAlongBody,
  SettleFactsBody,
  SpinOffBody,
  SpreadBody,
  SpreadUseBody,
  type AlongsShape,
  type SpinOffPreviewShape,
  type SpinOffsMadeShape,
  type SpinOffsShape,
  type SpinOffTreeShape,
  type SpreadMadeShape,
  type SpreadOutlookShape,
  type SpreadsShape,
} from '@zesting/contract';
import { getDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { previewSpinOffs, spreadOutlook } from './queries/preview.js';
import { spinOffsOf, treeOf } from './queries/spin-offs.js';
import { spreadsOf } from './queries/spreads.js';
import { addSpread, archiveSpread, editSpread, putToUse } from './use-cases/edit-spread.js';
import { makeSpinOffs } from './use-cases/make-spin-offs.js';
import { alongOf, moveAlong } from './use-cases/move-along.js';
import { cutLoose, editSpinOff, settleFacts } from './use-cases/settle-facts.js';

@Controller()
export class SpinOffsController {
  constructor(private readonly app: App) {}

  /** A client's spreads: what is made from each source of a kind. */
  @Get('clients/:clientId/spreads')
  @Access('spread.edit', { client: 'clientId' })
  spreads(@Param('clientId') clientId: string): Promise<SpreadsShape> {
    return spreadsOf(this.app, clientId);
  }

  @Post('clients/:clientId/spreads')
  @Access('spread.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: SpreadBody): Promise<SpreadMadeShape> {
    return { spreadId: valueOrProblem(await addSpread(this.app, viewer, clientId, body)) };
  }

  /** Needs If-Match with its version. */
  @Put('spreads/:spreadId')
  @HttpCode(204)
  @Access('spread.edit', { spread: 'spreadId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('spreadId') spreadId: string,
    @Body() body: SpreadBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editSpread(this.app, viewer, spreadId, body, version));
  }

  /** Offers it for its sources, or no more. */
  @Post('spreads/:spreadId/use')
  @HttpCode(204)
  @Access('spread.edit', { spread: 'spreadId' })
  async use(@CurrentViewer() viewer: Viewer, @Param('spreadId') spreadId: string, @Body() body: SpreadUseBody): Promise<void> {
    valueOrProblem(await putToUse(this.app, viewer, spreadId, body.isUsed));
  }

  @Post('spreads/:spreadId/archive')
  @HttpCode(204)
  @Access('spread.edit', { spread: 'spreadId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('spreadId') spreadId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveSpread(this.app, viewer, spreadId, body.archived));
  }

  /** What it would come to for a source that is published on a day, else four weeks from now. Nothing is made. */
  @Get('spreads/:spreadId/outlook')
  @Access('spread.edit', { spread: 'spreadId' })
  async outlook(@Param('spreadId') spreadId: string, @Query('on') on?: string): Promise<SpreadOutlookShape> {
    return valueOrProblem(await spreadOutlook(this.app, spreadId, on === undefined ? null : getDay(on)));
  }

  /** Sources with what was made from them. */
  @Get('spin-offs')
  @Access('spin_off.list')
  tree(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('cursor') cursor?: string,
    @Query('behind') behind?: string,
  ): Promise<SpinOffTreeShape> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    return treeOf(this.app, viewer, clientIds, { after: cursor, isBehind: behind === 'yes' });
  }

  /** What a piece was made from, and what was made from it. */
  @Get('pieces/:pieceId/spin-offs')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<SpinOffsShape> {
    return spinOffsOf(this.app, viewer, pieceId);
  }

  /** What would be made, with its dates and what is late. Nothing is made. */
  @Post('pieces/:pieceId/spin-offs/preview')
  @HttpCode(200)
  @Access('spin_off.make', { piece: 'pieceId' })
  async preview(@Param('pieceId') pieceId: string, @Body() body: MakeSpinOffsBody): Promise<SpinOffPreviewShape> {
    return valueOrProblem(await previewSpinOffs(this.app, pieceId, body));
  }

  @Post('pieces/:pieceId/spin-offs')
  @Access('spin_off.make', { piece: 'pieceId' })
  async make(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: MakeSpinOffsBody,
  ): Promise<SpinOffsMadeShape> {
    return { pieceIds: valueOrProblem(await makeSpinOffs(this.app, viewer, pieceId, body)) };
  }

  /** Where what was made from a source would go if it moved along. Nothing moves. */
  @Post('pieces/:pieceId/spin-offs/along/preview')
  @HttpCode(200)
  @Access('spin_off.make', { piece: 'pieceId' })
  async alongPreview(@Param('pieceId') pieceId: string, @Body() body: MoveAlongBody): Promise<AlongsShape> {
    return { moves: await alongOf(this.app, this.app.manager, pieceId, body) };
  }

  @Post('pieces/:pieceId/spin-offs/along')
  @HttpCode(200)
  @Access('spin_off.make', { piece: 'pieceId' })
  async along(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: MoveAlongBody): Promise<AlongsShape> {
    return { moves: valueOrProblem(await moveAlong(this.app, viewer, pieceId, body)) };
  }

  /** Changes what an output is called beside its source, and where a clip begins and ends. */
  @Put('pieces/:pieceId/spin-off')
  @HttpCode(204)
  @Access('spin_off.make', { piece: 'pieceId' })
  async editOne(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: SpinOffBody): Promise<void> {
    valueOrProblem(await editSpinOff(this.app, viewer, pieceId, body));
  }

  /** Takes over what the source says, or keeps what the output says, field by field. */
  @Post('pieces/:pieceId/spin-off/facts')
  @HttpCode(204)
  @Access('piece.write_content', { piece: 'pieceId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: SettleFactsBody): Promise<void> {
    valueOrProblem(await settleFacts(this.app, viewer, pieceId, body));
  }

  /** Cuts it loose from its source. */
  @Delete('pieces/:pieceId/spin-off')
  @HttpCode(204)
  @Access('spin_off.make', { piece: 'pieceId' })
  async cut(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<void> {
    valueOrProblem(await cutLoose(this.app, viewer, pieceId));
  }
}
