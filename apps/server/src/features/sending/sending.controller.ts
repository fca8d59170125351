import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  ChannelLinkBody,
  SendingStopBody,
  SettleSendingBody,
  type ChannelLinksShape,
  type ChannelTriedShape,
  type SendingNowShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { tryChannel } from './channel-client.js';
import { channelAt } from './queries/channel-at.js';
import { linksOfClient, sendingNow } from './queries/sending-now.js';
import { claim } from './use-cases/claim.js';
import { putLink, removeLink } from './use-cases/edit-link.js';
import { settleSending } from './use-cases/settle.js';
import { clientOfChannel, stopSending } from './use-cases/stop.js';

@Controller()
export class SendingController {
  constructor(private readonly app: App) {}

  /** What goes out by itself at present, and what is stopped. */
  @Get('sending')
  @Access('sending.read')
  now(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<SendingNowShape> {
    return sendingNow(this.app, clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId));
  }

  /** Stops everything that goes out by itself, or lets it go again. */
  @Put('sending/stop')
  @HttpCode(204)
  @Access('sending.stop_all')
  async stopAll(@CurrentViewer() viewer: Viewer, @Body() body: SendingStopBody): Promise<void> {
    valueOrProblem(await stopSending(this.app, viewer, { clientId: null, channelId: null }, body));
  }

  /** The same of one client. */
  @Put('clients/:clientId/sending/stop')
  @HttpCode(204)
  @Access('sending.stop', { client: 'clientId' })
  async stopClient(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: SendingStopBody): Promise<void> {
    valueOrProblem(await stopSending(this.app, viewer, { clientId, channelId: null }, body));
  }

  /** The same of one channel. */
  @Put('channels/:channelId/sending/stop')
  @HttpCode(204)
  @Access('sending.stop', { channel: 'channelId' })
  async stopChannel(@CurrentViewer() viewer: Viewer, @Param('channelId') channelId: string, @Body() body: SendingStopBody): Promise<void> {
    const clientId = await clientOfChannel(this.app, channelId);
    valueOrProblem(await stopSending(this.app, viewer, { clientId, channelId }, body));
  }

  /** How a client's channels are reached by themselves; those that somebody posts to are not among them. */
  @Get('clients/:clientId/channel-links')
  @Access('channel_link.edit', { client: 'clientId' })
  async links(@Param('clientId') clientId: string): Promise<ChannelLinksShape> {
    return { links: await linksOfClient(this.app, clientId), canSimulate: this.app.config.simulatedChannels !== null };
  }

  /** Says how a channel is reached by itself. Needs If-Match with its version, 0 where it was not reached yet. */
  @Put('channels/:channelId/link')
  @HttpCode(204)
  @Access('channel_link.edit', { channel: 'channelId' })
  async putLink(
    @CurrentViewer() viewer: Viewer,
    @Param('channelId') channelId: string,
    @Body() body: ChannelLinkBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await putLink(this.app, viewer, channelId, body, version));
  }

  /** From now on somebody posts there. */
  @Delete('channels/:channelId/link')
  @HttpCode(204)
  @Access('channel_link.edit', { channel: 'channelId' })
  async removeLink(@CurrentViewer() viewer: Viewer, @Param('channelId') channelId: string): Promise<void> {
    valueOrProblem(await removeLink(this.app, viewer, channelId));
  }

  /** Whether the channel answers. Publishes nothing. */
  @Post('channels/:channelId/link/try')
  @HttpCode(200)
  @Access('channel_link.edit', { channel: 'channelId' })
  async try(@Param('channelId') channelId: string): Promise<ChannelTriedShape> {
    const at = await channelAt(this.app, channelId);
    return at ? tryChannel(at) : { name: null, reason: 'Nobody knows how to reach it' };
  }

  /** Sends it now, whatever its time: what failed, was missed, or is to go early. */
  @Post('placements/:placementId/send')
  @HttpCode(204)
  @Access('sending.decide', { placement: 'placementId' })
  async send(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string): Promise<void> {
    valueOrProblem(await claim(this.app, placementId, viewer));
  }

  /** Says what became of what the channel does not say. */
  @Post('placements/:placementId/settle')
  @HttpCode(204)
  @Access('sending.decide', { placement: 'placementId' })
  async settle(@CurrentViewer() viewer: Viewer, @Param('placementId') placementId: string, @Body() body: SettleSendingBody): Promise<void> {
    valueOrProblem(await settleSending(this.app, viewer, placementId, body));
  }
}
