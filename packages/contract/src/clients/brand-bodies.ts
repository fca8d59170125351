import { Type } from 'class-transformer';
import { ArrayMaxSize, ArrayUnique, IsArray, IsBoolean, IsString, IsUUID, Matches, MaxLength, ValidateNested } from 'class-validator';
import { IsNotBlank, Optional } from '../fields/index.js';

export class PaletteColourBody {
  @IsString()
  @IsNotBlank()
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

  /** whether nothing goes out without a disclosure; left away: it may */
  @Optional()
  @IsBoolean()
  needsDisclosure?: boolean;
}
