import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  CampaignBody,
  FIRST_DAY,
  LAST_DAY,
  MoveCampaignBody,
  PieceCampaignBody,
  type CampaignMadeShape,
  type CampaignMoveShape,
  type CampaignPageShape,
  type CampaignsShape,
} from '@zesting/contract';
import { parseDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { campaignMove, campaignPage, campaignsOf } from './queries/campaigns.js';
import { addCampaign, changeCampaign, isPeriod, setCampaignAway, setPieceCampaign } from './use-cases/campaigns.js';
import { moveCampaign } from './use-cases/move-campaign.js';

@Controller()
export class CampaignsController {
  constructor(private readonly app: App) {}

  /** Campaigns of one client, or of all of the viewer's: of the days from `from` to `to` where they are given. */
  @Get('campaigns')
  @Access('campaign.read')
  list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('from') from: string = FIRST_DAY,
    @Query('to') to: string = LAST_DAY,
  ): Promise<CampaignsShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return campaignsOf(this.app, clientId === undefined ? viewer.clientIds : [clientId], { from, to }, viewer.zone);
  }

  /** One campaign with its pieces. */
  @Get('campaigns/:campaignId')
  @Access('campaign.read', { campaign: 'campaignId' })
  one(@Param('campaignId') campaignId: string): Promise<CampaignPageShape> {
    return campaignPage(this.app, campaignId);
  }

  @Post('clients/:clientId/campaigns')
  @Access('campaign.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: CampaignBody): Promise<CampaignMadeShape> {
    return { campaignId: valueOrProblem(await addCampaign(this.app, viewer, clientId, body)) };
  }

  /** Changes what is said of a campaign. Needs If-Match with its version. */
  @Put('campaigns/:campaignId')
  @HttpCode(204)
  @Access('campaign.edit', { campaign: 'campaignId' })
  async change(
    @CurrentViewer() viewer: Viewer,
    @Param('campaignId') campaignId: string,
    @Body() body: CampaignBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await changeCampaign(this.app, viewer, campaignId, body, version));
  }

  /** What another period would make of it, from `from` to `to`. */
  @Get('campaigns/:campaignId/move')
  @Access('campaign.read', { campaign: 'campaignId' })
  preview(@Param('campaignId') campaignId: string, @Query('from') from: string, @Query('to') to: string): Promise<CampaignMoveShape> {
    const [fromOn, toOn] = [parseDay(from), parseDay(to)];
    if (!fromOn || !toOn || !isPeriod({ fromOn, toOn })) throw Problem.of('http.invalid', { errors: { to: ['isDay'] } });
    return campaignMove(this.app, campaignId, fromOn, toOn);
  }

  /** Gives it another period, with what can still move or without. Needs If-Match with its version. */
  @Put('campaigns/:campaignId/period')
  @HttpCode(204)
  @Access('campaign.edit', { campaign: 'campaignId' })
  async move(
    @CurrentViewer() viewer: Viewer,
    @Param('campaignId') campaignId: string,
    @Body() body: MoveCampaignBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await moveCampaign(this.app, viewer, campaignId, body, version));
  }

  /** Puts it away. */
  @Delete('campaigns/:campaignId')
  @HttpCode(204)
  @Access('campaign.edit', { campaign: 'campaignId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('campaignId') campaignId: string): Promise<void> {
    valueOrProblem(await setCampaignAway(this.app, viewer, campaignId, true));
  }

  @Post('campaigns/:campaignId/restore')
  @HttpCode(204)
  @Access('campaign.edit', { campaign: 'campaignId' })
  async restore(@CurrentViewer() viewer: Viewer, @Param('campaignId') campaignId: string): Promise<void> {
    valueOrProblem(await setCampaignAway(this.app, viewer, campaignId, false));
  }

  /** Says which campaign a piece belongs to. */
  @Put('pieces/:pieceId/campaign')
  @HttpCode(204)
  @Access('campaign.edit', { piece: 'pieceId' })
  async ofPiece(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: PieceCampaignBody): Promise<void> {
    valueOrProblem(await setPieceCampaign(this.app, viewer, pieceId, body.campaignId));
  }
}
