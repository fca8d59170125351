import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  IsUUID,
  IsUrl,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { IsNotBlank, IsNotUnder, IsTimeOfDay, Optional, OptionalOrNull, OrNull } from '../fields/index.js';
import { CHANNEL_KINDS, type ChannelKind } from './channel-kinds.js';

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
