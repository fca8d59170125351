import { Module } from '@nestjs/common';
import { GoingOutController } from './going-out.controller.js';

export { goingOutOf } from './queries/going-out.js';
export { goingOutRow } from './queries/hand-out.js';
export { STOPPED } from './queries/stopped.js';
export { seenOf } from './seen.js';
export { checkPlacement } from './use-cases/check-placement.js';

@Module({ controllers: [GoingOutController] })
export class GoingOutModule {}
