import { Body, Controller, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import { dayIn, KEPT_FILE_KINDS } from '@zesting/core';
import { ArchiveBody, EditKeptFileBody, NewKeptFileBody, type KeptFileMadeShape, type KeptFilesShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { keptFilesOf } from './queries/kept-files.js';
import { archiveKeptFile, editKeptFile, keepFile } from './use-cases/keep-file.js';

@Controller()
export class KeptFilesController {
  constructor(private readonly app: App) {}

  /** Kept files of the viewer's clients, by words, kind, and whether they are to be renewed. */
  @Get('kept-files')
  @Access('kept_file.find')
  find(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('words') words?: string,
    @Query('kept') kind?: string,
    @Query('renew') renew?: string,
    @Query('archived') archived?: string,
  ): Promise<KeptFilesShape> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    return keptFilesOf(this.app, clientIds, {
      words: words ?? '',
      kind: KEPT_FILE_KINDS.find((known) => known === kind) ?? null,
      isToRenew: renew === 'yes',
      isArchived: archived === 'yes',
      todayOn: dayIn(this.app.clock.now(), viewer.zone),
    });
  }

  /** Keeps a file that was brought to `kept-uploads`. */
  @Post('clients/:clientId/kept-files')
  @Access('kept_file.edit', { client: 'clientId' })
  async keep(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: NewKeptFileBody,
  ): Promise<KeptFileMadeShape> {
    return { keptFileId: valueOrProblem(await keepFile(this.app, viewer, clientId, body)) };
  }

  /** Changes what is said of it; with a file that was brought, that takes its place. Needs If-Match with its version. */
  @Put('kept-files/:keptFileId')
  @HttpCode(204)
  @Access('kept_file.edit', { kept_file: 'keptFileId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('keptFileId') keptFileId: string,
    @Body() body: EditKeptFileBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editKeptFile(this.app, viewer, keptFileId, body, version));
  }

  @Post('kept-files/:keptFileId/archive')
  @HttpCode(204)
  @Access('kept_file.edit', { kept_file: 'keptFileId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('keptFileId') keptFileId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveKeptFile(this.app, viewer, keptFileId, body.archived));
  }
}
