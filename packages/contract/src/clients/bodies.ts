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
  IsUrl,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { IsDay, IsNotBlank, IsNotUnder, IsTimeOfDay, IsWeek, IsZone, Optional, OptionalOrNull, OrNull } from '../fields/index.js';
import { BrandBody } from './brand-bodies.js';
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

/** A channel with its shape and limits. Without an id it is new. */
export class ChannelBody {
  @Optional()
  @IsUUID()
  id?: string;

  @IsIn(CHANNEL_KINDS)
  kind: ChannelKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(60)
  name: string;

  /** width to height, such as 4:5 */
  @Matches(/^[1-9]\d?:[1-9]\d?$/)
  ratio: string;

  /** user-perceived characters; null without a limit */
  @OrNull()
  @IsInt()
  @Min(1)
  @Max(1_000_000)
  copyLimit: number | null;

  @OrNull()
  @IsInt()
  @Min(0)
  @Max(1000)
  tagLimit: number | null;

  @OrNull()
  @IsInt()
  @Min(1)
  @Max(1000)
  mediaLimit: number | null;

  /** whether tags are written into the text and count in its length; what is left away of these rules stays as it is */
  @Optional()
  @IsBoolean()
  countsTags?: boolean;

  /** whether an address in the text can be pressed */
  @Optional()
  @IsBoolean()
  linksWork?: boolean;

  /** whether text alone is not enough */
  @Optional()
  @IsBoolean()
  needsMedia?: boolean;

  /** the least width of a picture, in pixels; null: any */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(20_000)
  minWidth?: number | null;

  /** shapes besides its own that are shown whole there, such as 1:1 */
  @Optional()
  @IsArray()
  @ArrayMaxSize(10)
  @ArrayUnique()
  @Matches(/^[1-9]\d?:[1-9]\d?$/, { each: true })
  otherShapes?: string[];

  /** whether what has none of these shapes is cut there */
  @Optional()
  @IsBoolean()
  cutsMedia?: boolean;

  /** how long a clip or sound must be, in seconds; null: any */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(86_400)
  clipMinSeconds?: number | null;

  /** how long a clip or sound may be, in seconds: no less than it must be; null: any */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(86_400)
  @IsNotUnder('clipMinSeconds')
  clipMaxSeconds?: number | null;

  /** the most that one file may weigh, in millions of bytes; null: any */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(100_000)
  fileLimitMb?: number | null;

  /** what the channel's own signs cover at the top, in hundredths of the height */
  @Optional()
  @IsInt()
  @Min(0)
  @Max(40)
  safeTop?: number;

  /** at the bottom, in hundredths of the height */
  @Optional()
  @IsInt()
  @Min(0)
  @Max(40)
  safeBottom?: number;

  /** at either side, in hundredths of the width */
  @Optional()
  @IsInt()
  @Min(0)
  @Max(40)
  safeSides?: number;

  /** after so many characters text is folded, and opened by a press; null: never */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(100_000)
  foldsAt?: number | null;

  /** whether what is out there can be opened at an address: a letter cannot */
  @Optional()
  @IsBoolean()
  hasAddress?: boolean;

  /** where somebody posts by hand; null: not known */
  @OptionalOrNull()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  postingAddress?: string | null;

  /** working days before the publish date by which the last step must be done, beyond the day before */
  @IsInt()
  @Min(0)
  @Max(30)
  leadDays: number;

  /** the usual time here; null: the client's */
  @OrNull()
  @IsTimeOfDay()
  usualTime: string | null;
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
