import type { Content, PartDigests } from '@zesting/core';
import { Entity, Unique } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, JsonColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** An unchangeable snapshot of a piece's content. */
@Unique('uq_versions_number', ['pieceId', 'number'])
@Entity('versions')
export class Version {
  @IdKey() id: string;
  @Refers('Piece', 'fk_versions_piece')
  @IdColumn()
  pieceId: string;
  @IntColumn() number: number;
  @JsonColumn() content: Content;
  @JsonColumn() digests: PartDigests;
  /** by which the digests were made */
  @TextColumn() scheme: string;
  @InstantColumn() frozenAt: string;
  @Refers('Person', 'fk_versions_person')
  @IdColumn({ nullable: true })
  frozenBy: string | null;
}
