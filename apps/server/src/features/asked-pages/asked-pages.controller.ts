import { Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { ok } from '@zesting/core';
import type { PageAnswersShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { askedPages } from './queries/answers.js';
import { askDue } from './use-cases/ask.js';
import { linksOfPiece, wantPages } from './use-cases/want.js';

@Controller()
export class AskedPagesController {
  constructor(private readonly app: App) {}

  /** What the pages answered that a piece leads to, as far as they were asked. */
  @Get('pieces/:pieceId/links')
  @Access('piece.read', { piece: 'pieceId' })
  async ofPiece(@Param('pieceId') pieceId: string): Promise<PageAnswersShape> {
    return { rows: await askedPages(this.app, await linksOfPiece(this.app.manager, pieceId)) };
  }

  /** Asks the pages that a piece leads to, now. */
  @Post('pieces/:pieceId/links')
  @HttpCode(200)
  @Access('piece.read', { piece: 'pieceId' })
  async ask(@Param('pieceId') pieceId: string): Promise<PageAnswersShape> {
    const addresses = await linksOfPiece(this.app.manager, pieceId);
    await this.app.write(async (tx, now) => {
      await wantPages(
        tx,
        addresses.map((address) => ({ address, until: now })),
        now,
        true,
      );
      return ok(null);
    });
    await askDue(this.app, undefined, addresses);
    return { rows: await askedPages(this.app, addresses) };
  }
}
