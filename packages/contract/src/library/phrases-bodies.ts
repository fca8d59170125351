import { PHRASE_KINDS, type PhraseKind } from '@zesting/core';
import { IsIn, IsString, IsUUID, MaxLength } from 'class-validator';
import { IsNotBlank, OrNull } from '../fields/index.js';

/** A first line, a last one, a call to action or a text to start from, kept for a client. */
export class PhraseBody {
  @IsIn(PHRASE_KINDS)
  kind: PhraseKind;

  @IsString()
  @IsNotBlank()
  @MaxLength(5000)
  text: string;

  /** null: for any */
  @OrNull()
  @IsUUID('all')
  pillarId: string | null;
}

/** That a phrase was put into a piece. */
export class PhraseUsedBody {
  @IsUUID()
  phraseId: string;
}

export class PhraseMadeShape {
  phraseId: string;
}

export class PhraseShape {
  id: string;
  kind: PhraseKind;
  text: string;
  pillarId: string | null;
  pillarName: string | null;
  /** into so many pieces it was put */
  used: number;
  /** when it was last */
  lastAt: string | null;
  version: number;
}

export class PhrasesShape {
  phrases: PhraseShape[];
  archived: PhraseShape[];
}

/** A client’s phrases as they are offered for a piece: those for its pillar first, of these the ones that were not used for longest. */
export class OfferedPhrasesShape {
  phrases: PhraseShape[];
}
