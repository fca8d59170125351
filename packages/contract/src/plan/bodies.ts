import { PURPOSES, THEME_PERIODS, type Purpose, type ThemePeriod } from '@zesting/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsDay, IsNotBlank, IsTimeOfDay, Optional, OptionalOrNull, OrNull } from '../fields/index.js';

/** A month, `YYYY-MM`. */
export const MONTH = /^(199\d|20\d\d|21\d\d)-(0[1-9]|1[0-2])$/;

/** One line of a client's rhythm. */
export class RhythmRuleBody {
  @IsUUID()
  channelId: string;

  /** a recurrence rule of days, RFC 5545: `FREQ=WEEKLY;BYDAY=TU,TH` */
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  rule: string;

  /** in the client's zone */
  @IsTimeOfDay()
  at: string;

  /** the day from which it holds, and from which rules of every second or third week are counted; not before the client's today */
  @IsDay()
  fromOn: string;

  /** the last day; null: until it is changed */
  @OrNull()
  @IsDay()
  untilOn: string | null;

  /** whether public holidays of the client's region are left out */
  @IsBoolean()
  skipsHolidays: boolean;

  /** what it wants there; null: anything */
  @OrNull()
  @IsUUID()
  pillarId: string | null;

  @OrNull()
  @IsUUID()
  formatId: string | null;

  /** what it asks of people; null: nothing is said */
  @OptionalOrNull()
  @IsIn(PURPOSES)
  purpose?: Purpose | null;

  /** whether it wants something there that was out before: from the evergreen stock */
  @Optional()
  @IsBoolean()
  fromStock?: boolean;

  /** the tags with which a piece that is planned there begins; null: none */
  @OptionalOrNull()
  @IsUUID()
  tagSetId?: string | null;
}

/** Leaves one slot out, or takes it in again. */
export class SlotExceptionBody {
  @IsDay()
  on: string;

  @IsBoolean()
  isLeftOut: boolean;
}

/** The theme of a month or a week. */
export class ThemeBody {
  @IsIn(THEME_PERIODS)
  period: ThemePeriod;

  /** any day of the month or week */
  @IsDay()
  on: string;

  /** empty: what the cycle says, or none */
  @IsString()
  @MaxLength(80)
  name: string;
}

export class SwapThemesBody {
  @IsIn(THEME_PERIODS)
  period: ThemePeriod;

  @IsDay()
  on: string;

  @IsDay()
  withOn: string;
}

/** Themes that follow one another month by month, again and again; none: there is no cycle. */
export class ThemeCycleBody {
  @IsArray()
  @ArrayMaxSize(24)
  @IsString({ each: true })
  @IsNotBlank({ each: true })
  @MaxLength(80, { each: true })
  names: string[];

  @Matches(MONTH)
  fromMonth: string;
}

/** A piece that goes before a marker, with it, or after it. */
export class RunUpBody {
  /** days from the marker's first day; below 0: before it */
  @IsInt()
  @Min(-365)
  @Max(365)
  offsetDays: number;

  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;

  @IsUUID()
  channelId: string;

  @IsUUID()
  routeId: string;
}

/** What is made together on a production day. */
export class ProductionDayBody {
  /** so many pieces can be made on it */
  @IsInt()
  @Min(1)
  @Max(100)
  capacity: number;

  /** whose work it is; null: any */
  @OrNull()
  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  skill: string | null;

  @IsString()
  @MaxLength(200)
  place: string;

  @IsArray()
  @ArrayMaxSize(100)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  pieceIds: string[];
}

/** One slot that is filled: with an idea, with a piece that has no day there yet, with one that goes out again, or with a piece that is still to be thought of. */
export class FillSlotBody {
  @IsUUID()
  ruleId: string;

  @IsDay()
  on: string;

  @Optional()
  @IsUUID()
  ideaId?: string;

  /** the undated placement of a piece on the slot's channel */
  @Optional()
  @IsUUID()
  placementId?: string;

  /** a placement of the slot's channel whose piece lasts, and goes out there again */
  @Optional()
  @IsUUID()
  againId?: string;

  /** the way that a new piece is made; without it the first of the format that the idea has, or that the slot wants */
  @Optional()
  @IsUUID()
  routeId?: string;

  /** without it that of the idea; without an idea it is called by its format and day */
  @Optional()
  @IsString()
  @MaxLength(200)
  title?: string;
}

export class FillSlotsBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => FillSlotBody)
  slots: FillSlotBody[];
}

/** How many pieces a client wants out; null: no number. */
export class PlanNumbersBody {
  @OrNull()
  @IsInt()
  @Min(1)
  @Max(100)
  perWeek: number | null;

  @OrNull()
  @IsInt()
  @Min(1)
  @Max(400)
  perMonth: number | null;
}

/** Copies what stands in one month into others, on the same weekdays of them. */
export class CopyMonthBody {
  @Matches(MONTH)
  from: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(12)
  @ArrayUnique()
  @Matches(MONTH, { each: true })
  to: string[];

  /** only tells what it would come to */
  @IsBoolean()
  isPreview: boolean;
}

/** How many people follow a channel, and which share of them sees one post. */
export class AudienceBody {
  @IsUUID()
  channelId: string;

  @IsInt()
  @Min(0)
  @Max(1_000_000_000)
  audience: number;

  /** whole percent */
  @IsInt()
  @Min(0)
  @Max(100)
  seen: number;
}

/** Whom a client's channels reach, as somebody guesses. */
export class AudiencesBody {
  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique(({ channelId }: AudienceBody) => channelId)
  @ValidateNested({ each: true })
  @Type(() => AudienceBody)
  channels: AudienceBody[];

  /** the share of a channel's people that a larger channel reaches too, whole percent */
  @IsInt()
  @Min(0)
  @Max(100)
  overlap: number;
}

/** Begins to plan a month. */
export class StartMonthBody {
  @Matches(MONTH)
  month: string;
}
