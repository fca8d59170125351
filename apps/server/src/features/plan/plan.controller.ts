import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import {
  AudiencesBody,
  CopyMonthBody,
  FillSlotsBody,
  MONTH,
  PlanNumbersBody,
  ProductionDayBody,
  RhythmRuleBody,
  RunUpBody,
  SlotExceptionBody,
  StartMonthBody,
  SwapThemesBody,
  ThemeBody,
  ThemeCycleBody,
  type BestFillingShape,
  type CopyMonthShape,
  type FilledSlotsShape,
  type FreeSlotsShape,
  type MonthCostShape,
  type MonthFrameShape,
  type MonthsToStartShape,
  type PieceMadeShape,
  type PlanMonthShape,
  type ProductionDayShape,
  type RhythmShape,
  type RuleMadeShape,
  type RunUpShape,
  type RunwayShape,
  type YearShape,
} from '@zesting/contract';
import { daysBetween, parseDay } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { bestFilling } from './queries/best-filling.js';
import { monthCost } from './queries/month-cost.js';
import { monthFrame, monthsToBeStarted } from './queries/month-frame.js';
import { planYear } from './queries/plan-year.js';
import { planMonth } from './queries/plan-month.js';
import { productionDayOf } from './queries/production-day.js';
import { freeSlots, rhythmOf, runwayFor } from './queries/rhythm.js';
import { runUpOf } from './queries/run-up.js';
import { copyMonth } from './use-cases/copy-month.js';
import { fillSlot } from './use-cases/fill-slot.js';
import { startMonth, unstartMonth } from './use-cases/start-month.js';
import { setAudiences, setNumbers } from './use-cases/numbers.js';
import { putProductionDay } from './use-cases/production-day.js';
import { addRule, changeRule, endRule, exceptSlot } from './use-cases/rhythm.js';
import { addRunUp, makeRunUp, removeRunUp } from './use-cases/run-up.js';
import { setCycle, setTheme, swapThemes } from './use-cases/themes.js';

/** The most days for which free slots are told at once. */
const SPAN_LIMIT_DAYS = 100;

const invalid = (field: string, rule: string): Problem => Problem.of('http.invalid', { errors: { [field]: [rule] } });

/** What there is of a client that is not archived. */
function found<T>(shape: T | undefined): T {
  if (shape === undefined) throw Problem.of('client.archived');
  return shape;
}

@Controller()
export class PlanController {
  constructor(private readonly app: App) {}

  /** A client's rhythm, as far as it holds today or later. */
  @Get('clients/:clientId/rhythm')
  @Access('plan.read', { client: 'clientId' })
  async rhythm(@Param('clientId') clientId: string): Promise<RhythmShape> {
    return found(await rhythmOf(this.app, clientId));
  }

  @Post('clients/:clientId/rhythm')
  @Access('plan.edit', { client: 'clientId' })
  async addRule(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: RhythmRuleBody,
  ): Promise<RuleMadeShape> {
    return { ruleId: valueOrProblem(await addRule(this.app, viewer, clientId, body)) };
  }

  /** Changes a rule from today on; what was before today stays as it was. Needs If-Match with its version. */
  @Put('rhythm/:ruleId')
  @Access('plan.edit', { rule: 'ruleId' })
  async changeRule(
    @CurrentViewer() viewer: Viewer,
    @Param('ruleId') ruleId: string,
    @Body() body: RhythmRuleBody,
    @IfMatch() version: number,
  ): Promise<RuleMadeShape> {
    return { ruleId: valueOrProblem(await changeRule(this.app, viewer, ruleId, body, version)) };
  }

  @Delete('rhythm/:ruleId')
  @HttpCode(204)
  @Access('plan.edit', { rule: 'ruleId' })
  async endRule(@CurrentViewer() viewer: Viewer, @Param('ruleId') ruleId: string): Promise<void> {
    valueOrProblem(await endRule(this.app, viewer, ruleId));
  }

