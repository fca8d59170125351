import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  GoalBody,
  GoalReadingBody,
  StrategyNoteBody,
  type GoalMadeShape,
  type GoalsShape,
  type StrategyNoteMadeShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { goalsOf } from './queries/goals.js';
import { addGoal, changeGoal, putReading, setGoalAway } from './use-cases/goals.js';
import { addStrategyNote, changeStrategyNote, setStrategyNoteAway } from './use-cases/strategy.js';

@Controller()
export class GoalsController {
  constructor(private readonly app: App) {}

  /** What a client is to get to, how it stands, and what is known of its strategy. */
  @Get('clients/:clientId/goals')
  @Access('goal.read', { client: 'clientId' })
  async list(@Param('clientId') clientId: string): Promise<GoalsShape> {
    const goals = await goalsOf(this.app, clientId);
    if (!goals) throw Problem.of('client.archived');
    return goals;
  }

  @Post('clients/:clientId/goals')
  @Access('goal.edit', { client: 'clientId' })
  async add(@CurrentViewer() viewer: Viewer, @Param('clientId') clientId: string, @Body() body: GoalBody): Promise<GoalMadeShape> {
    return { goalId: valueOrProblem(await addGoal(this.app, viewer, clientId, body)) };
  }

  /** Changes a goal. Needs If-Match with its version. */
  @Put('goals/:goalId')
  @HttpCode(204)
  @Access('goal.edit', { goal: 'goalId' })
  async change(
    @CurrentViewer() viewer: Viewer,
    @Param('goalId') goalId: string,
    @Body() body: GoalBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await changeGoal(this.app, viewer, goalId, body, version));
  }

  /** Puts a goal away. */
  @Delete('goals/:goalId')
  @HttpCode(204)
  @Access('goal.edit', { goal: 'goalId' })
  async archive(@CurrentViewer() viewer: Viewer, @Param('goalId') goalId: string): Promise<void> {
    valueOrProblem(await setGoalAway(this.app, viewer, goalId, true));
  }

  @Post('goals/:goalId/restore')
  @HttpCode(204)
  @Access('goal.edit', { goal: 'goalId' })
  async restore(@CurrentViewer() viewer: Viewer, @Param('goalId') goalId: string): Promise<void> {
    valueOrProblem(await setGoalAway(this.app, viewer, goalId, false));
  }

  /** Says what its measure was on a day. */
  @Put('goals/:goalId/reading')
  @HttpCode(204)
  @Access('goal.edit', { goal: 'goalId' })
  async reading(@CurrentViewer() viewer: Viewer, @Param('goalId') goalId: string, @Body() body: GoalReadingBody): Promise<void> {
    valueOrProblem(await putReading(this.app, viewer, goalId, body));
  }

  @Post('clients/:clientId/strategy')
  @Access('goal.edit', { client: 'clientId' })
  async addNote(
    @CurrentViewer() viewer: Viewer,
    @Param('clientId') clientId: string,
    @Body() body: StrategyNoteBody,
  ): Promise<StrategyNoteMadeShape> {
    return { noteId: valueOrProblem(await addStrategyNote(this.app, viewer, clientId, body)) };
  }

  /** Changes a strategy note. Needs If-Match with its version. */
  @Put('strategy/:strategyId')
  @HttpCode(204)
  @Access('goal.edit', { strategy: 'strategyId' })
  async changeNote(
    @CurrentViewer() viewer: Viewer,
    @Param('strategyId') strategyId: string,
    @Body() body: StrategyNoteBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await changeStrategyNote(this.app, viewer, strategyId, body, version));
  }

  @Delete('strategy/:strategyId')
  @HttpCode(204)
  @Access('goal.edit', { strategy: 'strategyId' })
  async takeOff(@CurrentViewer() viewer: Viewer, @Param('strategyId') strategyId: string): Promise<void> {
    valueOrProblem(await setStrategyNoteAway(this.app, viewer, strategyId, true));
  }

  @Post('strategy/:strategyId/restore')
  @HttpCode(204)
  @Access('goal.edit', { strategy: 'strategyId' })
  async putBack(@CurrentViewer() viewer: Viewer, @Param('strategyId') strategyId: string): Promise<void> {
    valueOrProblem(await setStrategyNoteAway(this.app, viewer, strategyId, false));
  }
}
