import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  DutyBody,
  DutyDayBody,
  DutyMissedBody,
  GiveDutiesBody,
  type DutiesGivenShape,
  type PersonDutyShape,
  type DutiesShape,
  type DutyDaysShape,
  type DutyMadeShape,
  type MyDutiesShape,
} from '@zesting/contract';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { dutiesOf, dutiesOfPerson, dutyDaysOf, myDutiesOf } from './queries/duties.js';
import { addDuty, changeDuty, endDuty } from './use-cases/duties.js';
import { giveDuties } from './use-cases/give-duties.js';
import { leaveOutMissed, markDuty } from './use-cases/mark.js';

@Controller('duties')
export class DutiesController {
  constructor(private readonly app: App) {}

  /** Duties of one client, or of all of the viewer's and the agency's own. */
  @Get()
  @Access('duty.read')
  async list(@CurrentViewer() viewer: Viewer, @Query('clientId') clientId?: string): Promise<DutiesShape> {
    if (clientId !== undefined && !viewer.clientIds.includes(clientId)) throw Problem.of('access.not_found');
    return dutiesOf(this.app, clientId === undefined ? viewer.clientIds : [clientId], { ownToo: clientId === undefined });
  }

  /** The viewer's own that can be done now, or were missed. */
  @Get('mine')
  @Access('duty.do')
  mine(@CurrentViewer() viewer: Viewer): Promise<MyDutiesShape> {
    return myDutiesOf(this.app, viewer);
  }

  @Post()
  @Access('duty.edit')
  async add(@CurrentViewer() viewer: Viewer, @Body() body: DutyBody): Promise<DutyMadeShape> {
    return { dutyId: valueOrProblem(await addDuty(this.app, viewer, body)) };
  }

  /** Changes a duty from today on. Needs If-Match with its version. */
  @Put(':dutyId')
  @HttpCode(204)
  @Access('duty.edit', { duty: 'dutyId' })
  async change(
    @CurrentViewer() viewer: Viewer,
    @Param('dutyId') dutyId: string,
    @Body() body: DutyBody,
    @IfMatch() version: number,
  ): Promise<void> {
    valueOrProblem(await changeDuty(this.app, viewer, dutyId, body, version));
  }

  @Delete(':dutyId')
  @HttpCode(204)
  @Access('duty.edit', { duty: 'dutyId' })
  async end(@CurrentViewer() viewer: Viewer, @Param('dutyId') dutyId: string): Promise<void> {
    valueOrProblem(await endDuty(this.app, viewer, dutyId));
  }

  /** What has been of it, and what comes. */
  @Get(':dutyId/days')
  @Access('duty.read', { duty: 'dutyId' })
  async days(@Param('dutyId') dutyId: string): Promise<DutyDaysShape> {
    return { days: await dutyDaysOf(this.app, dutyId) };
  }

  /** Says what became of one time of it: by whoever does it, or manages its client. */
  @Put(':dutyId/day')
  @HttpCode(204)
  @Access('duty.do', { doneDuty: 'dutyId' })
  async mark(@CurrentViewer() viewer: Viewer, @Param('dutyId') dutyId: string, @Body() body: DutyDayBody): Promise<void> {
    valueOrProblem(await markDuty(this.app, viewer, dutyId, body));
  }

  /** Leaves out all that was missed up to a day. */
  @Post(':dutyId/missed')
  @HttpCode(204)
  @Access('duty.do', { doneDuty: 'dutyId' })
  async missed(@CurrentViewer() viewer: Viewer, @Param('dutyId') dutyId: string, @Body() body: DutyMissedBody): Promise<void> {
    valueOrProblem(await leaveOutMissed(this.app, viewer, dutyId, body.untilOn));
  }
}

/** Duties of one person, for who gives them to somebody else. */
@Controller('people/:personId/duties')
export class PersonDutiesController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('duty.give', { person: 'personId' })
  list(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<PersonDutyShape[]> {
    return dutiesOfPerson(this.app, personId, viewer.zone);
  }

  /** Gives all that still hold to somebody else. */
  @Post('give')
  @HttpCode(200)
  @Access('duty.give', { person: 'personId' })
  async give(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Body() body: GiveDutiesBody,
  ): Promise<DutiesGivenShape> {
    return { given: valueOrProblem(await giveDuties(this.app, viewer, personId, body.personId)) };
  }
}
