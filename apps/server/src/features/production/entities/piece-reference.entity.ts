import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { Refers } from '../../../platform/database/columns.js';

/** That a piece was begun from another of the same client: what the older has, its files too, is at hand in the newer. */
@Check('ck_piece_references_other', 'piece_id <> of_piece_id')
@Index('ix_piece_references_of', ['ofPieceId'])
@Entity('piece_references')
export class PieceReference {
  @Refers('Piece', 'fk_piece_references_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Piece', 'fk_piece_references_of')
  @PrimaryColumn('uuid')
  ofPieceId: string;
}
