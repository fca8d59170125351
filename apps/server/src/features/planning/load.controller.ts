import { Controller, Get, Param, Query } from '@nestjs/common';
import type { LoadShape, PersonLoadShape } from '@zesting/contract';
import { daysBetween, parseDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { loadOf, loadOfPerson } from './queries/load.js';

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

  /** What one person has in front of them. Of clients that the viewer does not look after only hours and dates are told. */
  @Get(':personId')
  @Access('load.read', { person: 'personId' })
  person(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<PersonLoadShape> {
    return loadOfPerson(this.app, viewer, personId);
  }
}
