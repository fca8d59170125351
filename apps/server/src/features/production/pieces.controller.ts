import {
  Body,
  Controller,
  Delete,
  Get,
  Headers,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Query,
  Res,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import type { Response } from 'express';
import {
  ContentBody,
  EditPieceBody,
  type DeskShape,
  type LineShape,
  type PiecePage,
  type PieceShape,
  type PresenceShape,
  type UploadShape,
} from '@zesting/contract';
import { RECKONING_LISTS } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { sendZip } from '../../platform/http/send-zip.js';
import { AskedPieces, DescribesAskedPieces } from './asked-pieces.js';
import { finalsOf } from './queries/finals.js';
import { getPiece } from './queries/get-piece.js';
import { lineOf } from './queries/line.js';
import { deskOf, listPieces, type PiecesAsked } from './queries/piece-rows.js';
import { sendAsset } from './send-asset.js';
import { OneFile, uploadOf } from './uploads.js';
import { addPieceFile } from './use-cases/add-file.js';
import { editContent } from './use-cases/edit-content.js';
import { leavePiece, notePresence } from './use-cases/presence.js';
import { editPiece } from './use-cases/edit-piece.js';

@Controller()
export class PiecesController {
  constructor(private readonly app: App) {}

  /** What needs the viewer: every open piece on one list. */
  @Get('desk')
  @Access('desk.read')
  desk(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string, @Query('list') list?: string): Promise<DeskShape> {
    const asked = RECKONING_LISTS.find((name) => name === list);
    if (list !== undefined && !asked) throw Problem.of('http.invalid', { errors: { list: ['isIn'] } });
    return deskOf(this.app, viewer, clientId, asked);
  }

  @Get('pieces')
  @DescribesAskedPieces()
  @Access('piece.list')
  list(@CurrentViewer() viewer: Viewer, @AskedPieces() asked: PiecesAsked): Promise<PiecePage> {
    return listPieces(this.app, viewer, asked);
  }

  /** Open pieces with all their steps, and when those work who do them: what is drawn over days. */
  @Get('pieces/line')
  @DescribesAskedPieces()
  @Access('line.read')
  line(@CurrentViewer() viewer: Viewer, @AskedPieces() asked: PiecesAsked): Promise<LineShape> {
    return lineOf(this.app, viewer, asked);
  }

  @Get('pieces/:pieceId')
  @Access('piece.read', { piece: 'pieceId' })
  show(@CurrentViewer() viewer: Viewer, @Param('pieceId') pieceId: string): Promise<PieceShape> {
    return getPiece(this.app, viewer, pieceId);
  }

  /** Says that a window has the piece open, at least every 45 seconds; answers who else has. */
  @Put('pieces/:pieceId/presence/:tabId')
  @Access('piece.read', { piece: 'pieceId' })
  present(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Param('tabId', ParseUUIDPipe) tabId: string,
  ): Promise<PresenceShape> {
    return notePresence(this.app, viewer, pieceId, tabId);
  }

  @Delete('pieces/:pieceId/presence/:tabId')
  @HttpCode(204)
  @Access('piece.read', { piece: 'pieceId' })
  async left(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Param('tabId', ParseUUIDPipe) tabId: string,
  ): Promise<void> {
    await leavePiece(this.app, viewer, pieceId, tabId);
  }

  /** Changes title, pillar, notes, wish date or shelf. Needs If-Match with the piece's version. */
  @Patch('pieces/:pieceId')
  @Access('piece.edit', { piece: 'pieceId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: EditPieceBody,
    @IfMatch() version: number,
  ): Promise<PieceShape> {
    const result = await editPiece(this.app, viewer, pieceId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile') throw await this.conflict(viewer, pieceId, body);
    valueOrProblem(result);
    return getPiece(this.app, viewer, pieceId);
  }

  /** Writes the working copy. Needs If-Match with the content's version; a conflict answers with both states. */
  @Put('pieces/:pieceId/content')
  @Access('piece.write_content', { piece: 'pieceId' })
  async write(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Body() body: ContentBody,
    @IfMatch() version: number,
  ): Promise<PieceShape> {
    const result = await editContent(this.app, viewer, pieceId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile') throw await this.conflict(viewer, pieceId, body);
    valueOrProblem(result);
    return getPiece(this.app, viewer, pieceId);
  }

  @Post('pieces/:pieceId/files')
  @ApiConsumes('multipart/form-data')
  @Access('piece.write_content', { piece: 'pieceId' })
  @UseInterceptors(OneFile())
  async addFile(@Param('pieceId') pieceId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<UploadShape> {
    return valueOrProblem(await addPieceFile(this.app, pieceId, uploadOf(file)));
  }

  /** The approved files of a piece as a ZIP, named so that they sort in publishing order. */
  @Get('pieces/:pieceId/finals')
  @AnswersBytes('application/zip')
  @Access('piece.read', { piece: 'pieceId' })
  async finals(@Param('pieceId') pieceId: string, @Res() response: Response): Promise<void> {
    const finals = await finalsOf(this.app, pieceId);
    if (!finals) throw Problem.of('piece.no_finals');
    if (finals === 'gone') throw Problem.of('file.gone');
    if (finals === 'being_made') throw Problem.of('file.being_made');
    await sendZip(response, finals);
  }

  /** A file; a picture in the width asked for (the next larger one that is made). */
  @Get('files/:assetId')
  @AnswersBytes('image/*', 'video/*', 'audio/*', 'application/octet-stream')
  @Access('asset.read', { asset: 'assetId' })
  async file(
    @CurrentViewer() viewer: Viewer,
    @Param('assetId') assetId: string,
    @Res() response: Response,
    @Query('width') width?: string,
    @Headers('sec-fetch-dest') destination?: string,
  ): Promise<void> {
    if (viewer.role === 'freelance' && (await this.isAgencyOnly(assetId))) throw Problem.of('access.not_found');
    return sendAsset(this.app, assetId, response, { width, makerId: viewer.personId, destination });
  }

  /** Whether a file answers a question that is for the agency only. */
  private async isAgencyOnly(assetId: string): Promise<boolean> {
    const rows = await this.app.read(
      `select 1 from assets a join requests r on r.id = a.request_id, jsonb_array_elements(r.items) f
       where a.id = $1 and (f ->> 'agencyOnly')::boolean and r.answers -> (f ->> 'key') @> to_jsonb(a.id::text) limit 1`,
      [assetId],
    );
    return rows.length > 0;
  }

  private async conflict(viewer: Viewer, pieceId: string, yours: unknown): Promise<Problem> {
    return Problem.of('http.changed_meanwhile', { yours, theirs: await getPiece(this.app, viewer, pieceId) });
  }
}
