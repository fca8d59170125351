import { CHECKLIST_LIMIT, CHECKLIST_LINE_LIMIT, STEP_KINDS } from '@zesting/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsNotBlank, Optional, OrNull } from '../fields/index.js';
import type { Danger, PieceStage, ReckoningList, RouteStep } from '@zesting/core';

export * from './load-shapes.js';

export class RouteShape {
  id: string;
  name: string;
  formatId: string;
  formatName: string;
  steps: string[];
  /** keys and titles of the steps that may be left out */
  optional: { key: string; title: string }[];
}

export class RouteStepBody implements RouteStep {
  @Matches(/^[a-z0-9_-]{1,40}$/)
  key: string;

  @IsString()
  @MaxLength(60)
  title: string;

  @IsIn(STEP_KINDS)
  kind: RouteStep['kind'];

  @IsString()
  @MaxLength(40)
  skill: string;

  @IsInt()
  spanDays: number;

  @IsInt()
  effortMinutes: number;

  @IsArray()
  @ArrayMaxSize(30)
  @ArrayUnique()
  @IsString({ each: true })
  after: string[];

  @Optional()
  @IsBoolean()
  sameDay?: boolean;

  @Optional()
  @IsBoolean()
  optional?: boolean;

  @Optional()
  @IsArray()
  @ArrayMaxSize(CHECKLIST_LIMIT)
  @IsString({ each: true })
  @MaxLength(CHECKLIST_LINE_LIMIT, { each: true })
  checklist?: string[];

  @Optional()
  @IsInt()
  reworkSpanDays?: number;

  @Optional()
  @IsInt()
  reworkEffortMinutes?: number;
}

export class EditRouteBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(80)
  name: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  formatName: string;

  /** null: as many as the client's agreement says */
  @OrNull()
  @IsInt()
  @Min(1)
  @Max(9)
  roundsAllowed: number | null;

  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => RouteStepBody)
  steps: RouteStepBody[];
}

/** A route as its editor shows it. */
export class RoutePageShape {
  id: string;
  name: string;
  formatName: string;
  roundsAllowed: number | null;
  steps: RouteStep[];
  archivedAt: string | null;
  openPieces: number;
  /** of these, those that go by an earlier state of it */
  behindPieces: number;
  version: number;
}

export class RoutesPageShape {
  routes: RoutePageShape[];
  /** the agency's lists: a route takes its format and skills from them */
  formats: string[];
  skills: string[];
  canEdit: boolean;
}

export class NamedDayOffShape {
  on: string;
  /** the holiday's or closure's name, or that it is time off */
  reason: string;
}

/** On which days a party does not work. */
export class PartyOffShape {
  /** 1 = Monday to 7 = Sunday: off every week */
  weekdaysOff: number[];
  /** other days off, in order */
  days: NamedDayOffShape[];
}

/** A day on which something stands that speaks against placing there, or takes people. */
export class MarkedDayShape {
  on: string;
  kind: 'blackout' | 'production_day';
  name: string;
}

export class DaysOffShape {
  /** blackouts and production days of the client and of the agency; none where no client is asked for */
  marked: MarkedDayShape[];
  client: PartyOffShape | null;
  person: PartyOffShape | null;
}

export class RouteMadeShape {
  routeId: string;
}
/** One step as the wheel draws it. */
export class WheelSegment {
  title: string;
  state: 'done' | 'current' | 'late' | 'blocked' | 'waiting';
  lateDays: number;
  /** there where something stands in its way */
  obstacle?: true;
}

/** A piece as lists show it. */
export class PieceRow {
  id: string;
  number: number;
  clientId: string;
  title: string;
  formatName: string;
  pillarName: string | null;
  stage: PieceStage;
  list: ReckoningList | null;
  aimOn: string | null;
  danger: Danger | null;
  slackDays: number | null;
  lateFromOn: string | null;
  round: number;
  wheel: WheelSegment[];
  /** what is at hand, side by side by commas, and who has it; null: nobody */
  currentStep: string | null;
  currentDoer: string | null;
}

export class PiecePage {
  items: PieceRow[];
  /** of what is open, how many there are in all; null where that is not counted */
  total: number | null;
  /** so many open ones the filter leaves out; null where that is not counted */
  leftOut: number | null;
  nextCursor: string | null;
}

/** A line of the desk's reckoning. */
export class LateStepShape {
  step: string;
  doer: string | null;
  latestFinishOn: string;
  predictedFinishOn: string;
  /** so many steps of the same doer, due earlier, go first */
  behindSteps: number;
}

export class DeskRow extends PieceRow {
  earliestPublishOn: string | null;
  packetDueOn: string | null;
  /** the client’s word is what comes next */
  waitsForWord: boolean;
  /** by when the client was asked to bring what comes next; null where it was not, or something else comes next */
  materialDueOn: string | null;
  placementId: string | null;
  /** the worst that became of one of its placements */
  trouble: 'unsure' | 'failed' | 'missed' | null;
  /** of a piece that will be late: the first step that is predicted to end after its latest day */
  late: LateStepShape | null;
}

export class DeskListShape {
  list: ReckoningList;
  count: number;
}

export class DeskShape {
  todayOn: string;
  /** the first of each list, most dangerous first */
  rows: DeskRow[];
  /** how many stand on each list in all; lists with none are left out */
  lists: DeskListShape[];
  newRequests: number;
  /** pieces that are open in all; every one counts in `lists` */
  openPieces: number;
}
