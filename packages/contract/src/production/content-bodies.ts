import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { ChannelRules, CopyLanguage, Crop, PartState } from '@zesting/core';
import { Optional, OptionalOrNull } from '../fields/index.js';
import { ContentTextBody, OutlineHeadingBody, WrittenTextShape } from './text-bodies.js';

export class MediumBody {
  @IsUUID()
  assetId: string;

  @IsString()
  @MaxLength(1000)
  alt: string;

  /** of a clip: which of these pictures stands for it before it plays, by the SHA-256 of its bytes; null: none. What is left away stays as it is */
  @OptionalOrNull()
  @Matches(/^[0-9a-f]{64}$/)
  cover?: string | null;
}

export class SharedPartBody {
  @IsString()
  @MaxLength(50_000)
  copy: string;

  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => MediumBody)
  media: MediumBody[];

  @IsString()
  @MaxLength(500)
  disclosure: string;

  /** its copy is laid out: headings, lists, links and emphasis as docs/formats.md has them. What is left away stays as it is */
  @Optional()
  @IsBoolean()
  isLaidOut?: boolean;

  /** the texts besides the copy; what is left away altogether stays as it is, one that is not among them is not written */
  @Optional()
  @IsArray()
  @ArrayMaxSize(40)
  @ArrayUnique((text: ContentTextBody) => text.key)
  @ValidateNested({ each: true })
  @Type(() => ContentTextBody)
  texts?: ContentTextBody[];
}

/** How a picture is cut on a channel. */
export class CropBody {
  /** SHA-256 of the picture's bytes */
  @Matches(/^[0-9a-f]{64}$/)
  hash: string;

  /** width to height, such as 4:5 */
  @Matches(/^[1-9]\d?:[1-9]\d?$/)
  ratio: string;

  /** the focus point, in ten-thousandths of width and height */
  @IsInt()
  @Min(0)
  @Max(10_000)
  x: number;

  @IsInt()
  @Min(0)
  @Max(10_000)
  y: number;

  /** in thousandths of the largest that there is room for */
  @IsInt()
  @Min(100)
  @Max(1000)
  size: number;
}

export class ChannelPartBody {
  @IsUUID()
  channelId: string;

  @IsString()
  @MaxLength(50_000)
  copy: string;

  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  tags: string[];

  @IsString()
  @MaxLength(5000)
  firstComment: string;

  @IsString()
  @MaxLength(2000)
  link: string;

  /** which pictures and clips go out here, in this order, by the SHA-256 of their bytes; null: all. What is left away stays as it is */
  @OptionalOrNull()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @Matches(/^[0-9a-f]{64}$/, { each: true })
  media?: string[] | null;

  /** how pictures are cut here; one that is not among them goes out whole. What is left away stays as it is */
  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique((crop: CropBody) => crop.hash)
  @ValidateNested({ each: true })
  @Type(() => CropBody)
  crops?: CropBody[];
}

/** The whole working copy of a piece's content. */
export class ContentBody {
  @ValidateNested()
  @IsObject()
  @Type(() => SharedPartBody)
  shared: SharedPartBody;

  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => ChannelPartBody)
  channels: ChannelPartBody[];
}

export class MediumShape {
  assetId: string;
  name: string;
  mime: string;
  alt: string;
  /** SHA-256 of its bytes */
  hash: string;
  /** of a clip: the picture of the piece that stands for it before it plays, by its hash; left away: none is chosen */
  cover?: string;
  /** in pixels, as it is shown */
  width: number | null;
  height: number | null;
  /** of a clip or sound */
  durationMs: number | null;
  bytes: number | null;
}

/** What a channel lays over pictures and clips, in hundredths of their height and width, and after how many characters it folds text. */
export class ChannelLooksShape {
  safeTop: number;
  safeBottom: number;
  safeSides: number;
  foldsAt: number | null;
}

export class ChannelContentShape {
  channelId: string;
  name: string;
  kind: string;
  rules: ChannelRules;
  looks: ChannelLooksShape;
  copy: string;
  tags: string[];
  firstComment: string;
  link: string;
  /** which of the shared media go out here, by their digests, in this order; left away: all */
  media?: string[];
  /** how pictures are cut here, by their digests */
  crops?: Record<string, Crop>;
  state: PartState;
}

export class ContentShape {
  version: number;
  shared: { copy: string; media: MediumShape[]; disclosure: string; isLaidOut: boolean; texts: WrittenTextShape[]; state: PartState };
  /** copy of its format has headings, lists and links */
  laysOut: boolean;
  /** in which the client’s copy is written */
  language: CopyLanguage;
  /** a writing aid outside of Zesting can be asked for a draft */
  canAskAid: boolean;
  /** the headings that its copy begins from */
  outline: OutlineHeadingBody[];
  channels: ChannelContentShape[];
}
