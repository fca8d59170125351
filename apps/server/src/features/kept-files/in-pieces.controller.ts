import { Body, Controller, Get, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { TakeKeptFileBody, type OfferedKeptFilesShape, type UploadShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { sendAsset } from '../production/index.js';
import { keptFilesFor } from './queries/kept-files.js';
import { takeKeptFile } from './use-cases/take-kept-file.js';

/** The kept files of a piece's client, for whoever makes it. */
@Controller('pieces/:pieceId/kept-files')
export class KeptFilesInPiecesController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('piece.read', { piece: 'pieceId' })
  offered(@Param('pieceId') pieceId: string, @Query('words') words?: string): Promise<OfferedKeptFilesShape> {
    return keptFilesFor(this.app, pieceId, words ?? '');
  }

  /** A picture of one of them, small. */
  @Get(':keptFileId/picture')
  @AnswersBytes('image/*')
  @Access('piece.read', { piece: 'pieceId' })
  async picture(@Param('pieceId') pieceId: string, @Param('keptFileId') keptFileId: string, @Res() response: Response): Promise<void> {
    const [asset] = await this.app.read<{ id: string }>(
      `select a.id from kept_files k join assets a on a.id = k.asset_id join pieces p on p.client_id = k.client_id
       where k.id::text = $1 and p.id = $2 and a.mime like 'image/%'`,
      [keptFileId, pieceId],
    );
    if (!asset) throw Problem.of('access.not_found');
    return sendAsset(this.app, asset.id, response, { width: '160', isBrand: true });
  }

  /** Takes one into the piece. */
  @Post(':keptFileId')
  @HttpCode(200)
  @Access('piece.write_content', { piece: 'pieceId' })
  async take(
    @CurrentViewer() viewer: Viewer,
    @Param('pieceId') pieceId: string,
    @Param('keptFileId') keptFileId: string,
    @Body() body: TakeKeptFileBody,
  ): Promise<UploadShape> {
    return valueOrProblem(await takeKeptFile(this.app, viewer, pieceId, keptFileId, body));
  }
}
