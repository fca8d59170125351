import { Body, Controller, Get, HttpCode, Param, Patch, Post, Query } from '@nestjs/common';
import {
  EditIdeaBody,
  IdeaStateBody,
  NewIdeaBody,
  type CoveredShape,
  type IdeaMadeShape,
  type IdeaShape,
  type IdeasShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { coveredBy, ideaShape, ideasOf } from './queries/ideas.js';
import { catchIdea, editIdea, setIdeaState } from './use-cases/ideas.js';

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

  /** Catches an idea; answers what is much like it already. */
  @Post()
  @Access('plan.edit')
  async catch(@CurrentViewer() viewer: Viewer, @Body() body: NewIdeaBody): Promise<IdeaMadeShape> {
    const ideaId = valueOrProblem(await catchIdea(this.app, viewer, body));
    return { ideaId, covered: await coveredBy(this.app, ideaId) };
  }

  @Get(':ideaId')
  @Access('plan.read', { idea: 'ideaId' })
  one(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string): Promise<IdeaShape> {
    return ideaShape(this.app, ideaId, viewer.zone);
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
  ): Promise<IdeaShape> {
    const result = await editIdea(this.app, viewer, ideaId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await ideaShape(this.app, ideaId, viewer.zone) });
    valueOrProblem(result);
    return ideaShape(this.app, ideaId, viewer.zone);
  }

  /** Drops an idea, or takes it up again. */
  @Post(':ideaId/state')
  @HttpCode(204)
  @Access('plan.edit', { idea: 'ideaId' })
  async state(@CurrentViewer() viewer: Viewer, @Param('ideaId') ideaId: string, @Body() body: IdeaStateBody): Promise<void> {
    valueOrProblem(await setIdeaState(this.app, viewer, ideaId, body.state));
  }
}
