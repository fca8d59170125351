import { Check, Entity, Index } from 'typeorm';
import { IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A piece that goes before a marker, with it, or after it. */
@Check('ck_run_ups_offset', 'offset_days between -365 and 365')
@Index('ix_run_ups_marker', ['markerId', 'offsetDays'])
@Entity('run_ups')
export class RunUp {
  @IdKey() id: string;
  @Refers('Marker', 'fk_run_ups_marker', { onDelete: 'CASCADE' })
  @IdColumn()
  markerId: string;
  @Refers('Client', 'fk_run_ups_client')
  @IdColumn()
  clientId: string;
  /** days from the marker's first day; below 0: before it */
  @IntColumn() offsetDays: number;
  @TextColumn() title: string;
  @Refers('Channel', 'fk_run_ups_channel')
  @IdColumn()
  channelId: string;
  @Refers('Route', 'fk_run_ups_route')
  @IdColumn()
  routeId: string;
  /** what was made of it */
  @Refers('Piece', 'fk_run_ups_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  @InstantColumn() createdAt: string;
}
