import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Put, UploadedFile, UseInterceptors } from '@nestjs/common';
import { ApiConsumes } from '@nestjs/swagger';
import {
  AwayBody,
  CoverBody,
  EditPersonBody,
  GiveStepsBody,
  ImportTimeOffBody,
  RoundUpBody,
  NewPersonBody,
  TimeOffBody,
  type AwayShape,
  type FoundTimeOffShape,
  type PersonMadeShape,
  type PersonPageShape,
  type PersonRow,
} from '@zesting/contract';
import { isId } from '@zesting/core';
import { Access, CurrentViewer, type Viewer } from '../../platform/access/access.js';
import { App } from '../../platform/app.js';
import { IfMatch } from '../../platform/http/if-match.js';
import { Problem, valueOrProblem } from '../../platform/http/problem.js';
import { assignStep, OneFile, uploadOf } from '../production/index.js';
import { previewAway } from './queries/away.js';
import { personPage, personRows } from './queries/person-page.js';
import { editPerson, invitePerson, makePerson, setRoundUp, takeBackInvite } from './use-cases/edit-person.js';
import { comeBack, leave } from './use-cases/leave.js';
import { addCover, addTimeOff, goAway, importTimeOff, readTimeOffFile, removeCover, removeTimeOff } from './use-cases/time-off.js';

@Controller('people')
export class PeopleController {
  constructor(private readonly app: App) {}

  @Get()
  @Access('person.list')
  list(): Promise<PersonRow[]> {
    return personRows(this.app);
  }

  /** Takes somebody on and sends the invitation. */
  @Post()
  @Access('person.edit')
  async make(@CurrentViewer() viewer: Viewer, @Body() body: NewPersonBody): Promise<PersonMadeShape> {
    return { personId: valueOrProblem(await makePerson(this.app, viewer, body)) };
  }

  @Get(':personId')
  @Access('person.read', { person: 'personId' })
  show(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<PersonPageShape> {
    return personPage(this.app, viewer, personId);
  }

  /** Changes what is given. Needs If-Match with the person's version; a conflict answers with both states. */
  @Patch(':personId')
  @Access('person.edit', { person: 'personId' })
  async edit(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Body() body: EditPersonBody,
    @IfMatch() version: number,
  ): Promise<PersonPageShape> {
    const result = await editPerson(this.app, viewer, personId, body, version);
    if (!result.ok && result.failure.code === 'http.changed_meanwhile')
      throw Problem.of('http.changed_meanwhile', { yours: body, theirs: await personPage(this.app, viewer, personId) });
    valueOrProblem(result);
    return personPage(this.app, viewer, personId);
  }

  @Post(':personId/invite')
  @HttpCode(204)
  @Access('person.edit', { person: 'personId' })
  async invite(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<void> {
    valueOrProblem(await invitePerson(this.app, viewer, personId));
  }

  @Delete(':personId/invite')
  @HttpCode(204)
  @Access('person.edit', { person: 'personId' })
  async takeBackInvite(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<void> {
    valueOrProblem(await takeBackInvite(this.app, viewer, personId));
  }

  /** Ends the person's access at once; the answer lists the steps to be given to others. */
  @Post(':personId/leave')
  @HttpCode(200)
  @Access('person.edit', { person: 'personId' })
  async leave(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<PersonPageShape> {
    valueOrProblem(await leave(this.app, viewer, personId));
    return personPage(this.app, viewer, personId);
  }

  @Post(':personId/come-back')
  @HttpCode(204)
  @Access('person.edit', { person: 'personId' })
  async comeBack(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string): Promise<void> {
    valueOrProblem(await comeBack(this.app, viewer, personId));
  }

  /** Gives steps of this person to another; each by itself, so that what cannot be given stays and is told. */
  @Post(':personId/give-steps')
  @HttpCode(204)
  @Access('person.edit', { person: 'personId' })
  async giveSteps(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string, @Body() body: GiveStepsBody): Promise<void> {
    const own = await this.app.read<{ id: string }>('select id from steps where doer_id = $1 and id = any($2) and finished_on is null', [
      personId,
      body.stepIds,
    ]);
    for (const { id } of own) valueOrProblem(await assignStep(this.app, viewer, id, body.personId));
  }

  @Post(':personId/time-off')
  @HttpCode(204)
  @Access('time_off.edit', { person: 'personId' })
  async addTimeOff(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string, @Body() body: TimeOffBody): Promise<void> {
    valueOrProblem(await addTimeOff(this.app, viewer, personId, body));
  }

  /** What an absence would make late, and who could take over. Nothing is entered. */
  @Post(':personId/away/preview')
  @HttpCode(200)
  @Access('person.edit', { person: 'personId' })
  async previewAway(@Param('personId') personId: string, @Body() body: TimeOffBody): Promise<AwayShape> {
    return valueOrProblem(await previewAway(this.app, personId, body));
  }

  /** Enters an absence and gives steps away, all or none. */
  @Post(':personId/away')
  @HttpCode(204)
  @Access('person.edit', { person: 'personId' })
  async goAway(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string, @Body() body: AwayBody): Promise<void> {
    valueOrProblem(await goAway(this.app, viewer, personId, body));
  }

  @Delete(':personId/time-off/:timeOffId')
  @HttpCode(204)
  @Access('time_off.edit', { person: 'personId' })
  async removeTimeOff(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Param('timeOffId') timeOffId: string,
  ): Promise<void> {
    valueOrProblem(await removeTimeOff(this.app, viewer, personId, idOr404(timeOffId)));
  }

  /** Reads an iCalendar file and answers the absences found; nothing is taken over yet. */
  @Post(':personId/time-off/read-file')
  @HttpCode(200)
  @ApiConsumes('multipart/form-data')
  @Access('time_off.edit', { person: 'personId' })
  @UseInterceptors(OneFile())
  async readFile(@Param('personId') personId: string, @UploadedFile() file: Express.Multer.File | undefined): Promise<FoundTimeOffShape> {
    return valueOrProblem(await readTimeOffFile(this.app, personId, uploadOf(file).bytes.toString('utf8')));
  }

  @Post(':personId/time-off/import')
  @HttpCode(204)
  @Access('time_off.edit', { person: 'personId' })
  async importTimeOff(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Body() body: ImportTimeOffBody,
  ): Promise<void> {
    valueOrProblem(await importTimeOff(this.app, viewer, personId, body.absences));
  }

  /** How often the person's own messages go out. */
  @Put(':personId/round-up')
  @HttpCode(204)
  @Access('round_up.edit', { person: 'personId' })
  async roundUp(@Param('personId') personId: string, @Body() body: RoundUpBody): Promise<void> {
    valueOrProblem(await setRoundUp(this.app, personId, body));
  }

  @Post(':personId/covers')
  @HttpCode(204)
  @Access('cover.edit', { person: 'personId' })
  async addCover(@CurrentViewer() viewer: Viewer, @Param('personId') personId: string, @Body() body: CoverBody): Promise<void> {
    valueOrProblem(await addCover(this.app, viewer, personId, body));
  }

  @Delete(':personId/covers/:coverId')
  @HttpCode(204)
  @Access('cover.edit', { person: 'personId' })
  async removeCover(
    @CurrentViewer() viewer: Viewer,
    @Param('personId') personId: string,
    @Param('coverId') coverId: string,
  ): Promise<void> {
    valueOrProblem(await removeCover(this.app, viewer, personId, idOr404(coverId)));
  }
}

function idOr404(id: string): string {
  if (!isId(id)) throw Problem.of('access.not_found');
  return id;
}
