import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import { DayColumn, IdColumn, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** What a contact was asked to bring for a step of kind *deliver*. It is there once somebody has asked. */
@Check('ck_deliveries_brought', '(brought_at is null) = (brought_by is null)')
@Index('ix_deliveries_contact', ['contactId'], { where: 'brought_at is null' })
@Entity('deliveries')
export class Delivery {
  @PrimaryColumn('uuid') stepId: string;
  @Refers('Piece', 'fk_deliveries_piece')
  @IdColumn()
  pieceId: string;
  @Refers('Contact', 'fk_deliveries_contact')
  @IdColumn()
  contactId: string;
  @TextColumn() words: string;
  /** as it was told: it does not move with the plan */
  @DayColumn() dueOn: string;
  @Refers('Person', 'fk_deliveries_person')
  @IdColumn()
  askedBy: string;
  @InstantColumn() askedAt: string;
  @IntColumn({ default: 1 }) times: number;
  @InstantColumn({ nullable: true }) broughtAt: string | null;
  /** the name of who said that everything is there */
  @TextColumn({ nullable: true }) broughtBy: string | null;
  @TextColumn({ default: () => "''" }) broughtWords: string;
}
