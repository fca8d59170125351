import { COPY_LANGUAGES, type CopyLanguage } from '@zesting/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
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
import { IsDay, IsNotBlank, IsTimeOfDay, IsWeek, IsZone, Optional, OrNull } from '../fields/index.js';
import { BrandBody } from './brand-bodies.js';
import { ChannelBody } from './channel-bodies.js';
import { CHANNEL_KINDS, type ChannelKind } from './channel-kinds.js';
import { PolicyBody } from './policy-bodies.js';

/** A contact as the client's page edits it. Without an id it is new. */
export class ContactBody {
  @Optional()
  @IsUUID()
  id?: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsEmail()
  @MaxLength(200)
  email: string;

  @IsBoolean()
  canAsk: boolean;

  @IsBoolean()
  canView: boolean;

  @IsBoolean()
  canSignOff: boolean;

  /** how much what they ask for counts beside what others ask: 1 as usual, to 3 */
  @IsInt()
  @Min(1)
  @Max(3)
  weight: number;
}

/** How many pieces of a format a month includes. */
export class FormatAllowanceBody {
  @IsUUID()
  formatId: string;

  @IsInt()
  @Min(0)
  @Max(1000)
  pieces: number;
}

/** What a client's retainer includes in a month. */
export class AllowanceBody {
  /** hours of work; null: none are agreed */
  @OrNull()
  @IsInt()
  @Min(0)
  @Max(10_000)
  hours: number | null;

  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique((line: FormatAllowanceBody) => line.formatId)
  @ValidateNested({ each: true })
  @Type(() => FormatAllowanceBody)
  formats: FormatAllowanceBody[];
}

/** A pillar with the share it should have of the mix, in whole percent. Without an id it is new. */
export class PillarBody {
  @Optional()
  @IsUUID()
  id?: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  name: string;

  @IsInt()
  @Min(0)
  @Max(100)
  share: number;

  /** its step around the twelve colours; without one the next that is free */
  @Optional()
  @IsInt()
  @Min(0)
  @Max(11)
  colour?: number;
}

export class ClosureBody {
  @IsDay()
  startOn: string;

  @IsDay()
  endOn: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;
}

/** What a link opens: an intake form, a contact's room, the calendar feed, a request's receipt. */
export const LINK_KINDS = ['form', 'room', 'feed', 'receipt'] as const;
export type LinkKind = (typeof LINK_KINDS)[number];

/** Every link that was given out of this kind dies. */
export class ChangeLinkBody {
  @IsIn(LINK_KINDS)
  kind: LinkKind;

  /** the form, contact or request; none for the feed */
  @Optional()
  @IsUUID()
  id?: string;

  /** `renew`: there is a new one (a room's goes to its contact by mail); `close`: there is none until it is renewed */
  @IsIn(['renew', 'close'])
  change: 'renew' | 'close';
}

export class NewClientBody {
  /** two to five capital letters; stands on every file and link */
  @Matches(/^[A-Z]{2,5}$/)
  code: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name: string;

  @IsInt()
  @Min(0)
  @Max(11)
  colour: number;

  @IsZone()
  zone: string;

  /** country, then state, such as NZ-AUK: whose public holidays count */
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region: string;

  @IsWeek()
  weeklyMinutes: number[];

  @IsTimeOfDay()
  usualTime: string;

  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  managerIds: string[];

  /** a channel of each kind, as the starting stock has it */
  @Optional()
  @IsArray()
  @ArrayUnique()
  @IsIn(CHANNEL_KINDS, { each: true })
  channelKinds?: ChannelKind[];
}

/** What of a client changes. A list that is given is the whole list: what is missing from it is archived. */
export class EditClientBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name?: string;

  @Optional()
  @IsInt()
  @Min(0)
  @Max(11)
  colour?: number;

  @Optional()
  @IsZone()
  zone?: string;

  @Optional()
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region?: string;

  @Optional()
  @IsWeek()
  weeklyMinutes?: number[];

  @Optional()
  @IsTimeOfDay()
  usualTime?: string;

  /** of the client's copy */
  @Optional()
  @IsIn(COPY_LANGUAGES)
  language?: CopyLanguage;

  @Optional()
  @IsInt()
  @Min(1)
  @Max(9)
  roundsAgreed?: number;

  /** whether pencilled placements are in the client's calendar feed */
  @Optional()
  @IsBoolean()
  feedPencilled?: boolean;

  /** names of the region's observances that stand on the calendar */
  @Optional()
  @IsArray()
  @ArrayMaxSize(100)
  @ArrayUnique()
  @IsString({ each: true })
  @MaxLength(120, { each: true })
  observances?: string[];

  @Optional()
  @IsObject()
  @ValidateNested()
  @Type(() => PolicyBody)
  policy?: PolicyBody;

  @Optional()
  @IsObject()
  @ValidateNested()
  @Type(() => BrandBody)
  brand?: BrandBody;

  @Optional()
  @IsObject()
  @ValidateNested()
  @Type(() => AllowanceBody)
  allowance?: AllowanceBody;

  @Optional()
  @IsArray()
  @ArrayMaxSize(50)
  @ValidateNested({ each: true })
  @Type(() => ContactBody)
  contacts?: ContactBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => ChannelBody)
  channels?: ChannelBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => PillarBody)
  pillars?: PillarBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ClosureBody)
  closures?: ClosureBody[];

  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  managerIds?: string[];
}

export class ArchiveBody {
  @IsBoolean()
  archived: boolean;
}
