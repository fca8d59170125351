import { Module, type OnModuleInit } from '@nestjs/common';
import { App } from '../../platform/app.js';
import { Jobs } from '../../platform/jobs/jobs.js';
import { InviteController, ResetController } from './password.controller.js';
import { PeopleController } from './people.controller.js';
import { TeamController } from './team.controller.js';
import { ANSWER_FORGOTTEN, answerForgotten, clearResets } from './use-cases/choose-password.js';

export { putManagers, renameSkillsOfPeople } from './use-cases/client-people.js';
export { putTeamLead, putTeamRole, renameSkillsOfTeams } from './use-cases/team.js';
export { Person } from './entities/person.entity.js';
export { answerInvite } from './use-cases/choose-password.js';
export { addFirstLead, editPerson, invitePerson, makePerson } from './use-cases/edit-person.js';
export { comeBack, leave } from './use-cases/leave.js';
export { addCover, addTimeOff, importTimeOff, readTimeOffFile, removeCover, removeTimeOff } from './use-cases/time-off.js';

@Module({ controllers: [PeopleController, TeamController, InviteController, ResetController] })
export class PeopleModule implements OnModuleInit {
  constructor(
    private readonly app: App,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    this.jobs.register(ANSWER_FORGOTTEN, (payload) => answerForgotten(this.app, (payload as { email: string }).email)); // written by `forgotten` alone
    this.jobs.register('clear_resets', async () => void (await clearResets(this.app)), '17 3 * * *');
  }
}
