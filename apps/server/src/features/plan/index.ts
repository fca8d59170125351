import { Module } from '@nestjs/common';
import { IdeasController, IdeaUploadsController } from './ideas.controller.js';
import { PlanController } from './plan.controller.js';

export { addRule, exceptSlot } from './use-cases/rhythm.js';
export { putProductionDay } from './use-cases/production-day.js';
export { addRunUp, makeRunUp } from './use-cases/run-up.js';
export { startMonth } from './use-cases/start-month.js';
export { setCycle, setTheme } from './use-cases/themes.js';
export { catchIdea, combineIdeas, keepIdea, putIdea, type Catcher } from './use-cases/ideas.js';
export { slotsAhead } from './queries/rhythm.js';

@Module({ controllers: [PlanController, IdeasController, IdeaUploadsController] })
export class PlanModule {}
