import type { TeamNoteKind } from '@zesting/contract';
import { Check, Entity, Index, VersionColumn } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Something that one of the team wrote on a piece or an idea, for the team alone. */
@Check('ck_team_notes_of', 'num_nonnulls(piece_id, idea_id) = 1 and (piece_id is null) = (client_id is null)')
@Index('ix_team_notes_idea', ['ideaId', 'createdAt'], { where: '(removed_at is null) and (idea_id is not null)' })
@Check('ck_team_notes_kind', "kind in ('brief', 'comment')")
@Check('ck_team_notes_text', "text <> ''")
@Index('ix_team_notes_piece', ['pieceId', 'createdAt'], { where: 'removed_at is null' })
@Entity('team_notes')
export class TeamNote {
  @IdKey() id: string;
  @Refers('Client', 'fk_team_notes_client')
  @IdColumn({ nullable: true })
  clientId: string | null;
  @Refers('Piece', 'fk_team_notes_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  /** it is of whichever client has the idea */
  @Refers('Idea', 'fk_team_notes_idea')
  @IdColumn({ nullable: true })
  ideaId: string | null;
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
