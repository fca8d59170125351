import { Module } from '@nestjs/common';
import { GoalsController } from './goals.controller.js';

export { addGoal, putReading } from './use-cases/goals.js';
export { addStrategyNote } from './use-cases/strategy.js';

@Module({ controllers: [GoalsController] })
export class GoalsModule {}
