import { Entity, PrimaryColumn } from 'typeorm';
import { isoText } from '../../../platform/database/columns.js';

/** When the demo was left for good: no start loads it again. */
@Entity('demo_left')
export class DemoLeft {
  @PrimaryColumn('timestamptz', { transformer: isoText }) at: string;
}
