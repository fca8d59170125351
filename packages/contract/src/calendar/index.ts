import { IsBoolean, IsIn, IsInt, IsString, IsUUID, IsUrl, Max, MaxLength, Min } from 'class-validator';
import { IsNotBlank, IsDay, IsTimeOfDay, Optional, OptionalOrNull, OrNull } from '../fields/index.js';
import { NewPieceBody } from '../intake/index.js';
import { PlacementShape } from '../production/index.js';
import type { Crop, PieceStage, PlacementState, ShapeRules } from '@zesting/core';

/** A piece that is begun by hand. */
export class BeginPieceBody extends NewPieceBody {
  /** without one it is called by its format and day */
  @Optional()
  @IsString()
  @MaxLength(200)
  title?: string;

  /** a piece of the same client whose content it begins with */
  @OptionalOrNull()
  @IsUUID()
  fromId?: string | null;

  /** whether it stands on its channels on the wished day, at their usual times */
  @IsBoolean()
  isPencilled: boolean;
}

export class AddPlacementBody {
  @IsUUID()
  channelId: string;
}

export class MovePlacementBody {
  /** the day in the client's zone; null takes the date away */
  @OptionalOrNull()
  @IsDay()
  on: string | null;

  /** the time in the client's zone; without it the client's usual time */
  @OptionalOrNull()
  @IsTimeOfDay()
  at?: string | null;

  /** *this one*, or *all not yet out* by as many days; without it this one */
  @Optional()
  @IsIn(['this', 'all'])
  scope?: 'this' | 'all';
}

export class SwapBody {
  @IsUUID()
  withId: string;
}

/** The same piece once more. */
export class DuplicateBody {
  @IsUUID()
  channelId: string;

  @IsDay()
  on: string;

  /** without it the usual time there */
  @OptionalOrNull()
  @IsTimeOfDay()
  at?: string | null;
}

/** What can be put on the calendar by hand. */
export const MARKER_KINDS = [
  'launch',
  'offer',
  'email',
  'live',
  'event',
  'conference',
  'season_busy',
  'season_quiet',
  'production_day',
  'blackout',
  'closure',
  'own',
] as const;
export type MarkerKind = (typeof MARKER_KINDS)[number];

export class MarkerBody {
  /** null: the agency's own, on every calendar */
  @OrNull()
  @IsUUID()
  clientId: string | null;

  @IsIn(MARKER_KINDS)
  kind: MarkerKind;

  /** which of the agency's own kinds, where it is one */
  @OptionalOrNull()
  @IsUUID()
  kindId?: string | null;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsDay()
  startOn: string;

  @IsDay()
  endOn: string;

  /** days before its first on which its preparation begins; null: it needs none; left out: as usual for its kind. Closures have none */
  @OptionalOrNull()
  @IsInt()
  @Min(0)
  @Max(400)
  leadDays?: number | null;
}

export class MarkerMadeShape {
  markerId: string;
}

/** Where what went out can be seen, and when it went. */
export class MarkOutBody {
  /** the day on which it really went, by the client's clock; without it now, or as it was */
  @OptionalOrNull()
  @IsDay()
  on?: string | null;

  /** the time of that day */
  @OptionalOrNull()
  @IsTimeOfDay()
  at?: string | null;

  @OptionalOrNull()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  address?: string | null;
}

export class StandingMarkerShape {
  kind: 'blackout' | 'production_day' | 'too_early' | 'too_late';
  /** of the last two the day: not before, not after */
  name: string;
}

/** A pillar in the mix of a period: what it should have, and what is placed. */
export class MixRowShape {
  /** null: pieces without a pillar */
  pillarId: string | null;
  name: string;
  share: number;
  count: number;
  actual: number;
  owed: number;
}

export class MixShape {
  /** pieces placed in the period */
  total: number;
  rows: MixRowShape[];
}

/** What a move did to the piece's path. */
/** What was made from a piece that moved, and stayed where it was. */
export class LeftBehindShape {
  pieceId: string;
  /** the piece's day before and now */
  from: string;
  to: string;
  /** placements that could move along */
  count: number;
}

