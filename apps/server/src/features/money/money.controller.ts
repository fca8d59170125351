import { Body, Controller, Get, HttpCode, Param, Put, Query } from '@nestjs/common';
import { AgreedAmountsBody, type AgreedAmountsShape, type MoneyMonthShape } from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { Fee } from './entities/fee.entity.js';
import { Rate } from './entities/rate.entity.js';
import { moneyMonth } from './queries/month.js';
import { currencyOf } from './queries/rates.js';
import { agreeFee, agreeRate } from './use-cases/agree.js';

const MONTH = /^\d{4}-(0[1-9]|1[0-2])$/;

@Controller()
export class MoneyController {
  constructor(private readonly app: App) {}

  /** A month of the viewer's clients in money. */
  @Get('money')
  @Access('money.read')
  month(@CurrentViewer() viewer: Viewer, @Query('month') month: string): Promise<MoneyMonthShape> {
    if (!MONTH.test(month ?? '')) throw Problem.of('http.invalid', { errors: { month: ['matches'] } });
    return moneyMonth(this.app, viewer, month);
  }

  /** What a client pays for a month, since when. */
  @Get('clients/:clientId/fee')
  @Access('fee.read', { client: 'clientId' })
  async fee(@Param('clientId') clientId: string): Promise<AgreedAmountsShape> {
    return this.shape(await this.app.manager.findOneBy(Fee, { clientId }));
  }

  /** Agrees a client's fee. Needs If-Match with the version of what was agreed before, 0 where nothing was. */
  @Put('clients/:clientId/fee')
  @HttpCode(204)
  @Access('fee.edit', { client: 'clientId' })
  async agreeFee(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: AgreedAmountsBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const done = await agreeFee(this.app, viewer, clientId, body.agreed, version);
    if (!done.ok && done.failure.code === 'http.changed_meanwhile')
      throw Problem.of(done.failure.code, { theirs: await this.fee(clientId) });
    valueOrProblem(done);
  }

  /** What an hour of somebody costs, since when. */
  @Get('people/:personId/rate')
  @Access('rate.read', { person: 'personId' })
  async rate(@Param('personId') personId: string): Promise<AgreedAmountsShape> {
    return this.shape(await this.app.manager.findOneBy(Rate, { personId }));
  }

  /** Says what an hour of somebody costs. Needs If-Match with the version of what was said before, 0 where nothing was. */
  @Put('people/:personId/rate')
  @HttpCode(204)
  @Access('rate.edit', { person: 'personId' })
  async agreeRate(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Body() body: AgreedAmountsBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const done = await agreeRate(this.app, viewer, personId, body.agreed, version);
    if (!done.ok && done.failure.code === 'http.changed_meanwhile')
      throw Problem.of(done.failure.code, { theirs: await this.rate(personId) });
    valueOrProblem(done);
  }

  private async shape(found: Fee | Rate | null): Promise<AgreedAmountsShape> {
    return { agreed: found?.agreed ?? [], currency: await currencyOf(this.app), version: found?.version ?? 0 };
  }
}
