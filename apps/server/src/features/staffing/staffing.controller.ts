import { Body, Controller, Get, HttpCode, Post, Query, Res } from '@nestjs/common';
import { GiveOutBody, type StaffingOutcomeShape, type StaffingProposalShape } from '@zesting/contract';
import { daysBetween, dayIn, parseDay } from '@zesting/core';
import type { Response } from 'express';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { outcomeOfGives } from './queries/outcome.js';
import { proposeStaff } from './queries/propose-staff.js';
import { giveOut } from './use-cases/give-out.js';

/** The longest period for which doers are proposed at a time, in days. */
const SPAN_LIMIT_DAYS = 184;

@Controller('staffing')
export class StaffingController {
  constructor(private readonly app: App) {}

  /**
   * Who could take the steps that are due by a day and that nobody has; with `given`, also those that somebody has and has not begun. It may take a
   * while, and ends when nobody waits for it any more.
   */
  @Get('proposal')
  @Access('staffing.propose')
  async propose(
    @CurrentViewer() viewer: Viewer,
    @Res({ passthrough: true }) response: Response,
    @Query('to') to: string,
    @Query('given') given?: string,
    @Query('clientId') clientId?: string,
  ): Promise<StaffingProposalShape> {
    const untilOn = parseDay(to ?? '');
    const todayOn = dayIn(this.app.clock.now(), viewer.zone);
    if (!untilOn || Math.abs(daysBetween(todayOn, untilOn)) >= SPAN_LIMIT_DAYS)
      throw Problem.of('http.invalid', { errors: { to: ['isDay'] } });
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    const clientIds = clientId === undefined ? viewer.clientIds : [clientId];
    const waiting = new AbortController();
    response.on('close', () => waiting.abort());
    const asked = {
      clientIds,
      seenIds: viewer.clientIds,
      todayOn,
      untilOn,
      withGiven: given === 'yes',
      tellsCosts: viewer.role === 'lead',
    };
    return valueOrProblem(await proposeStaff(this.app, asked, waiting.signal));
  }

  /** What it would come to if steps were given to those who are chosen for them; nothing is given. */
  @Post('outcome')
  @HttpCode(200)
  @Access('staffing.propose')
  async outcome(@CurrentViewer() viewer: Viewer, @Body() body: GiveOutBody): Promise<StaffingOutcomeShape> {
    return valueOrProblem(await outcomeOfGives(this.app, viewer, body.gives));
  }

  /** Gives steps to those who are chosen for them, all or none. */
  @Post('gives')
  @HttpCode(204)
  @Access('staffing.propose')
  async give(@CurrentViewer() viewer: Viewer, @Body() body: GiveOutBody): Promise<void> {
    valueOrProblem(await giveOut(this.app, viewer, body.gives));
  }
}
