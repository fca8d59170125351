import { Module } from '@nestjs/common';
import { CalendarController, FeedController } from './calendar.controller.js';

export { beginPiece } from './use-cases/begin-piece.js';
export { Placement } from './entities/placement.entity.js';
export { addMarker, removeMarker } from './use-cases/markers.js';
export {
  addPlacement,
  cancelPlacement,
  duplicatePlacement,
  markOut,
  movePlacement,
  restorePlacement,
  swapPlacements,
} from './use-cases/place.js';

@Module({ controllers: [CalendarController, FeedController] })
export class CalendarModule {}
