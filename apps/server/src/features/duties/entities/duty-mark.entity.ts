import { Check, Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, IntColumn, oneOf, Refers, TextColumn } from '../../../platform/database/columns.js';

export const DUTY_MARKS = ['open', 'done', 'left_out', 'made', 'missed'] as const;

/** What was said of one time of a duty; `missed` where its rule was changed afterwards. */
@Check('ck_duty_marks_mark', oneOf('mark', DUTY_MARKS))
@Check('ck_duty_marks_made', "(mark = 'made') = (piece_id is not null)")
@Entity('duty_marks')
export class DutyMark {
  @Refers('Duty', 'fk_duty_marks_duty', { onDelete: 'CASCADE' })
  @PrimaryColumn('uuid', { primaryKeyConstraintName: 'pk_duty_marks' })
  dutyId: string;
  /** the day of the rule */
  @PrimaryColumn('date', { primaryKeyConstraintName: 'pk_duty_marks' })
  onDay: string;
  @TextColumn() mark: (typeof DUTY_MARKS)[number];
  @IntColumn({ array: true, default: () => "'{}'" }) ticks: number[];
  @Refers('Person', 'fk_duty_marks_person')
  @IdColumn({ nullable: true })
  personId: string | null;
  @Refers('Piece', 'fk_duty_marks_piece')
  @IdColumn({ nullable: true })
  pieceId: string | null;
  @InstantColumn() at: string;
}
