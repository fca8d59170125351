import { Module } from '@nestjs/common';
import { wentOut } from '../calendar/index.js';
import { FollowUpsController } from './follow-ups.controller.js';
import { makeFollowUps } from './use-cases/make-follow-ups.js';

export { enterPlacement, putFollowUpList, settleFollowUp } from './use-cases/edit-follow-ups.js';

// before anything is started: the demo's loader works without
wentOut.add(makeFollowUps);

@Module({ controllers: [FollowUpsController] })
export class FollowUpsModule {}
