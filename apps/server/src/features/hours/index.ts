import { Module } from '@nestjs/common';
import { stepFinished } from '../production/index.js';
import { HoursController } from './hours.controller.js';
import { stopOfStep } from './use-cases/clock.js';

export { addHours, startClock } from './use-cases/clock.js';

@Module({ controllers: [HoursController] })
export class HoursModule {}

stepFinished.add(stopOfStep);
