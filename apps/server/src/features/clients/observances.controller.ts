import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { OwnObservanceBody, TakeObservanceBody, type ObservanceMadeShape, type ObservancesShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { observancesFor } from './queries/observances.js';
import { addObservance, removeObservance, takeObservance } from './use-cases/observances.js';

@Controller()
export class ObservancesController {
  constructor(private readonly app: App) {}

  /** Days of note that a client may take, with what they have in common with its pillars. */
  @Get('clients/:clientId/observances')
  @Access('client.read', { client: 'clientId' })
  list(@Param('clientId') clientId: string): Promise<ObservancesShape> {
    return observancesFor(this.app, clientId);
  }

  /** Puts one on the client's calendar, or takes it off. */
  @Put('clients/:clientId/observances')
  @HttpCode(204)
  @Access('client.edit', { client: 'clientId' })
  async take(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: TakeObservanceBody): Promise<void> {
    valueOrProblem(await takeObservance(this.app, viewer, clientId, body));
  }

  /** Adds one that comes every year, for a client or for all. */
  @Post('observances')
  @Access('observance.add')
  async add(@CurrentViewer() viewer: Viewer, @Body() body: OwnObservanceBody): Promise<ObservanceMadeShape> {
    return { observanceId: valueOrProblem(await addObservance(this.app, viewer, body)) };
  }

  /** Takes one that was added away again. */
  @Delete('observances/:observanceId')
  @HttpCode(204)
  @Access('client.edit', { observance: 'observanceId' })
  async remove(@CurrentViewer() viewer: Viewer, @Param('observanceId') observanceId: string): Promise<void> {
    valueOrProblem(await removeObservance(this.app, viewer, observanceId));
  }
}
