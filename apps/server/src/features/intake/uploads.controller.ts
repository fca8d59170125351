import { Controller, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { UploadShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { UploadParts } from '../../platform/http/upload-parts.js';
import { takeUpload } from '../production/index.js';
import { needShare } from './use-cases/form-limits.js';

const lengthOf = (request: Request): number => {
  const bytes = Number(request.headers['upload-length'] ?? 0);
  return Number.isSafeInteger(bytes) && bytes >= 0 ? bytes : 0;
};

/** Large files for a form, before it is sent. */
@Controller('ask/:linkId/uploads')
export class AskUploadsController extends UploadParts('ask.fill_in') {
  @Post()
  @SpeaksTus()
  @Access('ask.fill_in')
  async begin(@CurrentLink() linkId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    await needShare(this.app, linkId, { files: 1, bytes: lengthOf(request) });
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('ask.fill_in')
  async take(@CurrentLink() linkId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const [link] = await this.app.read<{ client_id: string }>('select client_id from form_links where id = $1', [linkId]);
    if (!link) throw new Error('the link went away');
    return valueOrProblem(await takeUpload(this.app, `/api/ask/${linkId}/uploads`, uploadId, { clientId: link.client_id, pieceId: null }));
  }
}

/** So many files a request has at most, however they came. */
const FILES_OF_REQUEST = 50;

/** Large files that a requester adds to a request. They count to what may come through the form's link within an hour. */
@Controller('receipts/:linkId/uploads')
export class ReceiptUploadsController extends UploadParts('receipt.answer') {
  @Post()
  @SpeaksTus()
  @Access('receipt.answer')
  async begin(@CurrentLink() requestId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    const { link_id: formLinkId, files } = await this.requestOf(requestId);
    if (files >= FILES_OF_REQUEST) throw Problem.of('ask.too_much');
    if (formLinkId !== null) await needShare(this.app, formLinkId, { files: 1, bytes: lengthOf(request) });
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('receipt.answer')
  async take(@CurrentLink() requestId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const { client_id: clientId } = await this.requestOf(requestId);
    return valueOrProblem(await takeUpload(this.app, `/api/receipts/${requestId}/uploads`, uploadId, { clientId, pieceId: null }));
  }

  private async requestOf(requestId: string): Promise<{ client_id: string; link_id: string | null; files: number }> {
    const [request] = await this.app.read<{ client_id: string; link_id: string | null; files: number }>(
      'select client_id, link_id, (select count(*)::int from assets f where f.request_id = r.id) as files from requests r where id = $1',
      [requestId],
    );
    if (!request) throw new Error('the request went away');
    return request;
  }
}
