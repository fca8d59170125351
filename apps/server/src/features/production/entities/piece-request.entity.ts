import { Entity, Index, PrimaryColumn } from 'typeorm';
import { BoolColumn, Refers } from '../../../platform/database/columns.js';

/** That a piece answers a request: a request can become several pieces, and a piece stand for several requests. */
@Index('ix_piece_requests_request', ['requestId'])
@Entity('piece_requests')
export class PieceRequest {
  @Refers('Piece', 'fk_piece_requests_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Request', 'fk_piece_requests_request')
  @PrimaryColumn('uuid')
  requestId: string;
  /** whether the piece was begun for this request, and not there before */
  @BoolColumn({ default: false }) made: boolean;
}
