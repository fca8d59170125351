import { Body, Controller, Get, Patch } from '@nestjs/common';
import { EditAgencyBody, type AgencySettingsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { editAgency, readAgency } from './edit-agency.js';

@Controller('agency')
export class AgencyController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('agency.read')
  show(): Promise<AgencySettingsShape> {
    return readAgency(this.app);
  }

  /** Changes what is given. Needs If-Match with the version; a conflict answers with both states. */
  @Patch()
  @Access('agency.edit')
  async edit(@CurrentViewer() viewer: Viewer, @Body() body: EditAgencyBody, @IfMatch() version: number): Promise<AgencySettingsShape> {
    const result = await editAgency(this.app, viewer, body, version);
    if (!result.ok) throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await readAgency(this.app) });
    return valueOrProblem(result);
  }
}
