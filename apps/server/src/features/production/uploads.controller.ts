import { Controller, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { UploadShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { UploadParts } from '../../platform/http/upload-parts.js';
import { takeUpload } from './use-cases/take-upload.js';

/** Uploads to a piece in parts that go on after a cut (tus 1.0.0): begin, ask how far it is, send on, give up; then take the file. */
@Controller('pieces/:pieceId/uploads')
export class PieceUploadsController extends UploadParts('piece.write_content', { piece: 'pieceId' }) {
  @Post()
  @SpeaksTus()
  @Access('piece.write_content', { piece: 'pieceId' })
  begin(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('piece.write_content', { piece: 'pieceId' })
  async take(@Param('pieceId') pieceId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const [piece] = await this.app.read<{ client_id: string }>('select client_id from pieces where id = $1', [pieceId]);
    if (!piece) throw new Error('the piece went away');
    const where = { clientId: piece.client_id, pieceId };
    return valueOrProblem(await takeUpload(this.app, `/api/pieces/${pieceId}/uploads`, uploadId, where));
  }
}
