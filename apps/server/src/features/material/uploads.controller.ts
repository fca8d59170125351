import { Controller, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import type { UploadShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { UploadParts } from '../../platform/http/upload-parts.js';
import { takeUpload } from '../production/index.js';

/** So many files of a contact may wait to be added to what was asked of them. */
const UNCLAIMED_MOST = 50;

/** Files that a contact brings, in parts that survive a cut. Only where something is asked of them. */
@Controller('room/:linkId/uploads')
export class RoomUploadsController extends UploadParts('material.bring') {
  @Post()
  @SpeaksTus()
  @Access('material.bring')
  async begin(@CurrentLink() contactId: string, @Req() request: Request, @Res() response: Response): Promise<void> {
    await this.clientOf(contactId);
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('material.bring')
  async take(@CurrentLink() contactId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    const clientId = await this.clientOf(contactId);
    return valueOrProblem(await takeUpload(this.app, `/api/room/${contactId}/uploads`, uploadId, { clientId, pieceId: null }));
  }

  private async clientOf(contactId: string): Promise<string> {
    const [row] = await this.app.read<{ client_id: string; asked: boolean; waiting: number }>(
      `select x.client_id, exists (select 1 from deliveries y where y.contact_id = x.id) as asked,
         (select count(*)::int from assets a where a.client_id = x.client_id and a.piece_id is null and a.request_id is null) as waiting
       from contacts x where x.id = $1`,
      [contactId],
    );
    if (!row?.asked) throw Problem.of('access.not_found');
    if (row.waiting >= UNCLAIMED_MOST) throw Problem.of('ask.too_much');
    return row.client_id;
  }
}
