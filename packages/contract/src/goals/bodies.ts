import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsNumber,
  IsString,
  IsUUID,
  IsUrl,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsDay, IsNotBlank, OptionalOrNull, OrNull } from '../fields/index.js';

/** What a goal is measured by: pieces that went out, which are counted; or figures that somebody reads and types. */
export const GOAL_MEASURES = ['pieces', 'reading'] as const;
export type GoalMeasure = (typeof GOAL_MEASURES)[number];

/** The strategy notes of a client, by what they tell. */
export const STRATEGY_KINDS = ['mission', 'works', 'works_not', 'admired'] as const;
export type StrategyKind = (typeof STRATEGY_KINDS)[number];

const Figure = (): PropertyDecorator => (target, key) => {
  IsNumber({ maxDecimalPlaces: 2 })(target, key);
  Min(-1_000_000_000)(target, key);
  Max(1_000_000_000)(target, key);
};

export class GoalStepBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  text: string;

  @IsBoolean()
  isDone: boolean;
}

export class GoalBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  name: string;

  /** null: of the client as a whole */
  @OrNull()
  @IsUUID()
  channelId: string | null;

  @IsIn(GOAL_MEASURES)
  measure: GoalMeasure;

  /** what the figures count, such as followers; empty for pieces */
  @IsString()
  @MaxLength(40)
  unit: string;

  @Figure()
  startValue: number;

  /** another value than the start */
  @Figure()
  target: number;

  @IsDay()
  startOn: string;

  /** after the start, within ten years */
  @IsDay()
  byOn: string;

  /** the pillars that serve it; of pieces only those are counted, where there are any */
  @IsArray()
  @ArrayMaxSize(24)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  pillarIds: string[];

  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => GoalStepBody)
  steps: GoalStepBody[];
}

/** What a measure was on a day; null takes the reading away. */
export class GoalReadingBody {
  @IsDay()
  on: string;

  @OrNull()
  @Figure()
  value: number | null;
}

/** What is known of a client's strategy: its mission, what works and what does not, examples it admires. */
export class StrategyNoteBody {
  @IsIn(STRATEGY_KINDS)
  kind: StrategyKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  text: string;

  @OptionalOrNull()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  link?: string | null;
}
