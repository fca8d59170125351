import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  AddPlacementBody,
  BeginPieceBody,
  DuplicateBody,
  MarkerBody,
  MarkOutBody,
  MovePlacementBody,
  SwapBody,
  type PieceMadeShape,
  type FeasibilityShape,
  type MarkerMadeShape,
  type CalendarCountsShape,
  type CalendarShape,
  type ChannelLookShape,
  type MixShape,
  type MovedShape,
  type PlacementShape,
  type StationsShape,
} from '@zesting/contract';
import { daysBetween, parseDay, type Day } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { feasibilityOf } from '../planning/index.js';
import { beginPiece } from './use-cases/begin-piece.js';
import { calendarOf, countsBetween, placementShape, type CalendarFilter } from './queries/calendar.js';
import { channelLook } from './queries/channel-look.js';
import { feedOf } from './queries/feed.js';
import { mixFor } from './queries/mix.js';
import { leftBehind } from './queries/left-behind.js';
import { standingOn } from './queries/markers.js';
import { stationsOf } from './queries/stations.js';
import { addMarker, editMarker, removeMarker } from './use-cases/markers.js';
import {
  addPlacement,
  cancelPlacement,
  duplicatePlacement,
  correctOut,
  markOut,
  movePlacement,
  restorePlacement,
  swapPlacements,
  type Moved,
} from './use-cases/place.js';

/** The most days that one calendar query may span. */
const SPAN_LIMIT_DAYS = 400;

/** The period that an address asks for. */
function spanOf(from: string | undefined, to: string | undefined): [Day, Day] {
  const [first, last] = [parseDay(from ?? ''), parseDay(to ?? '')];
  if (!first || !last || first > last || daysBetween(first, last) > SPAN_LIMIT_DAYS)
    throw Problem.of('http.invalid', { errors: { from: ['isDay'], to: ['isDay'] } });
  return [first, last];
}

/** What an address asks for alone. */
const toFilter = (asked: { readonly [Name in keyof CalendarFilter]: CalendarFilter[Name] | undefined }): CalendarFilter => ({
  pillarId: asked.pillarId ?? null,
  formatId: asked.formatId ?? null,
  channelId: asked.channelId ?? null,
  campaignId: asked.campaignId ?? null,
  stage: asked.stage ?? null,
  theme: asked.theme ?? null,
});

@Controller()
export class CalendarController {
  constructor(private readonly app: App) {}

  /** Begins a piece by hand. */
  @Post('clients/:clientId/pieces')
  @Access('piece.begin', { client: 'clientId' })
  async begin(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: BeginPieceBody): Promise<PieceMadeShape> {
    return { pieceId: valueOrProblem(await beginPiece(this.app, viewer, clientId, body)) };
  }

  /** What a route would allow a client: the earliest realistic date and the hours it adds. */
  @Get('clients/:clientId/feasibility/:routeId')
  @Access('piece.begin', { client: 'clientId' })
  async feasibility(@Param('clientId') clientId: string, @Param('routeId') routeId: string): Promise<FeasibilityShape> {
    return valueOrProblem(await feasibilityOf(this.app, clientId, routeId));
  }

  /** What stands on the calendar from `from` to `to`, of one client or all; of a pillar, format, channel, campaign or stage alone. */
  @Get('calendar')
  @Access('calendar.read')
  calendar(
    @CurrentViewer() viewer: Viewer,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId') clientId?: string,
    @Query('placementId') placementId?: string,
    @Query('pillarId') pillarId?: string,
    @Query('formatId') formatId?: string,
    @Query('channelId') channelId?: string,
    @Query('campaignId') campaignId?: string,
    @Query('stage') stage?: string,
    @Query('theme') theme?: 'on' | 'off',
    @Query('dues') dues?: string,
  ): Promise<CalendarShape> {
    const [first, last] = spanOf(from, to);
    const filter = toFilter({ pillarId, formatId, channelId, campaignId, stage, theme });
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    return calendarOf(
      this.app,
      clientIds,
      { from: first, to: last, placementId: placementId ?? null, filter, withDues: dues === 'yes' },
      viewer.zone,
    );
  }

  /** How much stands on each day, of one client or all, and of what is asked for alone. */
  @Get('calendar/counts')
  @Access('calendar.read')
  counts(
    @CurrentViewer() viewer: Viewer,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId') clientId?: string,
    @Query('pillarId') pillarId?: string,
    @Query('formatId') formatId?: string,
    @Query('channelId') channelId?: string,
    @Query('campaignId') campaignId?: string,
    @Query('stage') stage?: string,
    @Query('theme') theme?: 'on' | 'off',
  ): Promise<CalendarCountsShape> {
    const [first, last] = spanOf(from, to);
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    const filter = toFilter({ pillarId, formatId, channelId, campaignId, stage, theme });
    return countsBetween(this.app, clientIds, { from: first, to: last, filter });
  }

  /** A channel in the order in which it is published, the newest first, with what is planned in it. */
  @Get('clients/:clientId/channels/:channelId/look')
  @Access('calendar.read', { client: 'clientId' })
  async look(
    @Param('clientId') clientId: string,
    @Param('channelId') channelId: string,
    @Query('after') after?: string,
  ): Promise<ChannelLookShape> {
    const look = await channelLook(this.app, clientId, channelId, Number(after ?? 0));
    if (!look) throw Problem.of('access.not_found');
    return look;
  }

  /** How what a client has placed from `from` to `to` lies against the shares of its pillars. */
  @Get('clients/:clientId/mix')
  @Access('calendar.read', { client: 'clientId' })
  mix(@Param('clientId') clientId: string, @Query('from') from: string, @Query('to') to: string): Promise<MixShape> {
    const [first, last] = spanOf(from, to);
    return mixFor(this.app, clientId, first, last);
  }

