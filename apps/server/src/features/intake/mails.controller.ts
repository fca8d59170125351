import { Body, Controller, Get, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { TakeMailBody, type MailPage, type RequestAddressShape, type TakenDownShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { AnswersBytes } from '../../platform/http/described.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { sendFile } from '../production/index.js';
import { mailPage, requestAddresses } from './queries/mails.js';
import { leaveMail, takeWaiting } from './use-cases/take-mail.js';

/** Mail to clients’ request addresses that did not become a request by itself. */
@Controller('mails')
export class MailsController {
  constructor(private readonly app: App) {}

  /** Those that wait; with `state` those that were left, or that machines wrote. */
  @Get()
  @Access('mail.list')
  list(
    @CurrentViewer() viewer: Viewer,
    @Query('state') state?: string,
    @Query('clientId') clientId?: string,
    @Query('cursor') cursor?: string,
  ): Promise<MailPage> {
    return mailPage(this.app, viewer, { state: state === 'left' || state === 'automatic' ? state : 'waiting', clientId, cursor });
  }

  @Get('addresses')
  @Access('mail.list')
  addresses(@CurrentViewer() viewer: Viewer): Promise<RequestAddressShape[]> {
    return requestAddresses(this.app, viewer);
  }

  /** The mail as it came (RFC 5322), as a download. */
  @Get(':mailId/source')
  @AnswersBytes()
  @Access('mail.read', { mail: 'mailId' })
  async source(@Param('mailId') mailId: string, @Res() response: Response): Promise<void> {
    const [mail] = await this.app.read<{ hash: string }>('select hash from incoming_mails where id = $1', [mailId]);
    if (!mail) throw new Error('the mail went away');
    return sendFile(this.app, { hash: mail.hash, mime: 'message/rfc822', name: 'mail.eml' }, response);
  }

  /** Takes it as a request, or as an answer where it answers one. */
  @Post(':mailId/take')
  @HttpCode(200)
  @Access('mail.sort', { mail: 'mailId' })
  async take(
    @CurrentViewer() viewer: Viewer,
    @Param('mailId') mailId: string,
    @Body() { asContact }: TakeMailBody,
  ): Promise<TakenDownShape> {
    return { requestId: valueOrProblem(await takeWaiting(this.app, viewer, mailId, asContact)) };
  }

  @Post(':mailId/leave')
  @HttpCode(204)
  @Access('mail.sort', { mail: 'mailId' })
  async leave(@CurrentViewer() viewer: Viewer, @Param('mailId') mailId: string): Promise<void> {
    valueOrProblem(await leaveMail(this.app, viewer, mailId, 'left'));
  }

  /** Lets it wait again. */
  @Post(':mailId/wait')
  @HttpCode(204)
  @Access('mail.sort', { mail: 'mailId' })
  async wait(@CurrentViewer() viewer: Viewer, @Param('mailId') mailId: string): Promise<void> {
    valueOrProblem(await leaveMail(this.app, viewer, mailId, 'waiting'));
  }
}
