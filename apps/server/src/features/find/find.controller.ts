import { Controller, Get, Query } from '@nestjs/common';
import type { FindShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Features } from '../../platform/feature.js';
import { find } from './find.js';

@Controller('find')
export class FindController {
  constructor(
    private readonly app: App,
    private readonly features: Features,
  ) {}

  /** Pieces, requests, clients, people and contacts whose name holds every word of `q`; a number finds the one of that number. */
  @Get()
  @Access('find')
  find(@CurrentViewer() viewer: Viewer, @Query('q') q?: string): Promise<FindShape> {
    return find(this.app, this.features, viewer, typeof q === 'string' ? q : '');
  }
}
