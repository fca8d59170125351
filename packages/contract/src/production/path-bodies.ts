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
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { Danger } from '@zesting/core';
import { IsDay, IsNotBlank, Optional } from '../fields/index.js';

/** What can be done to the path of one piece. */
export const PATH_CHANGES = ['leave_out', 'bring_back', 'add', 'split', 'retime', 'pin', 'give'] as const;
export type PathChangeKind = (typeof PATH_CHANGES)[number];

const For = (...kinds: PathChangeKind[]): PropertyDecorator => ValidateIf(({ kind }: PathChangeBody) => kinds.includes(kind));
/** Asked for some kinds only, and may be null there. */
const ForOrNull = (...kinds: PathChangeKind[]): PropertyDecorator =>
  ValidateIf(({ kind }: PathChangeBody, value) => kinds.includes(kind) && value !== null);

/** One change of a piece's path. What a kind does not need is not looked at. */
export class PathChangeBody {
  @IsIn(PATH_CHANGES)
  kind: PathChangeKind;

  /** the step that is changed, or next to which one is put */
  @For('leave_out', 'add', 'split', 'retime', 'pin', 'give')
  @IsUUID()
  stepId?: string;

  /** what the step was at when it was looked at: a step that somebody changed meanwhile is not changed over it */
  @Optional()
  @IsInt()
  @Min(1)
  version?: number;

  /** the route's key of a step that the path does without */
  @For('bring_back')
  @IsString()
  @MaxLength(40)
  key?: string;

  @For('add', 'split')
  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  title?: string;

  @For('add')
  @IsIn(['make', 'check', 'deliver'])
  does?: 'make' | 'check' | 'deliver';

  @For('add')
  @IsString()
  @IsNotBlank()
  @MaxLength(40)
  skill?: string;

  /** a split goes after or beside */
  @For('add', 'split')
  @IsIn(['before', 'after', 'beside'])
  place?: 'before' | 'after' | 'beside';

  /** of the step added, or as it is to be */
  @For('add', 'split', 'retime')
  @IsInt()
  @Min(1)
  @Max(60)
  spanDays?: number;

  @For('add', 'split', 'retime')
  @IsInt()
  @Min(0)
  @Max(12_000)
  effortMinutes?: number;

  /** may share a day with the step before */
  @Optional()
  @IsBoolean()
  sameDay?: boolean;

  /** the finish that is set by hand; null lets it go */
  @ForOrNull('pin')
  @IsDay()
  finishOn?: string | null;

  /** who is to have the step; null: nobody */
  @ForOrNull('give')
  @IsUUID()
  personId?: string | null;
}

/** Changes that are made together, or not at all. */
export class PathChangesBody {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(10)
  @ValidateNested({ each: true })
  @Type(() => PathChangeBody)
  changes: PathChangeBody[];
}

/** The dates of a step, before a change or after it. */
export class StepDatesShape {
  latestStartOn: string | null;
  latestFinishOn: string | null;
  /** the earliest end that the path allows */
  earliestFinishOn: string;
  /** by the load of everybody; null where it is finished or never ends */
  predictedFinishOn: string | null;
  danger: Danger | null;
}

export class StepMoveShape {
  stepId: string;
  title: string;
  /** null: nobody yet */
  doerName: string | null;
  /** null: the step is new */
  before: StepDatesShape | null;
  /** null: the step goes */
  after: StepDatesShape | null;
}

/** Another piece that would be later or less late, by working days. */
export class OtherPieceShape {
  pieceId: string;
  clientId: string;
  number: number;
  title: string;
  wasDays: number;
  nowDays: number;
}

/** What a change of a path would come to. */
export class PathPreviewShape {
  /** steps whose dates or doer differ, new ones and those that go; the others are left out */
  steps: StepMoveShape[];
  /** by so many working days the piece misses its date; 0: it makes it, or has none */
  lateDaysBefore: number;
  lateDaysAfter: number;
  dangerBefore: Danger | null;
  dangerAfter: Danger | null;
  others: OtherPieceShape[];
  /** pieces of clients that the viewer does not see that would be later */
  othersHidden: number;
}

/** A change that would bring a piece back, ready to be made. */
export class MendShape {
  changes: MendChangeShape[];
  lateDays: number;
  others: OtherPieceShape[];
  othersHidden: number;
}

export class MendChangeShape {
  kind: 'leave_out' | 'retime' | 'pin' | 'give' | 'free';
  stepId: string;
  stepTitle: string;
  version: number;
  /** as it is now, for a shorter span */
  wasDays: number;
  spanDays: number | null;
  effortMinutes: number | null;
  finishOn: string | null;
  personId: string | null;
  personName: string | null;
  /** of so many finished steps of this kind, so many kept to the span */
  kept: number | null;
  keptOf: number | null;
}

export class MendsShape {
  /** false: somebody on the path never works, so that nothing can be said */
  isPlanned: boolean;
  /** by so many working days the piece misses its date */
  lateDays: number;
  danger: Danger | null;
  helps: MendShape[];
  /** the first day on which it could be out as things are, by the prediction */
  laterOn: string | null;
  tried: number;
  possible: number;
}
