import { GOAL_MEASURES, type GoalMeasure, type GoalStepBody } from '@zesting/contract';
import { Check, Column, Entity, Index } from 'typeorm';
import {
  DayColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  oneOf,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** From where to where a measure of a client shall go, and by when. */
@Check('ck_goals_measure', oneOf('measure', GOAL_MEASURES))
@Check('ck_goals_order', 'by_on > start_on')
@Check('ck_goals_way', 'target <> start_value')
@Index('ix_goals_client', ['clientId', 'byOn'])
@Entity('goals')
export class Goal {
  @IdKey() id: string;
  @Refers('Client', 'fk_goals_client')
  @IdColumn()
  clientId: string;
  @TextColumn() name: string;
  /** null: of the client as a whole */
  @Refers('Channel', 'fk_goals_channel')
  @IdColumn({ nullable: true })
  channelId: string | null;
  @TextColumn() measure: GoalMeasure;
  @TextColumn({ default: () => "''" }) unit: string;
  @Column('double precision') startValue: number;
  @Column('double precision') target: number;
  @DayColumn() startOn: string;
  @DayColumn() byOn: string;
  @IdColumn({ array: true, default: () => "'{}'" }) pillarIds: string[];
  @JsonColumn({ default: () => "'[]'" }) steps: GoalStepBody[];
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}
