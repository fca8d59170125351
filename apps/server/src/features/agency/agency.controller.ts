import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import type { Response } from 'express';
import {
  EditAgencyBody,
  FormatNeedsBody,
  FormatWritingBody,
  type FormatWritingsShape,
  HideBeginningBody,
  LeaveDemoBody,
  type AgencySettingsShape,
  type BeginningShape,
  type DemoShape,
  type StockShape,
} from '@zesting/contract';
import { ok } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { MailSender } from '../../platform/mail/mail.js';
import { OneFile, sendFile, uploadOf } from '../production/index.js';
import { beginningOf } from './queries/beginning.js';
import { agencyOf, settingsOf } from './queries/settings.js';
import { editAgency } from './use-cases/edit-agency.js';
import { demoOf, leaveDemo } from './use-cases/leave-demo.js';
import { setFormatNeeds } from './use-cases/format-needs.js';
import { formatWriting, formatWritings, setFormatWriting } from './use-cases/format-writing.js';
import { putMark } from './use-cases/mark.js';
import { takeStock } from './use-cases/take-stock.js';
import { tryMail } from './use-cases/try-mail.js';

@Controller('agency')
export class AgencyController {
  constructor(
    private readonly app: App,
    private readonly mail: MailSender,
  ) {}

  @Get()
  @Access('agency.read')
  show(): Promise<AgencySettingsShape> {
    return settingsOf(this.app.manager);
  }

  /** Changes what is given. Needs If-Match with the version; a conflict answers with both states. */
  @Patch()
  @Access('agency.edit')
  async edit(@CurrentViewer() viewer: Viewer, @Body() body: EditAgencyBody, @IfMatch() version: number): Promise<AgencySettingsShape> {
    const result = await editAgency(this.app, viewer, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await this.show() });
    return valueOrProblem(result);
  }

  /** The agency's mark, as visitors see it. */
  @Get('mark')
  @AnswersBytes('image/*')
  @Access('open')
  async mark(@Res() response: Response): Promise<void> {
    const [agency] = await this.app.read<{ hash: string | null; mime: string }>(
      'select mark_hash as hash, mark_mime as mime from agencies',
    );
    if (!agency?.hash) throw Problem.of('access.not_found');
    return sendFile(this.app, { hash: agency.hash, mime: agency.mime, name: 'mark' }, response);
  }

  @Put('mark')
  @ApiConsumes('multipart/form-data')
  @Access('agency.edit')
  @UseInterceptors(OneFile())
  async putMark(
    @CurrentViewer() viewer: Viewer,
    @IfMatch() version: number,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<AgencySettingsShape> {
    const stored = valueOrProblem(await this.app.files.store(uploadOf(file).bytes));
    return this.marked(viewer, stored, version);
  }

  @Delete('mark')
  @Access('agency.edit')
  takeMarkAway(@CurrentViewer() viewer: Viewer, @IfMatch() version: number): Promise<AgencySettingsShape> {
    return this.marked(viewer, null, version);
  }

  private async marked(viewer: Viewer, file: Parameters<typeof putMark>[2], version: number): Promise<AgencySettingsShape> {
    const result = await putMark(this.app, viewer, file, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: {}, theirs: await this.show() });
    valueOrProblem(result);
    return this.show();
  }

  /** Adds what is missing of the starting stock: formats, skills, routes, a form. */
  @Post('stock')
  @HttpCode(200)
  @Access('agency.edit')
  async stock(@CurrentViewer() viewer: Viewer): Promise<StockShape> {
    return valueOrProblem(await this.app.write(async (tx, now) => ok(await takeStock(tx, viewer.name, now))));
  }

  /** What comes next for an agency that begins. */
  @Get('beginning')
  @Access('agency.edit')
  beginning(): Promise<BeginningShape> {
    return beginningOf(this.app);
  }

  @Post('beginning')
  @HttpCode(204)
  @Access('agency.edit')
  async hideBeginning(@Body() { hidden }: HideBeginningBody): Promise<void> {
    await this.app.write(async (tx) => {
      await agencyOf(tx, true);
      return ok(await tx.query('update agencies set hides_beginning = $1', [hidden]));
    });
  }

  /** Sends the viewer a mail at once. */
  @Post('trial-mail')
  @HttpCode(204)
  @Access('agency.edit')
  async tryMail(@CurrentViewer() viewer: Viewer): Promise<void> {
    valueOrProblem(await tryMail(this.app, this.mail, viewer));
  }

  /** What leaving the demo removes. */
  @Get('demo')
  @Access('agency.edit')
  demo(): Promise<DemoShape> {
    return demoOf(this.app);
  }

  /** Leaves the demo for good: everything in it is removed. */
  @Post('leave-demo')
  @HttpCode(204)
  @Access('agency.edit')
  async leaveDemo(@Body() { name }: LeaveDemoBody): Promise<void> {
    valueOrProblem(await leaveDemo(this.app, name));
  }
}

@Controller('formats')
export class FormatsController {
  constructor(private readonly app: App) {}

  /** The formats, with what their pieces are written by. */
  @Get('writing')
  @Access('format.read')
  async writing(@CurrentViewer() viewer: Viewer): Promise<FormatWritingsShape> {
    return { formats: await formatWritings(this.app), canEdit: viewer.mayEditForms };
  }

  /** Says what pieces of a format are written by: their texts besides the copy, and the headings that copy begins from. */
  @Put(':formatId/writing')
  @HttpCode(204)
  @Access('format.set_needs')
  async setWriting(
    @CurrentViewer() viewer: Viewer,
    @Param('formatId') formatId: string,
    @Body() body: FormatWritingBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const done = await setFormatWriting(this.app, viewer, formatId, body, version);
    if (!done.ok && done.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { theirs: await formatWriting(this.app, formatId) });
    valueOrProblem(done);
  }

  /** Says which facts the brief of a format needs. */
  @Put(':formatId/needs')
  @HttpCode(204)
  @Access('format.set_needs')
  async setNeeds(@CurrentViewer() viewer: Viewer, @Param('formatId') formatId: string, @Body() { needs }: FormatNeedsBody): Promise<void> {
    valueOrProblem(await setFormatNeeds(this.app, viewer, formatId, needs));
  }
}
