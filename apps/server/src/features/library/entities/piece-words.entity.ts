import type { CopyLanguage } from '@zesting/core';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Made, Refers, TextColumn } from '../../../platform/database/columns.js';

/** The words of a piece as they are looked for: title, tags, copy, and what stands around them, in the language of its client. */
@Index('ix_piece_words_made', ['madeAt', 'pieceId'])
@Index('ix_piece_words_client', ['clientId', 'madeAt', 'pieceId'])
@Made('create index ix_piece_words on piece_words using gin (words)')
@Entity('piece_words')
export class PieceWords {
  @Refers('Piece', 'fk_piece_words_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Client', 'fk_piece_words_client')
  @IdColumn()
  clientId: string;
  @TextColumn() language: CopyLanguage;
  /** when the piece was begun */
  @InstantColumn() madeAt: string;
  @Column({ type: 'tsvector' }) words: string;
}
