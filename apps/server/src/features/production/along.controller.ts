import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { TakeAlongBody, type RouteAlongShape, type TakenAlongShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { previewAlong } from './queries/along.js';
import { takePiecesAlong } from './use-cases/take-along.js';

@Controller('routes/:routeId/along')
export class AlongController {
  constructor(private readonly app: App) {}

  /** The pieces under way that go by an earlier state of the route, and what would move if they were taken along. */
  @Get()
  @Access('route.edit', { route: 'routeId' })
  preview(@Param('routeId') routeId: string): Promise<RouteAlongShape> {
    return previewAlong(this.app, routeId);
  }

  /** Takes pieces along with their route; each is answered. */
  @Post()
  @Access('route.edit', { route: 'routeId' })
  take(@CurrentViewer() viewer: Viewer, @Param('routeId') routeId: string, @Body() body: TakeAlongBody): Promise<TakenAlongShape> {
    return takePiecesAlong(this.app, viewer, routeId, body.pieceIds, body.version);
  }
}
