import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsObject, IsString, IsUUID, MaxLength, ValidateNested } from 'class-validator';
import type { PartState } from '@zesting/core';

export class MediumBody {
  @IsUUID()
  assetId: string;

  @IsString()
  @MaxLength(1000)
  alt: string;
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
  width: number | null;
  height: number | null;
}

export class ChannelContentShape {
  channelId: string;
  name: string;
  kind: string;
  ratio: string;
  copyLimit: number | null;
  tagLimit: number | null;
  mediaLimit: number | null;
  countsTags: boolean;
  linksWork: boolean;
  needsMedia: boolean;
  minWidth: number | null;
  copy: string;
  tags: string[];
  firstComment: string;
  link: string;
  state: PartState;
}

export class ContentShape {
  version: number;
  shared: { copy: string; media: MediumShape[]; disclosure: string; state: PartState };
  channels: ChannelContentShape[];
}
