import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsInt, IsString, IsUUID, MaxLength, Min, ValidateNested } from 'class-validator';
import type { Purpose } from '@zesting/core';
import { PageAnswerShape } from '../asked-pages/index.js';
import { Optional } from '../fields/index.js';

/** What goes out on one channel, as it was changed; what is left away stays. */
export class CopyChangeBody {
  @IsUUID()
  pieceId: string;

  @IsUUID()
  channelId: string;

  /** of the working copy that was looked at */
  @IsInt()
  @Min(1)
  contentVersion: number;

  /** empty: what the channels share */
  @Optional()
  @IsString()
  @MaxLength(50_000)
  copy?: string;

  @Optional()
  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  tags?: string[];

  @Optional()
  @IsString()
  @MaxLength(5000)
  firstComment?: string;

  @Optional()
  @IsString()
  @MaxLength(2000)
  link?: string;
}

/** Changes of many pieces of one client: each piece's are made together or not at all, whatever becomes of the others. */
export class CopyChangesBody {
  @IsArray()
  @ArrayNotEmpty()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => CopyChangeBody)
  changes: CopyChangeBody[];
}

/** What goes out on one channel on one day. */
export class CopyRowShape {
  placementId: string;
  pieceId: string;
  pieceNumber: number;
  title: string;
  formatName: string;
  channelId: string;
  channelName: string;
  on: string;
  at: string | null;
  state: string;
  /** the first picture */
  pictureId: string | null;
  /** what goes out there */
  copy: string;
  /** other channels of the piece that show the same because they share it */
  sharedWith: string[];
  /** the copy has headings, lists and links on the piece: what is written here instead is this channel’s own, and words alone */
  isLaidOut: boolean;
  tags: string[];
  firstComment: string;
  link: string;
  /** what goes out below the copy, and counts in its length */
  disclosure: string;
  purpose: Purpose | null;
  copyLimit: number | null;
  tagLimit: number | null;
  countsTags: boolean;
  linksWork: boolean;
  contentVersion: number;
  /** of the piece, for its purpose */
  version: number;
}

export class CopyTableShape {
  /** by day and time */
  rows: CopyRowShape[];
  /** what of the client's open work has no day, and so is in no period */
  undated: number;
  /** what the pages answered to which the saved links lead, as far as they were asked */
  pages: PageAnswerShape[];
}

/** What became of changes, by piece. */
export class PiecesChangedShape {
  saved: string[];
  refused: { pieceId: string; code: string }[];
}
