import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsDay, IsNotBlank, OrNull } from '../fields/index.js';

/** Pieces that serve one aim over one period, on any of a client's channels. */
export class CampaignBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  name: string;

  /** what it is for, in a sentence */
  @IsString()
  @MaxLength(500)
  aim: string;

  @IsDay()
  fromOn: string;

  /** its last day: within two years */
  @IsDay()
  toOn: string;

  /** where it is mainly seen */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  channelIds: string[];

  /** dates of the client that belong to it */
  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  markerIds: string[];
}

/** Another period. */
export class MoveCampaignBody {
  @IsDay()
  fromOn: string;

  @IsDay()
  toOn: string;

  /** whether pieces and dates that can still move go along, where it moves as a whole */
  @IsBoolean()
  isAlong: boolean;
}

/** The campaign that a piece belongs to; null: none. */
export class PieceCampaignBody {
  @OrNull()
  @IsUUID()
  campaignId: string | null;
}
