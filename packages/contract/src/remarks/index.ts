import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { PICTURE_SIDE, type Place } from '@zesting/core';
import { IsNotBlank, Optional, OptionalOrNull } from '../fields/index.js';
import { TeamMateShape } from '../team-notes/index.js';

/** `team`: never seen by the client; `client`: the client reads it beside the version that is sent. */
export const AUDIENCES = ['team', 'client'] as const;
export type Audience = (typeof AUDIENCES)[number];

const PLACE_KINDS = ['stretch', 'region', 'moment'] as const;
const isOf = (...kinds: string[]) => ValidateIf((body: { kind?: unknown }) => kinds.includes(String(body.kind)));
/** as long as anything may be that is listened to or looked at: a day */
const MOST_MS = 86_400_000;

/** The place that somebody points at in what they see. What belongs to another kind of place is left away. */
export class PlaceBody {
  @IsIn(PLACE_KINDS)
  kind: (typeof PLACE_KINDS)[number];

  /** of a stretch: the channel whose own copy it is; null or left away: the copy that channels share */
  @isOf('stretch')
  @OptionalOrNull()
  @IsUUID()
  channelId?: string | null;

  /** of a stretch: which of the piece's texts it is, by its key; left away: the copy */
  @isOf('stretch')
  @Optional()
  @Matches(/^[a-z0-9-]{1,40}$/)
  textKey?: string;

  /** of a stretch: from this character of the text (UTF-16 unit, from 0) … */
  @isOf('stretch')
  @IsInt()
  @Min(0)
  @Max(50_000)
  from?: number;

  /** … up to but without this one */
  @isOf('stretch')
  @IsInt()
  @Min(1)
  @Max(50_000)
  to?: number;

  /** of a stretch: what stands there */
  @isOf('stretch')
  @IsString()
  @MaxLength(50_000)
  words?: string;

  /** of a region or a moment: the picture or clip */
  @isOf('region', 'moment')
  @IsUUID()
  assetId?: string;

  /** of a region, in ten-thousandths of the picture's width and height from the upper left corner */
  @isOf('region')
  @IsInt()
  @Min(0)
  @Max(PICTURE_SIDE)
  x?: number;

  @isOf('region')
  @IsInt()
  @Min(0)
  @Max(PICTURE_SIDE)
  y?: number;

  @isOf('region')
  @IsInt()
  @Min(1)
  @Max(PICTURE_SIDE)
  width?: number;

  @isOf('region')
  @IsInt()
  @Min(1)
  @Max(PICTURE_SIDE)
  height?: number;

  /** of a moment: milliseconds from the beginning */
  @isOf('moment')
  @IsInt()
  @Min(0)
  @Max(MOST_MS)
  atMs?: number;
}

/** One thing that a contact wants changed. */
export class ThingBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(1000)
  text: string;

  /** left away: it is about the whole */
  @OptionalOrNull()
  @IsObject()
  @ValidateNested()
  @Type(() => PlaceBody)
  place?: PlaceBody | null;
}

/** What one of the team says to a remark. */
export class RemarkReplyBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  text: string;

  @IsIn(AUDIENCES)
  audience: Audience;

  /** who hears of it in their round-up */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  mentionIds: string[];
}

/** What one of the team says about the working copy of a piece. */
export class RemarkBody extends RemarkReplyBody {
  /** left away: it is about the whole */
  @OptionalOrNull()
  @IsObject()
  @ValidateNested()
  @Type(() => PlaceBody)
  place?: PlaceBody | null;
}

/** What a contact says to what the agency wrote. */
export class RoomReplyBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  text: string;
}

export class SettleRemarkBody {
  @IsIn(['open', 'settled', 'answered'])
  state: 'open' | 'settled' | 'answered';

  /** what is said instead of changing it: the contact reads it with the next version */
  @Optional()
  @IsString()
  @MaxLength(2000)
  answer?: string;
}

export class RemarkReplyShape {
  id: string;
  authorName: string;
  /** written by a contact of the client */
  isContact: boolean;
  audience: Audience;
  text: string;
  mentioned: string[];
  createdAt: string;
  canRemove: boolean;
}

/** Something that was said about a piece, as a to-do: a contact's is settled or answered before the next round. */
export class RemarkShape {
  id: string;
  authorName: string;
  isContact: boolean;
  audience: Audience;
  round: number;
  text: string;
  /** where in the piece, and what stood there then; null: the whole */
  place: Place | null;
  state: 'open' | 'settled' | 'answered';
  answer: string;
  settledBy: string | null;
  settledAt: string | null;
  createdAt: string;
  /** names of those who were told */
  mentioned: string[];
  replies: RemarkReplyShape[];
  canRemove: boolean;
}

export class RemarksShape {
  /** the latest round first, in each the oldest first */
  remarks: RemarkShape[];
  /** who can see the piece, and so be told of a remark on it; without the viewer */
  team: TeamMateShape[];
  /** the viewer may write what the client reads */
  canWriteToClient: boolean;
}

/** What was said to a remark, as contacts read it. */
export class RoomReplyShape {
  authorName: string;
  isContact: boolean;
  text: string;
  createdAt: string;
}

/** A remark as contacts read it: what they asked for before, or what the agency wrote to them. */
export class RoomThreadShape {
  id: string;
  authorName: string;
  text: string;
  /** the place in words, as it was meant; empty: the whole */
  where: string;
  /** where that is in the version that is shown; null where it is gone, and for the whole */
  place: Place | null;
  round: number;
  state: 'open' | 'settled' | 'answered';
  answer: string;
  replies: RoomReplyShape[];
}
