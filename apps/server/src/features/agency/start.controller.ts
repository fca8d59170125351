import { Body, Controller, Get, HttpCode, Inject, Post, Req, UseGuards, type OnApplicationBootstrap } from '@nestjs/common';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import type { Request } from 'express';
import type { Logger } from 'pino';
import { SetUpBody, type SessionShape, type StartShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { valueOrProblem } from '../../platform/http/problem.js';
import { LOGGER } from '../../platform/logging.js';
import { beginSession } from '../identity/index.js';
import { hasAgency, needsCode, setUp, setUpCode } from './use-cases/set-up.js';

/** The beginning of an empty Zesting. */
@Controller('start')
export class StartController implements OnApplicationBootstrap {
  constructor(
    private readonly app: App,
    @Inject(LOGGER) private readonly log: Logger,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    if (needsCode(this.app.config) && !(await hasAgency(this.app)))
      this.log.warn(`Zesting is empty. Whoever sets up the agency needs this code: ${setUpCode(this.app.config)}`);
  }

  /** Whether there is an agency to sign in to, or one to be set up. */
  @Get()
  @Access('open')
  async show(): Promise<StartShape> {
    return { state: (await hasAgency(this.app)) ? 'ready' : 'empty', needsCode: needsCode(this.app.config) };
  }

  /** Sets up the agency and signs its first lead in. Once: later it answers that the agency is there. */
  @Post()
  @HttpCode(200)
  @Access('open')
  @UseGuards(ThrottlerGuard)
  @Throttle({ default: { limit: 10, ttl: 60_000 } })
  async setUp(@Body() body: SetUpBody, @Req() request: Request): Promise<SessionShape> {
    return beginSession(this.app, request, valueOrProblem(await setUp(this.app, body)));
  }
}
