import { Body, Controller, Delete, Get, Headers, HttpCode, Param, Patch, Post, Query, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import {
  CombineIdeasBody,
  EditIdeaBody,
  IdeaStateBody,
  NewIdeaBody,
  type CoveredShape,
  type IdeaMadeShape,
  type IdeaPageShape,
  type UploadShape,
  type IdeasShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { SpeaksTus } from '../../platform/http/described.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { UploadParts } from '../../platform/http/upload-parts.js';
import { takeUpload } from '../production/index.js';
import { coveredBy, ideaPage, ideasOf } from './queries/ideas.js';
import { removeIdeaFile } from './use-cases/idea-files.js';
import { catchIdea, combineIdeas, editIdea, setIdeaState } from './use-cases/ideas.js';

@Controller('ideas')
export class IdeasController {
  constructor(private readonly app: App) {}

  /** Ideas on the shelf, the best first: of one client or all, and those for no client yet. */
  @Get()
  @Access('plan.read')
  list(
    @CurrentViewer() viewer: Viewer,
    @Query('clientId') clientId?: string,
    @Query('idea') state?: string,
    @Query('after') after?: string,
  ): Promise<IdeasShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return ideasOf(this.app, viewer.clientIds, viewer.zone, {
      clientId: clientId ?? null,
      state: state === 'dropped' || state === 'used' ? state : 'open',
      after: Number(after ?? 0),
    });
  }

  /** Catches an idea; answers what is much like it already. With an Idempotency-Key a repeat catches no second one. */
  @Post()
  @Access('plan.edit')
  async catch(
    @CurrentViewer() viewer: Viewer,
    @Body() body: NewIdeaBody,
    @Headers('idempotency-key') key?: string,
  ): Promise<IdeaMadeShape> {
    const ideaId = valueOrProblem(await catchIdea(this.app, viewer, body, key?.slice(0, 100)));
    return { ideaId, covered: await coveredBy(this.app, ideaId) };
  }

  @Get(':ideaId')
  @Access('plan.read', { idea: 'ideaId' })
  one(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string): Promise<IdeaPageShape> {
    return ideaPage(this.app, ideaId, viewer.zone);
  }

  /** What of the same client is much like it. */
  @Get(':ideaId/covered')
  @Access('plan.read', { idea: 'ideaId' })
  covered(@Param('ideaId') ideaId: string): Promise<CoveredShape[]> {
    return coveredBy(this.app, ideaId);
  }

  /** Changes an idea. Needs If-Match with its version. */
  @Patch(':ideaId')
  @Access('plan.edit', { idea: 'ideaId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('ideaId') ideaId: string,
    @Body() body: EditIdeaBody,
    @IfMatch() version: number,
  ): Promise<IdeaPageShape> {
    const result = await editIdea(this.app, viewer, ideaId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await ideaPage(this.app, ideaId, viewer.zone) });
    valueOrProblem(result);
    return ideaPage(this.app, ideaId, viewer.zone);
  }

  /** Drops an idea, or takes it up again. */
  @Post(':ideaId/state')
  @HttpCode(204)
  @Access('plan.edit', { idea: 'ideaId' })
  async state(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Body() body: IdeaStateBody): Promise<void> {
    valueOrProblem(await setIdeaState(this.app, viewer, ideaId, body.state));
  }

  /** Combines others into it. */
  @Post(':ideaId/combine')
  @HttpCode(204)
  @Access('plan.edit', { idea: 'ideaId' })
  async combine(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Body() body: CombineIdeasBody): Promise<void> {
    valueOrProblem(await combineIdeas(this.app, viewer, ideaId, body.ideaIds));
  }

  /** Takes a file off it. */
  @Delete(':ideaId/files/:assetId')
  @HttpCode(204)
  @Access('plan.edit', { idea: 'ideaId' })
  async removeFile(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Param('assetId') assetId: string): Promise<void> {
    valueOrProblem(await removeIdeaFile(this.app, viewer, ideaId, assetId));
  }
}

/** Files of an idea, in parts that go on after a cut (tus 1.0.0). */
@Controller('ideas/:ideaId/uploads')
export class IdeaUploadsController extends UploadParts('plan.edit', { idea: 'ideaId' }) {
  @Post()
  @SpeaksTus()
  @Access('plan.edit', { idea: 'ideaId' })
  begin(@Req() request: Request, @Res() response: Response): Promise<void> {
    return this.app.resumable.handle(request, response);
  }

  /** Makes the file of an upload that has arrived whole. Asking again gives the same file. */
  @Post(':uploadId/file')
  @HttpCode(200)
  @Access('plan.edit', { idea: 'ideaId' })
  async take(@Param('ideaId') ideaId: string, @Param('uploadId') uploadId: string): Promise<UploadShape> {
    return valueOrProblem(await takeUpload(this.app, `/api/ideas/${ideaId}/uploads`, uploadId, { ideaId }));
  }
}
