import { Module } from '@nestjs/common';
import { GoingOutController } from './going-out.controller.js';

export { goingOutOf } from './queries/going-out.js';
export { checkPlacement } from './use-cases/check-placement.js';

@Module({ controllers: [GoingOutController] })
export class GoingOutModule {}
