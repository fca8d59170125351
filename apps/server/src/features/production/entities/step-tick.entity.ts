import { Entity, PrimaryColumn } from 'typeorm';
import { IdColumn, InstantColumn, Refers } from '../../../platform/database/columns.js';

/** That somebody has looked at one line of a step's checklist. */
@Entity('step_ticks')
export class StepTick {
  @Refers('Step', 'fk_step_ticks_step')
  @PrimaryColumn('uuid')
  stepId: string;
  /** of the line, from 0 */
  @PrimaryColumn('integer')
  position: number;
  @Refers('Person', 'fk_step_ticks_person')
  @IdColumn()
  personId: string;
  @InstantColumn() at: string;
}
