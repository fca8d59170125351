import {
  Body,
  Controller,
  Delete,
  Get,
  Head,
  Headers,
  HttpCode,
  Param,
  Patch,
  Post,
  Req,
  Res,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { SubmitRequestBody, type AskFormShape, type ReceiptShape, type SubmittedShape, type UploadShape } from '@zesting/contract';
import { dayIn, ok } from '@zesting/core';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { VISITED } from '../../platform/access/visited.js';
import { App } from '../../platform/app.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { feasibilityOf } from '../planning/index.js';
import { addAsset, OneFile, takeUpload, uploadOf } from '../production/index.js';
import { takeShare, tellTooMuch } from './use-cases/form-limits.js';
import { submitRequest } from './use-cases/submit-request.js';

/** The client's intake form, by its link. */
@Controller('ask/:linkId')
export class AskController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('ask.fill_in')
  async form(@CurrentLink() formId: string): Promise<AskFormShape> {
    const [row] = await this.app.read<Omit<AskFormShape, 'todayOn' | 'earliestOn'> & { client_id: string; zone: string; route_id: string }>(
      `select f.id as "linkId", ${VISITED}, f.title, f.intro,
         f.fields, f.client_id, c.zone, f.route_id
       from intake_forms f join clients c on c.id = f.client_id cross join agencies a where f.id = $1`,
      [formId],
    );
    if (!row) throw new Error('the form went away');
    const { client_id: clientId, zone, route_id: routeId, ...form } = row;
    const now = this.app.clock.now();
    const { earliestOn } = valueOrProblem(await feasibilityOf(this.app.manager, clientId, routeId, now));
    return { ...form, todayOn: dayIn(now, zone), earliestOn };
  }

  /** Takes one file at once, so that it is kept while the rest is filled in. */
  @Post('files')
  @ApiConsumes('multipart/form-data')
  @Access('ask.fill_in')
  @UseInterceptors(OneFile())
  async upload(@CurrentLink() formId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<UploadShape> {
    const upload = uploadOf(file);
    await this.takeShare(formId, { files: 1, bytes: upload.bytes.length });
    const stored = valueOrProblem(await this.app.files.store(upload.bytes));
    const clientId = await this.clientOf(formId);
    return valueOrProblem(
      await this.app.write(async (tx, now) => ok(await addAsset(tx, stored, { clientId, pieceId: null, name: upload.name, now }))),
    );
  }

  /** A large file in parts that go on after a cut (tus 1.0.0). */
  @Post('uploads')
  @SpeaksTus()
  @Access('ask.fill_in')
  async beginUpload(@CurrentLink() formId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const bytes = Number(request.headers['upload-length'] ?? 0);
    await this.takeShare(formId, { files: 1, bytes: Number.isSafeInteger(bytes) && bytes >= 0 ? bytes : 0 });
    return this.app.resumable.handle(request, response);
  }

  @Head('uploads/:uploadId')
  @SpeaksTus()
  @Access('ask.fill_in')
  howFar(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  @Patch('uploads/:uploadId')
  @SpeaksTus()
  @Access('ask.fill_in')
  sendOn(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  @Delete('uploads/:uploadId')
  @SpeaksTus()
  @Access('ask.fill_in')
  giveUp(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post('uploads/:uploadId/file')
  @HttpCode(200)
  @Access('ask.fill_in')
  async takeUpload(@CurrentLink() formId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const where = { clientId: await this.clientOf(formId), pieceId: null };
    return valueOrProblem(await takeUpload(this.app, `/api/ask/${formId}/uploads`, uploadId, where));
  }

  /** Refuses what is more than may come through the link within an hour. */
  private async takeShare(formId: string, share: Parameters<typeof takeShare>[3]): Promise<void> {
    if (await takeShare(this.app.manager, formId, this.app.clock.now(), share)) return;
    await tellTooMuch(this.app, formId);
    throw Problem.of('ask.too_much');
  }

  private async clientOf(formId: string): Promise<string> {
    const [form] = await this.app.read<{ client_id: string }>('select client_id from intake_forms where id = $1', [formId]);
    if (!form) throw new Error('the form went away');
    return form.client_id;
  }

  /** Sends the filled-in form. Needs an Idempotency-Key: a repeat makes no second request. */
  @Post('requests')
  @Access('ask.fill_in')
  async submit(
    @CurrentLink() formId: string,
    @Body() body: SubmitRequestBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<SubmittedShape> {
    if (!key || key.length > 100) throw Problem.of('idempotency.key_missing');
    const result = await submitRequest(this.app, formId, body, key);
    if (!result.ok && result.failure.code === 'ask.too_much') await tellTooMuch(this.app, formId);
    if (!result.ok && result.failure.code === 'request.answers_wrong')
      throw Problem.of('request.answers_wrong', { errors: result.failure.errors });
    return valueOrProblem(result);
  }
}

/** Of the pieces that came of a request, the one that is least far. */
const LEAST_FAR = `(select p.stage from piece_requests b join pieces p on p.id = b.piece_id where b.request_id = r.id
  order by array_position(array['planned', 'shelved', 'in_production', 'in_review', 'with_client', 'approved', 'scheduled', 'published'], p.stage), p.number limit 1)`;

/** The requester's page: how the request stands. */
@Controller('receipts/:linkId')
export class ReceiptController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('receipt.read')
  async show(@CurrentLink() requestId: string): Promise<ReceiptShape> {
    const [row] = await this.app.read<ReceiptShape>(
      `select r.number, r.title, ${VISITED}, r.received_at as "receivedAt",
         r.wish_on as "wishOn", r.state, r.decline_reason as "declineReason",
         case when p.stage in ('planned', 'shelved') then 'planned' when p.stage in ('in_production', 'in_review') then 'in_production'
           when p.stage = 'with_client' then 'with_client' when p.stage in ('approved', 'scheduled') then 'approved' else p.stage end as progress
       from requests r join clients c on c.id = r.client_id cross join agencies a left join lateral ${LEAST_FAR} p on true where r.id = $1`,
      [requestId],
    );
    if (!row) throw new Error('the request went away');
    return row;
  }
}
