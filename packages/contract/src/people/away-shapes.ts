import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsInt, IsUUID, ValidateNested } from 'class-validator';
import type { PlacementWorkKind } from '@zesting/core';
import { TimeOffBody } from './time-off-bodies.js';

/** A step that somebody else takes over. */
export class GiveOneBody {
  @IsUUID('all')
  stepId: string;

  @IsUUID('all')
  personId: string;

  /** of the step, as it was looked at */
  @IsInt()
  version: number;
}

/** An absence, with who takes over. */
export class AwayBody extends TimeOffBody {
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => GiveOneBody)
  gives: GiveOneBody[];
}

/** A piece that an absence touches. */
export class AwayPieceShape {
  pieceId: string;
  title: string;
  clientId: string;
  /** working days that it is late as it is, with the absence, and with what is proposed */
  was: number;
  away: number;
  after: number;
}

export class AwayGiveShape {
  stepId: string;
  stepTitle: string;
  version: number;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  personId: string;
  personName: string;
}

/** Something that is to be done around a placement by who is away on its day. */
export class AwayAroundShape {
  kind: PlacementWorkKind;
  words: string;
  pieceId: string;
  pieceTitle: string;
  clientId: string;
  channelName: string;
  dueOn: string;
  /** what is put in comes on the last working day before; a follow-up that is due stays on its day */
  thenOn: string;
}

/** What an absence would come to, and who could take over. */
export class AwayShape {
  /** what becomes later by it, the worst first; and what others have that becomes late by what is proposed */
  pieces: AwayPieceShape[];
  gives: AwayGiveShape[];
  /** what is to be done around what goes out or went out, and falls into it */
  around: AwayAroundShape[];
  /** false where time was up before everything was looked at */
  isWhole: boolean;
}
