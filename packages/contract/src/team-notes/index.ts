import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsNotBlank } from '../fields/index.js';
import { UploadShape } from '../intake/index.js';

/** `brief`: belongs to what the makers need to know; `comment`: talk among the team. Neither is ever seen by the client. */
export const TEAM_NOTE_KINDS = ['brief', 'comment'] as const;
export type TeamNoteKind = (typeof TEAM_NOTE_KINDS)[number];

export class TeamNoteBody {
  @IsIn(TEAM_NOTE_KINDS)
  kind: TeamNoteKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(5000)
  text: string;

  /** files of the piece that go with it */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  assetIds: string[];

  /** who hears of it in their round-up */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  mentionIds: string[];
}

export class EditTeamNoteBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(5000)
  text: string;
}

export class TeamNoteShape {
  id: string;
  kind: TeamNoteKind;
  authorName: string;
  text: string;
  files: UploadShape[];
  /** names of those who were told */
  mentioned: string[];
  createdAt: string;
  editedAt: string | null;
  isMine: boolean;
  canRemove: boolean;
  version: number;
}

export class TeamMateShape {
  personId: string;
  name: string;
}

export class TeamNotesShape {
  /** oldest first */
  notes: TeamNoteShape[];
  /** who can see the piece, and so be told of a note on it; without the viewer */
  team: TeamMateShape[];
}
