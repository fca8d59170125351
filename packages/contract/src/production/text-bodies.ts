import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { CHANNEL_KINDS, type ChannelKind } from '@zesting/core';
import { IsNotBlank, Optional, OptionalOrNull } from '../fields/index.js';

/** A text of a piece besides its copy. */
export class ContentTextBody {
  /** which of its format's texts */
  @Matches(/^[a-z0-9-]{1,40}$/)
  key: string;

  /** empty: it is not written */
  @IsString()
  @MaxLength(20_000)
  text: string;

  /** other wordings that were thought of, to choose from; what is left away stays as it is */
  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  others?: string[];
}

/** A text that a format has besides the copy. */
export class FormatTextBody {
  /** for good: what is written stands under it */
  @Matches(/^[a-z0-9-]{1,40}$/)
  key: string;

  @IsString()
  @IsNotBlank()
  @MaxLength(40)
  name: string;

  /** several lines, or one */
  @IsBoolean()
  isLong: boolean;

  /** it is the words of slides, each with the picture of its place; left away: it is not */
  @Optional()
  @IsBoolean()
  isSlides?: boolean;

  @IsString()
  @MaxLength(300)
  prompt: string;

  /** in characters as people count them */
  @OptionalOrNull()
  @IsInt()
  @Min(1)
  @Max(20_000)
  limit: number | null;

  /** a piece goes out only with it */
  @IsBoolean()
  isNeeded: boolean;
}

/** A heading that copy begins from. */
export class OutlineHeadingBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(120)
  heading: string;

  @IsString()
  @MaxLength(300)
  prompt: string;

  /** only for copy that goes out on channels of these kinds and no others; left away or empty: wherever it goes out */
  @Optional()
  @IsArray()
  @ArrayUnique()
  @IsIn(CHANNEL_KINDS, { each: true })
  kinds?: ChannelKind[];
}

/** What a text is told apart by where people read it; a body may lack it, which its own rule refuses. */
const nameOf = ({ key, name }: Partial<FormatTextBody>): string | undefined => (typeof name === 'string' ? name.trim().toLowerCase() : key);

/** What pieces of a format are written by. */
export class FormatWritingBody {
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique((text: FormatTextBody) => text.key)
  @ArrayUnique(nameOf)
  @ValidateNested({ each: true })
  @Type(() => FormatTextBody)
  texts: FormatTextBody[];

  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => OutlineHeadingBody)
  outline: OutlineHeadingBody[];

  /** its copy has headings, lists and links; left away: as it was */
  @Optional()
  @IsBoolean()
  isLaidOut?: boolean;
}

/** A format, and what its pieces are written by. */
export class FormatWritingShape {
  formatId: string;
  name: string;
  texts: FormatTextBody[];
  outline: OutlineHeadingBody[];
  isLaidOut: boolean;
  version: number;
}

/** The formats in their order, and whether the viewer may say what they are written by. */
export class FormatWritingsShape {
  formats: FormatWritingShape[];
  canEdit: boolean;
}

/** A text of a piece, as it is written there and as its format asks for it. */
export class WrittenTextShape {
  key: string;
  name: string;
  text: string;
  isLong: boolean;
  isSlides: boolean;
  prompt: string;
  limit: number | null;
  isNeeded: boolean;
  /** false: its format has it no longer */
  isAsked: boolean;
  /** other wordings that were thought of: they are not signed and go out nowhere */
  others: string[];
}

/** A text besides the copy, as it is read. */
export class NamedTextShape {
  name: string;
  text: string;
}

/** A text besides the copy, with what it is known by. */
export class ContentTextShape extends NamedTextShape {
  key: string;
}

/** A text besides the copy as a contact reads it, with other wordings to choose from. */
export class ReadTextShape extends ContentTextShape {
  /** it is the words of slides, each with the picture of its place */
  isSlides: boolean;
  others: string[];
}
