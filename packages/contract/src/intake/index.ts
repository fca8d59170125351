import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Type } from 'class-transformer';
import { IsNotBlank, IsDay, Optional, OptionalOrNull, VisitedShape } from '../fields/index.js';
import {
  PURPOSES,
  type Answers,
  type AnswerProblem,
  type FormItem,
  type FormLanguage,
  type PieceStage,
  type Purpose,
  type RequestState,
  type RequestWay,
  type Sorted,
  type Stands,
} from '@zesting/core';

import { ProposedDoerShape } from './piece-shapes.js';

export * from './form-schema.js';
export * from './dates-bodies.js';
export * from './deciding-bodies.js';
export * from './forms-bodies.js';
export * from './mail-shapes.js';
export * from './piece-shapes.js';
export * from './table-bodies.js';

export class SubmitRequestBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsEmail()
  @MaxLength(200)
  email: string;

  /** by field key; files are ids of uploads */
  @IsObject()
  answers: Answers;

  /** the version of the form that was filled in */
  @IsInt()
  @Min(1)
  version: number;

  /** as it came with the form: proves that it was opened, and when */
  @IsString()
  @MaxLength(200)
  stamp: string;

  /** a field that no person sees: only a program fills it in */
  @Optional()
  @IsString()
  @MaxLength(2000)
  website?: string;
}

/** How soon what is asked for can be, and why: no person, no load and no other client is named. */
export class EarliestShape {
  /** by the path, the calendars, and what is taken on already */
  earliestOn: string;
  /** by the path and the calendars alone */
  pathOn: string;
  /** how many steps the path takes, and how many working days of the client it spans */
  steps: number;
  days: number;
}

export class AskFormShape extends VisitedShape {
  linkId: string;
  version: number;
  title: string;
  intro: string;
  language: FormLanguage;
  items: FormItem[];
  thanks: string;
  /** not yet, now, or no more, by the form’s days */
  state: 'early' | 'open' | 'over';
  opensOn: string | null;
  closesOn: string | null;
  /** the client’s working days between asking and the wish date */
  noticeDays: number;
  /** the first day that keeps the notice; null without one */
  noticeOn: string | null;
  answerDays: number;
  /** today for the client */
  todayOn: string;
  earliest: EarliestShape;
  /** to be sent back with the answers */
  stamp: string;
}

/** What is asked for so far, to be told how soon it can be. */
export class EarliestBody {
  @IsObject()
  answers: Answers;
}

export class UploadShape {
  assetId: string;
  name: string;
  /** SHA-256 of its bytes */
  hash: string;
  mime: string;
  bytes: number;
  /** in pixels, as it is shown */
  width: number | null;
  height: number | null;
  /** of a clip or sound */
  durationMs: number | null;
}

export class SubmittedShape {
  requestId: string;
  number: number;
  receiptAddress: string;
}

export class AnswerErrors {
  errors: Record<string, AnswerProblem>;
}

/** What was asked back or answered, as the requester reads it. */
export class ReceiptMessageShape {
  author: 'agency' | 'requester';
  text: string;
  at: string;
}

/** A day on which something that came of a request is expected out. */
export class ExpectedShape {
  channelName: string;
  on: string;
  /** pencilled: it may still move */
  state: 'pencilled' | 'scheduled' | 'out';
}

/** What the requester sees of a request: its state, never people, load or other clients. */
export class ReceiptShape extends VisitedShape {
  /** what they were asked in */
  language: FormLanguage;
  number: number;
  title: string;
  receivedAt: string;
  wishOn: string | null;
  /** of one that was merged, that of the one it was merged into */
  state: RequestState;
  isMerged: boolean;
  declineReason: string | null;
  /** what was said about it, oldest first; the agency’s people are not named */
  messages: ReceiptMessageShape[];
  /** files that came with it */
  files: string[];
  /** whether it can still be taken back */
  canWithdraw: boolean;
  /** the last day that keeps the answer that was promised; null without one, once it is past, and once it is decided */
  answerBy: string | null;
  /** when what came of it is expected out, soonest first; pencilled days only where the client sees such */
  expected: ExpectedShape[];
  /** once accepted: how far the piece is */
  progress: 'planned' | 'in_production' | 'with_client' | 'approved' | 'published' | null;
}

