import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsObject,
  IsOptional,
  IsString,
  IsTimeZone,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import type { SignOffPolicy } from '@zesting/core';

/** The generic kinds of channel. */
export const CHANNEL_KINDS = [
  'photo_feed',
  'short_clip_feed',
  'microblog',
  'professional_network',
  'video_site',
  'blog',
  'newsletter',
  'podcast',
  'community_board',
] as const;
export type ChannelKind = (typeof CHANNEL_KINDS)[number];

const DAY = /^\d{4}-\d{2}-\d{2}$/;
const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

export class ChannelShape {
  id: string;
  kind: string;
  name: string;
  copyLimit: number | null;
  ratio: string;
}

export class PillarShape {
  id: string;
  name: string;
}

export class ContactShape {
  id: string;
  name: string;
  email: string;
  canAsk: boolean;
  canSignOff: boolean;
}

export class ClientSummary {
  id: string;
  code: string;
  name: string;
  /** 0 to 11: the step on the wheel of client colours */
  colour: number;
  zone: string;
}

export class ClientShape extends ClientSummary {
  usualTime: string;
  channels: ChannelShape[];
  pillars: PillarShape[];
  contacts: ContactShape[];
}

export class FormLinkShape {
  title: string;
  address: string;
}

export class RoomLinkShape {
  contactId: string;
  name: string;
  address: string;
}

/** The client's personal links. Only those who manage the client see them. */
export class ClientLinksShape {
  forms: FormLinkShape[];
  rooms: RoomLinkShape[];
  feed: string;
}

/** A contact as the client's page edits it. Without an id it is new. */
export class ContactBody {
  @IsOptional()
  @IsUUID()
  id?: string;

  @IsString()
  @IsNotEmpty()
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
}

/** A channel with its shape and limits. Without an id it is new. */
export class ChannelBody {
  @IsOptional()
  @IsUUID()
  id?: string;

  @IsIn(CHANNEL_KINDS)
  kind: ChannelKind;

  @IsString()
  @IsNotEmpty()
  @MaxLength(60)
  name: string;

  /** width to height, such as 4:5 */
  @Matches(/^[1-9]\d?:[1-9]\d?$/)
  ratio: string;

  /** user-perceived characters; null without a limit */
  @ValidateIf((_, value) => value !== null)
  @IsInt()
  @Min(1)
  @Max(1_000_000)
  copyLimit: number | null;

  @ValidateIf((_, value) => value !== null)
  @IsInt()
  @Min(0)
  @Max(1000)
  tagLimit: number | null;

  @ValidateIf((_, value) => value !== null)
  @IsInt()
  @Min(1)
  @Max(1000)
  mediaLimit: number | null;

  /** working days before the publish date by which the last step must be done, beyond the day before */
  @IsInt()
  @Min(0)
  @Max(30)
  leadDays: number;

  /** the usual time here; null: the client's */
  @ValidateIf((_, value) => value !== null)
  @Matches(TIME)
  usualTime: string | null;
}

/** A pillar with the share it should have of the mix, in whole percent. Without an id it is new. */
export class PillarBody {
  @IsOptional()
  @IsUUID()
  id?: string;

  @IsString()
  @IsNotEmpty()
  @MaxLength(60)
  name: string;

  @IsInt()
  @Min(0)
  @Max(100)
  share: number;
}

export class ClosureBody {
  @Matches(DAY)
  startOn: string;

  @Matches(DAY)
  endOn: string;

  @IsString()
  @IsNotEmpty()
  @MaxLength(100)
  name: string;
}

export class PaletteColourBody {
  @IsString()
  @IsNotEmpty()
  @MaxLength(40)
  name: string;

  @Matches(/^#[0-9a-f]{6}$/)
  hex: string;
}

/** What makers need to know of a brand. */
export class BrandBody {
  @IsString()
  @MaxLength(5000)
  voice: string;

  @IsArray()
  @ArrayMaxSize(24)
  @ValidateNested({ each: true })
  @Type(() => PaletteColourBody)
  palette: PaletteColourBody[];

  /** ids of files */
  @IsArray()
  @ArrayMaxSize(12)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  logos: string[];

  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  wordsToUse: string[];

  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  wordsNever: string[];

  @IsString()
  @MaxLength(500)
  disclosure: string;
}

/** A sign-off policy as it is sent: only what its kind needs is kept. */
export class PolicyBody {
  @IsIn(['any', 'all', 'named', 'n_of', 'agency'])
  kind: SignOffPolicy['kind'];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  contactIds?: string[];

  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(20)
  count?: number;

