import { Entity, PrimaryColumn } from 'typeorm';
import type { Content, PartDigests } from '@zesting/core';
import { IdColumn, InstantColumn, IntColumn, JsonColumn } from '../../../platform/database/columns.js';

/** An unchangeable snapshot of a piece's content. */
@Entity('versions')
export class Version {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() pieceId: string;
  @IntColumn() number: number;
  @JsonColumn() content: Content;
  @JsonColumn() digests: PartDigests;
  @InstantColumn() frozenAt: string;
  @IdColumn({ nullable: true }) frozenBy: string | null;
}
