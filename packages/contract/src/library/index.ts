import type { PieceStage, PlacementState } from '@zesting/core';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsInt, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';
import { IsNotBlank, OrNull } from '../fields/index.js';

export * from './phrases-bodies.js';
export * from './kept-files-bodies.js';

/** Tags that are kept under a name, and what they are meant for. */
export class TagSetBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(80)
  name: string;

  /** in their order, without number signs */
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @Matches(/^[^\s#,]{1,100}$/, { each: true })
  tags: string[];

  /** null: for any */
  @OrNull()
  @IsUUID('all')
  pillarId: string | null;

  /** ISO weekday, 1 is Monday; null: for any */
  @OrNull()
  @IsInt()
  @Min(1)
  @Max(7)
  weekday: number | null;
}

export class TagSetMadeShape {
  tagSetId: string;
}

export class TagSetShape {
  id: string;
  name: string;
  tags: string[];
  pillarId: string | null;
  pillarName: string | null;
  weekday: number | null;
  /** placements of the last year, and what is dated, that carry all of its tags */
  used: number;
  /** the last day of one that is out or goes out */
  lastOn: string | null;
  version: number;
}

export class PutAwayTagSetShape {
  id: string;
  name: string;
}

export class TagSetsShape {
  tagSets: TagSetShape[];
  archived: PutAwayTagSetShape[];
}

/** A set as it is offered for a piece. */
export class OfferedTagSetShape {
  id: string;
  name: string;
  tags: string[];
  pillarId: string | null;
  weekday: number | null;
}

export class OfferedTagSetsShape {
  tagSets: OfferedTagSetShape[];
}

export class LibraryPlacementShape {
  channelName: string;
  on: string | null;
  state: PlacementState;
}

/** A piece that was found by what it says. */
export class LibraryPieceShape {
  pieceId: string;
  number: number;
  clientId: string;
  title: string;
  formatName: string;
  pillarName: string | null;
  stage: PieceStage;
  /** what its channels share */
  copy: string;
  /** where the words stand in that, with U+0002 before and U+0003 after what was found */
  snippet: string;
  tags: string[];
  pictureId: string | null;
  /** where it stands or stood, the latest first */
  placements: LibraryPlacementShape[];
}

export class LibraryShape {
  /** the newest first */
  pieces: LibraryPieceShape[];
  /** asks for the next ones; null: these are all */
  next: string | null;
  /** whether words were asked for */
  isAsked: boolean;
}
