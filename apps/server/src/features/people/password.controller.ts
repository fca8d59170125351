import { Body, Controller, Get, HttpCode, Post, UseGuards } from '@nestjs/common';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import { ForgottenBody, SetPasswordBody, type InviteShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { answerInvite, answerReset, forgotten, whoseOf } from './use-cases/choose-password.js';

/** Answering an invitation, by its link. */
@Controller('invites/:linkId')
export class InviteController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('invite.answer')
  show(@CurrentLink() personId: string): Promise<InviteShape> {
    return whoseOf(this.app, personId);
  }

  @Post('password')
  @HttpCode(204)
  @Access('invite.answer')
  async setPassword(@CurrentLink() personId: string, @Body() body: SetPasswordBody): Promise<void> {
    valueOrProblem(await answerInvite(this.app, personId, body.password));
  }
}

/** A forgotten password: asking for a link, and answering it. */
@Controller('resets')
export class ResetController {
  constructor(private readonly app: App) {}

  /** Sends a link to choose a new password to who works here under that address. The answer does not tell whether anybody does. */
  @Post()
  @HttpCode(204)
  @Access('open')
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 10, ttl: 60_000 } })
  async ask(@Body() body: ForgottenBody): Promise<void> {
    await forgotten(this.app, body.email);
  }

  @Get(':linkId')
  @Access('reset.answer')
  async show(@CurrentLink() resetId: string): Promise<InviteShape> {
    const [reset] = await this.app.read<{ person_id: string }>('select person_id from password_resets where id = $1', [resetId]);
    return whoseOf(this.app, reset?.person_id ?? '');
  }

  @Post(':linkId/password')
  @HttpCode(204)
  @Access('reset.answer')
  async setPassword(@CurrentLink() resetId: string, @Body() body: SetPasswordBody): Promise<void> {
    valueOrProblem(await answerReset(this.app, resetId, body.password));
  }
}
