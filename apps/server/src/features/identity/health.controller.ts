import { Body, Controller, Get, HttpCode, Put, Res, ServiceUnavailableException, type OnModuleDestroy } from '@nestjs/common';
import { HealthCheckService, HealthIndicatorService, TypeOrmHealthIndicator, type HealthCheckResult } from '@nestjs/terminus';
import { ApiOkResponse, ApiServiceUnavailableResponse } from '@nestjs/swagger';
import { ClockBody, HealthShape } from '@zesting/contract';
import type { Response } from 'express';
import { ok } from '@zesting/core';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { Problem } from '../../platform/http/problem.js';
import { fingerprint, publicKeyText, signingKey } from '../../platform/signing.js';
import { addJob, Jobs } from '../../platform/jobs/jobs.js';

/** How long the database may take to answer before it counts as away. */
const PATIENCE_MS = 5_000;

@Controller('health')
export class HealthController implements OnModuleDestroy {
  private readonly recordKey: string;
  private isStopping = false;

  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
    private readonly checks: HealthCheckService,
    private readonly typeOrm: TypeOrmHealthIndicator,
    private readonly indicators: HealthIndicatorService,
  ) {
    this.recordKey = fingerprint(publicKeyText(signingKey(app.config.serverKey)));
  }

  /** Called before the server stops listening. */
  onModuleDestroy(): void {
    this.isStopping = true;
  }

  /** Whether to send requests here: no longer while it stops, nor while the database is away. For what stands in front. */
  @Get('ready')
  @HttpCode(204)
  @Access('open')
  async ready(): Promise<void> {
    if (this.isStopping) throw Problem.of('http.try_again');
    await this.app.read('select 1');
  }

  /** How the server is. 503 while the database is away or no jobs run: it comes back by itself. */
  @Get()
  @Access('open')
  @ApiOkResponse({ type: HealthShape })
  @ApiServiceUnavailableResponse({ type: HealthShape })
  async show(@Res({ passthrough: true }) response: Response): Promise<HealthShape> {
    const checks = [
      () => this.typeOrm.pingCheck('database', { timeout: PATIENCE_MS }),
      () => (this.jobs.isRunning() ? this.indicators.check('jobs').up() : this.indicators.check('jobs').down()),
    ];
    const { status, details } = await this.checks.check(checks).catch((error: unknown) => {
      if (error instanceof ServiceUnavailableException) return error.getResponse() as HealthCheckResult; // as the service throws it
      throw error;
    });
    const isUp = (name: string) => details[name]?.status === 'up';
    if (status !== 'ok') response.status(503);
    return {
      status: status === 'ok' ? 'ok' : 'failing',
      database: isUp('database'),
      jobs: isUp('jobs'),
      version: '0.1.0',
      recordKey: this.recordKey,
    };
  }
}

/** Sets the server's clock. Mounted only where the server runs for tests. */
@Controller('clock')
export class ClockController {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  /** Sets the clock, and starts at once what the clock starts. */
  @Put()
  @HttpCode(204)
  @Access('open')
  async set(@Body() body: ClockBody): Promise<void> {
    this.app.clock.set(body.now === '' ? null : body.now);
    await this.app.write(async (tx) => {
      for (const task of this.jobs.byTheClock()) await addJob(tx, task, {});
      return ok(null);
    });
  }
}
