import { Body, Controller, Headers, HttpCode, Param, Post, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import { TakeTableBody, type TableShape, type TableTakenShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { OneFile, uploadOf } from '../production/index.js';
import { readTableFile, takeTable } from './use-cases/take-table.js';

/** Requests that come as lines of a table. */
@Controller('clients/:clientId/table')
export class TableController {
  constructor(private readonly app: App) {}

  /** Reads a file of CSV or XLSX, for somebody to say what its columns are; nothing is kept. */
  @Post('read')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @Access('request.take_down', { client: 'clientId' })
  @UseInterceptors(OneFile())
  async read(@UploadedFile() file: Express.Multer.File | undefined): Promise<TableShape> {
    return valueOrProblem(await readTableFile(uploadOf(file).bytes));
  }

  /** Takes all lines as requests, or none. Needs an Idempotency-Key: a repeat takes nothing twice. */
  @Post()
  @Access('request.take_down', { client: 'clientId' })
  async take(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: TakeTableBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<TableTakenShape> {
    if (!key || key.length > 100) throw Problem.of('idempotency.key_missing');
    const taken = await takeTable(this.app, viewer, clientId, body, key);
    if (!taken.ok && taken.failure.code === 'table.rows_wrong') throw Problem.of('table.rows_wrong', { problems: taken.failure.problems });
    return { requests: valueOrProblem(taken) };
  }
}
