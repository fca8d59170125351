import { Controller, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { UploadShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { UploadParts } from '../../platform/http/upload-parts.js';
import { takeUpload } from '../production/index.js';

/** Files that are to be kept for a client, in parts that go on after a cut (tus 1.0.0). */
@Controller('clients/:clientId/kept-uploads')
export class KeptFileUploadsController extends UploadParts('kept_file.edit', { client: 'clientId' }) {
  @Post()
  @SpeaksTus()
  @Access('kept_file.edit', { client: 'clientId' })
  begin(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('kept_file.edit', { client: 'clientId' })
  async take(@Param('clientId') clientId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    return valueOrProblem(await takeUpload(this.app, `/api/clients/${clientId}/kept-uploads`, uploadId, { clientId, pieceId: null }));
  }
}
