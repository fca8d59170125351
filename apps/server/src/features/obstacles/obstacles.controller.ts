import { Body, Controller, Get, HttpCode, Param, Patch, Post, Query } from '@nestjs/common';
import { EditObstacleBody, ObstacleBody, SettleObstacleBody, type ObstacleRowsShape, type ObstaclesShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { obstaclesOf, openObstacles } from './queries/obstacles.js';
import { editObstacle, raiseObstacle } from './use-cases/raise.js';
import { settleObstacle } from './use-cases/settle.js';

@Controller()
export class ObstaclesController {
  constructor(private readonly app: App) {}

  /** What stands in the way of what the viewer manages, and what they must see to themselves. */
  @Get('obstacles')
  @Access('own.steps')
  all(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<ObstacleRowsShape> {
    return openObstacles(this.app, viewer, clientId);
  }

  /** What stands in the way of a piece, and what did. */
  @Get('pieces/:pieceId/obstacles')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<ObstaclesShape> {
    return obstaclesOf(this.app, viewer, pieceId);
  }

  @Post('pieces/:pieceId/obstacles')
  @Access('obstacle.say', { piece: 'pieceId' })
  async raise(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: ObstacleBody): Promise<ObstaclesShape> {
    valueOrProblem(await raiseObstacle(this.app, viewer, pieceId, body));
    return obstaclesOf(this.app, viewer, pieceId);
  }

  /** Needs If-Match with its version. */
  @Patch('obstacles/:obstacleId')
  @HttpCode(204)
  @Access('obstacle.say', { obstacle: 'obstacleId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('obstacleId') obstacleId: string,
    @Body() body: EditObstacleBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editObstacle(this.app, viewer, obstacleId, body, version));
  }

  /** Says that it is gone. */
  @Post('obstacles/:obstacleId/settle')
  @HttpCode(204)
  @Access('obstacle.say', { obstacle: 'obstacleId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('obstacleId') obstacleId: string, @Body() body: SettleObstacleBody): Promise<void> {
    valueOrProblem(await settleObstacle(this.app, viewer, obstacleId, body.words ?? ''));
  }
}
