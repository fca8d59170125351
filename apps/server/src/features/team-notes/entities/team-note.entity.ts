import type { TeamNoteKind } from '@zesting/contract';
import { Entity, PrimaryColumn, VersionColumn } from 'typeorm';
import { IdColumn, InstantColumn, TextColumn } from '../../../platform/database/columns.js';

/** Something that one of the team wrote on a piece, for the team alone. */
@Entity('team_notes')
export class TeamNote {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() clientId: string;
  @IdColumn() pieceId: string;
  @IdColumn() authorId: string;
  @TextColumn() kind: TeamNoteKind;
  @TextColumn() text: string;
  @IdColumn({ array: true }) assetIds: string[];
  @IdColumn({ array: true }) mentionIds: string[];
  @InstantColumn() createdAt: string;
  @InstantColumn({ nullable: true }) editedAt: string | null;
  /** taken back: kept, shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
  @VersionColumn() version: number;
}
