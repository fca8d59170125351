import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsString, IsUrl, IsUUID, MaxLength } from 'class-validator';
import { MATERIAL_SORTS, type MaterialSort } from '@zesting/core';
import { IsDay, IsNotBlank, Optional } from '../fields/index.js';

/** So many pieces of material a piece has at most. */
export const MATERIAL_MOST = 200;

/** One of three: a file that was uploaded, an address, or words. */
export class BroughtBody {
  /** what it is; empty: the file’s name or the address says it */
  @IsString()
  @MaxLength(200)
  label: string;

  @Optional()
  @IsUUID()
  assetId?: string;

  @Optional()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  @MaxLength(2000)
  url?: string;

  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(100_000)
  text?: string;
}

/** What the team puts beside the content, with what it is to the makers. */
export class MaterialBody extends BroughtBody {
  @IsIn(MATERIAL_SORTS)
  sort: MaterialSort;
}

/** Asks a contact for what a step waits for, and for what other steps of the client wait for, in one mail. */
export class AskMaterialBody {
  @IsUUID()
  contactId: string;

  /** what is needed, in words for the contact */
  @IsString()
  @IsNotBlank()
  @MaxLength(2000)
  words: string;

  @IsDay()
  dueOn: string;

  /** other steps that wait for the client, with their own day */
  @IsArray()
  @ArrayUnique()
  @ArrayMaxSize(30)
  @IsUUID('all', { each: true })
  alsoIds: string[];
}

/** That everything has come: through the room or another way. */
export class BroughtAllBody {
  @IsString()
  @MaxLength(2000)
  words: string;
}
