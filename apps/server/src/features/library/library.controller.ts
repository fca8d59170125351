import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { ArchiveBody, TagSetBody, type OfferedTagSetsShape, type TagSetMadeShape, type TagSetsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { tagSetsFor, tagSetsOf } from './queries/tag-sets.js';
import { addTagSet, archiveTagSet, editTagSet } from './use-cases/edit-tag-set.js';

@Controller()
export class LibraryController {
  constructor(private readonly app: App) {}

  /** A client's tag sets, with how often they were used over a year. */
  @Get('clients/:clientId/tag-sets')
  @Access('tag_set.edit', { client: 'clientId' })
  all(@Param('clientId') clientId: string): Promise<TagSetsShape> {
    return tagSetsOf(this.app, clientId);
  }

  @Post('clients/:clientId/tag-sets')
  @Access('tag_set.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: TagSetBody): Promise<TagSetMadeShape> {
    return { tagSetId: valueOrProblem(await addTagSet(this.app, viewer, clientId, body)) };
  }

  /** Needs If-Match with its version. */
  @Put('tag-sets/:tagSetId')
  @HttpCode(204)
  @Access('tag_set.edit', { tag_set: 'tagSetId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('tagSetId') tagSetId: string,
    @Body() body: TagSetBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await editTagSet(this.app, viewer, tagSetId, body, version));
  }

  @Post('tag-sets/:tagSetId/archive')
  @HttpCode(204)
  @Access('tag_set.edit', { tag_set: 'tagSetId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('tagSetId') tagSetId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveTagSet(this.app, viewer, tagSetId, body.archived));
  }

  /** The sets of its client as they are offered for a piece: those meant for its pillar and day first. */
  @Get('pieces/:pieceId/tag-sets')
  @Access('piece.read', { piece: 'pieceId' })
  ofPiece(@Param('pieceId') pieceId: string): Promise<OfferedTagSetsShape> {
    return tagSetsFor(this.app, pieceId);
  }
}
