import { Body, Controller, Delete, Get, Head, HttpCode, Param, Patch, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { AnswerBackBody, type ReceiptShape, type UploadShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { VISITED } from '../../platform/access/visited.js';
import { App } from '../../platform/app.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { takeUpload } from '../production/index.js';
import { answerBack, withdrawRequest } from './use-cases/ask-back.js';

/** So many files a request has at most, however they came. */
const FILES_OF_REQUEST = 50;

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
      `select r.number, r.title, coalesce(v.content ->> 'language', 'en') as language, ${VISITED}, r.received_at as "receivedAt",
         r.wish_on as "wishOn", r.state, r.decline_reason as "declineReason",
         case when p.stage in ('planned', 'shelved') then 'planned' when p.stage in ('in_production', 'in_review') then 'in_production'
           when p.stage = 'with_client' then 'with_client' when p.stage in ('approved', 'scheduled') then 'approved' else p.stage end as progress,
         r.state in ('new', 'asked_back') as "canWithdraw",
         coalesce((select jsonb_agg(jsonb_build_object('author', t.author, 'text', t.text, 'at', t.at) order by t.at, t.id)
           from request_messages t where t.request_id = r.id), '[]') as messages,
         array(select name from assets f where f.request_id = r.id order by f.created_at, f.id) as files
       from requests r join clients c on c.id = r.client_id left join form_versions v on v.form_id = r.form_id and v.number = r.form_version
         cross join agencies a left join lateral ${LEAST_FAR} p on true where r.id = $1`,
      [requestId],
    );
    if (!row) throw new Error('the request went away');
    return row;
  }

  /** Takes what the requester writes, with files that were sent before. */
  @Post('messages')
  @HttpCode(200)
  @Access('receipt.answer')
  async answer(@CurrentLink() requestId: string, @Body() body: AnswerBackBody): Promise<ReceiptShape> {
    valueOrProblem(await answerBack(this.app, requestId, { text: body.text.trim(), assetIds: body.assetIds }));
    return this.show(requestId);
  }

  /** Takes the request back, while nobody has decided. */
  @Post('withdraw')
  @HttpCode(200)
  @Access('receipt.answer')
  async withdraw(@CurrentLink() requestId: string): Promise<ReceiptShape> {
    valueOrProblem(await withdrawRequest(this.app, requestId));
    return this.show(requestId);
  }

  /** A large file in parts that go on after a cut (tus 1.0.0). */
  @Post('uploads')
  @SpeaksTus()
  @Access('receipt.answer')
  async beginUpload(@CurrentLink() requestId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const [{ count = 0 } = {}] = await this.app.read<{ count: number }>('select count(*)::int as count from assets where request_id = $1', [
      requestId,
    ]);
    if (count >= FILES_OF_REQUEST) throw Problem.of('ask.too_much');
    return this.app.resumable.handle(request, response);
  }

  @Head('uploads/:uploadId')
  @SpeaksTus()
  @Access('receipt.answer')
  howFar(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  @Patch('uploads/:uploadId')
  @SpeaksTus()
  @Access('receipt.answer')
  sendOn(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  @Delete('uploads/:uploadId')
  @SpeaksTus()
  @Access('receipt.answer')
  giveUp(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post('uploads/:uploadId/file')
  @HttpCode(200)
  @Access('receipt.answer')
  async takeUpload(@CurrentLink() requestId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const [request] = await this.app.read<{ client_id: string }>('select client_id from requests where id = $1', [requestId]);
    if (!request) throw new Error('the request went away');
    const where = { clientId: request.client_id, pieceId: null };
    return valueOrProblem(await takeUpload(this.app, `/api/receipts/${requestId}/uploads`, uploadId, where));
  }
}