export class MovedShape {
  placement: PlacementShape;
  danger: string | null;
  slackDays: number | null;
  /** titles of steps that can no longer be met */
  lateSteps: string[];
  earliestPublishOn: string | null;
  /** siblings that moved with it */
  others: number;
  spinOffs: LeftBehindShape | null;
  /** what stands on the day there and speaks against it, or takes its people: blackouts and production days */
  markers: StandingMarkerShape[];
}

/** Between which days something may be out; null: any. */
export class PublishWindowShape {
  notBeforeOn: string | null;
  notAfterOn: string | null;
}

export class CalendarEntryShape extends PlacementShape {
  pieceTitle: string;
  pieceNumber: number;
  stage: PieceStage;
  publishAt: string | null;
  channelKind: string;
  pillarId: string | null;
  formatId: string;
  formatName: string;
  campaignId: string | null;
  campaignName: string | null;
  /** its first picture, where a week or less is asked for */
  pictureId: string | null;
  /** the earliest day on which its path can bring it out; null: not known, or all is done */
  earliestOn: string | null;
  /** between which days it may be out */
  window: PublishWindowShape;
  /** other dated placements of the piece that are not yet out */
  siblings: number;
}

/** A marker on one of its days. */
export class MarkerShape {
  /** null for what comes from the region's calendar */
  id: string | null;
  on: string;
  startOn: string;
  endOn: string;
  name: string;
  kind: MarkerKind | 'holiday' | 'observance';
  /** of the agency's own kinds */
  kindId: string | null;
  kindName: string | null;
  clientId: string | null;
  /** days before its first on which its preparation begins; null: it needs none */
  leadDays: number | null;
  /** whether a run-up, or what is made on it, hangs on it and goes with it for good */
  isBound: boolean;
  /** null: it is not edited here */
  version: number | null;
}

/** What the clock says at a client's, beside the viewer's own. */
export class ClientClockShape {
  clientId: string;
  zone: string;
  /** the client's date now */
  todayOn: string;
  /** the client's time now */
  nowAt: string;
  /** when the client's next day begins, by the viewer's clock */
  nextDayAt: string;
  /** whether that is still on the viewer's today */
  nextDayIsToday: boolean;
}

/** The day by which a piece has to be done, for what is placed of it. */
export class DueShape {
  pieceId: string;
  clientId: string;
  title: string;
  on: string;
  /** what has to be done by then */
  stepTitle: string;
  doerName: string | null;
}

/** A picture as it goes out on a channel. */
export class LookPictureShape {
  assetId: string;
  /** in pixels, as it was brought */
  width: number | null;
  height: number | null;
  /** how it is cut; null: it goes out whole */
  crop: Crop | null;
}

/** A placement as those see it who follow the channel. */
export class LookShape {
  placementId: string;
  pieceId: string;
  title: string;
  on: string;
  at: string;
  state: PlacementState;
  /** the first picture that goes out there; null: none does */
  picture: LookPictureShape | null;
}

/** A channel in the order in which it is published, the newest first; what is planned stands in it too. */
export class ChannelLookShape {
  /** the shapes of its pictures */
  rules: ShapeRules;
  looks: LookShape[];
  /** where the next page begins; null: there is none */
  next: string | null;
}

/** How much stands on a day. */
export class DayCountShape {
  on: string;
  /** signed, on its way or out */
  firm: number;
  pencilled: number;
  /** its time passed, or it failed */
  failed: number;
}

/** A stretch of the calendar in numbers. */
export class CalendarCountsShape {
  /** days on which something stands, in order */
  days: DayCountShape[];
  /** each once, by its first day */
  markers: MarkerShape[];
}

export class CalendarShape {
  /** the first of each day */
  entries: CalendarEntryShape[];
  /** how many more there are on these days */
  hidden: number;
  /** how many on these days are not asked for */
  filtered: number;
  /** where due days are asked for: the first of each day */
  dues: DueShape[];
  /** how many more are due on these days */
  duesHidden: number;
  /** undated placements of pieces that are under way or approved, approved ones first */
  tray: CalendarEntryShape[];
  /** how many more of these there are */
  trayHidden: number;
  markers: MarkerShape[];
  clocks: ClientClockShape[];
}
