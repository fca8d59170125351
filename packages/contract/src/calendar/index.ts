import { IsNotEmpty, IsOptional, IsString, IsUrl, IsUUID, Matches, MaxLength } from 'class-validator';
import { PlacementShape } from '../production/index.js';
import type { PieceStage } from '@zesting/core';

export class AddPlacementBody {
  @IsUUID()
  channelId: string;
}

export class MovePlacementBody {
  /** the day in the client's zone; null takes the date away */
  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/)
  on: string | null;

  /** the time in the client's zone; without it the client's usual time */
  @IsOptional()
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/)
  at?: string | null;
}

export class MarkOutBody {
  @IsString()
  @IsNotEmpty()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  address: string;
}

/** What a move did to the piece's path. */
export class MovedShape {
  placement: PlacementShape;
  danger: string | null;
  slackDays: number | null;
  /** titles of steps that can no longer be met */
  lateSteps: string[];
  earliestPublishOn: string | null;
}

export class CalendarEntryShape extends PlacementShape {
  pieceTitle: string;
  pieceNumber: number;
  stage: PieceStage;
  publishAt: string | null;
}

export class MarkerShape {
  on: string;
  name: string;
  kind: 'holiday' | 'closure';
  clientId: string;
}

export class CalendarShape {
  entries: CalendarEntryShape[];
  /** undated placements of pieces that are under way or approved, approved ones first */
  tray: CalendarEntryShape[];
  markers: MarkerShape[];
}
