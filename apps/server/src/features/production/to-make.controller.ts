import { Controller, Get, Query } from '@nestjs/common';
import type { SittingShape, ToMakeShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { AskedPieces, DescribesAskedPieces } from './asked-pieces.js';
import type { PiecesAsked } from './queries/piece-rows.js';
import { sittingOf, toMakeOf } from './queries/to-make.js';

@Controller('to-make')
export class ToMakeController {
  constructor(private readonly app: App) {}

  /** How many steps there are to do, by format and skill. Who does not manage sees their own. */
  @Get()
  @DescribesAskedPieces()
  @Access('own.steps')
  counts(@CurrentViewer() viewer: Viewer, @AskedPieces() asked: PiecesAsked): Promise<ToMakeShape> {
    return toMakeOf(this.app, viewer, asked);
  }

  /** The steps of one skill, in the order in which they are done one after another. */
  @Get('steps')
  @DescribesAskedPieces()
  @Access('own.steps')
  steps(@CurrentViewer() viewer: Viewer, @AskedPieces() asked: PiecesAsked, @Query('skill') skill?: string): Promise<SittingShape> {
    if (skill === undefined) throw Problem.of('http.invalid', { errors: { skill: ['isNotBlank'] } });
    return sittingOf(this.app, viewer, asked, skill);
  }
}
