import { Entity, PrimaryColumn } from 'typeorm';
import { BoolColumn, DayColumn, IdColumn, IntColumn, TextColumn } from '../../../platform/database/columns.js';

/** One stretch of work by one role on a piece's path. The client does the steps of kind *sign_off*. */
@Entity('steps')
export class Step {
  @PrimaryColumn('uuid', { generated: 'uuid' }) id: string;
  @IdColumn() pieceId: string;
  @TextColumn() key: string;
  @TextColumn() title: string;
  @TextColumn() kind: 'make' | 'check' | 'sign_off';
  @TextColumn() skill: string;
  @IdColumn({ nullable: true }) doerId: string | null;
  @IntColumn() spanDays: number;
  @IntColumn() effortMinutes: number;
  /** what the doer says is left; null: the whole effort */
  @IntColumn({ nullable: true }) remainingMinutes: number | null;
  @BoolColumn() sameDay: boolean;
  @IdColumn({ array: true }) predecessorIds: string[];
  @IntColumn() position: number;
  @IntColumn() round: number;
  @DayColumn({ nullable: true }) startedOn: string | null;
  @DayColumn({ nullable: true }) finishedOn: string | null;
  @TextColumn({ nullable: true }) remark: string | null;
  @DayColumn({ nullable: true }) assignedOn: string | null;
  /** counts up with each change of its doer */
  @IntColumn({ default: 1 }) version: number;
}
