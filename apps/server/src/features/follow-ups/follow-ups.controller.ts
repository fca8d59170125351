import { Body, Controller, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { EnteringBody, FollowUpListBody, FollowUpStateBody, type FollowUpListsShape, type FollowUpsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { followUpListsOf, followUpsOf } from './queries/follow-ups.js';
import { enterPlacement, putFollowUpList, settleFollowUp } from './use-cases/edit-follow-ups.js';

@Controller()
export class FollowUpsController {
  constructor(private readonly app: App) {}

  /** What is to be done around what goes out. `?mine=yes`: what is the viewer's to do. */
  @Get('follow-ups')
  @Access('follow_up.do')
  all(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string, @Query('mine') mine?: string): Promise<FollowUpsShape> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    return followUpsOf(this.app, clientIds, viewer.zone, mine === 'yes' ? viewer.personId : null);
  }

  /** Says that a placement was put into its channel, or is not, for its time and content as they are now. */
  @Put('placements/:placementId/entering')
  @HttpCode(204)
  @Access('follow_up.do', { placement: 'placementId' })
  async enter(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: EnteringBody): Promise<void> {
    valueOrProblem(await enterPlacement(this.app, viewer, placementId, body));
  }

  /** Says that one is done or left out, or open again. */
  @Put('follow-ups/:followUpId')
  @HttpCode(204)
  @Access('follow_up.do', { follow_up: 'followUpId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('followUpId') followUpId: string, @Body() body: FollowUpStateBody): Promise<void> {
    valueOrProblem(await settleFollowUp(this.app, viewer, followUpId, body.state));
  }

  /** What is done around everything that goes out on each of a client's channels, and who could do it. */
  @Get('clients/:clientId/follow-up-lists')
  @Access('follow_up.edit', { client: 'clientId' })
  async lists(@Param('clientId') clientId: string): Promise<FollowUpListsShape> {
    return followUpListsOf(this.app, clientId);
  }

  /** Needs If-Match with its version, 0 where there was none. */
  @Put('channels/:channelId/follow-ups')
  @HttpCode(204)
  @Access('follow_up.edit', { channel: 'channelId' })
  async put(
    @CurrentViewer() viewer: Viewer,
    @Param('channelId') channelId: string,
    @Body() body: FollowUpListBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await putFollowUpList(this.app, viewer, channelId, body, version));
  }
}
