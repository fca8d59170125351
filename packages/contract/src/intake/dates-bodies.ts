import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsIn, IsString, IsUUID, MaxLength, ValidateNested } from 'class-validator';
import { DATED_KINDS, type DatedKind, type DatedLine, type FigureOrder } from '@zesting/core';
import { IsDay, IsNotBlank, Optional, OrNull } from '../fields/index.js';

/** A client's month as it was pasted. */
export class ReadDatesBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(50_000)
  text: string;

  /** which of the figures in 3/4 is the day, once somebody was asked */
  @Optional()
  @IsIn(['day_first', 'month_first'])
  order?: FigureOrder;
}

/** What a file of dates says, as lines. */
export class DatesFileShape {
  text: string;
}

export class DatedEntryShape {
  line: number;
  text: string;
  on: string | null;
  until: string | null;
  title: string;
  kind: DatedKind;
  doubt: DatedLine['doubt'];
  /** something alike that stands on the calendar around that day; null where nothing does */
  twin: string | null;
}

export class DatesReadShape {
  entries: DatedEntryShape[];
  isAmbiguous: boolean;
}

export class DatedEntryBody {
  @IsDay()
  on: string;

  @IsDay()
  until: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  title: string;

  @IsIn(DATED_KINDS)
  kind: DatedKind;

  /** stands on the calendar */
  @IsBoolean()
  isMarker: boolean;

  /** is asked for too: waits among the requests */
  @IsBoolean()
  isRequest: boolean;

  /** the route by which it is a planned piece too, pencilled for its day; null: it is none */
  @OrNull()
  @IsUUID()
  routeId: string | null;
}

export class PutDatesBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => DatedEntryBody)
  entries: DatedEntryBody[];
}

export class DatesPutShape {
  markers: number;
  requests: number;
  pieces: number;
}
