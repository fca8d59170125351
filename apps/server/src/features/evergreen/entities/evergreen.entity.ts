import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { DayColumn, IdColumn, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A piece that lasts: how long it rests on a channel, how often it goes out there, and until when what it says holds. */
@Check('ck_evergreens_rest', '(rest_days >= 1) and (coalesce(times_most, 1) >= 1)')
@Index('ix_evergreens_client', ['clientId'])
@Entity('evergreens')
export class Evergreen {
  @Refers('Piece', 'fk_evergreens_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Client', 'fk_evergreens_client')
  @IdColumn()
  clientId: string;
  @IntColumn() restDays: number;
  @IntColumn({ nullable: true }) timesMost: number | null;
  @DayColumn({ nullable: true }) untilOn: string | null;
  @TextColumn() markedBy: string;
  @InstantColumn() markedAt: string;
  @IntColumn() version: number;
}
