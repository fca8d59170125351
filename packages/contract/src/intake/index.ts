import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsEmail, IsObject, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsNotBlank, IsDay, Optional, OptionalOrNull, VisitedShape } from '../fields/index.js';
import type { Answers, AnswerProblem, FormField, PieceStage } from '@zesting/core';

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
}

export class AskFormShape extends VisitedShape {
  linkId: string;
  title: string;
  intro: string;
  fields: FormField[];
  /** today for the client */
  todayOn: string;
  /** the earliest date that the route allows if all goes on today */
  earliestOn: string;
}

export class UploadShape {
  assetId: string;
  name: string;
  mime: string;
  bytes: number;
  width: number | null;
  height: number | null;
}

export class SubmittedShape {
  requestId: string;
  number: number;
  receiptAddress: string;
}

export class AnswerErrors {
  errors: Record<string, AnswerProblem>;
}

/** What the requester sees of a request: its state, never people, load or other clients. */
export class ReceiptShape extends VisitedShape {
  number: number;
  title: string;
  receivedAt: string;
  wishOn: string | null;
  state: 'new' | 'accepted' | 'declined';
  declineReason: string | null;
  /** once accepted: how far the piece is */
  progress: 'planned' | 'in_production' | 'with_client' | 'approved' | 'published' | null;
}

export class RequestRow {
  id: string;
  number: number;
  clientId: string;
  title: string;
  requesterName: string;
  receivedAt: string;
  wishOn: string | null;
  state: 'new' | 'accepted' | 'declined';
  isRead: boolean;
}

export class RequestPage {
  items: RequestRow[];
  nextCursor: string | null;
}

/** A piece that came of a request. */
export class RequestPieceShape {
  id: string;
  number: number;
  title: string;
  stage: PieceStage;
}

export class RequestShape extends RequestRow {
  /** what came of it */
  pieces: RequestPieceShape[];
  requesterEmail: string;
  formTitle: string;
  fields: FormField[];
  answers: Answers;
  files: UploadShape[];
  declineReason: string | null;
  routeId: string;
  version: number;
}

export class FeasibilityShape {
  routeId: string;
  earliestOn: string;
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

  /** keys of the route's optional steps that this piece does without */
  @Optional()
  @IsArray()
  @ArrayMaxSize(30)
  @IsString({ each: true })
  leaveOut?: string[];
}

export class AcceptRequestBody extends NewPieceBody {
  /** one more piece of a request that is accepted already */
  @Optional()
  @IsBoolean()
  further?: boolean;

  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title: string;
}

export class AcceptedShape {
  pieceId: string;
}

export class DeclineRequestBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  reason: string;
}
