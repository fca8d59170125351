import { Body, Controller, Headers, HttpCode, Param, Post, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import { PutDatesBody, ReadDatesBody, type DatesFileShape, type DatesPutShape, type DatesReadShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { OneFile, uploadOf } from '../production/index.js';
import { readDates, readDatesFile } from './queries/read-dates.js';
import { putDates } from './use-cases/put-dates.js';

/** A client's month of dates, as it was pasted. */
@Controller('clients/:clientId/dates')
export class DatesController {
  constructor(private readonly app: App) {}

  /** Reads the lines for somebody to correct; nothing is kept. */
  @Post('read')
  @HttpCode(200)
  @Access('dates.put', { client: 'clientId' })
  read(@Param('clientId') clientId: string, @Body() body: ReadDatesBody): Promise<DatesReadShape> {
    return readDates(this.app, clientId, body);
  }

  /** Reads a file of dates (iCalendar, CSV, XLSX) as lines to be corrected; nothing is kept. */
  @Post('file')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @Access('dates.put', { client: 'clientId' })
  @UseInterceptors(OneFile())
  async file(@Param('clientId') clientId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<DatesFileShape> {
    return { text: valueOrProblem(await readDatesFile(this.app, clientId, uploadOf(file).bytes)) };
  }

  /** Puts all of them, or none. Needs an Idempotency-Key: a repeat puts nothing twice. */
  @Post()
  @Access('dates.put', { client: 'clientId' })
  async put(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: PutDatesBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<DatesPutShape> {
    if (!key || key.length > 100) throw Problem.of('idempotency.key_missing');
    return valueOrProblem(await putDates(this.app, viewer, clientId, body, key));
  }
}
