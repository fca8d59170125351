import { Module } from '@nestjs/common';
import { stepFinished, stepLeftOut } from '../production/index.js';
import { ObstaclesController } from './obstacles.controller.js';
import { forgetOfStep, settleOfStep } from './use-cases/settle.js';

export { raiseObstacle } from './use-cases/raise.js';
export { settleObstacle } from './use-cases/settle.js';

@Module({ controllers: [ObstaclesController] })
export class ObstaclesModule {}

stepFinished.add(settleOfStep);
stepLeftOut.add(forgetOfStep);
