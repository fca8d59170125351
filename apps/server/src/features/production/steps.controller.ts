import { Body, Controller, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import {
  AssignBody,
  ChecklistBody,
  ChaseBody,
  HandBackBody,
  RemainingBody,
  TickBody,
  TurnDownBody,
  type CandidateShape,
  type DelaysShape,
  type ChaseShape,
  type MyStepsShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { candidatesFor, delaysFor } from './queries/candidates.js';
import { myStepsOf } from './queries/my-steps.js';
import { assignStep, doerOf, turnDownStep } from './use-cases/assign-step.js';
import { setChecklist } from './use-cases/set-checklist.js';
import { takeWith } from './use-cases/take-with.js';
import { chaseDoer, chaseOfStep } from './use-cases/chase-doer.js';
import { acceptStep, beginStep, handBack, handIn, sayRemaining, tickLine } from './use-cases/do-step.js';

@Controller('steps')
export class StepsController {
  constructor(private readonly app: App) {}

  /** The viewer's own open steps, in the order to do them. */
  @Get('mine')
  @Access('own.steps')
  mine(@CurrentViewer() viewer: Viewer): Promise<MyStepsShape> {
    return myStepsOf(this.app, viewer);
  }

  /** Says that one does a step that was given to one. */
  @Post(':stepId/accept')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async accept(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<void> {
    valueOrProblem(await acceptStep(this.app, viewer, stepId));
  }

  /** Says that one cannot do a step that was given to one. */
  @Post(':stepId/turn-down')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async turnDown(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: TurnDownBody): Promise<void> {
    valueOrProblem(await turnDownStep(this.app, viewer, stepId, body.words));
  }

  /** Who could do the step. */
  @Get(':stepId/candidates')
  @Access('step.assign', { step: 'stepId' })
  candidates(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<CandidateShape[]> {
    return candidatesFor(this.app, viewer, stepId);
  }

  /** What else becomes late with each who could do the step. */
  @Get(':stepId/delays')
  @Access('step.assign', { step: 'stepId' })
  delays(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<DelaysShape[]> {
    return delaysFor(this.app, viewer, stepId);
  }

  @Put(':stepId/doer')
  @HttpCode(204)
  @Access('step.assign', { step: 'stepId' })
  async assign(
    @CurrentViewer() viewer: Viewer,
    @Param('stepId') stepId: string,
    @Body() body: AssignBody,
    @IfMatch() version: number,
  ): Promise<void> {
    const done = await assignStep(this.app, viewer, stepId, body.personId ?? null, version);
    if (!done.ok && done.failure.code === 'http.changed_meanwhile')
      throw Problem.of(done.failure.code, { theirs: await doerOf(this.app, stepId) });
    valueOrProblem(done);
  }

  /** Names who takes a step together with its doer, to learn it. Needs If-Match with the step's version. */
  @Put(':stepId/with')
  @HttpCode(204)
  @Access('step.assign', { step: 'stepId' })
  async takeWith(
    @CurrentViewer() viewer: Viewer,
    @Param('stepId') stepId: string,
    @Body() body: AssignBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await takeWith(this.app, viewer, stepId, body.personId ?? null, version));
  }

  /** Says what is looked at before it is handed in, on this piece alone. Needs If-Match with the step's version. */
  @Put(':stepId/checklist')
  @HttpCode(204)
  @Access('step.assign', { step: 'stepId' })
  async checklist(
    @CurrentViewer() viewer: Viewer,
    @Param('stepId') stepId: string,
    @Body() body: ChecklistBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await setChecklist(this.app, viewer, stepId, body.lines, version));
  }

  @Post(':stepId/begin')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async begin(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<void> {
    valueOrProblem(await beginStep(this.app, viewer, stepId));
  }

  /** What the doer says is left. */
  @Put(':stepId/remaining')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async remaining(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: RemainingBody): Promise<void> {
    valueOrProblem(await sayRemaining(this.app, viewer, stepId, body.minutes));
  }

  /** Ticks a line of its checklist, or takes that back. */
  @Put(':stepId/tick')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async tick(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: TickBody): Promise<void> {
    valueOrProblem(await tickLine(this.app, viewer, stepId, body));
  }

  /** Hands work in, or passes a check. */
  @Post(':stepId/hand-in')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async handIn(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<void> {
    valueOrProblem(await handIn(this.app, viewer, stepId));
  }

  /** Sends checked work back to its maker, with a remark. */
  @Post(':stepId/hand-back')
  @HttpCode(204)
  @Access('step.do', { step: 'stepId' })
  async handBack(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: HandBackBody): Promise<void> {
    valueOrProblem(await handBack(this.app, viewer, stepId, body.remark, body.stepIds));
  }

  /** Who has the step, with the words of a chase ready. */
  @Get(':stepId/chase')
  @Access('step.assign', { step: 'stepId' })
  async chaseWords(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string): Promise<ChaseShape> {
    return valueOrProblem(await chaseOfStep(this.app, viewer, stepId));
  }

  @Post(':stepId/chase')
  @HttpCode(204)
  @Access('step.assign', { step: 'stepId' })
  async chase(@CurrentViewer() viewer: Viewer, @Param('stepId') stepId: string, @Body() body: ChaseBody): Promise<void> {
    valueOrProblem(await chaseDoer(this.app, viewer, stepId, body.text));
  }
}
