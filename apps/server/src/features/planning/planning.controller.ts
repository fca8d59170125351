import { Body, Controller, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import {
  ArchiveBody,
  EditRouteBody,
  type RouteMadeShape,
  type RoutePageShape,
  type RouteShape,
  type RoutesPageShape,
} from '@zesting/contract';
import type { Result, RouteStep } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { ROUTE_STATE } from './routes.js';
import { archiveRoute, editRoute, makeRoute } from './use-cases/edit-route.js';

const PAGE = `r.id, r.name, f.name as "formatName", r.rounds_allowed as "roundsAllowed", r.steps, r.archived_at as "archivedAt", r.version,
  (select count(*) from pieces p where p.route_id = r.id and p.list is not null) as "openPieces",
  (select count(*) from pieces p where p.route_id = r.id and p.list is not null and p.route_version < ${ROUTE_STATE('r.id')}) as "behindPieces"`;

@Controller('routes')
export class PlanningController {
  constructor(private readonly app: App) {}

  /** The routes that a piece can take. */
  @Get()
  @Access('client.read')
  async list(): Promise<RouteShape[]> {
    const rows = await this.app.read<{ id: string; name: string; format_id: string; format_name: string; steps: RouteStep[] }>(
      `select r.id, r.name, r.format_id, f.name as format_name, r.steps from routes r join formats f on f.id = r.format_id
       where r.archived_at is null order by f.position, f.name, r.name`,
    );
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      formatId: row.format_id,
      formatName: row.format_name,
      steps: row.steps.map((step) => step.title),
      optional: row.steps.filter((step) => step.optional).map(({ key, title }) => ({ key, title })),
    }));
  }

  /** Every route whole, archived ones too, with the formats and skills there are. */
  @Get('whole')
  @Access('route.read')
  async whole(@CurrentViewer() viewer: Viewer): Promise<RoutesPageShape> {
    const routes = await this.app.read<RoutePageShape>(
      `select ${PAGE} from routes r join formats f on f.id = r.format_id order by (r.archived_at is not null), f.position, f.name, r.name`,
    );
    const namesOf = async (list: 'formats' | 'skills') =>
      (await this.app.read<{ name: string }>(`select name from ${list} where archived_at is null order by position, name`)).map(
        ({ name }) => name,
      );
    return {
      routes,
      formats: await namesOf('formats'),
      skills: await namesOf('skills'),
      canEdit: viewer.role === 'lead',
    };
  }

  @Post()
  @Access('route.edit')
  async make(@CurrentViewer() viewer: Viewer, @Body() body: EditRouteBody): Promise<RouteMadeShape> {
    return { routeId: valueOrFaults(await makeRoute(this.app, viewer, body)) };
  }

  /** Replaces a route. Needs If-Match with its version; a conflict answers with both states. */
  @Patch(':routeId')
  @HttpCode(204)
  @Access('route.edit', { route: 'routeId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('routeId') routeId: string,
    @Body() body: EditRouteBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const result = await editRoute(this.app, viewer, routeId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile') {
      const [theirs] = await this.app.read<RoutePageShape>(
        `select ${PAGE} from routes r join formats f on f.id = r.format_id where r.id = $1`,
        [routeId],
      );
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs });
    }
    valueOrFaults(result);
  }

  @Post(':routeId/archive')
  @HttpCode(204)
  @Access('route.edit', { route: 'routeId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('routeId') routeId: string, @Body() body: ArchiveBody): Promise<void> {
    valueOrProblem(await archiveRoute(this.app, viewer, routeId, body.archived));
  }
}

/** As `valueOrProblem`; what is wrong with a route goes along, by step. */
function valueOrFaults<T>(result: Result<T>): T {
  if (!result.ok && 'problems' in result.failure) throw Problem.of('route.wrong', { problems: result.failure.problems });
  return valueOrProblem(result);
}
