import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsBoolean, IsString, MaxLength, ValidateNested } from 'class-validator';
import { OutlineHeadingBody } from '../production/index.js';

/** Something that the brief says, for whoever drafts. */
export class AidAnswerBody {
  @IsString()
  @MaxLength(500)
  question: string;

  @IsString()
  @MaxLength(20_000)
  answer: string;
}

/** What a writing aid outside of Zesting is told of a piece: what somebody chose of it, and nothing else of its brief. */
export class AidAskBody {
  /** the first words; empty: none are given */
  @IsString()
  @MaxLength(5000)
  opening: string;

  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => OutlineHeadingBody)
  outline: OutlineHeadingBody[];

  @IsArray()
  @ArrayMaxSize(60)
  @ValidateNested({ each: true })
  @Type(() => AidAnswerBody)
  answers: AidAnswerBody[];

  /** with headings, lists and links, as docs/formats.md has them */
  @IsBoolean()
  isLaidOut: boolean;
}

/** What a writing aid wrote: nobody has read it, and nothing is saved. */
export class AidDraftShape {
  draft: string;
}
