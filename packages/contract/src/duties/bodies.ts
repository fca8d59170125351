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
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsDay, IsNotBlank, OrNull } from '../fields/index.js';

/** The piece that a duty makes each time. */
export class DutyPieceBody {
  /** how it is made: says its format too */
  @IsUUID()
  routeId: string;

  /** where it is pencilled, on the day of the rule */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  channelIds: string[];

  @OrNull()
  @IsUUID()
  pillarId: string | null;
}

/** Work that is no step of a piece, or a piece that comes again. */
export class DutyBody {
  /** null: the agency's own */
  @OrNull()
  @IsUUID()
  clientId: string | null;

  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  title: string;

  /** stands beside it every time */
  @IsString()
  @MaxLength(2000)
  remark: string;

  @IsArray()
  @ArrayMaxSize(30)
  @IsString({ each: true })
  @IsNotBlank({ each: true })
  @MaxLength(200, { each: true })
  checklist: string[];

  /** a recurrence rule of days, RFC 5545; null: once, on its first day */
  @OrNull()
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  rule: string | null;

  /** its first day; what begins later than today may be moved, what has begun is changed from today on */
  @IsDay()
  fromOn: string;

  /** the last day; null: until it is changed */
  @OrNull()
  @IsDay()
  untilOn: string | null;

  /** so many days before its day it may be begun, or its piece is made */
  @IsInt()
  @Min(0)
  @Max(180)
  leadDays: number;

  /** who does it */
  @IsUUID()
  leadId: string;

  /** who does it while the lead person is away; null: nobody */
  @OrNull()
  @IsUUID()
  secondId: string | null;

  /** hands-on minutes each time; what makes a piece has the piece's own */
  @IsInt()
  @Min(0)
  @Max(2400)
  minutes: number;

  /** null: it makes none */
  @OrNull()
  @IsObject()
  @ValidateNested()
  @Type(() => DutyPieceBody)
  piece: DutyPieceBody | null;
}

/** What is said of one time of a duty. */
export class DutyDayBody {
  /** the day of the rule */
  @IsDay()
  on: string;

  /** `open` takes back what was said */
  @IsIn(['done', 'left_out', 'open'])
  mark: 'done' | 'left_out' | 'open';

  /** positions of the checklist that are ticked */
  @IsArray()
  @ArrayMaxSize(30)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(0, { each: true })
  @Max(29, { each: true })
  ticks: number[];
}

/** Leaves out all that was missed up to a day. */
export class DutyMissedBody {
  @IsDay()
  untilOn: string;
}

/** Who does somebody's duties from now on. */
export class GiveDutiesBody {
  @IsUUID()
  personId: string;
}
