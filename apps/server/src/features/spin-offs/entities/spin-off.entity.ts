import { COPY_SHAPES, type CopyShape, type Fact, type Facts, type Offset } from '@zesting/core';
import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, IntColumn, JsonColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

/** That a piece is made from another: how, and how it stands to it. A piece has one source at most. */
@Check('ck_spin_offs_other', 'piece_id <> source_id')
@Check('ck_spin_offs_shape', oneOf('shape', COPY_SHAPES))
@Check('ck_spin_offs_stretch', '((from_second is null) = (to_second is null)) and ((to_second is null) or (to_second > from_second))')
@Index('ix_spin_offs_client', ['clientId', 'madeAt'])
@Index('ix_spin_offs_source', ['sourceId'])
@Index('ix_spin_offs_stale', ['clientId'], { where: 'cardinality(stale) > 0' })
@Entity('spin_offs')
export class SpinOff {
  @Refers('Piece', 'fk_spin_offs_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Piece', 'fk_spin_offs_source')
  @IdColumn()
  sourceId: string;
  @Refers('Client', 'fk_spin_offs_client')
  @IdColumn()
  clientId: string;
  @Refers('Spread', 'fk_spin_offs_spread')
  @IdColumn()
  spreadId: string;
  @TextColumn() lineKey: string;
  /** what it is called beside its source's title */
  @TextColumn() name: string;
  @TextColumn() shape: CopyShape;
  @TextColumn() callToAction: string;
  /** facts that are made anew for it and never follow */
  @TextColumn({ array: true }) anew: Fact[];
  @Refers('Guideline', 'fk_spin_offs_guideline')
  @IdColumn({ nullable: true })
  guidelineId: string | null;
  @TextColumn() obstacle: string;
  @JsonColumn() offset: Offset;
  /** where it begins and ends in the source, in seconds */
  @IntColumn({ nullable: true }) fromSecond: number | null;
  @IntColumn({ nullable: true }) toSecond: number | null;
  /** what the source said when it was last taken over, or looked at and not taken */
  @JsonColumn() seen: Facts;
  /** facts in which it is behind its source */
  @TextColumn({ array: true }) stale: Fact[];
  @InstantColumn() madeAt: string;
}
