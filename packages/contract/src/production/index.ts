import { CHECKLIST_LIMIT, CHECKLIST_LINE_LIMIT } from '@zesting/core';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsIn, IsInt, IsString, IsUUID, Max, MaxLength, Min } from 'class-validator';
import { IsNotBlank, IsDay, Optional, OptionalOrNull, OrNull } from '../fields/index.js';
import {
  PURPOSES,
  type Answers,
  type Danger,
  type FormItem,
  type HeldBy,
  type PieceStage,
  type Purpose,
  type ReckoningList,
  type StepKind,
} from '@zesting/core';
import { RequestMessageShape, UploadShape } from '../intake/index.js';
import { PillarShape } from '../clients/index.js';
import { NamedPersonShape } from '../people/index.js';
import { WheelSegment } from '../planning/index.js';
import { ContentShape } from './content-bodies.js';

export * from './copy-bodies.js';
export * from './sheet-bodies.js';
export * from './forecast-shapes.js';
export * from './to-make-shapes.js';
export * from './along-shapes.js';
export * from './content-bodies.js';
export * from './text-bodies.js';
export * from './line-shapes.js';
export * from './path-bodies.js';
export * from './version-shapes.js';

export class EditPieceBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title?: string;

  @OptionalOrNull()
  @IsUUID()
  pillarId?: string | null;

  /** what it asks of people; null: nothing is said */
  @OptionalOrNull()
  @IsIn(PURPOSES)
  purpose?: Purpose | null;

  /** who answers for it; null: whoever answers for the client's */
  @OptionalOrNull()
  @IsUUID()
  leadId?: string | null;

  @Optional()
  @IsString()
  @MaxLength(10_000)
  notes?: string;

  @OptionalOrNull()
  @IsDay()
  wishOn?: string | null;

  @Optional()
  @IsBoolean()
  shelved?: boolean;
}

export class HandBackBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(5000)
  remark: string;

  /** the making steps that are done again; absent: those nearest before the check */
  @Optional()
  @IsUUID('all', { each: true })
  @ArrayNotEmpty()
  @ArrayMaxSize(20)
  stepIds?: string[];
}

/** Why somebody cannot do a step that was given to them. */
export class TurnDownBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(1000)
  words: string;
}

/** One line of a step's checklist: looked at, or not. */
export class TickBody {
  /** of the line, from 0 */
  @IsInt()
  @Min(0)
  @Max(1000)
  position: number;

  @IsBoolean()
  isDone: boolean;

  /** what the line says where it was looked at: another line in its place is not ticked for it */
  @Optional()
  @IsString()
  @MaxLength(CHECKLIST_LINE_LIMIT)
  text?: string;
}

/** What is looked at before a step of a piece is handed in; empty: nothing. */
export class ChecklistBody {
  @IsArray()
  @ArrayMaxSize(CHECKLIST_LIMIT)
  @IsString({ each: true })
  @MaxLength(CHECKLIST_LINE_LIMIT, { each: true })
  lines: string[];
}

export class RemainingBody {
  /** null puts the whole effort back */
  @OrNull()
  @IsInt()
  @Min(0)
  @Max(60_000)
  minutes: number | null;
}

export class TickShape {
  by: string;
  at: string;
}

export class ChecklistLineShape {
  text: string;
  /** who looked at it, and when; null: nobody yet */
  tick: TickShape | null;
}

export class StepShape {
  id: string;
  title: string;
  kind: StepKind;
  skill: string;
  doerId: string | null;
  /** the person, "the client", or null where nobody has it */
  doerName: string | null;
  /** who takes it together with its doer, to learn it */
  withId: string | null;
  withName: string | null;
  spanDays: number;
  effortMinutes: number;
  /** what the doer says is left, else the whole effort */
  leftMinutes: number;
  sameDay: boolean;
  round: number;
  startedOn: string | null;
  finishedOn: string | null;
  latestStartOn: string | null;
  latestFinishOn: string | null;
  latestHeldBy: HeldBy | null;
  earliestStartOn: string;
  earliestFinishOn: string;
  earliestHeldBy: HeldBy;
  slackDays: number | null;
  /** when it is predicted to begin and end, by the load of everybody; null before the first prediction, or where it never can */
  predictedStartOn: string | null;
  predictedFinishOn: string | null;
  /** so many steps of the same doer, due earlier, go first; 0 for creators on others' steps */
  behindSteps: number;
  danger: Danger | null;
  critical: boolean;
  /** its predecessors are done and it is not */
  atHand: boolean;
  /** days between start and latest finish on which the doer does not work, though most do */
  daysOff: string[];
  remark: string | null;
  /** what is looked at before it is handed in */
  checklist: ChecklistLineShape[];
  /** the viewer may do it now */
  mine: boolean;
  /** what it waits for */
  predecessorIds: string[];
  /** a latest finish set by hand, and why it cannot hold */
  pinnedFinishOn: string | null;
  conflict: 'pin_on_day_off' | 'pin_after_successor' | null;
  /** may be left out */
  optional: boolean;
  /** its doer works freelance and has not said yet whether they do it; false for who does not manage */
  isOffered: boolean;
  /** what giving it to somebody is checked against */
  version: number;
}

