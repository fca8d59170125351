import { Body, Controller, HttpCode, Post, UseGuards } from '@nestjs/common';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import { KnownBody, type KnownShape } from '@zesting/contract';
import { Access, CurrentLink } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { knownTo } from './queries/known.js';

/** What a contact of the client is told while they ask: they came by the link of their own room. */
@Controller('room/:linkId/known')
export class KnownController {
  constructor(private readonly app: App) {}

  @Post()
  @HttpCode(200)
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 240, ttl: 60_000 } })
  @Access('known.read')
  known(@CurrentLink() contactId: string, @Body() { title, on }: KnownBody): Promise<KnownShape> {
    return knownTo(this.app, contactId, title.trim(), on);
  }
}
