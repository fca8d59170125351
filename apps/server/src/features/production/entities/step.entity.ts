import { DANGERS, STEP_KINDS, type Danger, type StepKind } from '@zesting/core';
import { Check, Entity, Index } from 'typeorm';
import {
  BoolColumn,
  DERIVED,
  DayColumn,
  IdColumn,
  IdKey,
  IntColumn,
  Made,
  oneOf,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** One stretch of work by one role on a piece's path. The client does the steps of the kinds *deliver* and *sign_off*. */
@Check('ck_steps_client_signs', "(kind not in ('deliver', 'sign_off')) or (doer_id is null)")
@Check('ck_steps_with', '(with_id is null) or ((doer_id is not null) and (with_id <> doer_id))')
@Check('ck_steps_finished', '(finished_on is null) or (started_on is not null)')
@Check('ck_steps_kind', oneOf('kind', STEP_KINDS))
@Check('ck_steps_danger', oneOf('danger', DANGERS))
@Check('ck_steps_effort', 'effort_minutes >= 0')
@Check('ck_steps_remaining', 'remaining_minutes >= 0')
@Check('ck_steps_span', 'span_days >= 1')
@Index('ix_steps_doer', ['doerId'], { where: 'finished_on is null' })
@Index('ix_steps_doer_piece', ['doerId', 'pieceId'], { where: 'doer_id is not null' })
@Index('ix_steps_with', ['withId', 'pieceId'], { where: 'with_id is not null' })
@Index('ix_steps_ended', ['kind', 'skill', 'finishedOn'], { where: 'started_on is not null' })
@Index('ix_steps_predicted', ['pieceId'], { where: 'predicted_start_on is not null' })
@Made('create index ix_steps_piece on steps (piece_id, position)')
@Entity('steps')
export class Step {
  @IdKey() id: string;
  @Refers('Piece', 'fk_steps_piece')
  @IdColumn()
  pieceId: string;
  @TextColumn() key: string;
  @TextColumn() title: string;
  @TextColumn() kind: StepKind;
  @TextColumn() skill: string;
  @Refers('Person', 'fk_steps_doer')
  @IdColumn({ nullable: true })
  doerId: string | null;
  /** who takes it together with its doer, to learn it: none of its hours are theirs */
  @Refers('Person', 'fk_steps_with')
  @IdColumn({ nullable: true })
  withId: string | null;
  @IntColumn() spanDays: number;
  @IntColumn({ default: 0 }) effortMinutes: number;
  @BoolColumn({ default: false }) sameDay: boolean;
  @IdColumn({ array: true, default: () => "'{}'" }) predecessorIds: string[];
  @IntColumn() position: number;
  @IntColumn({ default: 1 }) round: number;
  @DayColumn({ nullable: true }) startedOn: string | null;
  @DayColumn({ nullable: true }) finishedOn: string | null;
  @TextColumn({ nullable: true }) remark: string | null;
  @DayColumn({ nullable: true }) assignedOn: string | null;
  /** when whoever it was given to took it on; null: nobody has, or they need not */
  @DayColumn({ nullable: true }) acceptedOn: string | null;
  /** what the doer says is left; null: the whole effort */
  @IntColumn({ nullable: true }) remainingMinutes: number | null;
  /** a latest finish set by hand: it stays when all else is planned anew */
  @DayColumn({ nullable: true }) pinnedFinishOn: string | null;
  /** may be left out of the path */
  @BoolColumn({ default: false }) optional: boolean;
  /** what is looked at before it is handed in, line by line */
  @TextColumn({ array: true, default: () => "'{}'" }) checklist: string[];
  /** counts up with each change that somebody makes to it */
  @IntColumn({ default: 1 }) version: number;
  // kept by planning
  @DayColumn({ ...DERIVED, nullable: true }) latestStartOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) latestFinishOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) earliestStartOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) earliestFinishOn: string | null;
  @IntColumn({ ...DERIVED, nullable: true }) slackDays: number | null;
  @TextColumn({ ...DERIVED, nullable: true }) danger: Danger | null;
  @DayColumn({ ...DERIVED, nullable: true }) predictedStartOn: string | null;
  @DayColumn({ ...DERIVED, nullable: true }) predictedFinishOn: string | null;
  @IntColumn({ ...DERIVED, default: 0 }) behindSteps: number;
}
