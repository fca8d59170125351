import { COPY_SHAPES, FACTS, OFFSET_MOST, OFFSET_UNITS, type CopyShape, type Fact, type Offset } from '@zesting/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
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
import { IsDay, IsNotBlank, OrNull } from '../fields/index.js';

export * from './shapes.js';

/** A clip has no longer times than a day. */
const MOST_SECONDS = 86_400;

/** When an output is published, from its source's day: negative before it, 0 on it. */
export class OffsetBody implements Offset {
  @IsInt()
  @Min(-OFFSET_MOST)
  @Max(OFFSET_MOST)
  count: number;

  /** working days are the client's */
  @IsIn(OFFSET_UNITS)
  unit: Offset['unit'];
}

/** Who does the steps of a skill at what a line makes. */
export class LineDoerBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  skill: string;

  @IsUUID('all')
  personId: string;
}

/** One output of a spread: what is made for a channel, and how. */
export class SpreadLineBody {
  /** stays with what was made from the line */
  @Matches(/^[a-z0-9_-]{1,40}$/)
  key: string;

  /** what the output is called beside its source's title; empty: by that alone */
  @IsString()
  @MaxLength(80)
  name: string;

  /** null: where it goes is said later */
  @OrNull()
  @IsUUID('all')
  channelId: string | null;

  @IsUUID('all')
  routeId: string;

  @ValidateNested()
  @Type(() => OffsetBody)
  offset: OffsetBody;

  /** what is to be changed */
  @IsString()
  @MaxLength(2000)
  change: string;

  /** whether its copy is written anew; else it is the source's */
  @IsBoolean()
  needsCopy: boolean;

  /** whether its pictures are made anew; else they are the source's */
  @IsBoolean()
  needsPicture: boolean;

  /** as it stands, or a slide per main heading */
  @IsIn(COPY_SHAPES)
  shape: CopyShape;

  /** stands under the copy; empty: nothing does */
  @IsString()
  @MaxLength(300)
  callToAction: string;

  /** what its makers go by, beside what holds for them anyway */
  @OrNull()
  @IsUUID('all')
  guidelineId: string | null;

  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => LineDoerBody)
  doers: LineDoerBody[];

  /** what most often stands in its way; empty: nothing that is known */
  @IsString()
  @MaxLength(300)
  obstacle: string;
}

export class SpreadBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(80)
  name: string;

  /** what kind of source it is for; null: any */
  @OrNull()
  @IsUUID('all')
  formatId: string | null;

  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => SpreadLineBody)
  lines: SpreadLineBody[];
}

/** Whether a spread is offered for its sources. */
export class SpreadUseBody {
  @IsBoolean()
  isUsed: boolean;
}

/** One output that is to be made. */
export class OutputBody {
  /** the line of the spread that it is made by; several can be of one */
  @Matches(/^[a-z0-9_-]{1,40}$/)
  lineKey: string;

  @IsString()
  @MaxLength(80)
  name: string;

  /** the day on which it is pencilled; null: none yet */
  @OrNull()
  @IsDay()
  on: string | null;

  /** where it begins in the source, in seconds; null: it is no clip of it */
  @OrNull()
  @IsInt()
  @Min(0)
  @Max(MOST_SECONDS)
  fromSecond: number | null;

  @OrNull()
  @IsInt()
  @Min(0)
  @Max(MOST_SECONDS)
  toSecond: number | null;
}

export class MakeSpinOffsBody {
  @IsUUID('all')
  spreadId: string;

  /** what the spread proposes where it is empty and only looked at */
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => OutputBody)
  outputs: OutputBody[];

  /** how many were made from the source before, as it was looked at: others may have made some meanwhile */
  @IsInt()
  @Min(0)
  known: number;

  /** whether steps that no line names somebody for go to whoever is predicted to be free first */
  @IsBoolean()
  giveFirst: boolean;
}

/** What is said about an output beside its content. */
export class SpinOffBody {
  @IsString()
  @MaxLength(80)
  name: string;

  @IsString()
  @MaxLength(300)
  callToAction: string;

  @OrNull()
  @IsInt()
  @Min(0)
  @Max(MOST_SECONDS)
  fromSecond: number | null;

  @OrNull()
  @IsInt()
  @Min(0)
  @Max(MOST_SECONDS)
  toSecond: number | null;
}

/** What is done about one field in which an output is behind its source. */
export class SettleFactBody {
  @IsIn(FACTS)
  fact: Fact;

  /** takes over what the source says, or keeps what the output says */
  @IsIn(['take', 'keep'])
  choice: 'take' | 'keep';
}

export class SettleFactsBody {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(FACTS.length)
  @ValidateNested({ each: true })
  @Type(() => SettleFactBody)
  facts: SettleFactBody[];

  /** the mark of what was looked at */
  @IsString()
  @MaxLength(64)
  mark: string;
}

/** A source's move that its outputs are to follow. */
export class MoveAlongBody {
  @IsDay()
  from: string;

  @IsDay()
  to: string;
}
