import { Module } from '@nestjs/common';
import { InviteController, PeopleController } from './people.controller.js';

export { Person } from './entities/person.entity.js';
export { answerInvite, editPerson, invitePerson, makePerson } from './use-cases/edit-person.js';
export { comeBack, leave } from './use-cases/leave.js';
export { addCover, addTimeOff, importTimeOff, readTimeOffFile, removeCover, removeTimeOff } from './use-cases/time-off.js';

@Module({ controllers: [PeopleController, InviteController] })
export class PeopleModule {}
