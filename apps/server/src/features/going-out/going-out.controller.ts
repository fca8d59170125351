import { Body, Controller, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { PlacementCheckBody, type GoingOutShape, type GoingOutSoonShape, type HandOutShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { goingOutOf, goingOutSoon } from './queries/going-out.js';
import { handOutOf } from './queries/hand-out.js';
import { checkPlacement } from './use-cases/check-placement.js';

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

  /** What is copied out by hand, with what speaks against it. */
  @Get('placements/:placementId/hand-out')
  @Access('going_out.read', { placement: 'placementId' })
  handOut(@Param('placementId') placementId: string): Promise<HandOutShape> {
    return handOutOf(this.app, placementId);
  }

  /** Says that somebody has looked at it as it stands; refused when it was changed meanwhile. */
  @Put('placements/:placementId/check')
  @HttpCode(204)
  @Access('placement.edit', { placement: 'placementId' })
  async check(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: PlacementCheckBody): Promise<void> {
    valueOrProblem(await checkPlacement(this.app, viewer, placementId, body));
  }
}
