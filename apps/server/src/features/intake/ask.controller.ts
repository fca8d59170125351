import {
  Body,
  Controller,
  Get,
  Headers,
  HttpCode,
  Param,
  Post,
  Query,
  Res,
  UploadedFile,
  UseGuards,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { Response } from 'express';
import {
  EarliestBody,
  SubmitRequestBody,
  type AskFormShape,
  type EarliestShape,
  type SubmittedShape,
  type UploadShape,
  type VisitedShape,
} from '@zesting/contract';
import { addWorkingDays, ok, type Day, type InstantText } from '@zesting/core';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { VISITED } from '../../platform/access/visited.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { clientKey, earliestOf, getDoer, loadCalendars } from '../planning/index.js';
import { addAsset, OneFile, sendAsset, uploadOf } from '../production/index.js';
import { askedForm, type AskedForm } from './queries/asked-form.js';
import { needShare, tellTooMuch } from './use-cases/form-limits.js';
import { sortRequest } from './use-cases/sort-request.js';
import { submitRequest } from './use-cases/submit-request.js';

/** The client's intake form, by its link. */
@Controller('ask/:linkId')
export class AskController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('ask.fill_in')
  async form(@CurrentLink() linkId: string): Promise<AskFormShape> {
    const now = this.app.clock.now();
    const asked = await this.formOf(linkId, now);
    const [visited] = await this.app.read<VisitedShape>(`select ${VISITED} from clients c cross join agencies a where c.id = $1`, [
      asked.clientId,
    ]);
    if (!visited) throw new Error('the client went away');
    const { title, intro, language, thanks, opensOn, closesOn, noticeDays, answerDays, routeId } = asked.content;
    const earliest = routeId === null ? null : await earliestOf(this.app, asked.clientId, routeId);
    return {
      ...visited,
      linkId,
      version: asked.version,
      title,
      intro,
      language,
      items: [...asked.items],
      thanks,
      state: asked.state,
      opensOn,
      closesOn,
      noticeDays,
      noticeOn: noticeDays > 0 ? await this.noticeOn(asked, now) : null,
      answerDays,
      todayOn: asked.todayOn,
      earliest: earliest?.ok ? earliest.value : { earliestOn: asked.todayOn, pathOn: asked.todayOn, steps: 0, days: 0 },
      stamp: this.app.links.stamp(linkId, now),
    };
  }

  /** How soon what is asked for so far can be: by the route that the form’s rules and the answers give it. */
  @Post('earliest')
  @HttpCode(200)
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 240, ttl: 60_000 } })
  @Access('ask.fill_in')
  async earliest(@CurrentLink() linkId: string, @Body() { answers }: EarliestBody): Promise<EarliestShape> {
    const now = this.app.clock.now();
    const asked = await this.formOf(linkId, now);
    const { routeId } = await sortRequest(this.app.manager, asked, answers);
    if (routeId === undefined) return { earliestOn: asked.todayOn, pathOn: asked.todayOn, steps: 0, days: 0 };
    return valueOrProblem(await earliestOf(this.app, asked.clientId, routeId));
  }

  private async formOf(linkId: string, now: InstantText): Promise<AskedForm> {
    const asked = await askedForm(this.app.manager, linkId, now);
    if (!asked) throw Problem.of('ask.not_published');
    return asked;
  }

  /** The first day that keeps the notice that a form asks for, in the client's working days. */
  private async noticeOn({ clientId, todayOn, content }: AskedForm, now: InstantText): Promise<Day | null> {
    const { calendar } = getDoer(await loadCalendars(this.app.manager, now, new Set([clientId])), clientKey(clientId));
    const on = addWorkingDays(calendar, todayOn, content.noticeDays);
    return on.ok ? on.value : null;
  }

  /** Takes one file at once, so that it is kept while the rest is filled in. */
  @Post('files')
  @ApiConsumes('multipart/form-data')
  @Access('ask.fill_in')
  @UseInterceptors(OneFile())
  async upload(@CurrentLink() linkId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<UploadShape> {
    const upload = uploadOf(file);
    await needShare(this.app, linkId, { files: 1, bytes: upload.bytes.length });
    const stored = valueOrProblem(await this.app.files.store(upload.bytes));
    const clientId = await this.clientOf(linkId);
    return valueOrProblem(
      await this.app.write(async (tx, now) => ok(await addAsset(tx, stored, { clientId, pieceId: null, name: upload.name, now }))),
    );
  }

  /** A file that was sent and not asked with yet, so that it is seen beside the question. */
  @Get('files/:assetId')
  @AnswersBytes('*/*')
  @Access('ask.fill_in')
  async file(
    @CurrentLink() linkId: string,
    @Param('assetId') assetId: string,
    @Res() response: Response,
    @Query('width') width?: string,
  ): Promise<void> {
    const [asset] = await this.app.read(
      'select 1 from assets a join form_links l on l.client_id = a.client_id where l.id = $1 and a.id = $2 and a.piece_id is null and a.request_id is null',
      [linkId, assetId],
    );
    if (!asset) throw Problem.of('access.not_found');
    return sendAsset(this.app, assetId, response, { width });
  }

  private async clientOf(linkId: string): Promise<string> {
    const [link] = await this.app.read<{ client_id: string }>('select client_id from form_links where id = $1', [linkId]);
    if (!link) throw new Error('the link went away');
    return link.client_id;
  }

  /** Sends the filled-in form. Needs an Idempotency-Key: a repeat makes no second request. */
  @Post('requests')
  @Access('ask.fill_in')
  async submit(
    @CurrentLink() linkId: string,
    @Body() body: SubmitRequestBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<SubmittedShape> {
    if (!key || key.length > 100) throw Problem.of('idempotency.key_missing');
    const { stamp, website } = body;
    // a field that nobody sees was filled in, or the form was never opened: a program sent this
    if ((website ?? '') !== '' || !this.app.links.isStamped(linkId, stamp, this.app.clock.now())) throw Problem.of('ask.not_opened');
    const result = await submitRequest(this.app, linkId, body, key);
    if (!result.ok && result.failure.code === 'ask.too_much') await tellTooMuch(this.app, linkId);
    if (!result.ok && result.failure.code === 'request.answers_wrong')
      throw Problem.of('request.answers_wrong', { errors: result.failure.errors });
    return valueOrProblem(result);
  }
}
