import { KEPT_FILE_KINDS, type KeptFileKind } from '@zesting/core';
import { IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsDay, IsNotBlank, Optional, OrNull } from '../fields/index.js';

/** What is said of a file that is kept for a client. */
export class KeptFileBody {
  @IsIn(KEPT_FILE_KINDS)
  kind: KeptFileKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  title: string;

  /** what can be seen or heard: where it goes out this is its alternative text to begin with */
  @IsString()
  @MaxLength(1000)
  about: string;

  /** it is good up to then; null: for good */
  @OrNull()
  @IsDay()
  renewBy: string | null;
}

/** The same of a file that was just brought. */
export class NewKeptFileBody extends KeptFileBody {
  @IsUUID()
  assetId: string;
}

/** What is said of it from now on, with a newer file in its place where one was brought. */
export class EditKeptFileBody extends KeptFileBody {
  @Optional()
  @IsUUID()
  assetId?: string;
}

/** Takes a file into a piece: among what goes out, or among what it is made from. */
export class TakeKeptFileBody {
  @IsIn(['content', 'material'])
  into: 'content' | 'material';
}

export class KeptFileMadeShape {
  keptFileId: string;
}

/** A piece that a file was taken into. */
export class KeptFileUseShape {
  pieceId: string;
  title: string;
}

/** A file that is kept for a client. */
export class KeptFileShape {
  id: string;
  clientId: string;
  kind: KeptFileKind;
  title: string;
  about: string;
  renewBy: string | null;
  assetId: string;
  name: string;
  mime: string;
  bytes: number;
  width: number | null;
  height: number | null;
  durationMs: number | null;
  /** into so many pieces it was taken */
  used: number;
  /** the latest of them */
  pieces: KeptFileUseShape[];
  lastAt: string | null;
  /** since when this file is here: it was kept, or took the place of an older one */
  since: string;
  archived: boolean;
  version: number;
}

export class KeptFilesShape {
  /** what is to be renewed first, then the newest */
  files: KeptFileShape[];
  /** how many more there are like that */
  hidden: number;
  /** how many of those that are looked through are old or will be soon */
  toRenew: number;
}

/** A file as it is offered for a piece. */
export class OfferedKeptFileShape {
  id: string;
  kind: KeptFileKind;
  title: string;
  about: string;
  renewBy: string | null;
  name: string;
  mime: string;
  used: number;
}

export class OfferedKeptFilesShape {
  files: OfferedKeptFileShape[];
  hidden: number;
}
