import { Body, Controller, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { FollowUpListBody, FollowUpStateBody, type FollowUpListsShape, type FollowUpsShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { followUpListsOf, followUpsOf } from './queries/follow-ups.js';
import { putFollowUpList, settleFollowUp } from './use-cases/edit-follow-ups.js';

@Controller()
export class FollowUpsController {
  constructor(private readonly app: App) {}

  /** What is to be done after something went out. */
  @Get('follow-ups')
  @Access('follow_up.do')
  all(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<FollowUpsShape> {
    const clientIds = clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId);
    return followUpsOf(this.app, clientIds, viewer.zone);
  }

  /** Says that one is done or left out, or open again. */
  @Put('follow-ups/:followUpId')
  @HttpCode(204)
  @Access('follow_up.do', { follow_up: 'followUpId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('followUpId') followUpId: string, @Body() body: FollowUpStateBody): Promise<void> {
    valueOrProblem(await settleFollowUp(this.app, viewer, followUpId, body.state));
  }

  /** What is done after something goes out on each of a client's channels. */
  @Get('clients/:clientId/follow-up-lists')
  @Access('follow_up.edit', { client: 'clientId' })
  async lists(@Param('clientId') clientId: string): Promise<FollowUpListsShape> {
    return { lists: await followUpListsOf(this.app, clientId) };
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
