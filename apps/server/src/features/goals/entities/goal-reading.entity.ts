import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Refers } from '../../../platform/database/columns.js';

/** What the measure of a goal was on a day, as somebody read it. */
@Entity('goal_readings')
export class GoalReading {
  @Refers('Goal', 'fk_goal_readings_goal')
  @PrimaryColumn('uuid', { primaryKeyConstraintName: 'pk_goal_readings' })
  goalId: string;
  @PrimaryColumn('date', { primaryKeyConstraintName: 'pk_goal_readings' })
  onDay: string;
  @Column('double precision') value: number;
}
