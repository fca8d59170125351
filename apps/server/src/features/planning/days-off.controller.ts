import { Controller, Get, Query } from '@nestjs/common';
import type { DaysOffShape } from '@zesting/contract';
import { daysBetween, parseDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { daysOff } from './queries/days-off.js';

/** The most days that days off are asked for at a time. */
const SPAN_LIMIT_DAYS = 800;

@Controller('days-off')
export class DaysOffController {
  constructor(private readonly app: App) {}

  /** On which days a client and a person do not work, and why: for choosing a day. Managers may ask of anybody, others of themselves. */
  @Get()
  @Access('days_off.read')
  daysOff(
    @CurrentViewer() viewer: Viewer,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId') clientId?: string,
    @Query('personId') personId?: string,
  ): Promise<DaysOffShape> {
    const [first, last] = [parseDay(from ?? ''), parseDay(to ?? '')];
    if (!first || !last || first > last || daysBetween(first, last) > SPAN_LIMIT_DAYS)
      throw Problem.of('http.invalid', { errors: { from: ['isDay'], to: ['isDay'] } });
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    const manages = viewer.role === 'lead' || viewer.role === 'manager';
    if (personId !== undefined && personId !== viewer.personId && !manages) throw Problem.of('access.refused');
    return daysOff(this.app, { clientId: clientId ?? null, personId: personId ?? null }, first, last);
  }
}
