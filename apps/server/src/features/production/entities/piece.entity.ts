import { Entity, PrimaryColumn } from 'typeorm';
import type { Content, PartDigests } from '@zesting/core';
import { BoolColumn, DayColumn, IdColumn, InstantColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** One item of content for one client. What follows from it (stage, dates) is written by planning. */
@Entity('pieces')
export class Piece {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IntColumn({ generated: 'increment', insert: false, update: false }) number: number;
  @IdColumn() clientId: string;
  @IdColumn({ nullable: true }) requestId: string | null;
  @IdColumn() routeId: string;
  @IdColumn() formatId: string;
  @IdColumn({ nullable: true }) pillarId: string | null;
  @TextColumn() title: string;
  @TextColumn() notes: string;
  @DayColumn({ nullable: true }) wishOn: string | null;
  @BoolColumn() shelved: boolean;
  @IntColumn() round: number;
  @JsonColumn() content: Content;
  @IntColumn() contentVersion: number;
  @JsonColumn() digests: PartDigests;
  @IntColumn() version: number;
  @InstantColumn() createdAt: string;
}
