import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Patch, Post } from '@nestjs/common';
import { RemarkBody, RemarkReplyBody, RoomReplyBody, SettleRemarkBody, type RemarksShape } from '@zesting/contract';
import { Access, CurrentLink, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { remarksOf } from './queries/remarks.js';
import { addRemark } from './use-cases/add-remark.js';
import { removeRemark, removeReply, replyFromRoom, replyToRemark } from './use-cases/reply.js';
import { settleRemark } from './use-cases/settle-remark.js';

@Controller()
export class RemarksController {
  constructor(private readonly app: App) {}

  /** All that was said about a piece, by contacts and by the team. */
  @Get('pieces/:pieceId/remarks')
  @Access('piece.read', { piece: 'pieceId' })
  list(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<RemarksShape> {
    return remarksOf(this.app, viewer, pieceId);
  }

  /** Says something about the working copy, at a place in it or about the whole. */
  @Post('pieces/:pieceId/remarks')
  @Access('remark.write', { piece: 'pieceId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string, @Body() body: RemarkBody): Promise<RemarksShape> {
    valueOrProblem(await addRemark(this.app, viewer, pieceId, body));
    return remarksOf(this.app, viewer, pieceId);
  }

  /** Ticks a remark off, answers it, or opens it again. */
  @Patch('remarks/:remarkId')
  @HttpCode(204)
  @Access('remark.settle', { remark: 'remarkId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('remarkId') remarkId: string, @Body() body: SettleRemarkBody): Promise<void> {
    valueOrProblem(await settleRemark(this.app, viewer, remarkId, body));
  }

  /** Takes back a remark of the team. */
  @Delete('remarks/:remarkId')
  @HttpCode(204)
  @Access('remark.write', { remark: 'remarkId' })
  async remove(@CurrentViewer() viewer: Viewer, @Param('remarkId') remarkId: string): Promise<void> {
    valueOrProblem(await removeRemark(this.app, viewer, remarkId));
  }

  @Post('remarks/:remarkId/replies')
  @HttpCode(204)
  @Access('remark.write', { remark: 'remarkId' })
  async reply(@CurrentViewer() viewer: Viewer, @Param('remarkId') remarkId: string, @Body() body: RemarkReplyBody): Promise<void> {
    valueOrProblem(await replyToRemark(this.app, viewer, remarkId, body));
  }

  /** Takes back what one of the team said to a remark. */
  @Delete('replies/:replyId')
  @HttpCode(204)
  @Access('remark.write', { reply: 'replyId' })
  async removeReply(@CurrentViewer() viewer: Viewer, @Param('replyId') replyId: string): Promise<void> {
    valueOrProblem(await removeReply(this.app, viewer, replyId));
  }
}

/** What contacts say to remarks, in their room. */
@Controller('room/:linkId')
export class RoomRemarksController {
  constructor(private readonly app: App) {}

  /** Says something to what the agency wrote beside a piece that was sent to the contact, or to what was asked for before. */
  @Post('remarks/:remarkId/replies')
  @HttpCode(204)
  @Access('room.reply')
  async reply(
    @CurrentLink() contactId: string,
    @Param('remarkId', ParseUUIDPipe) remarkId: string,
    @Body() body: RoomReplyBody,
  ): Promise<void> {
    const [contact] = await this.app.read<{ id: string; name: string }>(
      `select x.id, x.name from contacts x join packets k on x.id = any(k.approver_ids) join packet_items i on i.packet_id = k.id
       join remarks m on m.piece_id = i.piece_id and m.audience = 'client' and m.removed_at is null where x.id = $1 and m.id = $2 limit 1`,
      [contactId, remarkId],
    );
    if (!contact) throw Problem.of('access.not_found');
    valueOrProblem(await replyFromRoom(this.app, contact, remarkId, body.text));
  }
}
