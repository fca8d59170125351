import { Module } from '@nestjs/common';
import { pieceMade } from '../production/index.js';
import { CalendarController, FeedController } from './calendar.controller.js';
import { placeUndated } from './use-cases/placement-store.js';

export { beginPiece, putPiece, type BeginFailure } from './use-cases/begin-piece.js';
export { Placement } from './entities/placement.entity.js';
export { moveZone, putClosures } from './use-cases/of-client.js';
export { clocksOf, markersOf } from './queries/calendar.js';
export { themesOf, themesShown } from './queries/themes-of.js';
export { lockPlacement } from './use-cases/placement-store.js';
export { addMarker, addMarkers, removeMarker, shiftMarkers } from './use-cases/markers.js';
export {
  addPlacement,
  cancelPlacement,
  duplicatePlacement,
  markOut,
  movePlacement,
  putOut,
  putAgain,
  putPlacement,
  type AgainFailure,
  restorePlacement,
  swapPlacements,
  wentAt,
  wentOut,
  type MoveFailure,
  type OutTimeFailure,
  type WentOutEvent,
} from './use-cases/place.js';

// before anything is started: the demo's loader works without
pieceMade.add(placeUndated);

@Module({ controllers: [CalendarController, FeedController] })
export class CalendarModule {}
