import { Body, Controller, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  ArchiveBody,
  TagSetBody,
  type LibraryShape,
  type OfferedTagSetsShape,
  type TagSetMadeShape,
  type TagSetsShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { findInLibrary } from './queries/find-in-library.js';
import { tagSetsFor, tagSetsOf } from './queries/tag-sets.js';
import { addTagSet, archiveTagSet, editTagSet } from './use-cases/edit-tag-set.js';

@Controller()
export class LibraryController {
  constructor(private readonly app: App) {}

  /** Pieces by what they say and where they stand, the newest first. */
  @Get('library')
  @Access('library.find')
  find(
    @CurrentViewer() viewer: Viewer,
    @Query('words') words?: string,
    @Query('clientId') clientId?: string,
    @Query('formatId') formatId?: string,
    @Query('pillarId') pillarId?: string,
    @Query('channelId') channelId?: string,
    @Query('from') from?: string,
    @Query('to') to?: string,
    @Query('cursor') cursor?: string,
  ): Promise<LibraryShape> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    const [format, pillar, channel] = [formatId, pillarId, channelId].map((id) => id ?? null) as [
      string | null,
      string | null,
      string | null,
    ];
    const asked = { words: words ?? '', formatId: format, pillarId: pillar, channelId: channel };
    return findInLibrary(this.app, clientIds, { ...asked, from: from ?? null, to: to ?? null, after: cursor ?? null });
  }

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
