import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsInt, IsString, IsUUID, MaxLength, Min, ValidateNested } from 'class-validator';
import { PURPOSES, type Danger, type PieceStage, type Purpose } from '@zesting/core';
import { IsDay, IsNotBlank, Optional, OptionalOrNull } from '../fields/index.js';

/** Who is to have a step. */
export class SheetDoerBody {
  @IsUUID()
  stepId: string;

  /** what the step was at when it was looked at */
  @IsInt()
  @Min(1)
  version: number;

  /** null: nobody */
  @OptionalOrNull()
  @IsUUID()
  personId?: string | null;
}

/** What is changed of one piece; what is left away stays. */
export class SheetChangeBody {
  @IsUUID()
  pieceId: string;

  /** of the piece as it was looked at */
  @IsInt()
  @Min(1)
  version: number;

  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title?: string;

  @OptionalOrNull()
  @IsUUID()
  pillarId?: string | null;

  @OptionalOrNull()
  @IsIn(PURPOSES)
  purpose?: Purpose | null;

  @OptionalOrNull()
  @IsUUID()
  leadId?: string | null;

  @OptionalOrNull()
  @IsDay()
  wishOn?: string | null;

  @Optional()
  @ValidateNested()
  @Type(() => SheetDoerBody)
  doer?: SheetDoerBody;
}

/** Changes of many pieces: each piece's are made together or not at all, whatever becomes of the others. */
export class SheetChangesBody {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => SheetChangeBody)
  changes: SheetChangeBody[];
}

/** A step that can be worked on now. */
export class SheetStepShape {
  stepId: string;
  title: string;
  skill: string;
  doerId: string | null;
  doerName: string | null;
  /** it is the client's: nobody of the agency can have it */
  isClients: boolean;
  version: number;
}

/** A piece in the sheet. */
export class SheetRowShape {
  id: string;
  number: number;
  version: number;
  clientId: string;
  clientCode: string;
  title: string;
  formatName: string;
  pillarId: string | null;
  pillarName: string | null;
  /** who was named for it, and who answers for it as things are */
  leadId: string | null;
  leadName: string | null;
  campaignNames: string[];
  channelNames: string[];
  purpose: Purpose | null;
  stage: PieceStage;
  /** side by side */
  atHand: SheetStepShape[];
  stepTitles: string[];
  /** who has them: a person, or "the client" */
  doerNames: string[];
  round: number;
  wishOn: string | null;
  aimOn: string | null;
  /** by when all that is open is expected to be done */
  expectedOn: string | null;
  slackDays: number | null;
  /** of open steps of the agency's */
  leftMinutes: number;
  /** hours as they were logged; of a step that ended without any, its effort */
  workedMinutes: number;
  danger: Danger | null;
}

export class SheetShape {
  rows: SheetRowShape[];
  /** of what is asked for, with what has no place in a sheet */
  total: number;
  /** so many open ones the filter leaves out */
  leftOut: number;
}
