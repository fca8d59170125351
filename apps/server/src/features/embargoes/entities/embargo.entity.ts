import { Check, Entity, PrimaryColumn } from 'typeorm';
import { DayColumn, IdColumn, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** Between which days a piece may be out, and why. */
@Check('ck_embargoes_order', 'not_before_on <= not_after_on')
@Check('ck_embargoes_some', 'num_nonnulls(not_before_on, not_after_on) > 0')
@Entity('embargoes')
export class Embargo {
  @Refers('Piece', 'fk_embargoes_piece')
  @PrimaryColumn('uuid')
  pieceId: string;
  @Refers('Client', 'fk_embargoes_client')
  @IdColumn()
  clientId: string;
  @DayColumn({ nullable: true }) notBeforeOn: string | null;
  @DayColumn({ nullable: true }) notAfterOn: string | null;
  @TextColumn({ default: () => "''" }) why: string;
  @TextColumn() setBy: string;
  @InstantColumn() setAt: string;
  @IntColumn() version: number;
}
