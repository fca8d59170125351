import type { TeamNoteKind } from '@zesting/contract';
import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Something that one of the team wrote on a piece, for the team alone. */
@Check('ck_team_notes_kind', "kind in ('brief', 'comment')")
@Check('ck_team_notes_text', "text <> ''")
@Index('ix_team_notes_piece', ['pieceId', 'createdAt'], { where: 'removed_at is null' })
@Entity('team_notes')
export class TeamNote {
  @IdKey() id: string;
  @Refers('Client', 'fk_team_notes_client')
  @IdColumn()
  clientId: string;
  @Refers('Piece', 'fk_team_notes_piece')
  @IdColumn()
  pieceId: string;
  @Refers('Person', 'fk_team_notes_author')
  @IdColumn()
  authorId: string;
  @TextColumn() kind: TeamNoteKind;
  @TextColumn() text: string;
  @IdColumn({ array: true, default: () => "'{}'" }) assetIds: string[];
  @IdColumn({ array: true, default: () => "'{}'" }) mentionIds: string[];
  @InstantColumn() createdAt: string;
  @InstantColumn({ nullable: true }) editedAt: string | null;
  /** taken back: kept, shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
  @VersionColumn({ default: 1 }) version: number;
}
