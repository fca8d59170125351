import { Body, Controller, Get, HttpCode, Put } from '@nestjs/common';
import { ClockBody, type HealthShape } from '@zesting/contract';
import { ok } from '@zesting/core';
import { Access } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { fingerprint, publicKeyText, signingKey } from '../../platform/signing.js';
import { addJob, Jobs } from '../../platform/jobs/jobs.js';

@Controller('health')
export class HealthController {
  private readonly recordKey: string;

  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {
    this.recordKey = fingerprint(publicKeyText(signingKey(app.config.serverKey)));
  }

  @Get()
  @Access('open')
  async show(): Promise<HealthShape> {
    const database = await this.app.read('select 1').then(
      () => true,
      () => false,
    );
    const jobs = this.jobs.isRunning();
    return { status: database && jobs ? 'ok' : 'failing', database, jobs, version: '0.1.0', recordKey: this.recordKey };
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