  @IsOptional()
  @IsBoolean()
  inTurn?: boolean;

  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(30)
  silenceDays?: number;

  @IsOptional()
  @IsUUID()
  personId?: string;
}

/** Minutes of work on Monday to Sunday. */
const Week = (): PropertyDecorator => (target, key) => {
  IsArray()(target, key);
  ArrayMinSize(7)(target, key);
  ArrayMaxSize(7)(target, key);
  IsInt({ each: true })(target, key);
  Min(0, { each: true })(target, key);
  Max(1440, { each: true })(target, key);
};
export { Week as IsWeek };

export class NewClientBody {
  /** two to five capital letters; stands on every file and link */
  @Matches(/^[A-Z]{2,5}$/)
  code: string;

  @IsString()
  @IsNotEmpty()
  @MaxLength(100)
  name: string;

  @IsInt()
  @Min(0)
  @Max(11)
  colour: number;

  @IsTimeZone()
  zone: string;

  /** country, then state, such as NZ-AUK: whose public holidays count */
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region: string;

  @Week()
  weeklyMinutes: number[];

  @Matches(TIME)
  usualTime: string;

  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  managerIds: string[];
}

/** What of a client changes. A list that is given is the whole list: what is missing from it is archived. */
export class EditClientBody {
  @IsOptional()
  @IsString()
  @IsNotEmpty()
  @MaxLength(100)
  name?: string;

  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(11)
  colour?: number;

  @IsOptional()
  @IsTimeZone()
  zone?: string;

  @IsOptional()
  @Matches(/^[A-Z]{2}(-[A-Z0-9]{1,4})?$/)
  region?: string;

  @IsOptional()
  @Week()
  weeklyMinutes?: number[];

  @IsOptional()
  @Matches(TIME)
  usualTime?: string;

  @IsOptional()
  @IsInt()
  @Min(1)
  @Max(9)
  roundsAgreed?: number;

  /** whether pencilled placements are in the client's calendar feed */
  @IsOptional()
  @IsBoolean()
  feedPencilled?: boolean;

  /** names of the region's observances that stand on the calendar */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @ArrayUnique()
  @IsString({ each: true })
  @MaxLength(120, { each: true })
  observances?: string[];

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => PolicyBody)
  policy?: PolicyBody;

  @IsOptional()
  @IsObject()
  @ValidateNested()
  @Type(() => BrandBody)
  brand?: BrandBody;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @ValidateNested({ each: true })
  @Type(() => ContactBody)
  contacts?: ContactBody[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => ChannelBody)
  channels?: ChannelBody[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => PillarBody)
  pillars?: PillarBody[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ClosureBody)
  closures?: ClosureBody[];

  @IsOptional()
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

export class ClientMadeShape {
  clientId: string;
}

/** A line of the list of clients. */
export class ClientRow extends ClientSummary {
  region: string;
  managers: string[];
  openPieces: number;
  /** pieces late, or that cannot be met */
  inDanger: number;
  contacts: number;
  archivedAt: string | null;
}

export class LogoShape {
  assetId: string;
  name: string;
  mime: string;
}

export class PersonNameShape {
  personId: string;
  name: string;
}

export class DayOffShape {
  on: string;
  name: string;
}

/** The brand sheet that makers read. */
export class BrandShape extends ClientSummary {
  brand: BrandBody;
  logos: LogoShape[];
}

/** The whole of a client's page. */
/** What was taken out of a client's lists and can come back. */
export class ArchivedListsShape {
  contacts: ContactBody[];
  channels: ChannelBody[];
  pillars: PillarBody[];
}

export class ClientPageShape extends BrandShape {
  archived: ArchivedListsShape;
  region: string;
  weeklyMinutes: number[];
  usualTime: string;
  roundsAgreed: number;
  feedPencilled: boolean;
  policy: SignOffPolicy;
  contacts: ContactBody[];
  channels: ChannelBody[];
  pillars: PillarBody[];
  closures: ClosureBody[];
  managers: PersonNameShape[];
  /** who may manage a client, or decide for it */
  possibleManagers: PersonNameShape[];
  /** the region's public holidays over the next twelve months */
  holidays: DayOffShape[];
  observances: string[];
  /** the region's observances over the next twelve months */
  possibleObservances: DayOffShape[];
  archivedAt: string | null;
  version: number;
}

export class RegionShape {
  code: string;
  name: string;
}
