import { Body, Controller, Get, HttpCode, Param, Put } from '@nestjs/common';
import { TeamLeadBody, TeamRoleBody, type TeamShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { clientTeam } from './queries/team.js';
import { putTeamLead, putTeamRole } from './use-cases/team.js';

@Controller('clients/:clientId/team')
export class TeamController {
  constructor(private readonly app: App) {}

  /** Who usually does what for the client. */
  @Get()
  @Access('team.edit', { client: 'clientId' })
  show(@Param('clientId') clientId: string): Promise<TeamShape> {
    return clientTeam(this.app, clientId);
  }

  /** Changes who does one skill. Whom it replaces must be said; where that is somebody else by now, it is refused. */
  @Put()
  @HttpCode(204)
  @Access('team.edit', { client: 'clientId' })
  async put(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: TeamRoleBody): Promise<void> {
    valueOrProblem(await putTeamRole(this.app, viewer, clientId, body));
  }

  /** Changes who answers for the client's pieces. Whom they replace must be said, too. */
  @Put('lead')
  @HttpCode(204)
  @Access('team.edit', { client: 'clientId' })
  async putLead(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: TeamLeadBody): Promise<void> {
    valueOrProblem(await putTeamLead(this.app, viewer, clientId, body));
  }
}
