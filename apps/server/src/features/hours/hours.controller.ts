import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { HoursBody, StopClockBody, type OwnClockShape, type StepHoursShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { hoursOf, ownClock } from './queries/hours.js';
import { addHours, removeHours, startClock, stopClock } from './use-cases/clock.js';

@Controller()
export class HoursController {
  constructor(private readonly app: App) {}

  /** The clock that the viewer has running. */
  @Get('clock')
  @Access('hours.own')
  clock(@CurrentViewer() viewer: Viewer): Promise<OwnClockShape> {
    return ownClock(this.app, viewer);
  }

  @Post('clock/stop')
  @HttpCode(204)
  @Access('hours.own')
  async stop(@CurrentViewer() viewer: Viewer, @Body() body: StopClockBody): Promise<void> {
    valueOrProblem(await stopClock(this.app, viewer, body.minutes ?? null));
  }

  /** Starts the viewer's clock on a step; one that runs on another is stopped. */
  @Post('steps/:stepId/clock')
  @HttpCode(204)
  @Access('hours.write', { step: 'stepId' })
  async start(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<void> {
    valueOrProblem(await startClock(this.app, viewer, stepId));
  }

  @Get('steps/:stepId/hours')
  @Access('hours.write', { step: 'stepId' })
  hours(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<StepHoursShape> {
    return hoursOf(this.app, viewer, stepId);
  }

  /** Puts down hours that the viewer worked today. */
  @Post('steps/:stepId/hours')
  @HttpCode(204)
  @Access('hours.write', { step: 'stepId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: HoursBody): Promise<void> {
    valueOrProblem(await addHours(this.app, viewer, stepId, body.minutes));
  }

  @Delete('worked/:workedId')
  @HttpCode(204)
  @Access('hours.write', { worked: 'workedId' })
  async remove(@CurrentViewer() viewer: Viewer, @Param('workedId') workedId: string): Promise<void> {
    valueOrProblem(await removeHours(this.app, viewer, workedId));
  }
}
