import { Body, Controller, Get, HttpCode, Param, Put, Query, Res } from '@nestjs/common';
import { daysBetween, parseDay } from '@zesting/core';
import type { Response } from 'express';
import {
  PlacementCheckBody,
  type FitsShape,
  type GoingOutShape,
  type GoingOutSoonShape,
  type HandOutShape,
  type PackShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { sendZip } from '../../platform/http/send-zip.js';
import { packContents, type PackContents } from './pack/contents.js';
import { packOf } from './pack/pack.js';
import { sendAsset } from '../production/index.js';
import { goingOutOf, goingOutSoon } from './queries/going-out.js';
import { fitsOf } from './queries/fits.js';
import { handOutOf } from './queries/hand-out.js';
import { checkPlacement } from './use-cases/check-placement.js';

/** The most days that one pack holds: two months. */
const PACK_DAYS = 62;

/** The clients that an address asks for, of those that the viewer sees. */
const clientsFor = (viewer: Viewer, clientId: string | undefined): readonly string[] =>
  clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);

@Controller()
export class GoingOutController {
  constructor(private readonly app: App) {}

  /** What goes out from each client's today on over the next seven days, what was missed, and what is out without its address. */
  @Get('going-out')
  @Access('going_out.read')
  all(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<GoingOutShape> {
    return goingOutOf(this.app, clientsFor(viewer, clientId), viewer.zone);
  }

  /** The same of today and the three days after it, in numbers. */
  @Get('going-out/soon')
  @Access('going_out.read')
  soon(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<GoingOutSoonShape> {
    return goingOutSoon(this.app, clientsFor(viewer, clientId), viewer.zone);
  }

  /** What of a piece does not fit on its channels. */
  @Get('pieces/:pieceId/fits')
  @Access('piece.read', { piece: 'pieceId' })
  fits(@Param('pieceId') pieceId: string): Promise<FitsShape> {
    return fitsOf(this.app, pieceId);
  }

  /** What is copied out by hand, with what speaks against it. */
  @Get('placements/:placementId/hand-out')
  @Access('going_out.read', { placement: 'placementId' })
  handOut(@Param('placementId') placementId: string): Promise<HandOutShape> {
    return handOutOf(this.app, placementId);
  }

  /** One of the files that are copied out by hand, the first is 1, under the name by which it sorts. */
  @Get('placements/:placementId/files/:number')
  @AnswersBytes('image/*', 'video/*', 'audio/*', 'application/octet-stream')
  @Access('going_out.read', { placement: 'placementId' })
  async file(
    @CurrentViewer() viewer: Viewer,
    @Param('placementId') placementId: string,
    @Param('number') number: string,
    @Res() response: Response,
  ): Promise<void> {
    const { media, fileNames, channelId } = await handOutOf(this.app, placementId);
    const index = /^[1-9]\d?$/.test(number) ? Number(number) - 1 : -1;
    const medium = media[index];
    if (!medium) throw Problem.of('access.not_found');
    const cut = medium.crop ? { crop: medium.crop, channelId } : undefined;
    await sendAsset(this.app, medium.assetId, response, { makerId: viewer.personId, keptAs: fileNames[index], cut });
  }

  /** What a client's pack of some days would hold, and what it leaves out and why. */
  @Get('clients/:clientId/pack')
  @Access('going_out.read', { client: 'clientId' })
  async pack(@Param('clientId') clientId: string, @Query('from') from?: string, @Query('to') to?: string): Promise<PackShape> {
    const { packed, leftOut } = await this.contents(clientId, from, to);
    const files = packed.flatMap(({ media }) => media);
    return { count: packed.length, files: files.length, bytes: files.reduce((sum, { bytes }) => sum + bytes, 0), leftOut: [...leftOut] };
  }

  /** The pack itself. */
  @Get('clients/:clientId/pack/zip')
  @AnswersBytes('application/zip')
  @Access('going_out.read', { client: 'clientId' })
  async zip(
    @Param('clientId') clientId: string,
    @Res() response: Response,
    @Query('from') from?: string,
    @Query('to') to?: string,
  ): Promise<void> {
    const pack = await packOf(this.app, await this.contents(clientId, from, to));
    if (pack === 'gone') throw Problem.of('file.gone');
    await sendZip(response, pack);
  }

  private async contents(clientId: string, from: string | undefined, to: string | undefined): Promise<PackContents> {
    const [first, last] = [parseDay(from ?? ''), parseDay(to ?? '')];
    if (!first || !last || first > last || daysBetween(first, last) > PACK_DAYS)
      throw Problem.of('http.invalid', { errors: { from: ['isDay'], to: ['isDay'] } });
    const contents = await packContents(this.app, clientId, first, last);
    if (contents === 'too_large') throw Problem.of('pack.too_large');
    if (contents === 'being_made') throw Problem.of('file.being_made');
    return contents;
  }

  /** Says that somebody has looked at it as it stands; refused when it was changed meanwhile. */
  @Put('placements/:placementId/check')
  @HttpCode(204)
  @Access('placement.edit', { placement: 'placementId' })
  async check(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: PlacementCheckBody): Promise<void> {
    valueOrProblem(await checkPlacement(this.app, viewer, placementId, body));
  }
}
