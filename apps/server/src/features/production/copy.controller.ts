import { Body, Controller, Get, Param, Put, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { CopyChangesBody, type PiecesChangedShape, type CopyTableShape } from '@zesting/contract';
import { addDays, getDay, type Day } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem } from '../../platform/http/problem.js';
import { copyTableOf } from './queries/copy-table.js';
import { sendTable, XLSX } from './send-table.js';
import { editCopies } from './use-cases/edit-copies.js';
import { toCsv, toXlsx } from './write-copy-table.js';

/** So many days at most: a month with the weeks that it begins and ends in. */
const MOST_DAYS = 62;

@Controller('clients/:clientId/copy')
export class CopyController {
  constructor(private readonly app: App) {}

  /** What goes out on the client's channels on some days, one below another. */
  @Get()
  @Access('copy.edit', { client: 'clientId' })
  show(@Param('clientId') clientId: string, @Query('from') from?: string, @Query('to') to?: string): Promise<CopyTableShape> {
    return copyTableOf(this.app, clientId, ...daysOf(from, to));
  }

  /** Changes many of them. What could not be changed is told, and the rest is. */
  @Put()
  @Access('copy.edit', { client: 'clientId' })
  change(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: CopyChangesBody): Promise<PiecesChangedShape> {
    return editCopies(this.app, viewer, clientId, body.changes);
  }

  /** The same table, to be taken away. */
  @Get('csv')
  @AnswersBytes('text/csv')
  @Access('copy.edit', { client: 'clientId' })
  async csv(
    @Param('clientId') clientId: string,
    @Res() response: Response,
    @Query('from') from?: string,
    @Query('to') to?: string,
  ): Promise<void> {
    const { rows } = await copyTableOf(this.app, clientId, ...daysOf(from, to));
    sendTable(response, `copy-${from}.csv`, 'text/csv; charset=utf-8', toCsv(rows));
  }

  @Get('xlsx')
  @AnswersBytes(XLSX)
  @Access('copy.edit', { client: 'clientId' })
  async xlsx(
    @Param('clientId') clientId: string,
    @Res() response: Response,
    @Query('from') from?: string,
    @Query('to') to?: string,
  ): Promise<void> {
    const { rows } = await copyTableOf(this.app, clientId, ...daysOf(from, to));
    sendTable(response, `copy-${from}.xlsx`, XLSX, await toXlsx(rows));
  }
}

/** The days that are asked for, both in it. */
function daysOf(from = '', to = ''): [Day, Day] {
  const missing = [...(from === '' ? ['from'] : []), ...(to === '' ? ['to'] : [])];
  if (missing.length > 0) throw Problem.of('http.invalid', { errors: Object.fromEntries(missing.map((name) => [name, ['isDay']])) });
  const [first, last] = [getDay(from), getDay(to)];
  if (last < first || last > addDays(first, MOST_DAYS)) throw Problem.of('http.invalid', { errors: { to: ['isSoon'] } });
  return [first, last];
}