  /** Leaves one slot out, or takes it in again. */
  @Put('rhythm/:ruleId/exception')
  @HttpCode(204)
  @Access('plan.edit', { rule: 'ruleId' })
  async except(@CurrentViewer() viewer: Viewer, @Param('ruleId') ruleId: string, @Body() body: SlotExceptionBody): Promise<void> {
    valueOrProblem(await exceptSlot(this.app, viewer, ruleId, body.on, body.isLeftOut));
  }

  /** A client's month: its slots and what stands in them, themes, markers, what the mix is owed, and what could fill the rest. */
  @Get('clients/:clientId/plan')
  @Access('plan.read', { client: 'clientId' })
  async month(@Param('clientId') clientId: string, @Query('month') month: string): Promise<PlanMonthShape> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    return found(await planMonth(this.app, clientId, month));
  }

  /** The best filling of a month: it may take a while, and ends when nobody waits for it any more. */
  @Get('clients/:clientId/plan/best')
  @Access('plan.read', { client: 'clientId' })
  async best(
    @Param('clientId') clientId: string,
    @Query('month') month: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<BestFillingShape> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    const waiting = new AbortController();
    response.on('close', () => waiting.abort());
    return valueOrProblem(await bestFilling(this.app, clientId, month, waiting.signal));
  }

  /** Twelve months of a client in layers, from the month given. */
  @Get('clients/:clientId/year')
  @Access('plan.read', { client: 'clientId' })
  async year(@Param('clientId') clientId: string, @Query('month') month: string): Promise<YearShape> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    return found(await planYear(this.app, clientId, month));
  }

  /** Months that should be under way and that nobody has begun to plan: of one client or all. */
  @Get('months-to-start')
  @Access('plan.read')
  monthsToStart(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<MonthsToStartShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return monthsToBeStarted(this.app, clientId === undefined ? viewer.clientIds : [clientId]);
  }

  /** What a month is made of before a single idea. */
  @Get('clients/:clientId/plan/frame')
  @Access('plan.read', { client: 'clientId' })
  async frame(@Param('clientId') clientId: string, @Query('month') month: string): Promise<MonthFrameShape> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    return found(await monthFrame(this.app, clientId, month));
  }

  /** Begins to plan a month. */
  @Post('clients/:clientId/plan/start')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async start(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() { month }: StartMonthBody): Promise<void> {
    valueOrProblem(await startMonth(this.app, viewer, clientId, month));
  }

  /** Takes that back. */
  @Delete('clients/:clientId/plan/start')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async unstart(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Query('month') month: string): Promise<void> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    valueOrProblem(await unstartMonth(this.app, viewer, clientId, month));
  }

  /** What the open slots of a month ask to be made, by format and skill, against the hours that are free. */
  @Get('clients/:clientId/plan/cost')
  @Access('plan.read', { client: 'clientId' })
  async cost(@Param('clientId') clientId: string, @Query('month') month: string): Promise<MonthCostShape> {
    if (!MONTH.test(month)) throw invalid('month', 'matches');
    return found(await monthCost(this.app, clientId, month));
  }

  /** Fills slots one by one; what keeps one from being filled keeps no other. */
  @Post('clients/:clientId/plan')
  @HttpCode(200)
  @Access('plan.edit', { client: 'clientId' })
  async fill(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: FillSlotsBody): Promise<FilledSlotsShape> {
    const slots = [];
    for (const slot of body.slots) {
      const filled = await fillSlot(this.app, viewer, clientId, slot);
      slots.push({
        ruleId: slot.ruleId,
        on: slot.on,
        pieceId: filled.ok ? filled.value : null,
        problem: filled.ok ? null : filled.failure.code,
      });
    }
    return { slots };
  }

  /** Copies what stands in one month into others, on the same weekdays of them; or tells what it would come to. */
  @Post('clients/:clientId/plan/copy')
  @HttpCode(200)
  @Access('plan.edit', { client: 'clientId' })
  async copy(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: CopyMonthBody): Promise<CopyMonthShape> {
    return { lines: await copyMonth(this.app, viewer, clientId, body) };
  }

  /** How many pieces a client wants out a week and a month. */
  @Put('clients/:clientId/plan/numbers')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async numbers(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: PlanNumbersBody): Promise<void> {
    valueOrProblem(await setNumbers(this.app, viewer, clientId, body));
  }

  /** Whom a client's channels reach, as somebody guesses. */
  @Put('clients/:clientId/plan/audiences')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async audiences(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: AudiencesBody): Promise<void> {
    valueOrProblem(await setAudiences(this.app, viewer, clientId, body));
  }

  @Put('clients/:clientId/themes')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async setTheme(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: ThemeBody): Promise<void> {
    valueOrProblem(await setTheme(this.app, viewer, clientId, body));
  }

  @Post('clients/:clientId/themes/swap')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async swapThemes(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: SwapThemesBody): Promise<void> {
    valueOrProblem(await swapThemes(this.app, viewer, clientId, body));
  }

  @Put('clients/:clientId/theme-cycle')
  @HttpCode(204)
  @Access('plan.edit', { client: 'clientId' })
  async setCycle(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: ThemeCycleBody): Promise<void> {
    valueOrProblem(await setCycle(this.app, viewer, clientId, body));
  }

  /** The pieces that go before and after a marker. */
  @Get('markers/:markerId/run-up')
  @Access('plan.read', { marker: 'markerId' })
  runUp(@Param('markerId') markerId: string): Promise<RunUpShape[]> {
    return runUpOf(this.app, markerId);
  }

  @Post('markers/:markerId/run-up')
  @Access('plan.edit', { marker: 'markerId' })
  async addRunUp(@CurrentViewer() viewer: Viewer, @Param('markerId') markerId: string, @Body() body: RunUpBody): Promise<RunUpShape[]> {
    valueOrProblem(await addRunUp(this.app, viewer, markerId, body));
    return runUpOf(this.app, markerId);
  }

  /** What is made together on a production day, what stands in its way, and where it could be made up for. */
  @Get('markers/:markerId/production')
  @Access('plan.read', { marker: 'markerId' })
  async production(@Param('markerId') markerId: string): Promise<ProductionDayShape> {
    const day = await productionDayOf(this.app, markerId);
    if (!day) throw Problem.of('production_day.other_kind');
    return day;
  }

  /** Says what is made on it. Needs If-Match with its version; 0 while nothing was said. */
  @Put('markers/:markerId/production')
  @Access('plan.edit', { marker: 'markerId' })
  async putProduction(
    @CurrentViewer() viewer: Viewer,
    @Param('markerId') markerId: string,
    @Body() body: ProductionDayBody,
    @IfMatch() version: number,
  ): Promise<ProductionDayShape> {
    valueOrProblem(await putProductionDay(this.app, viewer, markerId, body, version));
    return this.production(markerId);
  }

  @Delete('run-ups/:runUpId')
  @HttpCode(204)
  @Access('plan.edit', { runUp: 'runUpId' })
  async removeRunUp(@CurrentViewer() viewer: Viewer, @Param('runUpId') runUpId: string): Promise<void> {
    valueOrProblem(await removeRunUp(this.app, viewer, runUpId));
  }

  /** Makes the piece of a run-up. */
  @Post('run-ups/:runUpId/piece')
  @Access('plan.edit', { runUp: 'runUpId' })
  async makeRunUp(@CurrentViewer() viewer: Viewer, @Param('runUpId') runUpId: string): Promise<PieceMadeShape> {
    return { pieceId: valueOrProblem(await makeRunUp(this.app, viewer, runUpId)) };
  }

  /** How long what is signed and dated lasts at each client, day by day for six weeks. */
  @Get('runway')
  @Access('plan.read')
  runway(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<RunwayShape> {
    return runwayFor(this.app, clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId));
  }

  /** Slots in which nothing stands, from `from` to `to`. */
  @Get('slots')
  @Access('plan.read')
  slots(
    @CurrentViewer() viewer: Viewer,
    @Query('from') from: string,
    @Query('to') to: string,
    @Query('clientId') clientId?: string,
  ): Promise<FreeSlotsShape> {
    const [first, last] = [parseDay(from), parseDay(to)];
    if (!first || !last || first > last || daysBetween(first, last) > SPAN_LIMIT_DAYS) throw invalid('to', 'isDay');
    return freeSlots(this.app, clientId === undefined ? viewer.clientIds : viewer.clientIds.filter((id) => id === clientId), first, last);
  }
}
