import { Controller, Get, Query } from '@nestjs/common';
import type { LoadShape } from '@zesting/contract';
import { daysBetween, parseDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { loadOf } from './queries/load.js';

/** The most days that load is asked for at a time: half a year. */
const SPAN_LIMIT_DAYS = 184;

@Controller('load')
export class LoadController {
  constructor(private readonly app: App) {}

  /** Everybody's hours day by day, and where more is due than there are. */
  @Get()
  @Access('load.read')
  load(@CurrentViewer() viewer: Viewer, @Query('from') from: string, @Query('to') to: string): Promise<LoadShape> {
    const [first, last] = [parseDay(from ?? ''), parseDay(to ?? '')];
    if (!first || !last || first > last || daysBetween(first, last) >= SPAN_LIMIT_DAYS)
      throw Problem.of('http.invalid', { errors: { from: ['isDay'], to: ['isDay'] } });
    return loadOf(this.app, viewer, first, last);
  }
}