export class LeftOutShape {
  key: string;
  title: string;
}

/** A request as its piece's brief shows it. */
export class BriefRequestShape {
  id: string;
  number: number;
  title: string;
  requesterName: string;
  items: FormItem[];
  answers: Answers;
  files: UploadShape[];
  /** what was asked back and answered, oldest first */
  messages: RequestMessageShape[];
}

export class BriefShape {
  /** what the piece answers, oldest first; none where it was begun by hand */
  requests: BriefRequestShape[];
  notes: string;
  /** what came with the idea that it was */
  ideaFiles: UploadShape[];
}

export class PlacementShape {
  id: string;
  pieceId: string;
  clientId: string;
  channelId: string;
  channelName: string;
  on: string | null;
  at: string | null;
  zone: string;
  state: 'undated' | 'pencilled' | 'scheduled' | 'sending' | 'out' | 'missed' | 'failed' | 'unsure' | 'cancelled';
  /** when it went out, beside the day and time it was meant for */
  outAt: string | null;
  outAddress: string | null;
  /** the number of the version that went out */
  outNumber: number | null;
  /** the piece was changed after this went out */
  changedSince: boolean;
  version: number;
}

export class DecisionShape {
  /** the contact, or the person who decided for the client */
  contactName: string;
  verdict: 'approve' | 'changes';
  remark: string;
  decidedAt: string;
  round: number;
  versionNumber: number;
  recordedBy: string | null;
  how: string;
}

export class ActivityShape {
  /** what it was done to: a client, piece, request, packet… */
  thing: string;
  thingId: string;
  verb: string;
  actor: string;
  at: string;
  detail: Record<string, unknown>;
}

export class ActivityPage {
  items: ActivityShape[];
  /** to be sent as `before` for the page that follows */
  nextBefore: string | null;
}

export class LinkedPieceShape {
  id: string;
  number: number;
  title: string;
}

export class PieceShape {
  id: string;
  number: number;
  clientId: string;
  title: string;
  formatName: string;
  pillarId: string | null;
  purpose: Purpose | null;
  /** who was named for it; null: whoever answers for the client's */
  leadId: string | null;
  /** who answers for it, as things are */
  lead: NamedPersonShape | null;
  /** the campaign that it belongs to */
  campaignId: string | null;
  pillars: PillarShape[];
  stage: PieceStage;
  list: ReckoningList | null;
  wishOn: string | null;
  aimOn: string | null;
  danger: Danger | null;
  slackDays: number | null;
  /** the earliest publish date that the path allows, for the client */
  earliestPublishOn: string | null;
  round: number;
  roundsAgreed: number;
  shelved: boolean;
  wheel: WheelSegment[];
  brief: BriefShape;
  content: ContentShape;
  steps: StepShape[];
  /** steps of its route that the path does without */
  leftOut: LeftOutShape[];
  placements: PlacementShape[];
  decisions: DecisionShape[];
  activity: ActivityShape[];
  /** who decides on the client's standing authority; null where the client signs */
  agencyDecider: { personId: string; name: string } | null;
  /** the pieces that it was begun from, and those that were begun from it; none for who does not manage */
  refersTo: LinkedPieceShape[];
  usedIn: LinkedPieceShape[];
  /** the viewer may plan, assign, send and place */
  canManage: boolean;
  canWrite: boolean;
  version: number;
}

/** One of a person's own steps. */
export class MyStepRow {
  stepId: string;
  pieceId: string;
  pieceNumber: number;
  pieceTitle: string;
  clientId: string;
  clientCode: string;
  clientName: string;
  clientColour: number;
  stepTitle: string;
  kind: 'make' | 'check';
  round: number;
  startedOn: string | null;
  latestStartOn: string | null;
  latestFinishOn: string | null;
  slackDays: number | null;
  danger: Danger | null;
  /** what the doer says is left, else the whole effort */
  leftMinutes: number;
  predictedFinishOn: string | null;
  atHand: boolean;
  waitsFor: string | null;
  thenGoesTo: string | null;
  remark: string | null;
  /** what stands in the way of it */
  inTheWay: string | null;
  /** how many guidelines say how it is made */
  guidelines: number;
  /** remarks on the piece that are neither settled nor answered */
  openRemarks: number;
  /** it was given to the viewer, who works freelance and has not said yet whether they do it */
  isOffered: boolean;
  /** what the viewer worked on it; their clock on it runs since then, null where it does not */
  workedMinutes: number;
  clockStartedAt: string | null;
  wheel: WheelSegment[];
}

/** A step that the viewer takes together with somebody, who does it. */
export class StepWithRow {
  stepId: string;
  pieceId: string;
  pieceTitle: string;
  clientCode: string;
  clientName: string;
  clientColour: number;
  stepTitle: string;
  doerName: string;
  atHand: boolean;
  startedOn: string | null;
  predictedStartOn: string | null;
  latestFinishOn: string | null;
}

export class MyStepsShape {
  todayOn: string;
  rows: MyStepRow[];
  /** what the viewer takes with somebody, to learn it */
  together: StepWithRow[];
}

export class PresentShape {
  personId: string;
  name: string;
}

/** Who else has a piece open. */
export class PresenceShape {
  others: PresentShape[];
}
