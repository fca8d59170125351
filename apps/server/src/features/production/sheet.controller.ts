import { Body, Controller, Get, Put, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { SheetChangesBody, type PiecesChangedShape, type SheetShape } from '@zesting/contract';
import { SHEET_COLUMNS, SHEET_GROUPS, sheetOrdered, sheetParts, USUAL_COLUMNS } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { AskedPieces, DescribesAskedPieces } from './asked-pieces.js';
import type { PiecesAsked } from './queries/piece-rows.js';
import { sheetOf } from './queries/sheet.js';
import { sendTable, XLSX } from './send-table.js';
import { editSheet } from './use-cases/edit-sheet.js';
import { sheetAsCsv, sheetAsXlsx, type SheetTaken } from './write-sheet.js';

@Controller('pieces/sheet')
export class SheetController {
  constructor(private readonly app: App) {}

  /** Pieces as lines of a sheet, up to a thousand. */
  @Get()
  @DescribesAskedPieces()
  @Access('sheet.edit')
  show(@CurrentViewer() viewer: Viewer, @AskedPieces() asked: PiecesAsked): Promise<SheetShape> {
    return sheetOf(this.app, viewer, asked);
  }

  /** Changes many of them. What could not be changed is told, and the rest is. */
  @Put()
  @Access('sheet.edit')
  change(@CurrentViewer() viewer: Viewer, @Body() body: SheetChangesBody): Promise<PiecesChangedShape> {
    return editSheet(this.app, viewer, body.changes);
  }

  /** The same sheet, to be taken away: the columns, the order and the groups that are asked for. */
  @Get('csv')
  @DescribesAskedPieces()
  @AnswersBytes('text/csv')
  @Access('sheet.edit')
  async csv(
    @CurrentViewer() viewer: Viewer,
    @AskedPieces() asked: PiecesAsked,
    @Res() response: Response,
    @Query('columns') columns?: string,
    @Query('by') by?: string,
    @Query('down') down?: string,
    @Query('group') group?: string,
  ): Promise<void> {
    const taken = await this.taken(viewer, asked, { columns, by, down, group });
    sendTable(response, 'pieces.csv', 'text/csv; charset=utf-8', sheetAsCsv(taken));
  }

  @Get('xlsx')
  @DescribesAskedPieces()
  @AnswersBytes(XLSX)
  @Access('sheet.edit')
  async xlsx(
    @CurrentViewer() viewer: Viewer,
    @AskedPieces() asked: PiecesAsked,
    @Res() response: Response,
    @Query('columns') columns?: string,
    @Query('by') by?: string,
    @Query('down') down?: string,
    @Query('group') group?: string,
  ): Promise<void> {
    const taken = await this.taken(viewer, asked, { columns, by, down, group });
    sendTable(response, 'pieces.xlsx', XLSX, await sheetAsXlsx(taken));
  }

  /** What each of these may hold was checked. */
  private async taken(viewer: Viewer, asked: PiecesAsked, view: Readonly<Record<string, string | undefined>>): Promise<SheetTaken> {
    const { rows } = await sheetOf(this.app, viewer, asked);
    const chosen = view['columns']?.split(',');
    const by = SHEET_COLUMNS.find((column) => column === view['by']) ?? 'aim';
    const lines = sheetOrdered(rows, { by, isDown: view['down'] === 'yes' });
    const group = SHEET_GROUPS.find((known) => known === view['group']);
    return {
      columns: chosen ? SHEET_COLUMNS.filter((column) => chosen.includes(column)) : USUAL_COLUMNS,
      lines: group ? sheetParts(lines, group).flatMap((part) => part.lines) : lines,
    };
  }
}
