import { Body, Controller, HttpCode, Post, Res } from '@nestjs/common';
import type { Response } from 'express';
import { LinkBody, type OpenedLinkShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { linkCookie } from '../../platform/access/links.js';
import type { LinkPurpose } from '../../platform/access/policies.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';

const DAYS_30_MS = 30 * 24 * 60 * 60 * 1000;

/** Where a link's cookie is sent: to the routes of its purpose and no others. */
const PATHS: Record<Exclude<LinkPurpose, 'feed'>, string> = {
  ask: '/api/ask',
  receipt: '/api/receipts',
  room: '/api/room',
  invite: '/api/invites',
  reset: '/api/resets',
};

/** Opening a personal link swaps it for a cookie limited to its purpose and path, apart from the staff session. */
@Controller()
export class LinkController {
  constructor(private readonly app: App) {}

  @Post('ask/open')
  @HttpCode(200)
  @Access('open')
  ask(@Body() body: LinkBody, @Res({ passthrough: true }) response: Response): Promise<OpenedLinkShape> {
    return this.open('ask', body.token, response);
  }

  @Post('receipts/open')
  @HttpCode(200)
  @Access('open')
  receipt(@Body() body: LinkBody, @Res({ passthrough: true }) response: Response): Promise<OpenedLinkShape> {
    return this.open('receipt', body.token, response);
  }

  @Post('room/open')
  @HttpCode(200)
  @Access('open')
  room(@Body() body: LinkBody, @Res({ passthrough: true }) response: Response): Promise<OpenedLinkShape> {
    return this.open('room', body.token, response);
  }

  @Post('invites/open')
  @HttpCode(200)
  @Access('open')
  invite(@Body() body: LinkBody, @Res({ passthrough: true }) response: Response): Promise<OpenedLinkShape> {
    return this.open('invite', body.token, response);
  }

  @Post('resets/open')
  @HttpCode(200)
  @Access('open')
  reset(@Body() body: LinkBody, @Res({ passthrough: true }) response: Response): Promise<OpenedLinkShape> {
    return this.open('reset', body.token, response);
  }

  private async open(purpose: Exclude<LinkPurpose, 'feed'>, token: string, response: Response): Promise<OpenedLinkShape> {
    const link = await this.app.links.open(purpose, token);
    if (!link) throw Problem.of('access.link_not_open');
    response.cookie(linkCookie(purpose, link.id), token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.app.config.publicAddress.startsWith('https:'),
      path: `${PATHS[purpose]}/${link.id}`,
      maxAge: DAYS_30_MS,
    });
    return { linkId: link.id };
  }
}
