import { Module } from '@nestjs/common';
import { CalendarController, FeedController } from './calendar.controller.js';

export { Placement } from './entities/placement.entity.js';
export { addPlacement, cancelPlacement, markOut, movePlacement } from './use-cases/place.js';

@Module({ controllers: [CalendarController, FeedController] })
export class CalendarModule {}
