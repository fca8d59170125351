import { Body, Controller, Delete, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { SavedViewBody, VIEW_PAGES, type SavedViewMadeShape, type SavedViewsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { dropView, keepView, viewsOf } from './views.js';

@Controller('views')
export class ViewsController {
  constructor(private readonly app: App) {}

  /** The viewer's own of a page, and those that others share. */
  @Get()
  @Access('view.keep')
  async list(@CurrentViewer() viewer: Viewer, @Query('page') asked: string): Promise<SavedViewsShape> {
    const page = VIEW_PAGES.find((one) => one === asked);
    if (!page) throw Problem.of('http.invalid', { errors: { page: ['isIn'] } });
    return { views: await viewsOf(this.app, viewer, page) };
  }

  @Post()
  @Access('view.keep')
  async keep(@CurrentViewer() viewer: Viewer, @Body() body: SavedViewBody): Promise<SavedViewMadeShape> {
    return { viewId: valueOrProblem(await keepView(this.app, viewer, body)) };
  }

  /** Lets go of one of the viewer's own. */
  @Delete(':viewId')
  @HttpCode(204)
  @Access('view.keep', { savedView: 'viewId' })
  async drop(@CurrentViewer() viewer: Viewer, @Param('viewId') viewId: string): Promise<void> {
    valueOrProblem(await dropView(this.app, viewer, viewId));
  }
}
