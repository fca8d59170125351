import { Type } from 'class-transformer';
import { PLACEMENT_WORK_KINDS, type PlacementWorkKind } from '@zesting/core';
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsISO8601, IsString, IsUUID, Max, MaxLength, Min, ValidateNested } from 'class-validator';
import { IsNotBlank, Optional, OrNull } from '../fields/index.js';
import { NamedPersonShape } from '../people/index.js';

/** Something that is done by hand around each placement of a channel. */
export class FollowUpItemBody {
  /** of the line that it was; left away: a new one */
  @Optional()
  @IsUUID()
  key?: string;

  @IsIn(PLACEMENT_WORK_KINDS)
  kind: PlacementWorkKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  words: string;

  /** before the placement's day, or after the day on which it went out; 0: on the day itself */
  @IsInt()
  @Min(0)
  @Max(365)
  days: number;

  /** a follow-up for so many days, each of them */
  @IsInt()
  @Min(1)
  @Max(60)
  forDays: number;

  /** who does it; null: whoever comes to it */
  @OrNull()
  @IsUUID()
  personId: string | null;

  /** what it takes each time */
  @IsInt()
  @Min(0)
  @Max(2400)
  minutes: number;
}

export class FollowUpListBody {
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => FollowUpItemBody)
  items: FollowUpItemBody[];
}

export class FollowUpStateBody {
  @IsIn(['open', 'done', 'left_out'])
  state: 'open' | 'done' | 'left_out';
}

/** What was said of something that is to be put into a channel. */
export class EnteringBody {
  @IsUUID()
  itemKey: string;

  /** the placement's time as it was looked at */
  @IsISO8601({ strict: true })
  meantAt: string;

  @IsIn(['done', 'left_out'])
  state: 'done' | 'left_out';
}

export class FollowUpItemShape {
  key: string;
  kind: PlacementWorkKind;
  words: string;
  days: number;
  forDays: number;
  personId: string | null;
  /** null also where who did it has left */
  personName: string | null;
  minutes: number;
}

/** What is done around everything that goes out on a channel. */
export class FollowUpListShape {
  channelId: string;
  items: FollowUpItemShape[];
  version: number;
}

export class FollowUpListsShape {
  lists: FollowUpListShape[];
  /** who of the agency could do it: the client's own people and the leads */
  people: NamedPersonShape[];
}

/** Something to be done around a placement. */
export class FollowUpShape {
  /** null: to be put in, and nothing was said of it yet */
  id: string | null;
  kind: PlacementWorkKind;
  placementId: string;
  itemKey: string;
  /** the placement's time */
  meantAt: string;
  /** what is not signed is put nowhere */
  isSigned: boolean;
  personId: string | null;
  personName: string | null;
  minutes: number;
  words: string;
  dueOn: string;
  state: 'open' | 'done' | 'left_out';
  settledBy: string | null;
  clientId: string;
  pieceId: string;
  pieceTitle: string;
  channelName: string;
  /** where it can be seen */
  address: string | null;
}

/** A client's today. */
export class FollowUpTodayShape {
  clientId: string;
  todayOn: string;
}

export class FollowUpsShape {
  todays: FollowUpTodayShape[];
  /** open ones up to seven days ahead, the earliest first */
  open: FollowUpShape[];
  hidden: number;
  /** settled today, the newest first */
  settled: FollowUpShape[];
}
