import { PHRASE_KINDS, type PhraseKind } from '@zesting/core';
import { Check, Entity, Index, PrimaryColumn, VersionColumn } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What is kept to be written again. */
@Check('ck_phrases_kind', oneOf('kind', PHRASE_KINDS))
@Check('ck_phrases_text', "text <> ''")
@Index('ix_phrases_client', ['clientId'])
@Entity('phrases')
export class Phrase {
  @IdKey() id: string;
  @Refers('Client', 'fk_phrases_client')
  @IdColumn()
  clientId: string;
  @TextColumn() kind: PhraseKind;
  @TextColumn() text: string;
  @Refers('Pillar', 'fk_phrases_pillar')
  @IdColumn({ nullable: true })
  pillarId: string | null;
  @InstantColumn() madeAt: string;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}

/** That a phrase was put into a piece; once more is the same use, at a later time. */
@Entity('phrase_uses')
export class PhraseUse {
  @Refers('Phrase', 'fk_phrase_uses_phrase')
  @PrimaryColumn('uuid')
  phraseId: string;
  @Refers('Piece', 'fk_phrase_uses_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @InstantColumn() usedAt: string;
}
