import { Entity, Index, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Made } from '../../../platform/database/columns.js';

/** Who has a piece open, by window. */
@Index('ix_presences_piece', ['pieceId', 'seenAt'])
@Made('alter table presences set unlogged')
@Entity('presences')
export class Presence {
  @PrimaryColumn('uuid') tabId: string;
  @IdColumn() personId: string;
  @IdColumn() pieceId: string;
  @InstantColumn() seenAt: string;
}
