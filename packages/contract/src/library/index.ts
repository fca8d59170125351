import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsInt, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';
import { IsNotBlank, OrNull } from '../fields/index.js';

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