  @Get('stations')
  @Access('desk.read')
  stations(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<StationsShape> {
    return stationsOf(this.app, clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId));
  }

  @Post('pieces/:pieceId/placements')
  @Access('placement.edit', { piece: 'pieceId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: AddPlacementBody): Promise<PlacementShape> {
    return placementShape(this.app, valueOrProblem(await addPlacement(this.app, viewer, pieceId, body.channelId)));
  }

  /** Moves a placement; answers what the move makes late. Needs If-Match with the placement's version. */
  @Put('placements/:placementId/date')
  @Access('placement.edit', { placement: 'placementId' })
  async move(
    @CurrentViewer() viewer: Viewer,
    @Param('placementId') placementId: string,
    @Body() body: MovePlacementBody,
    @IfMatch() version: number,
  ): Promise<MovedShape> {
    const result = await movePlacement(this.app, viewer, placementId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await placementShape(this.app, placementId) });
    return this.moved(valueOrProblem(result));
  }

  @Post('placements/:placementId/out')
  @HttpCode(200)
  @Access('placement.edit', { placement: 'placementId' })
  async out(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: MarkOutBody): Promise<MovedShape> {
    return this.moved(valueOrProblem(await markOut(this.app, viewer, placementId, body)));
  }

  /** Corrects where what went out can be seen, and when it went. Needs If-Match with the placement's version. */
  @Patch('placements/:placementId/address')
  @HttpCode(204)
  @Access('placement.edit', { placement: 'placementId' })
  async correct(
    @CurrentViewer() viewer: Viewer,
    @Param('placementId') placementId: string,
    @Body() body: MarkOutBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const result = await correctOut(this.app, viewer, placementId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await placementShape(this.app, placementId) });
    valueOrProblem(result);
  }

  @Post('placements/:placementId/cancel')
  @HttpCode(200)
  @Access('placement.edit', { placement: 'placementId' })
  async cancel(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string): Promise<MovedShape> {
    return this.moved(valueOrProblem(await cancelPlacement(this.app, viewer, placementId)));
  }

  @Post('placements/:placementId/restore')
  @HttpCode(200)
  @Access('placement.edit', { placement: 'placementId' })
  async restore(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string): Promise<MovedShape> {
    return this.moved(valueOrProblem(await restorePlacement(this.app, viewer, placementId)));
  }

  /** Swaps date and time with another placement of the same client. */
  @Post('placements/:placementId/swap')
  @HttpCode(200)
  @Access('placement.edit', { placement: 'placementId' })
  async swap(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: SwapBody): Promise<MovedShape> {
    const other = await this.app.read<{ client_id: string }>('select client_id from placements where id = $1', [body.withId]);
    if (!other[0] || !viewer.clientIds.includes(other[0].client_id)) throw Problem.of('access.not_found');
    return this.moved(valueOrProblem(await swapPlacements(this.app, viewer, placementId, body.withId)));
  }

  @Post('placements/:placementId/duplicate')
  @Access('placement.edit', { placement: 'placementId' })
  async duplicate(
    @CurrentViewer() viewer: Viewer,
    @Param('placementId') placementId: string,
    @Body() body: DuplicateBody,
  ): Promise<MovedShape> {
    return this.moved(valueOrProblem(await duplicatePlacement(this.app, viewer, placementId, body)));
  }

  @Post('markers')
  @Access('marker.edit')
  async addMarker(@CurrentViewer() viewer: Viewer, @Body() body: MarkerBody): Promise<MarkerMadeShape> {
    return { markerId: valueOrProblem(await addMarker(this.app, viewer, body)) };
  }

  /** Changes a marker. Needs If-Match with its version. */
  @Put('markers/:markerId')
  @HttpCode(204)
  @Access('marker.edit', { marker: 'markerId' })
  async editMarker(
    @CurrentViewer() viewer: Viewer,
    @Param('markerId') markerId: string,
    @Body() body: MarkerBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editMarker(this.app, viewer, markerId, body, version));
  }

  @Delete('markers/:markerId')
  @HttpCode(204)
  @Access('marker.edit', { marker: 'markerId' })
  async removeMarker(@CurrentViewer() viewer: Viewer, @Param('markerId') markerId: string): Promise<void> {
    valueOrProblem(await removeMarker(this.app, viewer, markerId));
  }

  private async moved({ placementId, state, lateSteps, others, aimBefore }: Moved): Promise<MovedShape> {
    const placement = await placementShape(this.app, placementId);
    return {
      placement,
      danger: state.danger,
      slackDays: state.slackDays,
      lateSteps: [...lateSteps],
      earliestPublishOn: state.earliestPublishOn,
      others,
      spinOffs: await leftBehind(this.app, placement.pieceId, aimBefore, state.aimOn),
      markers: await standingOn(this.app, placement),
    };
  }
}

/** The client's calendar feed. The secret in its address is the only key: calendar programs send no cookies. */
@Controller('feeds')
export class FeedController {
  constructor(private readonly app: App) {}

  @Get(':secret')
  @AnswersBytes('text/calendar')
  @Access('feed.read')
  async feed(@Param('secret') secret: string, @Res() response: Response): Promise<void> {
    const link = secret.endsWith('.ics') ? await this.app.links.open('feed', secret.slice(0, -4)) : undefined;
    if (!link) throw Problem.of('access.not_found');
    const text = await feedOf(this.app, link.id);
    response.set({ 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, max-age=60' }).send(text);
  }
}
