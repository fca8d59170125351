import { Check, Entity, Index } from 'typeorm';
import { DayColumn, IdColumn, IdKey, InstantColumn, IntColumn, Refers, TextColumn } from '../../../platform/database/columns.js';

/** A stretch of work on a step, by the clock or typed. It stays when its step goes from the path. */
@Check('ck_worked_minutes', '(minutes is null and started_at is not null) or (minutes > 0)')
@Index('uq_worked_clock', ['personId'], { unique: true, where: '(minutes is null) and (removed_at is null)' })
@Index('ix_worked_step', ['stepId', 'onDay'])
@Index('ix_worked_piece', ['pieceId'])
@Entity('worked')
export class Worked {
  @IdKey() id: string;
  @Refers('Client', 'fk_worked_client')
  @IdColumn()
  clientId: string;
  @Refers('Piece', 'fk_worked_piece')
  @IdColumn()
  pieceId: string;
  @IdColumn() stepId: string;
  /** as the step was called then */
  @TextColumn() stepTitle: string;
  @Refers('Person', 'fk_worked_person')
  @IdColumn()
  personId: string;
  /** the person's day */
  @DayColumn() onDay: string;
  /** null: typed */
  @InstantColumn({ nullable: true }) startedAt: string | null;
  /** null: the clock runs */
  @IntColumn({ nullable: true }) minutes: number | null;
  /** taken back: kept, shown to nobody */
  @InstantColumn({ nullable: true }) removedAt: string | null;
}