/** How long a request waits for the agency, in its working days, without those on which the requester owed an answer. */
export class RequestAgeShape {
  days: number;
  /** within how many an answer was promised; 0: none was */
  promised: number;
  /** the last day that keeps the promise; null without one, and while the requester owes an answer */
  dueOn: string | null;
  isLate: boolean;
}

/** A request as it is kept, without what was asked. */
export class RequestHeadShape {
  id: string;
  number: number;
  clientId: string;
  title: string;
  requesterName: string;
  receivedAt: string;
  wishOn: string | null;
  state: RequestState;
  way: RequestWay;
  /** who answers for it at the agency; null is nobody yet */
  ownerId: string | null;
  isRead: boolean;
  /** what the form’s rules and the answers say it takes */
  takes: Sorted;
}

/** A request in the list, with what is reckoned of it while it is to be decided. */
export class RequestRow extends RequestHeadShape {
  /** days between the predicted day and the wished one; null where it is decided, no day is wished or no route known */
  slackDays: number | null;
  /** the last day on which work can begin for the wished one; null as above */
  beginBy: string | null;
  /** what stands in its way, while it is to be decided */
  stands: Exclude<Stands, 'answer_late'> | null;
  /** how long it waits; null where it is decided */
  age: RequestAgeShape | null;
  /** how much what its requester asks for counts: 1 as usual, to 3 */
  weight: number;
}

/** How many requests of a client wait. */
export class RequestCountShape {
  clientId: string;
  /** to be decided, or with their requesters */
  open: number;
  /** of these, with their requesters */
  asked: number;
  /** of these, read by nobody */
  unread: number;
}

export class RequestPage {
  items: RequestRow[];
  nextCursor: string | null;
  /** of all clients of the viewer, however the list is narrowed */
  counts: RequestCountShape[];
}

/** A piece that came of a request. */
export class RequestPieceShape {
  id: string;
  number: number;
  title: string;
  stage: PieceStage;
  /** whether it was begun for the request, and not there before */
  isMade: boolean;
}

/** What was asked back or answered. */
export class RequestMessageShape {
  id: string;
  author: 'agency' | 'requester';
  name: string;
  text: string;
  at: string;
}

export class RequestShape extends RequestHeadShape {
  /** what came of it */
  pieces: RequestPieceShape[];
  /** null where they have none */
  requesterEmail: string | null;
  /** null where no form was asked */
  formTitle: string | null;
  items: FormItem[];
  answers: Answers;
  files: UploadShape[];
  declineReason: string | null;
  /** the request that stands for this one too */
  mergedInto: { id: string; number: number; title: string } | null;
  /** what was said about it, oldest first */
  messages: RequestMessageShape[];
  version: number;
}

export class FeasibilityShape {
  routeId: string;
  /** by the path and the calendars alone */
  earliestOn: string;
  /** after all that is taken on already, as its load is predicted */
  predictedOn: string;
  doers: ProposedDoerShape[];
  /** working time that the route adds */
  effortMinutes: number;
}

/** How a piece begins. */
export class NewPieceBody {
  @IsUUID()
  routeId: string;

  @OptionalOrNull()
  @IsUUID()
  pillarId?: string | null;

  /** what it asks of people; null: nothing is said */
  @OptionalOrNull()
  @IsIn(PURPOSES)
  purpose?: Purpose | null;

  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  channelIds: string[];

  @OptionalOrNull()
  @IsDay()
  wishOn?: string | null;

  @Optional()
  @IsString()
  @MaxLength(10_000)
  notes?: string;

  /** whether its steps go to those who are predicted to be free first */
  @Optional()
  @IsBoolean()
  giveFirst?: boolean;

  /** keys of the route's optional steps that this piece does without */
  @Optional()
  @IsArray()
  @ArrayMaxSize(30)
  @IsString({ each: true })
  leaveOut?: string[];
}

/** One piece of several that a request becomes. */
export class SplitPieceBody extends NewPieceBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;
}

export class AcceptRequestBody extends NewPieceBody {
  /** what else it becomes, at once */
  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => SplitPieceBody)
  also?: SplitPieceBody[];

  /** one more piece of a request that is accepted already */
  @Optional()
  @IsBoolean()
  further?: boolean;

  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;
}

export class PieceMadeShape {
  pieceId: string;
}

export class AcceptedShape {
  pieceIds: string[];
}

export class DeclineRequestBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  reason: string;
}
