import { IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { CHANNEL_KINDS, type ChannelKind } from '@zesting/core';
import { IsNotBlank, OrNull } from '../fields/index.js';

/** How we make this kind of thing, and of which kind it is; what is null does not matter. */
export class GuidelineBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  title: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(10_000)
  text: string;

  /** null: every client; a lead alone says such */
  @OrNull()
  @IsUUID('all')
  clientId: string | null;

  @OrNull()
  @IsUUID('all')
  formatId: string | null;

  @OrNull()
  @IsIn(CHANNEL_KINDS)
  channelKind: ChannelKind | null;

  /** of which steps; null: all */
  @OrNull()
  @IsString()
  @MaxLength(60)
  skill: string | null;
}

/** A picture that shows how it is made. */
export class GuidelinePictureShape {
  assetId: string;
  name: string;
}

export class GuidelineShape {
  id: string;
  title: string;
  text: string;
  clientId: string | null;
  formatId: string | null;
  formatName: string | null;
  channelKind: ChannelKind | null;
  skill: string | null;
  editedAt: string;
  editedBy: string;
  pictures: GuidelinePictureShape[];
  canEdit: boolean;
  version: number;
}

export class GuidelineMadeShape {
  guidelineId: string;
}

export class PutAwayGuidelineShape {
  id: string;
  title: string;
}

/** All guidelines in the viewer's reach. */
export class GuidelinesShape {
  guidelines: GuidelineShape[];
  archived: PutAwayGuidelineShape[];
}

/** What holds for a piece: what is said most narrowly comes first. */
export class PieceGuidelinesShape {
  guidelines: GuidelineShape[];
}
